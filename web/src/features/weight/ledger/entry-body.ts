import { type BoxState, boxDifferenceKg, boxValue, CalculationError, type DecimalMark, parseEntryLine, type ReadEntry, type ReadMass } from '@bold-ballast/core'

/** A box on the scale that parts go into one after another. */
export interface OpenBox extends BoxState {
  readonly id: string
  readonly name: string
  readonly instrument: string | null
  readonly readingSdKg: number | null
}

export interface LineContext {
  readonly stageId: string
  readonly box: OpenBox | null
  /** The off line that a transfer typed now goes back from. */
  readonly lastOffId: string | null
}

export interface ReadLine {
  readonly read: ReadEntry | null
  /** What the part weighs as the difference of two readings of the box. */
  readonly differenceKg: number | null
  readonly refusal: string
}

/** Reads a typed line; in a box the mass typed is what the scale reads now. */
export function readLine(text: string, massUnit: string, decimalMark: DecimalMark, box: OpenBox | null): ReadLine {
  if (text.trim() === '') return { read: null, differenceKg: null, refusal: '' }
  try {
    const read = parseEntryLine(text, { massUnit, decimalMark })
    const differenceKg = box && read.mass ? boxDifferenceKg(read.mass.massKg, box.lastKg) : null
    return { read, differenceKg, refusal: '' }
  } catch (error) {
    if (error instanceof CalculationError) return { read: null, differenceKg: null, refusal: error.message }
    throw error
  }
}

/** The ledger line that a read text becomes. */
export function lineBody(id: string, { read }: ReadLine, { stageId, box, lastOffId }: LineContext, now: string): Record<string, unknown> {
  if (!read) throw new Error('only a line that was read becomes a record')
  const { mass, guess, count } = read
  const plain = (value: ReadMass) => ({ massKg: value.massKg, sdKg: value.sdKg, proof: value.proof, typed: value.typed, at: now })
  const measured = box && mass ? boxValue(box, { readingKg: mass.massKg, count, typed: mass.typed, at: now }) : mass && plain(mass)
  const isDone = read.kind === 'off' || mass?.proof === 'measured'
  return {
    id,
    stageId,
    kind: read.kind,
    name: read.name,
    count,
    zone: read.zone,
    values: [...(guess ? [plain(guess)] : []), ...(measured ? [measured] : [])],
    state: isDone ? 'done' : 'planned',
    doneAt: isDone ? now : null,
    fromChangeId: read.kind === 'transfer' ? lastOffId : null,
    ...(box ? { boxId: box.id } : {}),
  }
}
