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
