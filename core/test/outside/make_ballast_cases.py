"""Makes ballast-cases.json: seeded random ballast problems with the answers of a general solver (scipy.optimize.milp), and corner
balance problems with the answers of a general minimiser of potential energy (scipy.optimize.minimize). Run: python3 make_ballast_cases.py"""
import json
import pathlib

import numpy as np
import scipy
from scipy.optimize import Bounds, LinearConstraint, milp, minimize

G = 9.80665
rng = np.random.default_rng(20261124)


def ballast_case():
    corners = rng.uniform(180, 340, 4)
    wheelbase, track_front, track_rear = rng.uniform(2.3, 2.9), rng.uniform(1.4, 1.6), rng.uniform(1.4, 1.6)
    rates = rng.uniform(25e3, 80e3, 4)
    sites = [
        {
            "xM": float(rng.uniform(-0.3, wheelbase + 0.5)),
            "yM": float(rng.uniform(-0.6, 0.6)),
            "zM": float(rng.uniform(0.1, 0.5)),
            "limitKg": float(rng.integers(15, 60)),
            "plates": [{"massKg": float(kg), "count": int(rng.integers(2, 9))} for kg in rng.choice([1.0, 2.5, 5.0, 10.0], size=2, replace=False)],
        }
        for _ in range(int(rng.integers(3, 7)))
    ]
    total = corners.sum()
    need = float(np.round(rng.uniform(15, 45)))
    weights = [float(w) for w in rng.uniform(0.5, 2, 2)]
    wanted = [float(rng.uniform(0.46, 0.56)), float(rng.uniform(0.48, 0.52))]
    return corners, wheelbase, track_front, track_rear, rates, sites, total, need, weights, wanted


def shares_per_kg(site, wheelbase, track_front, track_rear, rates):
    points = np.array([[0, track_front / 2], [0, -track_front / 2], [wheelbase, track_rear / 2], [wheelbase, -track_rear / 2]])
    b = np.column_stack([np.ones(4), points])
    k = np.diag(rates)
    return k @ b @ np.linalg.solve(b.T @ k @ b, np.array([1, site["xM"], site["yM"]]))


def solve_ballast(case):
    corners, wheelbase, tf, tr, rates, sites, total, need, weights, wanted = case
    columns = [(i, p["massKg"], p["count"]) for i, s in enumerate(sites) for p in s["plates"]]
    n = len(columns)
    per = [shares_per_kg(s, wheelbase, tf, tr, rates) for s in sites]
    smallest = min(c[1] for c in columns)
    cost = np.concatenate([[1e-4 * c[1] for c in columns], weights])
    loads = [corners[0] + corners[1], corners[1] + corners[2]]
    pick = [lambda p: p[0] + p[1], lambda p: p[1] + p[2]]
    rows, low, high = [], [], []
    rows.append([c[1] for c in columns] + [0, 0]); low.append(need); high.append(need + smallest)
    for i, s in enumerate(sites):
        rows.append([c[1] if c[0] == i else 0 for c in columns] + [0, 0]); low.append(0); high.append(s["limitKg"])
    for k in range(2):
        line = [c[1] * (pick[k](per[c[0]]) - wanted[k]) for c in columns]
        fixed = loads[k] - wanted[k] * total
        off = [-1.0 if j == k else 0.0 for j in range(2)]
        rows.append(line + off); low.append(-np.inf); high.append(-fixed)
        rows.append(line + [-o for o in off]); low.append(-fixed); high.append(np.inf)
    answer = milp(
        cost,
        constraints=LinearConstraint(np.array(rows), low, high),
        integrality=np.concatenate([np.ones(n), np.zeros(2)]),
        bounds=Bounds(np.zeros(n + 2), np.concatenate([[c[2] for c in columns], [np.inf, np.inf]])),
        options={"mip_rel_gap": 0},
    )
    if not answer.success:
        return None
    return float(np.dot(weights, answer.x[n:]))


def ballast():
    cases = []
    while len(cases) < 25:
        case = ballast_case()
        objective = solve_ballast(case)
        if objective is None:
            continue
        corners, wheelbase, tf, tr, rates, sites, total, need, weights, wanted = case
        names = ["LF", "RF", "LR", "RR"]
        cases.append(
            {
                "input": {
                    "corners": dict(zip(names, map(float, corners))),
                    "wheelbaseM": wheelbase,
                    "trackFrontM": tf,
                    "trackRearM": tr,
                    "rates": {"wheelRateNPerM": dict(zip(names, map(float, rates)))},
                    "sites": [{"id": str(i), **s} for i, s in enumerate(sites)],
                    "minimumKg": float(total + need),
                    "front": {"value": wanted[0], "weight": weights[0]},
                    "crossRfLr": {"value": wanted[1], "weight": weights[1]},
                    "objective": "nearestShares",
                },
                "objective": objective,
            }
        )
    return cases


def perches():
    """Energy of four springs whose seats were moved: 1/2 sum k (d_i + u_i)^2 - W z - Mx a - My b, least over heave, pitch and roll."""
    cases = []
    for _ in range(15):
        corners = rng.uniform(180, 340, 4)
        wheelbase, tf, tr = rng.uniform(2.3, 2.9), rng.uniform(1.4, 1.6), rng.uniform(1.4, 1.6)
        rates = rng.uniform(25e3, 80e3, 4)
        moves = rng.uniform(-0.004, 0.004, 4)
        points = np.array([[0, tf / 2], [0, -tf / 2], [wheelbase, tr / 2], [wheelbase, -tr / 2]])
        b = np.column_stack([np.ones(4), points])
        scale = np.array([1e-3, 1e-3, 1e-3])

        def energy(q):
            return 0.5 * np.sum(rates * (b @ (q * scale) + moves) ** 2)

        answer = minimize(energy, np.zeros(3), method="BFGS", options={"gtol": 1e-12})
        change = rates * (b @ (answer.x * scale) + moves) / G
        names = ["LF", "RF", "LR", "RR"]
        cases.append(
            {
                "input": {
                    "corners": dict(zip(names, map(float, corners))),
                    "wheelbaseM": wheelbase,
                    "trackFrontM": tf,
                    "trackRearM": tr,
                    "wheelRateNPerM": dict(zip(names, map(float, rates))),
                },
                "movesM": dict(zip(names, map(float, moves))),
                "cornersKg": dict(zip(names, map(float, corners + change))),
            }
        )
    return cases


out = {"madeBy": f"scipy {scipy.__version__}", "ballast": ballast(), "perches": perches()}
pathlib.Path(__file__).with_name("ballast-cases.json").write_text(json.dumps(out, indent=1) + "\n")
