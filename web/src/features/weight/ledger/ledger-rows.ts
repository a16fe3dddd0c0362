import type { StoredRecords } from '@bold-ballast/contract'
import { CalculationError, type LedgerLineFigures, lineMass } from '@bold-ballast/core'

export type StoredChange = StoredRecords['changes'][number]

export interface LedgerLine {
  readonly kind: 'line'
  readonly change: StoredChange
  readonly figures: LedgerLineFigures
  /** A piece that goes back from the part above it. */
  readonly isPiece: boolean
  /** What it replaces, by name. */
  readonly otherName: string | null
}

export type LedgerRow = LedgerLine | { readonly kind: 'group'; readonly group: 'off' | 'on'; readonly count: number }

/** A line that was just typed, until its figures are worked out with all others. */
function previewFigures(change: StoredChange): LedgerLineFigures | null {
  try {
    const { massKg, sdKg, proof, disagreesWith, standing } = lineMass(change)
    return {
      changeId: change.id,
      massKg: change.kind === 'off' ? -massKg : massKg,
      sdKg,
      proof,
      saving: null,
      disagrees: disagreesWith !== undefined,
      isUnknown: standing === undefined,
      guessedKg: null,
    }
  } catch (error) {
    if (error instanceof CalculationError) return null
    throw error
  }
}

/** Every typed word stands in the line's name, zone, kind or how it is known. */
function matches(line: LedgerLine, words: readonly string[]): boolean {
  const { name, zone, kind, state } = line.change
  const text = `${name} ${zone ?? ''} ${kind} ${state} ${line.figures.proof} ${line.figures.saving ?? ''}`.toLowerCase()
  return words.every((word) => text.includes(word))
}

/**
 * The ledger of one stage as rows in their order: off lines each with the pieces that go back from it, then what goes on. A filter keeps the lines
 * that hold all its words, and the parts whose pieces do.
 */
export function ledgerRows(changes: readonly StoredChange[], figures: readonly LedgerLineFigures[], stageId: string, filter: string): LedgerRow[] {
  const figuresOf = new Map(figures.map((line) => [line.changeId, line]))
  const nameOf = new Map(changes.map((change) => [change.id, change.name]))
  const lines = changes.flatMap((change): LedgerLine[] => {
    if (change.stageId !== stageId || change.state === 'dropped') return []
    const found = figuresOf.get(change.id) ?? previewFigures(change)
    const otherName = change.replacesChangeId ? (nameOf.get(change.replacesChangeId) ?? null) : null
    return found ? [{ kind: 'line', change, figures: found, isPiece: false, otherName }] : []
  })
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean)
  const offs = lines.filter((line) => line.change.kind === 'off')
  const offIds = new Set(offs.map((line) => line.change.id))
  const pieces = new Map<string, LedgerLine[]>()
  const loose: LedgerLine[] = []
  for (const line of lines.filter(({ change }) => change.kind === 'transfer')) {
    const from = line.change.fromChangeId ?? ''
    if (offIds.has(from)) pieces.set(from, [...(pieces.get(from) ?? []), { ...line, isPiece: true }])
    else loose.push(line)
  }
  const off = [...offs, ...loose].flatMap((line) => {
    const own = pieces.get(line.change.id) ?? []
    const kept = own.filter((piece) => matches(piece, words))
    return kept.length > 0 || matches(line, words) ? [line, ...kept] : []
  })
  const on = lines.filter((line) => line.change.kind === 'on' && matches(line, words))
  const group = (name: 'off' | 'on', list: readonly LedgerLine[]): LedgerRow[] =>
    list.length > 0 ? [{ kind: 'group', group: name, count: list.length }, ...list] : []
  return [...group('off', off), ...group('on', on)]
}

/** How many lines a list of rows holds, without its group heads. */
export const lineCount = (rows: readonly LedgerRow[]): number => rows.filter((row) => row.kind === 'line').length
