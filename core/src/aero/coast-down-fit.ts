import { Matrix, solve } from 'ml-matrix'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { mean, sampleSd } from '../stats/moments.ts'
import { speedAfter } from './coast-down.ts'
import type { RollingSchool } from './rolling-schools.ts'

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
type Unknowns = readonly [number, number, number, number, number, number]

/** Speed of a run by the unknowns: m v' = −(A + C (v + s w)² + s m g grade). `weightN` is that of the mass without what rotates. */
function modelMps([a, c, w, grade, out, back]: Unknowns, sign: 1 | -1, timeS: number, effectiveKg: number, weightN: number): number {
  const force = { aN: a + c * w * w + sign * weightN * grade, bNPerMps: 2 * sign * c * w, cNPerMps2: c, effectiveKg }
  return speedAfter(force, sign === 1 ? out : back, timeS)
}

/** Steps by which slopes of the model are found, per unknown. */
const STEPS: Unknowns = [0.05, 1e-5, 1e-3, 1e-6, 1e-3, 1e-3]

interface Samples {
  readonly sign: 1 | -1
  readonly timeS: number
  readonly speedMps: number
}

const moved = (unknowns: Unknowns, at: number, by: number): Unknowns => unknowns.map((value, i) => (i === at ? value + by : value)) as unknown as Unknowns

/**
 * Slopes of the speeds of a pair by its unknowns: a row a sample, a column an unknown.
 * Out first, then back. For the planner as well as the fit.
 */
export function coastSlopes(
  unknowns: Unknowns,
  samples: readonly { readonly sign: 1 | -1; readonly timeS: number }[],
  massKg: number,
  effectiveKg: number,
): Matrix {
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  const slopes = Matrix.zeros(samples.length, 6)
  for (let k = 0; k < 6; k++) {
    const step = itemAt(STEPS, k)
    const [up, down] = [moved(unknowns, k, step), moved(unknowns, k, -step)]
    for (const [i, { sign, timeS }] of samples.entries())
      slopes.set(i, k, (modelMps(up, sign, timeS, effectiveKg, weightN) - modelMps(down, sign, timeS, effectiveKg, weightN)) / (2 * step))
  }
  return slopes
}

/** Start values from straight lines of deceleration on v². */
function startOf({ out, back }: CoastPair, effectiveKg: number): Unknowns {
  const lines = [out, back].map(({ timeS, speedMps }) => {
    const n = timeS.length
    const stride = Math.max(1, Math.floor(n / 12))
    let [count, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0]
    for (let i = stride; i < n; i += stride) {
      const [v0, v1] = [itemAt(speedMps, i - stride), itemAt(speedMps, i)]
      const x = ((v0 + v1) / 2) ** 2
      const y = (effectiveKg * (v0 - v1)) / (itemAt(timeS, i) - itemAt(timeS, i - stride))
      count++
      sx += x
      sy += y
      sxx += x * x
      sxy += x * y
    }
    const c = (count * sxy - sx * sy) / (count * sxx - sx * sx)
    return { c, a: (sy - c * sx) / count }
  })
  const of = (key: 'a' | 'c') => lines.reduce((sum, line) => sum + line[key] / 2, 0)
  return [Math.max(10, of('a')), Math.max(0.05, of('c')), 0, 0, itemAt(out.speedMps, 0), itemAt(back.speedMps, 0)]
}

const MOST_ROUNDS = 60

/** Least squares by steps that are damped where they do not help. */
function leastSquares(start: Unknowns, samples: readonly Samples[], massKg: number, effectiveKg: number): Unknowns {
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  const miss = (unknowns: Unknowns) => samples.map(({ sign, timeS, speedMps }) => speedMps - modelMps(unknowns, sign, timeS, effectiveKg, weightN))
  const sumOf = (misses: readonly number[]) => misses.reduce((sum, each) => sum + each * each, 0)
  let [now, misses, damping] = [start, miss(start), 1e-3]
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const slopes = coastSlopes(now, samples, massKg, effectiveKg)
    const turned = slopes.transpose()
    const normal = turned.mmul(slopes)
    const right = turned.mmul(Matrix.columnVector(misses))
    let isBetter = false
    for (let tries = 0; tries < 12 && !isBetter; tries++) {
      const damped = normal.clone()
      for (let k = 0; k < 6; k++) damped.set(k, k, damped.get(k, k) * (1 + damping))
      const step = solve(damped, right).to1DArray()
      const next = now.map((value, i) => value + (step[i] ?? 0)) as unknown as Unknowns
      const nextMisses = next[1] > 1e-4 ? miss(next) : null
      if (nextMisses && sumOf(nextMisses) <= sumOf(misses)) {
        const gain = sumOf(misses) - sumOf(nextMisses)
        const isDone = gain <= 1e-14 * (1 + sumOf(misses))
        now = next
        misses = nextMisses
        damping = Math.max(1e-12, damping / 8)
        isBetter = true
        if (isDone) return now
      } else damping *= 6
    }
    if (!isBetter) return now
  }
  return now
}

/** More points than this tell a fit nothing more; means of as many in a row stand for them. */
const MOST_POINTS = 600

function thinned({ timeS, speedMps }: CoastRun): CoastRun {
  const stride = Math.ceil(timeS.length / MOST_POINTS)
  if (stride <= 1) return { timeS, speedMps }
  const starts = Array.from({ length: Math.ceil(timeS.length / stride) }, (_, i) => i * stride)
  const meanOf = (values: readonly number[], from: number) => mean(values.slice(from, from + stride))
  return { timeS: starts.map((from) => meanOf(timeS, from)), speedMps: starts.map((from) => meanOf(speedMps, from)) }
}

