import { CalculationError } from './errors.ts'

/**
 * What the work answers, or the refusal it ended in; any other error goes on.
 * @example attempt(() => toSi('mass', 1, 'stone')).code // 'unknown-unit'
 */
export function attempt<Result>(work: () => Result): Result | CalculationError {
  try {
    return work()
  } catch (error) {
    if (error instanceof CalculationError) return error
    throw error
  }
}

/**
 * What the work answers, or the other thing where it refuses or falls over: one figure of a room that cannot be worked out never closes the room.
 * @example orElse(() => toSi('mass', 1, 'stone'), () => null) // null
 */
export function orElse<Result, Other>(work: () => Result, other: (reason: string) => Other): Result | Other {
  try {
    return work()
  } catch (error) {
    return other(error instanceof CalculationError ? error.message : 'This cannot be worked out of what is stored. Check the numbers it rests on.')
  }
}
