import type { RuleStanding, RulesRoom } from '../board/rule-readings.ts'
import { isMeasured } from '../proof/quantity.ts'
import type { BuildRecords } from '../records/records.ts'
import type { BookRule, RuleBook } from '../records/rule-kinds.ts'
import { shownOn } from './shown-on.ts'

/** One rule on the sheet. */
export interface TechSheetRow {
  readonly rule: BookRule
  readonly standing: RuleStanding | null
  /** The days its number was read on; empty where it was worked out, or stands in words. */
  readonly readOn: readonly string[]
  /** What a scrutineer would be shown: a reading; a number that only the plan says; nothing; or it is looked at. */
  readonly shows: 'reading' | 'plan' | 'nothing' | 'look'
}

export interface TechSheet {
  readonly book: RuleBook
  readonly rows: readonly TechSheetRow[]
  /** How many rules stand with a reading. */
  readonly readCount: number
  /** Rules with a number of which nothing measured is shown. */
  readonly notShown: readonly TechSheetRow[]
}

function showsOf(rule: BookRule, standing: RuleStanding | null): TechSheetRow['shows'] {
  if (rule.metric === null) return 'look'
  if (standing?.proof == null) return 'nothing'
  return isMeasured(standing.proof) ? 'reading' : 'plan'
}

/**
 * What scrutineering is shown of a stage: every rule of a book with what the car says to it, how that is known and from which day. Undefined where there is no such
 * book or stage. A sheet on which all is shown is no pass.
 * @example techSheet(EXAMPLE, { stages: [] }, 'none', 0) // undefined
 */
export function techSheet(records: BuildRecords, rules: RulesRoom, bookId: string, position: number): TechSheet | undefined {
  const book = records.ruleBooks.find(({ id }) => id === bookId)
  const at = rules.stages[position]
  if (!book || !at) return undefined
  const standings = at.books.find((reading) => reading.bookId === bookId)?.readings ?? []
  const rows = book.rules.map((rule): TechSheetRow => {
    const standing = standings.find(({ key }) => key === rule.key) ?? null
    const shows = showsOf(rule, standing)
    return { rule, standing, shows, readOn: rule.metric !== null && shows === 'reading' ? shownOn(records, rule.metric, position) : [] }
  })
  return {
    book,
    rows,
    readCount: rows.filter(({ shows }) => shows === 'reading').length,
    notShown: rows.filter(({ shows }) => shows === 'plan' || shows === 'nothing'),
  }
}
