import { type BookRule, METRICS, type RuleBook, ruleSchema } from '@bold-ballast/core'

export const BOOK_FORMAT = 'bold-ballast-rules'

/** A rule book as a file of its own: lines and parts of this build stay out of it. */
export const bookFile = ({ name, edition, rules }: RuleBook): string =>
  `${JSON.stringify({ format: BOOK_FORMAT, formatVersion: 1, name, edition, rules: rules.map((rule) => ({ ...rule, blocks: [] })) }, null, 1)}\n`

/** What was read of a book's file. */
export interface ReadBook {
  readonly name: string
  readonly edition: string
  readonly rules: readonly BookRule[]
  /** Rules that this program does not know: kept in words, judged by nobody. */
  readonly unknown: number
}

/** A rule as it can be held; one of an unknown kind as words, with what stood in the file. */
function readRule(raw: unknown, at: number): { readonly rule: BookRule; readonly isKnown: boolean } {
  const found = ruleSchema.safeParse(raw)
  const row = (raw ?? {}) as { key?: unknown; text?: unknown; from?: unknown; metric?: unknown }
  const isKnown = found.success && (found.data.metric === null || METRICS.includes(found.data.metric))
  if (found.success && isKnown) return { rule: { ...found.data, blocks: [] }, isKnown }
  const text = typeof row.text === 'string' && row.text !== '' ? row.text.slice(0, 400) : `Rule ${at + 1}`
  const words = {
    key: typeof row.key === 'string' && row.key !== '' ? row.key.slice(0, 60) : `rule ${at + 1}`,
    text,
    from: typeof row.from === 'string' ? row.from.slice(0, 80) : '',
  }
  return { rule: ruleSchema.parse({ ...words, sense: 'must', unread: JSON.stringify(raw).slice(0, 2000) }), isKnown: false }
}

/** A rule book out of its file. Throws a sentence where the text is none. */
export function readBookFile(text: string): ReadBook {
  const raw = JSON.parse(text) as { format?: unknown; name?: unknown; edition?: unknown; rules?: unknown }
  if (raw?.format !== BOOK_FORMAT || !Array.isArray(raw.rules)) throw new Error('no rule book')
  const read = raw.rules.slice(0, 200).map(readRule)
  return {
    name: typeof raw.name === 'string' && raw.name !== '' ? raw.name.slice(0, 120) : 'A rule book',
    edition: typeof raw.edition === 'string' ? raw.edition.slice(0, 60) : '',
    rules: read.map(({ rule }) => rule),
    unknown: read.filter(({ isKnown }) => !isKnown).length,
  }
}
