import { type BoxState, boxDifferenceKg, boxValue, CalculationError, type DecimalMark, parseEntryLine, type ReadEntry, type ReadMass } from '@bold-ballast/core'

/** A box on the scale that parts go into one after another. */
export interface OpenBox extends BoxState {
  readonly id: string
  readonly name: string
  readonly instrument: string | null
  readonly readingSdKg: number | null
}

/** A line that others may name: what it is called, and whether it comes off. */
export interface NamedLine {
  readonly id: string
  readonly stageId: string
  readonly kind: string
  readonly name: string
}

export interface LineContext {
  readonly stageId: string
  readonly box: OpenBox | null
  /** The lines of the build, in the order they were typed. */
  readonly lines: readonly NamedLine[]
}

export interface ReadLine {
  readonly read: ReadEntry | null
  /** What the part weighs as the difference of two readings of the box. */
  readonly differenceKg: number | null
  /** The off line that pieces come from, or that is replaced. */
  readonly other: NamedLine | null
  readonly refusal: string
}

const normal = (text: string) => text.trim().toLowerCase()

/**
 * The off line that is called so: by its whole name, else by a part of it that no other has; of several alike the latest of the stage, then the latest.
 * Errors: `unknown`, `ambiguous`.
 */
function findOff(name: string, { lines, stageId }: LineContext): NamedLine {
  const offs = lines.filter(({ kind }) => kind === 'off')
  const alike = (list: readonly NamedLine[]) => list.findLast((line) => line.stageId === stageId) ?? list.at(-1)
  const exact = alike(offs.filter((line) => normal(line.name) === normal(name)))
  if (exact) return exact
  const near = offs.filter((line) => normal(line.name).includes(normal(name)))
  const [only] = near
  if (only && new Set(near.map((line) => normal(line.name))).size === 1) return alike(near) ?? only
  if (near.length > 1) throw new CalculationError('ambiguous', 'from', `"${name}" may be ${near.map((line) => line.name).join(' or ')}. Type its whole name.`)
  throw new CalculationError('unknown', 'from', `No part that comes off is called "${name}". Type its line first, or its name as it stands in the ledger.`)
}

function otherLine(read: ReadEntry, context: LineContext): NamedLine | null {
  const named = read.from ?? read.replaces
  if (named !== null) return findOff(named, context)
  if (read.kind !== 'transfer') return null
  return context.lines.findLast((line) => line.kind === 'off' && line.stageId === context.stageId) ?? null
}

/** Reads a typed line; in a box the mass typed is what the scale reads now. */
export function readLine(text: string, massUnit: string, decimalMark: DecimalMark, context: LineContext): ReadLine {
  const nothing = { read: null, differenceKg: null, other: null, refusal: '' }
  if (text.trim() === '') return nothing
  try {
    const read = parseEntryLine(text, { massUnit, decimalMark })
    const { box } = context
    const differenceKg = box && read.mass ? boxDifferenceKg(read.mass.massKg, box.lastKg) : null
    return { read, differenceKg, other: otherLine(read, context), refusal: '' }
  } catch (error) {
    if (error instanceof CalculationError) return { ...nothing, refusal: error.message }
    throw error
  }
}

/** The ledger line that a read text becomes, at the time that new lines get. */
export function lineBody(id: string, { read, other }: ReadLine, { stageId, box }: Pick<LineContext, 'stageId' | 'box'>, at: string): Record<string, unknown> {
  if (!read) throw new Error('only a line that was read becomes a record')
  const { mass, guess, count } = read
  const plain = (value: ReadMass) => ({ massKg: value.massKg, sdKg: value.sdKg, proof: value.proof, typed: value.typed, at })
  const measured = box && mass ? boxValue(box, { readingKg: mass.massKg, count, typed: mass.typed, at }) : mass && plain(mass)
  const isDone = read.kind === 'off' || mass?.proof === 'measured' || mass?.proof === 'calculated'
  return {
    id,
    stageId,
    kind: read.kind,
    name: read.name,
    count,
    zone: read.zone,
    values: [...(guess ? [plain(guess)] : []), ...(measured ? [measured] : [])],
    state: isDone ? 'done' : 'planned',
    doneAt: isDone ? at : null,
    fromChangeId: read.kind === 'transfer' ? (other?.id ?? null) : null,
    replacesChangeId: read.kind === 'on' ? (other?.id ?? null) : null,
    waits: read.waits,
    ...(box ? { boxId: box.id } : {}),
  }
}
