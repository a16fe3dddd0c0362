"""Makes power-cases.json: seeded series with the answers of a general statistics library (scipy): Savitzky-Golay smoothing, Welch's test,
least squares and Kendall's S. Run: python3 make_power_cases.py"""
import json
import random

import scipy
from scipy import signal, stats

rng = random.Random(4600)


def series(count):
    return [200 + 30 * (i / count) + rng.gauss(0, 2) for i in range(count)]


def smoothed():
    made = []
    for window, order in [(5, 2), (9, 2), (11, 3), (15, 4), (21, 2)]:
        value = series(61)
        made.append({"value": value, "window": window, "order": order, "smooth": signal.savgol_filter(value, window, order, mode="interp").tolist()})
    return made


def compared():
    made = []
    for first, second, gain in [(3, 3, 0), (3, 4, 2), (5, 3, 6), (6, 6, 1), (2, 5, 4), (8, 7, 0.5)]:
        a = [300 + rng.gauss(0, 1) for _ in range(first)]
        b = [300 + gain + rng.gauss(0, 2) for _ in range(second)]
        found = stats.ttest_ind(b, a, equal_var=False)
        low, high = found.confidence_interval(0.95)
        made.append({"first": a, "second": b, "pValue": found.pvalue, "degreesOfFreedom": found.df, "low": low, "high": high})
    return made


def drifting():
    made = []
    for count, slope in [(4, 0), (5, -0.8), (6, -0.3), (8, 0.1), (12, -0.5)]:
        value = [300 + slope * i + rng.gauss(0, 0.6) for i in range(count)]
        found = stats.linregress(range(count), value)
        rises = sum((value[j] > value[i]) - (value[j] < value[i]) for i in range(count) for j in range(i + 1, count))
        made.append({"value": value, "slope": found.slope, "slopeSd": found.stderr, "pValue": found.pvalue, "kendallS": rises})
    return made


out = {"madeBy": f"scipy {scipy.__version__}", "smoothed": smoothed(), "compared": compared(), "drifting": drifting()}
with open("power-cases.json", "w") as file:
    json.dump(out, file, indent=1)
    file.write("\n")
