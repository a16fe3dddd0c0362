import { CalculationError } from '../errors.ts'
import { mean } from './moments.ts'
import { studentTQuantile } from './student-t.ts'

export interface ABAEffect {
  /** What B does, s. */
  readonly effectS: number
  readonly standardErrorS: number
  readonly degreesOfFreedom: number
  readonly intervalS: { readonly from: number; readonly to: number }
  /** How the laps drift by themselves, s a lap. */
  readonly driftSPerLap: number
}

/**
 * What a change does that was put in and taken out again: least squares on the lap's number and on B, so that what drifts (tyres, track, driver) does not count
 * for it. Each lap has its number in the order driven, so that outlaps between stints count as time. Source: H.10. Rejects stints without two laps in all more
 * than needed, and laps in which B and the order cannot be told apart.
 * @example abaEffect([[92.4, 92.3, 92.5], [92, 92.1, 91.95], [92.6, 92.75, 92.65]]).effectS // -0.5167
 */
export function abaEffect(stintsS: readonly (readonly number[])[]): ABAEffect {
  const laps = stintsS.flatMap((stint, i) => stint.map((lapS) => ({ lapS, isB: i % 2 === 1 })))
  if (stintsS.length < 3 || stintsS.some((stint) => stint.length < 1))
    throw new CalculationError('missing', 'stintsS', 'A, B and A again: three stints with a clean lap in each are the least.')
  if (laps.length < 5) throw new CalculationError('missing', 'stintsS', 'Five laps in all are the least: three of them say where the line lies.')
  const y = laps.map(({ lapS }) => lapS)
  const [yMean, iMean, bMean] = [mean(y), (laps.length - 1) / 2, mean(laps.map(({ isB }) => Number(isB)))]
  let [ii, bb, ib, iy, by] = [0, 0, 0, 0, 0]
  laps.forEach(({ lapS, isB }, index) => {
    const [i, b, d] = [index - iMean, Number(isB) - bMean, lapS - yMean]
    ii += i * i
    bb += b * b
    ib += i * b
    iy += i * d
    by += b * d
  })
  const determinant = ii * bb - ib * ib
  if (!(determinant > 1e-9 * ii * bb))
    throw new CalculationError('ambiguous', 'stintsS', 'B came last alone: it cannot be told from drift. Go back to A once more.')
  const driftSPerLap = (iy * bb - by * ib) / determinant
  const effectS = (by * ii - iy * ib) / determinant
  const left = laps.reduce((sum, { lapS, isB }, index) => sum + (lapS - yMean - driftSPerLap * (index - iMean) - effectS * (Number(isB) - bMean)) ** 2, 0)
  const degreesOfFreedom = laps.length - 3
  const standardErrorS = Math.sqrt(((left / degreesOfFreedom) * ii) / determinant)
  const wide = studentTQuantile(0.975, degreesOfFreedom) * standardErrorS
  return { effectS, standardErrorS, degreesOfFreedom, intervalS: { from: effectS - wide, to: effectS + wide }, driftSPerLap }
}
