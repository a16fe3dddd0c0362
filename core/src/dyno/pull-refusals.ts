import { CalculationError } from '../errors.ts'
import type { CrossCheck } from './cross-check.ts'

/** More than a day at any dyno; a file with more has another column than a pull's name in the place of one. */
export const MOST_PULLS = 200

/** Refuses a file with more pulls than that; `heading` names the column that told them apart, null where none did. */
export const tooManyPulls = (heading: string | null) =>
  new CalculationError(
    'out-of-range',
    'file',
    heading === null
      ? `More than ${MOST_PULLS} pulls were found. Export fewer into one file.`
      : `More than ${MOST_PULLS} pulls were found: "${heading}" changes too often to be the name of a pull. Say under "Which column is what" that it is something else, or export fewer pulls.`,
  )

/** Refuses a speed column that runs up to no engine speed, with what it looks like. */
export function notEngineSpeed(fastest: number): CalculationError {
  const cause = fastest < 30 ? 'thousands of rpm, or a comma read as decimal' : fastest > 25_000 ? 'another unit, or another column' : 'rad/s, Hz or road speed'
  return new CalculationError(
    'out-of-range',
    'speed',
    `The speed column runs up to ${Number(fastest.toPrecision(6))}, which is no engine speed in rpm: it looks like ${cause}. Give engine speed in rpm.`,
  )
}

/** Refuses power and torque that do not belong to one speed, with the likely cause. */
export const unitsDoNotFit = ({ ratio, cause }: CrossCheck) =>
  new CalculationError(
    'inconsistent',
    'units',
    `Power and torque do not fit each other: power over torque times speed is ${ratio.toPrecision(4)} instead of 1. Likely cause: ${cause}. Say in which unit each column is, or correct the file, and read it again.`,
  )
