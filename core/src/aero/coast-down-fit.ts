import { Matrix, solve } from 'ml-matrix'
import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import {
  type CoastPair,
  type CoastSample,
  coastSlopes,
  type KeptFit,
  missesOf,
  type PairFit,
  requireCoastRun,
  samplesOf,
  UNIT_KG,
  type Unknowns,
} from './coast-model.ts'

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
function leastSquares(start: Unknowns, samples: readonly CoastSample[], massKg: number, effectiveKg: number): Unknowns {
  const miss = (unknowns: Unknowns) => missesOf(unknowns, samples, massKg, effectiveKg)
  const sumOf = (misses: readonly number[]) => misses.reduce((sum, each) => sum + each * each, 0)
  let [now, misses, damping] = [start, miss(start), 1e-3]
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const slopes = new Matrix(coastSlopes(now, samples, massKg, effectiveKg)).transpose()
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
  const samples = samplesOf(pair)
  const found = leastSquares(startOf(pair, effectiveKg), samples, massKg, effectiveKg)
  const [aN, cNPerMps2, windMps, grade, out, back] = found
  if (!(aN > 0) || !(cNPerMps2 > 1e-3))
    throw new CalculationError(
      'inconsistent',
      'pairs',
      `The fit says ${aN > 0 ? 'air that pushes' : 'rolling that pushes'}: the two runs do not belong together, or the span is too short. Check directions and units.`,
    )
  const misses = missesOf(found, samples, massKg, effectiveKg)
  const residualMps = Math.sqrt(misses.reduce((sum, miss) => sum + miss * miss, 0) / misses.length)
  return { aN, cNPerMps2, windMps, grade, residualMps, startMps: [out, back] }
}

/**
 * The fit of a pair as it is kept: over the effective mass. Refuses what `fitPair` refuses.
 * @example keepFit(COAST_PAIR).cPerM // 0.000315
 */
export function keepFit(pair: CoastPair): KeptFit {
  const { aN, cNPerMps2, windMps, grade, residualMps, startMps } = fitPair(pair, UNIT_KG, UNIT_KG)
  return { aMps2: aN / UNIT_KG, cPerM: cNPerMps2 / UNIT_KG, windMps, slopeMps2: STANDARD_GRAVITY_MPS2 * grade, residualMps, startMps }
}
