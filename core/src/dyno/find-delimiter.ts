import { CalculationError } from '../errors.ts'

const CANDIDATES = [
  ['\t', 'tab'],
  [';', 'semicolon'],
  [',', 'comma'],
] as const

const MOST_LINES = 60

/**
 * The delimiter of a file by its first lines: the one that splits one of them into most columns, and at least two.
 * With as many by two of them, tab goes before semicolon and semicolon before comma, which may be a decimal mark.
 * Errors: `unreadable` for a binary file and for a heading that nothing splits.
 * @example findDelimiter('rpm;kW\n3000;60\n') // ';'
 */
export function findDelimiter(head: string): string {
  if (head.includes('\0') || head.includes('\ufffd')) {
    throw new CalculationError('unreadable', 'file', 'This is not a text file. Export it as CSV and choose that file.')
  }
  const lines = head.split(/\r?\n/).filter((line) => line.trim() !== '')
  const [heading = ''] = lines
  if (heading === '') throw new CalculationError('missing', 'file', 'The file is empty. Export it again and choose that file.')
  // Numbers may hold commas; a heading is a line of words.
  const worded = lines.slice(0, MOST_LINES).filter((line) => /\p{L}/u.test(line))
  const widest = (mark: string) => Math.max(...(worded.length > 0 ? worded : lines).map((line) => line.split(mark).length))
  const best = CANDIDATES.map(([mark], rank) => ({ mark, count: widest(mark), rank })).sort((a, b) => b.count - a.count || a.rank - b.rank)[0]
  if (!best || best.count < 2) {
    throw new CalculationError(
      'unreadable',
      'file',
      `Line 1 ("${heading.slice(0, 60)}") holds one column only. Separate the columns by comma, semicolon or tab.`,
    )
  }
  return best.mark
}

/**
 * A delimiter in words, for a person; the mark itself where it is none of the usual.
 * @example delimiterWord(';') // 'semicolon'
 */
export const delimiterWord = (mark: string): string => CANDIDATES.find(([known]) => known === mark)?.[1] ?? mark
