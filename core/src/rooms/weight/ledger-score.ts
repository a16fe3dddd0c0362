import { isMeasured } from '../../proof/quantity.ts'
import type { Car, Line } from '../../stages/car.ts'
import { changeSign } from '../../stages/line-mass.ts'

/** The score of one stage's ledger in kg, as typed: exact sums in whole milligrams, without the learned bias. */
export interface LedgerScore {
  readonly outKg: number
  readonly bankedKg: number
  readonly waitingKg: number
  readonly toComeKg: number
  readonly addedDoneKg: number
  readonly addedPlannedKg: number
  readonly netKg: number
  readonly lineCount: number
}

export type SavingState = 'banked' | 'waiting' | 'toCome'

const milligrams = (line: Line) => Math.round(line.mass.massKg * 1e6)

/** What a part that comes off saves, less the pieces that go back on with its replacement. */
export interface Saving {
  readonly off: Line | undefined
  readonly transfers: readonly Line[]
  readonly state: SavingState
  readonly savedMg: number
}

/**
 * Savings of a stage: each off line with its transfers. Not done yet: to come. Done, and it and each of its transfers weighed: banked.
 * Done otherwise: waiting, the whole difference. A transfer that no off line of this stage owns is a saving of its own, below zero.
 */
export function stageSavings(car: Car, position: number): Saving[] {
  const lines = car.linesByStage[position] ?? []
  const offs = lines.filter((line) => line.change.kind === 'off')
  const offIds = new Set(offs.map((line) => line.change.id))
  const transfersOf = new Map<string, Line[]>()
  for (const line of lines.filter((entry) => entry.change.kind === 'transfer')) {
    const { fromChangeId, id } = line.change
    const key = fromChangeId && offIds.has(fromChangeId) ? fromChangeId : id
    transfersOf.set(key, [...(transfersOf.get(key) ?? []), line])
  }
  const sum = (list: readonly Line[]) => list.reduce((total, line) => total + milligrams(line), 0)
  const owned = offs.map((off): Saving => {
    const transfers = transfersOf.get(off.change.id) ?? []
    const weighed = [off, ...transfers].every((line) => isMeasured(line.mass.proof))
    const state = off.change.state !== 'done' ? 'toCome' : weighed ? 'banked' : 'waiting'
    return { off, transfers, state, savedMg: milligrams(off) - sum(transfers) }
  })
  const loose = [...transfersOf].flatMap(([key, list]): Saving[] =>
    offIds.has(key)
      ? []
      : [{ off: undefined, transfers: list, state: list.every((line) => line.change.state === 'done') ? 'waiting' : 'toCome', savedMg: -sum(list) }],
  )
  return [...owned, ...loose]
}

/** Score of a stage: net = ons − banked − waiting − to come, to the milligram. */
export function ledgerScore(car: Car, position: number): LedgerScore {
  const lines = car.linesByStage[position] ?? []
  const savings = stageSavings(car, position)
  const kilograms = (mg: number) => mg / 1e6
  const saved = (state: SavingState) => savings.reduce((total, saving) => total + (saving.state === state ? saving.savedMg : 0), 0)
  const total = (matches: (line: Line) => boolean) => lines.reduce((sum, line) => sum + (matches(line) ? milligrams(line) : 0), 0)
  return {
    outKg: kilograms(total((line) => line.change.kind === 'off' && line.change.state === 'done')),
    bankedKg: kilograms(saved('banked')),
    waitingKg: kilograms(saved('waiting')),
    toComeKg: kilograms(saved('toCome')),
    addedDoneKg: kilograms(total((line) => line.change.kind === 'on' && line.change.state === 'done')),
    addedPlannedKg: kilograms(total((line) => line.change.kind === 'on' && line.change.state === 'planned')),
    netKg: kilograms(lines.reduce((sum, line) => sum + changeSign(line.change) * milligrams(line), 0)),
    lineCount: lines.length,
  }
}
