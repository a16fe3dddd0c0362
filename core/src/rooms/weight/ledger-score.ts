import { isMeasured } from '../../proof/quantity.ts'
import type { Car, Line } from '../../stages/car.ts'
import { changeSign, isUnknown } from '../../stages/line-mass.ts'
import { rememberByIndex } from '../../stages/remember.ts'

/** The score of one stage's ledger in kg, as typed: exact sums in whole milligrams, without the learned bias. */
export interface LedgerScore {
  readonly outKg: number
  /** Savings of what is off, every side of which is known at least as a guess: banked, and on a guess. */
  readonly foundKg: number
  readonly bankedKg: number
  readonly onGuessKg: number
  /** What is off and may come back in part, because a side of it is not known yet. */
  readonly waitsKg: number
  readonly toComeKg: number
  /** Off lines less the pieces that go back, as this stage lists them. */
  readonly offLessPiecesKg: number
  readonly addedDoneKg: number
  readonly addedPlannedKg: number
  readonly netKg: number
  readonly lineCount: number
}

/**
 * Banked: off, and every side weighed. On a guess: off, and every side known, not all weighed. Waits: off, and a side unknown, or said to wait.
 * To come: not off yet.
 */
export type SavingState = 'banked' | 'onGuess' | 'waits' | 'toCome'

const milligrams = (line: Line) => Math.round(line.mass.massKg * 1e6)
const sumMg = (lines: readonly Line[]) => lines.reduce((total, line) => total + milligrams(line), 0)

/** What a part that comes off saves, less what replaces it and the pieces that go back on, wherever those stand. */
export interface Saving {
  readonly off: Line | undefined
  readonly transfers: readonly Line[]
  readonly replacements: readonly Line[]
  readonly state: SavingState
  readonly savedMg: number
}

/** The pieces and the replacements that name each off line. */
const sidesOf = rememberByIndex((car: Car, _all: number) => {
  const sides = new Map<string, { readonly transfers: Line[]; readonly replacements: Line[] }>()
  const of = (id: string) => {
    const known = sides.get(id) ?? { transfers: [], replacements: [] }
    sides.set(id, known)
    return known
  }
  for (const line of car.lines) {
    const { kind, fromChangeId, replacesChangeId } = line.change
    if (kind === 'transfer' && fromChangeId !== null) of(fromChangeId).transfers.push(line)
    if (kind === 'on' && replacesChangeId) of(replacesChangeId).replacements.push(line)
  }
  return sides
})

function savingOf(off: Line, transfers: readonly Line[], replacements: readonly Line[]): Saving {
  const sides = [off, ...transfers, ...replacements]
  const isKnown = !off.change.waits && !sides.some((line) => isUnknown(line.mass))
  const state = off.change.state !== 'done' ? 'toCome' : !isKnown ? 'waits' : sides.every((line) => isMeasured(line.mass.proof)) ? 'banked' : 'onGuess'
  return { off, transfers, replacements, state, savedMg: milligrams(off) - sumMg(transfers) - sumMg(replacements) }
}

/**
 * Savings of a stage: each of its off lines with its pieces and replacements, of whatever stage those are. A piece that no off line owns is a saving of
 * its own, below zero.
 */
export const stageSavings = rememberByIndex((car: Car, position: number): readonly Saving[] => {
  const lines = car.linesByStage[position] ?? []
  const sides = sidesOf(car, 0)
  const owned = lines
    .filter(({ change }) => change.kind === 'off')
    .map((off) => savingOf(off, sides.get(off.change.id)?.transfers ?? [], sides.get(off.change.id)?.replacements ?? []))
  const loose = lines
    .filter(({ change }) => change.kind === 'transfer' && !car.lineById.has(change.fromChangeId ?? ''))
    .map((piece): Saving => {
      const state = piece.change.state !== 'done' ? 'toCome' : isUnknown(piece.mass) ? 'waits' : isMeasured(piece.mass.proof) ? 'banked' : 'onGuess'
      return { off: undefined, transfers: [piece], replacements: [], state, savedMg: -milligrams(piece) }
    })
  return [...owned, ...loose]
})

/** Score of a stage. Net = on lines − off lines + pieces that go back, of this stage alone, to the milligram. */
export function ledgerScore(car: Car, position: number): LedgerScore {
  const lines = car.linesByStage[position] ?? []
  const savings = stageSavings(car, position)
  const kilograms = (mg: number) => mg / 1e6
  const saved = (state: SavingState) => savings.reduce((total, saving) => total + (saving.state === state ? saving.savedMg : 0), 0)
  const total = (matches: (line: Line) => boolean) => sumMg(lines.filter(matches))
  const [banked, onGuess] = [saved('banked'), saved('onGuess')]
  const signed = (list: readonly Line[]) => list.reduce((sum, line) => sum + changeSign(line.change) * milligrams(line), 0)
  return {
    outKg: kilograms(total(({ change }) => change.kind === 'off' && change.state === 'done')),
    foundKg: kilograms(banked + onGuess),
    bankedKg: kilograms(banked),
    onGuessKg: kilograms(onGuess),
    waitsKg: kilograms(saved('waits')),
    toComeKg: kilograms(saved('toCome')),
    offLessPiecesKg: kilograms(0 - signed(lines.filter(({ change }) => change.kind !== 'on'))),
    addedDoneKg: kilograms(total(({ change }) => change.kind === 'on' && change.state === 'done')),
    addedPlannedKg: kilograms(total(({ change }) => change.kind === 'on' && change.state === 'planned')),
    netKg: kilograms(signed(lines)),
    lineCount: lines.length,
  }
}

/** What is off, waits, and is not known to stay off: the part of it that no known side accounts for. */
export interface Waits {
  readonly line: Line
  readonly massKg: number
}

/** Everything that waits of stages 0 to `position`, in kg above zero. */
export const waitsUpTo = rememberByIndex((car: Car, position: number): readonly Waits[] => [
  ...(position > 0 ? waitsUpTo(car, position - 1) : []),
  ...stageSavings(car, position).flatMap(({ off, state, savedMg }): Waits[] =>
    off && state === 'waits' && savedMg > 0 ? [{ line: off, massKg: savedMg / 1e6 }] : [],
  ),
])