/**
 * Both runs of a pair fitted at once: m_e v' = −(A + C (v + s w)² + s m g grade), s +1 out and −1 back; unknown A, C, wind, grade and a start speed a run.
 * massKg is the real mass, effectiveKg with what rotates. Source: G.9 and the room's page; least squares with damped steps.
 * Refuses what `requireCoastRun` refuses, and (`inconsistent`) A or C of zero or less.
 * @example fitPair(COAST_PAIR, 1342, 1395.68).cNPerMps2 // 0.439635
 */
export function fitPair(pair: CoastPair, massKg: number, effectiveKg: number): PairFit {
  requireWithin(massKg, 100, 5000, 'massKg')
  requireWithin(effectiveKg, massKg, 1.3 * massKg, 'effectiveKg')
  requireCoastRun(pair.out, 'The run out')
  requireCoastRun(pair.back, 'The run back')
  const samplesOf = (run: CoastRun, sign: 1 | -1): Samples[] => {
    const { timeS, speedMps } = thinned(run)
    return timeS.map((t, i) => ({ sign, timeS: t - itemAt(run.timeS, 0), speedMps: itemAt(speedMps, i) }))
  }
  const samples = [...samplesOf(pair.out, 1), ...samplesOf(pair.back, -1)]
  const found = leastSquares(startOf(pair, effectiveKg), samples, massKg, effectiveKg)
  const [aN, cNPerMps2, windMps, grade, out, back] = found
  if (!(aN > 0) || !(cNPerMps2 > 1e-3))
    throw new CalculationError(
      'inconsistent',
      'pairs',
      `The fit says ${aN > 0 ? 'air that pushes' : 'rolling that pushes'}: the two runs do not belong together, or the span is too short. Check directions and units.`,
    )
  const weightN = massKg * STANDARD_GRAVITY_MPS2
  const residualMps = Math.sqrt(
    samples.reduce((sum, { sign, timeS, speedMps }) => sum + (speedMps - modelMps(found, sign, timeS, effectiveKg, weightN)) ** 2, 0) / samples.length,
  )
  return { aN, cNPerMps2, windMps, grade, residualMps, startMps: [out, back] }
}

/** How far a single pair may be off, over its drag area (common practice, no source). */
export const ONE_PAIR_RELATIVE_SD = 0.05
/** What rotates, as a share of the mass, where nobody said (common practice, no source). */
export const USUAL_ROTATING_SHARE = 0.04
export const USUAL_ROTATING_SD = 0.01

export interface CoastDownInput {
  readonly pairs: readonly CoastPair[]
  readonly massKg: number
  readonly massSdKg: number
  /** null: the usual share of the mass. */
  readonly rotatingKg: number | null
  readonly airDensityKgM3: number
  readonly airDensitySd: number
  readonly rollingSchool: RollingSchool
  /** Speed at which rolling has doubled, by the school that says it grows. */
  readonly rollingSpeedMps: number
}

export interface CoastDown {
  readonly dragAreaM2: number
  readonly dragAreaSdM2: number
  readonly rollingCoefficient: number
  readonly fits: readonly (PairFit & { readonly dragAreaM2: number })[]
  /** What more pairs do not take away: of mass, of what rotates, of the air. */
  readonly systematicSdM2: number
}

/**
 * Drag area and rolling of several pairs: the mean, with sd = hypot(s/√k, what mass, rotating mass and air bring). One pair counts for 5 %.
 * Never from the residual of a fit: gusts go through it. Source: the room's page, 2.9. Refuses what `fitPair` refuses; no pairs.
 * @example coastDown({ ...COAST, pairs: [COAST_PAIR] }).dragAreaM2 // 0.742
 */
export function coastDown(input: CoastDownInput): CoastDown {
  const { pairs, massKg, massSdKg, rotatingKg, airDensityKgM3, airDensitySd, rollingSchool, rollingSpeedMps } = input
  if (pairs.length === 0) throw new CalculationError('missing', 'pairs', 'One direction cannot tell wind and slope from drag. Run it back as well.')
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(massSdKg, 0, massKg, 'massSdKg')
  requirePositive(rollingSpeedMps, 'rollingSpeedMps')
  const rotating = rotatingKg ?? USUAL_ROTATING_SHARE * massKg
  const rotatingSd = rotatingKg === null ? USUAL_ROTATING_SD * massKg : 0
  const effectiveKg = massKg + rotating
  const fits = pairs.map((pair) => {
    const fit = fitPair(pair, massKg, effectiveKg)
    const grows = rollingSchool === 'growing' ? fit.aN / rollingSpeedMps ** 2 : 0
    return { ...fit, dragAreaM2: (2 * (fit.cNPerMps2 - grows)) / airDensityKgM3 }
  })
  const dragAreaM2 = fits.reduce((sum, fit) => sum + fit.dragAreaM2, 0) / fits.length
  const spread = fits.length === 1 ? ONE_PAIR_RELATIVE_SD * dragAreaM2 : sampleSd(fits.map((fit) => fit.dragAreaM2)) / Math.sqrt(fits.length)
  const massRelative = Math.hypot(massSdKg * (1 + rotating / massKg), rotatingSd) / effectiveKg
  const systematicSdM2 = dragAreaM2 * Math.hypot(massRelative, airDensitySd / airDensityKgM3)
  return {
    dragAreaM2,
    dragAreaSdM2: Math.hypot(spread, systematicSdM2),
    rollingCoefficient: fits.reduce((sum, fit) => sum + fit.aN, 0) / fits.length / (massKg * STANDARD_GRAVITY_MPS2),
    fits,
    systematicSdM2,
  }
}
