import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { mean } from '../stats/moments.ts'
import { speedAfter } from './coast-down.ts'

/** One run: times rising, s, and speeds over the ground, m/s. */
export interface CoastRun {
  readonly timeS: readonly number[]
  readonly speedMps: readonly number[]
}

export interface CoastPair {
  readonly out: CoastRun
  readonly back: CoastRun
}

export interface PairFit {
  readonly aN: number
  readonly cNPerMps2: number
  /** Along the road, into the run that went out: it is a head wind there above 0. */
  readonly windMps: number
  readonly grade: number
  /** How far samples lie from the fit, m/s; it says nothing of the result's doubt. */
  readonly residualMps: number
  readonly startMps: readonly [number, number]
}

const FEWEST_POINTS = 8
const LEAST_SPAN = 1.5
/** A car that coasts does not gain this much within this time: a gust, or a gear. */
const RISE_MPS = 0.5
const RISE_WITHIN_S = 1

/**
 * Whether a run can be fitted. Refuses (`bad-input`, `out-of-range`, `inconsistent`) too few points, a span of speed under 1.5 to 1 and a rise of speed, with the
 * time of it. `name` stands in the sentence.
 * @example requireCoastRun(COAST_PAIR.out, 'The run out') // undefined
 */
export function requireCoastRun({ timeS, speedMps }: CoastRun, name: string): void {
  if (timeS.length !== speedMps.length)
    throw new CalculationError('bad-input', name, `${name} has ${timeS.length} times and ${speedMps.length} speeds. Give one speed for each time.`)
  if (timeS.length < FEWEST_POINTS)
    throw new CalculationError(
      'out-of-range',
      name,
      `${name} has ${timeS.length} points. A fit needs ${FEWEST_POINTS} at least; record it faster or for longer.`,
    )
  let lowest = 0
  for (let i = 0; i < timeS.length; i++) {
    const [t, v] = [itemAt(timeS, i), itemAt(speedMps, i)]
    if (!Number.isFinite(t) || !Number.isFinite(v) || v < 0 || v > 150)
      throw new CalculationError('bad-input', name, `${name} has a speed of ${v} m/s at ${t} s. Check the column and its unit.`)
    if (i > 0 && t <= itemAt(timeS, i - 1)) throw new CalculationError('bad-input', name, `${name}: time does not rise at ${t} s. Check the time column.`)
    while (itemAt(timeS, lowest) < t - RISE_WITHIN_S) lowest++
    let least = v
    for (let k = lowest; k < i; k++) least = Math.min(least, itemAt(speedMps, k))
    if (v - least > RISE_MPS)
      throw new CalculationError('inconsistent', name, `${name}: speed rises at ${t.toFixed(0)} s: a gust or a gear. Cut the run there or set it aside.`)
  }
  const [most, least] = [Math.max(...speedMps), Math.min(...speedMps)]
  if (most < LEAST_SPAN * least)
    throw new CalculationError(
      'out-of-range',
      name,
      `${name} runs from ${most.toFixed(1)} to ${least.toFixed(1)} m/s. Air and rolling are told apart only over a span of 1.5 to 1: let it roll down to ${(most / LEAST_SPAN).toFixed(1)} m/s.`,
    )
}

/** The unknowns: A, C, wind, grade, and a start speed a run. */
export type Unknowns = readonly [number, number, number, number, number, number]

/** Speed of a run by the unknowns: m v' = −(A + C (v + s w)² + s m g grade). `weightN` is that of the mass without what rotates. */
function modelMps([a, c, w, grade, out, back]: Unknowns, sign: 1 | -1, timeS: number, effectiveKg: number, weightN: number): number {
  const force = { aN: a + c * w * w + sign * weightN * grade, bNPerMps: 2 * sign * c * w, cNPerMps2: c, effectiveKg }
  return speedAfter(force, sign === 1 ? out : back, timeS)
}

/** Steps by which slopes of the model are found, per unknown. */
const STEPS: Unknowns = [0.05, 1e-5, 1e-3, 1e-6, 1e-3, 1e-3]

export interface CoastSample {
  readonly sign: 1 | -1
  readonly timeS: number
  readonly speedMps: number
}

const moved = (unknowns: Unknowns, at: number, by: number): Unknowns => unknowns.map((value, i) => (i === at ? value + by : value)) as unknown as Unknowns

/**
 * Slopes of the speeds of a pair by its unknowns: a column of samples for each unknown. For the fit, for the planner, and to see whether a fit is one.
 */
