import { CalculationError } from '../../errors.ts'
import type { Change, MassValue } from '../../records/weight-kinds.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'

export interface ReadEntry {
  readonly kind: Change['kind']
  readonly count: number
  readonly name: string
  readonly zone: string | null
  /** What the line weighs, a piece; null where it was typed as not weighed and not guessed. */
  readonly mass: ReadMass | null
  /** A guess that was typed before the weighing of the same line. */
  readonly guess: ReadMass | null
}

export interface ReadMass {
  readonly massKg: number
  readonly sdKg: number | null
  readonly proof: MassValue['proof']
  /** As it was typed, with its unit and spread. */
  readonly typed: string
}

const HEAVIEST_PART_KG = 5000
const PROOFS: Record<string, MassValue['proof']> = { guess: 'guess', catalogue: 'catalogue', weighed: 'measured' }
const SHAPE = 'off | on | transfer, a count if more than one (2 x), the name, its mass (or ? for not known), then guess, catalogue or weighed, and @zone'
const MASS_AT_END =
  /^(.*?)(?:^|\s+)([+\-\u2212]?\d[\d.,\u00a0\u202f]*(?:e[+-]?\d+)?\s*(?:\p{L}{1,9})?(?:\s*(?:±|\+\/?-|max(?:imum)? error)\s*[\d.,]+\s*(?:\p{L}{1,9})?)?)$/iu

/**
 * Reads one ledger line: `off|on|transfer [N x] NAME MASS UNIT [guess|catalogue|weighed] [@ZONE to the end]`.
 * No unit: `massUnit`; no word: weighed. The mass is that of one piece. `NAME MASS UNIT guess MASS UNIT` keeps the guess beside the weighing;
 * `NAME ?` is a line nobody weighed or guessed.
 * Errors: `missing` (kind, name or mass), `out-of-range` (a mass of zero or less, or over 5,000 kg), and what parseQuantity refuses.
 * @example parseEntryLine('off rear bench 18.6 kg weighed @cabin', { massUnit: 'kg' }).mass.massKg // 18.6
 */
export function parseEntryLine(text: string, options: { massUnit: string; decimalMark?: DecimalMark }): ReadEntry {
  const [, kindWord = '', afterKind = ''] = /^\s*(\S*)\s*(.*)$/s.exec(text) ?? []
  const kind = kindWord.toLowerCase()
  if (kind !== 'off' && kind !== 'on' && kind !== 'transfer') {
    throw new CalculationError('missing', 'kind', `Start with off, on or transfer. A line is: ${SHAPE}.`)
  }
  const at = afterKind.search(/(^|\s)@/)
  const zone = at < 0 ? null : afterKind.slice(at).trim().slice(1).trim() || null
  const body = (at < 0 ? afterKind : afterKind.slice(0, at)).trim()
  const counted = /^(\d{1,4})\s*[x×]\s+(.*)$/i.exec(body)
  const count = counted ? Number(counted[1]) : 1
  if (count < 1) throw new CalculationError('out-of-range', 'count', 'A count is 1 or more.')
  const rest = counted ? (counted[2] ?? '') : body
  const unknown = /^(.*?)\s*\?$/.exec(rest)
  if (unknown) return { kind, count, name: requireName(unknown[1]), zone, mass: null, guess: null }
  const last = massAtEnd(rest, options)
  if (!last) throw new CalculationError('missing', 'mass', 'No mass was read. Put it after the name, such as 18.6 kg or 41 lb, or ? where nobody knows it.')
  const before = last.mass.proof === 'guess' || !/\sguess$/i.test(last.before) ? undefined : massAtEnd(last.before, options)
  return { kind, count, name: requireName((before ?? last).before), zone, mass: last.mass, guess: before?.mass ?? null }
}

function requireName(text: string | undefined): string {
  const name = (text ?? '').trim()
  if (name === '') throw new CalculationError('missing', 'name', 'No name was read. Put the name of the part before its mass.')
  return name
}

/** The mass that a text ends with, and what stands before it; undefined where it ends with none. */
function massAtEnd(text: string, options: { massUnit: string; decimalMark?: DecimalMark }): { before: string; mass: ReadMass } | undefined {
  const lastWord = /(?:^|\s)(guess|catalogue|weighed)$/i.exec(text)
  const proof = PROOFS[lastWord?.[1]?.toLowerCase() ?? 'weighed'] as MassValue['proof']
  const parts = MASS_AT_END.exec(lastWord ? text.slice(0, lastWord.index).trim() : text)
  if (!parts) return undefined
  const typed = (parts[2] ?? '').trim()
  const mass = parseQuantity(typed, 'mass', {
    defaultUnit: options.massUnit,
    field: 'mass',
    ...(options.decimalMark ? { decimalMark: options.decimalMark } : {}),
  })
  return { before: (parts[1] ?? '').trim(), mass: { massKg: requirePartMass(mass.value), sdKg: mass.sd ?? null, proof, typed } }
}

/**
 * Refuses a part of no mass or of more than 5,000 kg, in words for the person who typed it.
 * @example requirePartMass(6000, 'mass') // throws out-of-range
 */
export function requirePartMass(massKg: number): number {
  if (!(massKg > 0)) throw new CalculationError('out-of-range', 'mass', 'A mass is more than zero; off or on says which way it goes.')
  if (massKg > HEAVIEST_PART_KG) throw new CalculationError('out-of-range', 'mass', 'A part of over 5 000 kg cannot be. Check the number and its unit.')
  return massKg
}

/**
 * What a line weighs that went into a growing box: the reading with it in, less the reading before. Refuses a reading that did not grow.
 * @example boxDifferenceKg(1.2, 3.4) // throws out-of-range
 */
export function boxDifferenceKg(readingKg: number, beforeKg: number): number {
  if (!(readingKg > beforeKg))
    throw new CalculationError(
      'out-of-range',
      'mass',
      'The scale reads no more than before this part went in. Type what the scale reads now, with the whole box on it.',
    )
  return requirePartMass(readingKg - beforeKg)
}
