import type { Readable } from 'node:stream'
import type { PullColumns } from '@bold-ballast/contract'
import { type ColumnMapping, delimiterWord, type PullFileReport, PullReader } from '@bold-ballast/core'
import { AppError } from '../http/problem.ts'
import { type CsvLimit, readFirstRows, rowsBelow, streamRows } from './csv-rows.ts'

/** A file of pulls may be so large. */
export const PULL_FILE: CsvLimit = {
  mostBytes: 100 * 1024 * 1024,
  tooLarge: () => new AppError('too-large', 'The file is larger than 100 MB. Export fewer pulls, or fewer channels, into one file.'),
}

/** What the columns of a file seem to be, by its first lines alone: for a file that nobody could read until a person says it. */
export async function readPullColumns(source: Readable, mapping: readonly ColumnMapping[] | undefined): Promise<PullColumns> {
  const { reader, delimiter, rows } = await readFirstRows(source, (mark) => new PullReader({ delimiter: mark, mapping }))
  const columns = reader.guess()
  const firstRows = rowsBelow(
    rows,
    columns.map(({ heading }) => heading),
  )
  return { delimiter: delimiterWord(delimiter), columns, firstRows }
}

/** Reads a dyno file as it streams in: numbers are kept, text is not. */
export async function readPullFile(source: Readable, mapping: readonly ColumnMapping[] | undefined): Promise<{ report: PullFileReport; delimiter: string }> {
  const { reader, delimiter } = await streamRows(source, PULL_FILE, (mark) => new PullReader({ delimiter: mark, mapping }))
  return { report: reader.finish(), delimiter }
}
