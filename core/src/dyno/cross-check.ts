import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { median } from '../stats/moments.ts'
import { powerFromTorqueW } from './power-torque.ts'

export interface CrossCheck {
  /** Median of P/(T ω). */
  readonly ratio: number
  readonly passes: boolean
  /** What most likely went wrong, and what to change; absent when it passes. */
  readonly cause?: string
}

/** q = P/(T ω) that each wrong label leaves: labelled over true unit for power, true over labelled for torque and speed. */
const KNOWN_CAUSES: readonly (readonly [ratio: number, cause: string])[] = [
  [1.3410220896, 'power is in hp but labelled kW'],
  [1 / 1.3410220896, 'power is in kW but labelled hp'],
  [1.3596216173, 'power is in PS but labelled kW'],
  [1 / 1.3596216173, 'power is in kW but labelled PS'],
  [1.3558179483, 'torque is in lb·ft but labelled N·m'],
  [1 / 1.3558179483, 'torque is in N·m but labelled lb·ft'],
  [9.80665, 'torque is in kgf·m but labelled N·m'],
  [1 / 9.80665, 'torque is in N·m but labelled kgf·m'],
  [9.5492965855, 'the speed is in rad/s but labelled rpm'],
  [1000, 'power is in W but labelled kW'],
  [1 / 1000, 'power is in kW but labelled W'],
]
const TOLERANCE = 0.02
const INDISTINCT = 0.006

/**
 * Compares power with torque times angular speed, row by row: q = P/(T ω), median within 2 % of 1 passes; otherwise the nearest
 * known ratio names the likely cause. Rejects lists without a row in which all three are above zero.
 * Source: P = T ω; the list of causes is common practice, no source.
 */
export function crossCheckPower(rows: { speedRpm: readonly number[]; powerW: readonly number[]; torqueNm: readonly number[] }): CrossCheck {
  const ratios: number[] = []
  rows.speedRpm.forEach((speed, i) => {
    const [power, torque] = [itemAt(rows.powerW, i), itemAt(rows.torqueNm, i)]
    if (speed > 0 && power > 0 && torque > 0) ratios.push(power / powerFromTorqueW(torque, speed))
  })
  if (ratios.length === 0)
    throw new CalculationError('missing', 'powerW', 'No row has speed, power and torque above zero, so power cannot be checked against torque.')
  const ratio = median(ratios)
  if (Math.abs(ratio - 1) <= TOLERANCE) return { ratio, passes: true }
  return { ratio, passes: false, cause: likelyCause(ratio) }
}

function likelyCause(ratio: number): string {
  const distance = (known: number) => Math.abs(Math.log(ratio / known))
  const near = KNOWN_CAUSES.map(([known, cause]) => ({ cause, distance: distance(known) }))
    .filter((entry) => entry.distance <= TOLERANCE)
    .sort((a, b) => a.distance - b.distance)
  const [best] = near
  if (best) {
    const alike = near.filter((entry) => entry.distance - best.distance < INDISTINCT && entry !== best).map((entry) => entry.cause)
    return alike.length ? `${best.cause} (or ${alike.join(', or ')})` : best.cause
  }
  const gear = ratio > 1 ? ratio : 1 / ratio
  if (gear >= 1.5 && gear <= 20) {
    return `torque and speed are not of one shaft: an overall gear ratio of ${gear.toFixed(2)} lies between them (torque at the wheel with engine speed, or the other way round)`
  }
  return 'no single wrong unit explains it'
}
