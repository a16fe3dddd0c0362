import { CalculationError } from '../errors.ts'
import { type DecimalMark, parseNumber } from './parse-number.ts'
import { findUnit, type QuantityKind, quantityOf, spreadToSi, toSi } from './units.ts'

export interface ReadQuantity {
  /** In the record unit of the kind. */
  readonly value: number
  /** One standard deviation in the record unit, when "± x" or "max error x" was typed. */
  readonly sd?: number
  readonly unit: string
  readonly typed: string
}

const SPREAD = /\s*(±|\+\/?-|max(?:imum)? error)\s*(.+)$/i
const NUMBER_THEN_UNIT = /^([+\-\u2212]?[\d.,\s\u00a0\u202f]*\d[.,]?(?:e[+-]?\d+)?)\s*(.*)$/i

/**
 * Reads "41 lb", "9,2 kg" or "1 389.4 kg ± 0.5" into the record unit of its kind. No unit typed: `defaultUnit`.
 * A spread typed as ± is one standard deviation; "max error" is divided by √3 (even distribution).
 * Errors: `unreadable`, `ambiguous`, `unknown-unit`, `out-of-range` (a negative spread).
 * @example parseQuantity('9,2 kg ± 0.3', 'mass', { defaultUnit: 'kg' }).value // 9.2
 */
export function parseQuantity(text: string, kind: QuantityKind, options: { defaultUnit: string; decimalMark?: DecimalMark; field?: string }): ReadQuantity {
  const field = options.field ?? kind
  const spread = SPREAD.exec(text)
  const main = spread ? text.slice(0, spread.index) : text
  const clock = quantityOf(kind).clock?.read(main)
  if (clock !== undefined && !spread) return { value: clock, unit: options.defaultUnit, typed: text.trim() }
  const { number, unit } = splitUnit(main, kind, options.defaultUnit, field)
  const value = toSi(kind, parseNumber(number, options.decimalMark, field), unit)
  if (!spread) return { value, unit, typed: text.trim() }
  const read = splitUnit(spread[2] ?? '', kind, unit, field)
  const typedSd = parseNumber(read.number, options.decimalMark, field)
  if (typedSd < 0) throw new CalculationError('out-of-range', field, `The spread of ${field} is negative. Type it as ± and a positive number.`)
  const sd = spreadToSi(kind, typedSd, read.unit) / (/^max/i.test(spread[1] ?? '') ? Math.sqrt(3) : 1)
  return { value, sd, unit, typed: text.trim() }
}

function splitUnit(text: string, kind: QuantityKind, defaultUnit: string, field: string): { number: string; unit: string } {
  const parts = NUMBER_THEN_UNIT.exec(text.trim())
  if (!parts) return { number: text, unit: defaultUnit }
  const typedUnit = (parts[2] ?? '').trim()
  if (typedUnit === '') return { number: parts[1] ?? '', unit: defaultUnit }
  if (!/^[\p{L}%°"/·*.\d\s³²()-]+$/u.test(typedUnit)) return { number: text, unit: defaultUnit }
  const unit = findUnit(kind, typedUnit)
  if (!unit) {
    const known = quantityOf(kind)
      .units.map((entry) => entry.symbol)
      .filter(Boolean)
    throw new CalculationError('unknown-unit', field, `Nobody here knows the unit "${typedUnit}". Use one of: ${known.join(', ')}.`)
  }
  return { number: parts[1] ?? '', unit: unit.symbol }
}
