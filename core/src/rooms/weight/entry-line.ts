import { CalculationError } from '../../errors.ts'
import type { Change, MassValue } from '../../records/weight-kinds.ts'
import { type MassOptions, type WrittenMass, writtenMass } from './entry-mass.ts'

export interface ReadEntry {
  readonly kind: Change['kind']
  readonly count: number
  readonly name: string
  readonly zone: string | null
  /** What the line weighs, a piece; null where it was typed as not weighed and not guessed. */
  readonly mass: ReadMass | null
  /** A guess that was typed before the weighing of the same line. */
  readonly guess: ReadMass | null
  /** Off for now: something goes back or replaces it, and nobody knows what. */
  readonly waits: boolean
  /** The off line that a transfer's pieces come from, by its name; null where none was named. */
  readonly from: string | null
  /** The off line that an on line replaces, by its name. */
  readonly replaces: string | null
}

export interface ReadMass {
  readonly massKg: number
  readonly sdKg: number | null
  readonly proof: MassValue['proof']
  /** As it was typed, with its unit and spread. */
  readonly typed: string
}

const HEAVIEST_PART_KG = 5000
const MOST_PIECES = 1000
const PROOFS: Record<string, MassValue['proof']> = { guess: 'guess', catalogue: 'catalogue', weighed: 'measured', 'worked out': 'calculated' }
const SHAPE =
  'off | on | transfer, the name, its mass (2 x 8 kg for two; ? for not known), then guess, catalogue, weighed or worked out, waits, from or replaces another part, and @zone'
