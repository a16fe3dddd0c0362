/** Why a calculation could not be made; the union is closed so that callers can be exhaustive. */
export type CalculationErrorCode =
  | 'bad-input'
  | 'out-of-range'
  | 'implausible'
  | 'missing'
  | 'unknown'
  | 'inconsistent'
  | 'ambiguous'
  | 'unknown-unit'
  | 'unreadable'
  | 'too-long'

/** The one error of the core: a code, the field it is about and a sentence that says the cure. */
export class CalculationError extends Error {
  readonly code: CalculationErrorCode
  readonly field: string

  constructor(code: CalculationErrorCode, field: string, message: string) {
    super(message)
    this.name = 'CalculationError'
    this.code = code
    this.field = field
  }
}

/** Rejects NaN and infinities, naming the field. */
export function requireFinite(value: number, field: string): number {
  if (!Number.isFinite(value)) throw new CalculationError('bad-input', field, `${field} is not a finite number. Give a plain number.`)
  return value
}

/** Rejects values of zero or less, naming the field. */
export function requirePositive(value: number, field: string): number {
  requireFinite(value, field)
  if (value <= 0) throw new CalculationError('out-of-range', field, `${field} is ${value}; it must be more than zero.`)
  return value
}

/** Rejects values outside [low, high], naming the field and the range. */
export function requireWithin(value: number, low: number, high: number, field: string): number {
  requireFinite(value, field)
  if (value < low || value > high) {
    throw new CalculationError('out-of-range', field, `${field} is ${value}; it must lie from ${low} to ${high}.`)
  }
  return value
}

/** Rejects a sweep or grid of more steps than a person can use, before any of it is made. */
export function requireSteps(count: number, most: number, field: string): number {
  if (!(count <= most)) throw new CalculationError('out-of-range', field, `${field} asks for more than ${most} steps. Take a larger step or a shorter range.`)
  return count
}
