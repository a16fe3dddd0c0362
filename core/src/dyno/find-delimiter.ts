import { CalculationError } from '../errors.ts'

const CANDIDATES = [
  ['\t', 'tab'],
  [';', 'semicolon'],
  [',', 'comma'],
] as const

/**
 * The delimiter of a file by its first lines: the one that splits the heading into most columns, and at least two.
 * Errors: `unreadable` for a binary file and for a heading that nothing splits.
 */
export function findDelimiter(head: string): string {
  if (head.includes('\0') || head.includes('\ufffd')) {
    throw new CalculationError('unreadable', 'file', 'This is not a text file. Export the pulls from the dyno as CSV and choose that file.')
  }
  const heading = head.split(/\r?\n/).find((line) => line.trim() !== '') ?? ''
  if (heading.trim() === '') throw new CalculationError('missing', 'file', 'The file is empty. Export the pulls again and choose that file.')
  const best = CANDIDATES.map(([mark]) => ({ mark, count: heading.split(mark).length })).sort((a, b) => b.count - a.count)[0]
  if (!best || best.count < 2) {
    throw new CalculationError(
      'unreadable',
      'file',
      `Line 1 ("${heading.slice(0, 60)}") holds one column only. Separate the columns by comma, semicolon or tab.`,
    )
  }
  return best.mark
}

export const delimiterWord = (mark: string): string => CANDIDATES.find(([known]) => known === mark)?.[1] ?? mark