const WORD_AT_END = /(?:^|\s+)(guess|catalogue|weighed|worked out|waits|each)$/i
const MASS_LEFT_OVER = /(?:^|[\s,;(])(\d[\d.,]*\s*(?:kg|kilos?|g|grams?|lbs?|pounds?|oz|ounces?))(?![\p{L}\d])/iu
const PIECES_LEFT_OVER = /(?:^|\s)(\d{1,4}\s*(?:pcs?|pieces?|pairs?)|pair of|\d{1,4}\s*[x×](?!\s*\d)|(?<!\d\s*)[x×]\s*\d{1,4})(?=\s|$)/iu

/**
 * Reads one ledger line: `off|on|transfer [N x] NAME MASS UNIT [guess|catalogue|weighed|worked out] [waits] [from PART|replaces PART] [@ZONE to the end]`.
 * No unit: `massUnit`; no word: weighed. The mass is that of one piece; its count stands before the name, or before or behind the mass. `NAME MASS UNIT guess
 * MASS UNIT` keeps the guess beside the weighing; `NAME ?` is a line nobody weighed or guessed. Pounds with ounces, ranges and "about" are read as people write
 * them; a range or "about" is a guess. Whatever other mass or number of pieces stands in the line is refused, never dropped.
 * Errors: `missing` (kind, name or mass), `out-of-range` (a mass of zero or less, or over 5,000 kg), `ambiguous`, and what parseQuantity refuses.
 * @example parseEntryLine('off rear bench 18.6 kg weighed @cabin', { massUnit: 'kg' }).mass.massKg // 18.6
 */
export function parseEntryLine(text: string, options: MassOptions): ReadEntry {
  const [, kindWord = '', afterKind = ''] = /^\s*(\S*)\s*(.*)$/s.exec(text) ?? []
  const kind = kindWord.toLowerCase()
  if (kind !== 'off' && kind !== 'on' && kind !== 'transfer')
    throw new CalculationError('missing', 'kind', `Start with off, on or transfer. A line is: ${SHAPE}.`)
  const at = afterKind.search(/(^|\s)@/)
  const zone = at < 0 ? null : afterKind.slice(at).trim().slice(1).trim() || null
  const body = (at < 0 ? afterKind : afterKind.slice(0, at)).trim()
  const { main, other } = splitOther(kind, body, options)
  const tail = readTail(main, options)
  const { name, count } = requireName(kind, tail)
  refuseMassIn(kind, zone ?? '', tail.mass?.typed)
  if (tail.words.has('waits') && kind !== 'off')
    throw new CalculationError('inconsistent', 'waits', 'Only what comes off can wait for what goes back. Begin with off, or leave waits out.')
  return {
    kind,
    count,
    name,
    zone,
    mass: tail.mass,
    guess: tail.guess,
    waits: tail.words.has('waits'),
    from: kind === 'transfer' ? other : null,
    replaces: kind === 'on' ? other : null,
  }
}

/** The part that a line names beside its own, behind "from" (a transfer) or "replaces" (what goes on); its mass may stand before or behind that. */
function splitOther(kind: Change['kind'], body: string, options: MassOptions): { main: string; other: string | null } {
  const word = kind === 'transfer' ? /\s+from\s+/i : kind === 'on' ? /\s+replaces\s+/i : null
  const found = word?.exec(body)
  if (!found) return { main: body, other: null }
  const [left, right] = [body.slice(0, found.index), body.slice(found.index + found[0].length)]
  const hasMass = (text: string) => writtenMass(stripWords(text).rest, options) !== undefined || /\?$/.test(stripWords(text).rest)
  if (hasMass(left) || !hasMass(right)) {
    const { rest, words } = stripWords(right)
    return { main: [left, ...words].join(' '), other: rest.trim() || null }
  }
  const { rest, words } = stripWords(right)
  const mass = writtenMass(rest, options)
  const other = mass ? mass.before : rest.replace(/\s*\?$/, '')
  return { main: [left, rest.slice(other.length), ...words].join(' '), other: other.trim() || null }
}

/** Words at the end that are no part of a name or a mass. */
function stripWords(text: string): { rest: string; words: string[] } {
  const words: string[] = []
  let rest = text.trim()
  for (let found = WORD_AT_END.exec(rest); found; found = WORD_AT_END.exec(rest)) {
    words.unshift((found[1] ?? '').toLowerCase())
    rest = rest.slice(0, found.index).trim()
  }
  return { rest, words }
}

interface Tail {
  readonly before: string
  readonly mass: ReadMass | null
  readonly guess: ReadMass | null
  readonly count: number | null
  readonly words: ReadonlySet<string>
}

function readTail(text: string, options: MassOptions): Tail {
  const { rest, words } = stripWords(text)
  const said = new Set(words)
  const proofs = [...said].filter((word) => word in PROOFS)
  if (proofs.length > 1)
    throw new CalculationError('inconsistent', 'proof', `The line says ${proofs.join(' and ')}. Keep the one word that says how the mass is known.`)
  if (/\?$/.test(rest)) return { before: rest.replace(/\s*\?$/, ''), mass: null, guess: null, count: null, words: said }
  const last = writtenMass(rest, options)
  if (!last) throw new CalculationError('missing', 'mass', 'No mass was read. Put it after the name, such as 18.6 kg or 41 lb, or ? where nobody knows it.')
  const mass = asRead(last, proofs[0])
  const earlier = mass.proof !== 'guess' && /\sguess$/i.test(last.before) ? writtenMass(last.before.replace(/\s+guess$/i, ''), options) : undefined
  if (earlier && earlier.count !== null && last.count !== null && earlier.count !== last.count)
    throw new CalculationError('ambiguous', 'count', `The guess is of ${earlier.count} pieces and the weighing of ${last.count}. Type one count.`)
  const count = last.count ?? earlier?.count ?? null
  return { before: (earlier ?? last).before, mass, guess: earlier ? asRead(earlier, 'guess') : null, count, words: said }
}

function asRead(written: WrittenMass, word: string | undefined): ReadMass {
  const { massKg, sdKg, typed, isRough } = written
  if (isRough && word === 'weighed')
    throw new CalculationError(
      'inconsistent',
      'proof',
      `"${typed}" is no reading of a scale. Type what it read, with ± where it moved, or leave weighed out and it is kept as a guess.`,
    )
  const proof = isRough && word === undefined ? 'guess' : (PROOFS[word ?? 'weighed'] as MassValue['proof'])
  return { massKg: requirePartMass(massKg), sdKg, proof, typed }
}

/** The name and the pieces: before the name, behind it, or beside the mass. What looks like another count or mass is refused with what it may have meant. */
function requireName(kind: Change['kind'], { before, mass, count: beside, words }: Tail): { name: string; count: number } {
  const leading = /^(\d{1,4})\s*[x×]\s+(.*)$/i.exec(before)
  const rest = leading ? (leading[2] ?? '') : before
  const trailing = /^(.*[^\d\s])\s+[x×]\s?(\d{1,4})$/i.exec(rest)
  const spoken = words.has('each') && !leading && !trailing && beside === null ? /^(\d{1,4})\s+(\D.*)$/.exec(rest) : null
  const counts = [leading?.[1], trailing?.[2], spoken?.[1], beside ?? undefined].filter((count) => count !== undefined).map(Number)
  const name = (spoken?.[2] ?? trailing?.[1] ?? rest).trim()
  if (name === '') throw new CalculationError('missing', 'name', 'No name was read. Put the name of the part before its mass.')
  const typed = mass?.typed ?? '?'
  const [count = 1, other] = new Set(counts).size > 1 ? counts : counts.slice(0, 1)
  if (other !== undefined)
    throw new CalculationError(
      'ambiguous',
      'count',
      `Two counts stand in this line: ${count} and ${other}. Type "${kind} ${count} x ${name} ${typed}" or "${kind} ${other} x ${name} ${typed}".`,
    )
  if (count < 1) throw new CalculationError('out-of-range', 'count', 'A count is 1 or more.')
  if (count > MOST_PIECES)
    throw new CalculationError('out-of-range', 'count', `A line holds at most ${MOST_PIECES} pieces. Check the count, or split the line.`)
  if (words.has('each') && counts.length === 0)
    throw new CalculationError('ambiguous', 'count', `${typed} each of how many? Type "${kind} 2 x ${name} ${typed}", or leave each out for one.`)
  refuseMassIn(kind, name, mass?.typed)
  refusePiecesIn(kind, name, typed, counts.length > 0)
  return { name, count }
}

function refuseMassIn(kind: string, text: string, typed: string | undefined): void {
  const found = MASS_LEFT_OVER.exec(text)?.[1]
  if (found === undefined) return
  const name = text.replace(found, '').replace(/\s+/g, ' ').trim()
  const readings = [typed, found].filter((mass) => mass !== undefined).map((mass) => `"${kind} ${name} ${mass}"`)
  throw new CalculationError(
    'ambiguous',
    'mass',
    `A second mass stands in this line: ${found}. Type ${readings.join(' or ')}; a name that holds a mass goes in by the form.`,
  )
}

/** "2 doors" without a mark that says two: both may be meant, so neither is taken. */
function refusePiecesIn(kind: string, name: string, typed: string, hasCount: boolean): void {
  const plural = /^(\d{1,3})\s+((?:\p{L}[\p{L}-]*\s+)*\p{L}{3,}s)$/iu.exec(name)
  const left = PIECES_LEFT_OVER.exec(name)?.[1]
  if (!left && (hasCount || !plural)) return
  const number = /\d+/.exec(left ?? plural?.[1] ?? '2')?.[0] ?? '2'
  const bare = plural
    ? (plural[2] ?? name)
    : name
        .replace(left ?? '', '')
        .replace(/\s+/g, ' ')
        .trim()
  throw new CalculationError(
    'ambiguous',
    'count',
    `Is ${typed} the mass of one or of all? Type "${kind} ${number} x ${bare} ${typed}" for ${typed} each, or "${kind} ${bare} ${typed}" for all as one.`,
  )
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
