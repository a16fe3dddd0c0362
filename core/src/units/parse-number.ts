import { CalculationError } from '../errors.ts'

export type DecimalMark = '.' | ','

/** Powers of ten that a double holds exactly. */
const TENS = Array.from({ length: 16 }, (_, i) => 10 ** i)
const MARKS = { '.': 46, ',': 44 } as const

/**
 * Most numbers by far: up to 15 digits with at most the picked mark between them; undefined for all others. Both the digits and the power of ten are exact,
 * so that their quotient is the nearest double, as it is by `Number`.
 */
function plainNumber(text: string, decimalMark: DecimalMark): number | undefined {
  const { length } = text
  const sign = text.charCodeAt(0)
  const from = sign === 45 || sign === 43 ? 1 : 0
  if (length - from > 16) return undefined
  let value = 0
  let digits = 0
  let markAt = -1
  for (let i = from; i < length; i++) {
    const code = text.charCodeAt(i)
    if (code >= 48 && code <= 57) {
      value = 10 * value + (code - 48)
      digits++
    } else if (code === MARKS[decimalMark] && markAt < 0 && digits > 0 && i < length - 1) markAt = i
    else return undefined
  }
  if (digits === 0 || digits > 15) return undefined
  const exact = markAt < 0 ? value : value / (TENS[length - 1 - markAt] as number)
  return sign === 45 ? -exact : exact
}

const BLANKS = /[\s\u00a0\u202f\u2009]/g

/**
 * Reads a typed number with one separator at most. The picked mark is always decimal; the other one is read as decimal
 * too, except in the shape of thousands (1 to 3 digits, mark, 3 digits, no leading 0), which is refused with both readings.
 * @example parseNumber('9,2', '.') // 9.2
 * Errors: `unreadable`, `ambiguous`.
 */
export function parseNumber(text: string, decimalMark: DecimalMark = '.', field = 'number'): number {
  const found = plainNumber(text, decimalMark)
  if (found !== undefined) return found
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
