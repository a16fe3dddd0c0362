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

/** A line of a stage with what it is found by. */
interface Searched {
  readonly line: LedgerLine
  readonly words: string
}

/** The lines of one stage in their order: off lines each with the pieces that go back from it, then what goes on. */
export interface StageLines {
  readonly off: readonly (Searched & { readonly pieces: readonly Searched[] })[]
  readonly on: readonly Searched[]
}

function searched(line: LedgerLine): Searched {
  const { name, zone, kind, state } = line.change
  return { line, words: `${name} ${zone ?? ''} ${kind} ${state} ${line.figures.proof} ${line.figures.saving ?? ''}`.toLowerCase() }
}

/** The lines of a stage, put together once for all that is typed to find one. */
export function stageLines(changes: readonly StoredChange[], figures: readonly LedgerLineFigures[], stageId: string): StageLines {
  const figuresOf = new Map(figures.map((line) => [line.changeId, line]))
  const nameOf = new Map(changes.map((change) => [change.id, change.name]))
  const lines = changes.flatMap((change): LedgerLine[] => {
    if (change.stageId !== stageId || change.state === 'dropped') return []
    const found = figuresOf.get(change.id) ?? previewFigures(change)
    const otherName = change.replacesChangeId ? (nameOf.get(change.replacesChangeId) ?? null) : null
    return found ? [{ kind: 'line', change, figures: found, isPiece: false, otherName }] : []
  })
  const offs = lines.filter((line) => line.change.kind === 'off')
  const offIds = new Set(offs.map((line) => line.change.id))
  const pieces = new Map<string, Searched[]>()
  const loose: LedgerLine[] = []
  for (const line of lines.filter(({ change }) => change.kind === 'transfer')) {
    const from = line.change.fromChangeId ?? ''
    if (offIds.has(from)) pieces.set(from, [...(pieces.get(from) ?? []), searched({ ...line, isPiece: true })])
    else loose.push(line)
  }
  return {
    off: [...offs, ...loose].map((line) => ({ ...searched(line), pieces: pieces.get(line.change.id) ?? [] })),
    on: lines.filter((line) => line.change.kind === 'on').map(searched),
  }
}

/** The ledger of one stage as rows. A filter keeps the lines whose name, zone, kind or how they are known hold all its words, and the parts whose pieces do. */
export function ledgerRows({ off, on }: StageLines, filter: string): LedgerRow[] {
  const wanted = filter.toLowerCase().split(/\s+/).filter(Boolean)
  const fits = ({ words }: Searched) => wanted.every((word) => words.includes(word))
  const kept = off.flatMap((each) => {
    const own = each.pieces.filter(fits)
    return own.length > 0 || fits(each) ? [each.line, ...own.map(({ line }) => line)] : []
  })
  const group = (name: 'off' | 'on', list: readonly LedgerLine[]): LedgerRow[] =>
    list.length > 0 ? [{ kind: 'group', group: name, count: list.length }, ...list] : []
  return [
    ...group('off', kept),
    ...group(
      'on',
      on.filter(fits).map(({ line }) => line),
    ),
  ]
}

/** How many lines a list of rows holds, without its group heads. */
export const lineCount = (rows: readonly LedgerRow[]): number => rows.filter((row) => row.kind === 'line').length