export function coastSlopes(
  unknowns: Unknowns,
  samples: readonly { readonly sign: 1 | -1; readonly timeS: number }[],
  massKg: number,
  effectiveKg: number,
): number[][] {
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  return STEPS.map((step, k) => {
    const [up, down] = [moved(unknowns, k, step), moved(unknowns, k, -step)]
    return samples.map(({ sign, timeS }) => (modelMps(up, sign, timeS, effectiveKg, weightN) - modelMps(down, sign, timeS, effectiveKg, weightN)) / (2 * step))
  })
}

/** More points than this tell a fit nothing more; means of as many in a row stand for them. */
const MOST_POINTS = 240

/**
 * A run of at most 240 points: means of as many points in a row as it takes. It is what is kept of a run.
 * @example thinRun({ timeS: [0, 1, 2], speedMps: [30, 29, 28] }).speedMps // [30, 29, 28]
 */
export function thinRun({ timeS, speedMps }: CoastRun): CoastRun {
  const stride = Math.ceil(timeS.length / MOST_POINTS)
  if (stride <= 1) return { timeS, speedMps }
  const starts = Array.from({ length: Math.ceil(timeS.length / stride) }, (_, i) => i * stride)
  const meanOf = (values: readonly number[], from: number) => mean(values.slice(from, from + stride))
  return { timeS: starts.map((from) => meanOf(timeS, from)), speedMps: starts.map((from) => meanOf(speedMps, from)) }
}

/** How far each sample lies from the model. */
export function missesOf(unknowns: Unknowns, samples: readonly CoastSample[], massKg: number, effectiveKg: number): number[] {
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  return samples.map(({ sign, timeS, speedMps }) => speedMps - modelMps(unknowns, sign, timeS, effectiveKg, weightN))
}

/** Both runs of a pair, thinned, each from its own start. */
export function samplesOf({ out, back }: CoastPair): CoastSample[] {
  const of = (run: CoastRun, sign: 1 | -1): CoastSample[] => {
    const { timeS, speedMps } = thinRun(run)
    return timeS.map((t, i) => ({ sign, timeS: t - itemAt(timeS, 0), speedMps: itemAt(speedMps, i) }))
  }
  return [...of(out, 1), ...of(back, -1)]
}

/** What is kept of a pair: its fit over the effective mass, so that another mass of the test alters nothing that is stored. */
export interface KeptFit {
  /** A over the effective mass. */
  readonly aMps2: number
  /** C over the effective mass. */
  readonly cPerM: number
  readonly windMps: number
  /** What the slope gives the run that goes out, over the effective mass: m g grade/m_e. */
  readonly slopeMps2: number
  readonly residualMps: number
  readonly startMps: readonly [number, number]
}

/** Any mass will do where all is kept over it. */
export const UNIT_KG = 1000

/**
 * A kept fit with its masses, kg: that of the car, and with what rotates.
 * @example fitOf(keepFit(COAST_PAIR), 1342, 1395.68).cNPerMps2 // 0.439635
 */
export function fitOf({ aMps2, cPerM, slopeMps2, ...rest }: KeptFit, massKg: number, effectiveKg: number): PairFit {
  const grade = (slopeMps2 * effectiveKg) / (massKg * STANDARD_GRAVITY_MPS2)
  return { aN: aMps2 * effectiveKg, cNPerMps2: cPerM * effectiveKg, windMps: rest.windMps, grade, residualMps: rest.residualMps, startMps: rest.startMps }
}

/** A fit leaves nothing of what is missed along any of its unknowns: less than this of either. */
const STILL = 1e-3
const NO_MISS_MPS = 1e-4

/**
 * Whether a kept fit is that of its runs: what it misses is square to each of its unknowns, as least squares leave it. For a server that is handed both.
 * @example isFitOf(COAST_PAIR, keepFit(COAST_PAIR)) // true
 */
export function isFitOf(pair: CoastPair, kept: KeptFit): boolean {
  const { aN, cNPerMps2, windMps, grade, startMps } = fitOf(kept, UNIT_KG, UNIT_KG)
  const now: Unknowns = [aN, cNPerMps2, windMps, grade, ...startMps]
  if (!(aN > 0 && cNPerMps2 > 0)) return false
  const samples = samplesOf(pair)
  const misses = missesOf(now, samples, UNIT_KG, UNIT_KG)
  const missed = Math.hypot(...misses)
  if (missed < NO_MISS_MPS * Math.sqrt(misses.length)) return true
  return coastSlopes(now, samples, UNIT_KG, UNIT_KG).every(
    (slope) => Math.abs(slope.reduce((sum, each, i) => sum + each * itemAt(misses, i), 0)) < STILL * missed * Math.hypot(...slope),
  )
}
