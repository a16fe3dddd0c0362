import { CalculationError } from '../../errors.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity, type ReadQuantity } from '../../units/parse-quantity.ts'

export interface MassOptions {
  readonly massUnit: string
  readonly decimalMark?: DecimalMark
}

/** A mass at the end of a text, as it was written. */
export interface WrittenMass {
  readonly before: string
  readonly massKg: number
  readonly sdKg: number | null
  /** As it was typed, with its unit and spread and without its count. */
  readonly typed: string
  /** A range, or about so much: no scale read it. */
  readonly isRough: boolean
  /** Pieces written beside the mass; null where none were. */
  readonly count: number | null
}

const NUMBER = String.raw`\d[\d.,\u00a0\u202f]*(?:e[+-]?\d+)?`
const UNIT = String.raw`\p{L}{1,9}`
const SPREAD = String.raw`(?:\s*(?:±|\+\/?-|max(?:imum)? error)\s*[\d.,]+\s*(?:${UNIT})?)?`
const SINGLE = String.raw`[+\-\u2212]?${NUMBER}\s*(?:${UNIT})?${SPREAD}`
const COMPOUND = String.raw`(?:${NUMBER}\s*(?:lbs?|pounds?)\s*${NUMBER}\s*(?:oz|ounces?)|${NUMBER}\s*kg\s*${NUMBER}\s*g)`
const RANGE = String.raw`${NUMBER}\s*(?:(?!to\b)${UNIT})?\s*(?:\bto\b|[-–—])\s*${NUMBER}\s*(?:${UNIT})?`
const MASS_AT_END = new RegExp(
  String.raw`^(.*?)(?:^|\s+)((?:about|approx\.?|approximately|around|roughly|circa|ca\.?|~|≈)\s*)?(?:(\d{1,4})\s*[x×]\s*)?(${COMPOUND}|${RANGE}|${SINGLE})(?:\s*[x×]\s*(\d{1,4}))?$`,
  'iu',
)
const IS_COMPOUND = new RegExp(String.raw`^(${NUMBER}\s*\p{L}+)\s*(${NUMBER}\s*\p{L}+)$`, 'iu')
const IS_RANGE = new RegExp(String.raw`^(${NUMBER})\s*((?!to\b)${UNIT})?\s*(?:\bto\b|[-–—])\s*(${NUMBER})\s*(${UNIT})?$`, 'iu')
const IS_WHOLE_COMPOUND = new RegExp(`^${COMPOUND}$`, 'iu')

const quantity = (text: string, { massUnit, decimalMark }: MassOptions, unit = massUnit): ReadQuantity =>
  parseQuantity(text, 'mass', { defaultUnit: unit, field: 'mass', ...(decimalMark ? { decimalMark } : {}) })

/** One mass, pounds and ounces, or a range: its middle, with half of it over √3 as the spread of an even chance. */
function readMass(text: string, options: MassOptions): { massKg: number; sdKg: number | null; isRange: boolean } {
  const range = IS_RANGE.exec(text)
  if (range) {
    const [, low = '', lowUnit, high = '', highUnit] = range
    const ends = [
      quantity(`${low} ${lowUnit ?? highUnit ?? ''}`.trim(), options).value,
      quantity(`${high} ${highUnit ?? lowUnit ?? ''}`.trim(), options).value,
    ].sort((a, b) => a - b) as [number, number]
    return { massKg: (ends[0] + ends[1]) / 2, sdKg: (ends[1] - ends[0]) / 2 / Math.sqrt(3), isRange: true }
  }
  const parts = IS_WHOLE_COMPOUND.test(text) ? IS_COMPOUND.exec(text) : null
  if (parts) return { massKg: quantity(parts[1] ?? '', options).value + quantity(parts[2] ?? '', options).value, sdKg: null, isRange: false }
  const single = quantity(text, options)
  return { massKg: single.value, sdKg: single.sd ?? null, isRange: false }
}

/**
 * Reads the mass that a text ends with: `18.6 kg`, `16 lb 5 oz`, `800 to 900 lb`, `about 12 kg`, each with a count before or behind (`2 x 8 kg`, `8 kg x 2`).
 * Undefined where the text ends with none. Errors: what parseQuantity refuses, and `ambiguous` where digits before it may belong to it.
 * @example writtenMass('doors 2 x 31 kg', { massUnit: 'kg' }).count // 2
 */
export function writtenMass(text: string, options: MassOptions): WrittenMass | undefined {
  const found = MASS_AT_END.exec(text)
  if (!found) return undefined
  const [, before = '', about, countBefore, written = '', countBehind] = found
  if (countBefore !== undefined && countBehind !== undefined)
    throw new CalculationError('ambiguous', 'count', `Two counts stand beside ${written.trim()}: ${countBefore} and ${countBehind}. Type one of them.`)
  refuseSplitThousands(before, written)
  const { massKg, sdKg, isRange } = readMass(written.trim(), options)
  const count = countBefore ?? countBehind
  return {
    before: before.trim(),
    massKg,
    sdKg,
    typed: `${about?.trim() ? `${about.trim()} ` : ''}${written.trim()}`,
    isRough: isRange || about !== undefined,
    count: count === undefined ? null : Number(count),
  }
}

/** "engine 1 389.4 kg": a thousands blank, or the first engine? */
function refuseSplitThousands(before: string, written: string): void {
  const head = /(?:^|\s)(\d{1,3})$/.exec(before.trim())?.[1]
  if (head === undefined || head === '0' || !/^\d{3}(?!\d)/.test(written)) return
  const cure = `Type ${head}${written} without the blank, or give the part another name than "${before.trim()}".`
  throw new CalculationError('ambiguous', 'mass', `"${head} ${written}" can be one number or two. ${cure}`)
}
