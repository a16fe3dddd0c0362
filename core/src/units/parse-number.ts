import { CalculationError } from '../errors.ts'

export type DecimalMark = '.' | ','

/** Most numbers by far: digits with at most the picked mark; they need no further look. */
const PLAIN = { '.': /^[+-]?\d{1,30}(?:\.\d{1,30})?$/, ',': /^[+-]?\d{1,30}(?:,\d{1,30})?$/ } as const
const BLANKS = /[\s\u00a0\u202f\u2009]/g

/**
 * Reads a typed number with one separator at most. The picked mark is always decimal; the other one is read as decimal
 * too, except in the shape of thousands (1 to 3 digits, mark, 3 digits, no leading 0), which is refused with both readings.
 * @example parseNumber('9,2', '.') // 9.2
 * Errors: `unreadable`, `ambiguous`.
 */
export function parseNumber(text: string, decimalMark: DecimalMark = '.', field = 'number'): number {
  if (PLAIN[decimalMark].test(text)) return Number(decimalMark === ',' ? text.replace(',', '.') : text)
  const plain = text
    .trim()
    .replace(BLANKS, '')
    .replace(/\u2212/g, '-')
  if (plain === '') throw new CalculationError('missing', field, `${field} is empty. Type a number.`)
  if (!/^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(plain)) {
    const separators = plain.match(/[.,]/g)?.length ?? 0
    const cure = separators > 1 ? 'Use one decimal mark and no thousands mark.' : 'Type a plain number, such as 12.5.'
    throw new CalculationError('unreadable', field, `"${text.trim()}" cannot be read as a number. ${cure}`)
  }
  const other = decimalMark === '.' ? ',' : '.'
  const shape = new RegExp(`^[+-]?[1-9]\\d{0,2}\\${other}\\d{3}$`)
  if (shape.test(plain)) {
    const asThousands = plain.replace(other, '')
    const asDecimal = plain.replace(other, decimalMark)
    throw new CalculationError('ambiguous', field, `"${text.trim()}" can be read two ways: type ${asThousands} or ${asDecimal}.`)
  }
  const value = Number(plain.replace(',', '.'))
  if (!Number.isFinite(value)) throw new CalculationError('unreadable', field, `"${text.trim()}" is too large to be read.`)
  return value
}
