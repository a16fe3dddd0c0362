import { PassThrough, type Readable } from 'node:stream'
import { TextDecoder } from 'node:util'
import { CalculationError, findDelimiter } from '@bold-ballast/core'
import Papa from 'papaparse'
import type { AppError } from '../http/problem.ts'

const HEAD_BYTES = 4096
const LONGEST_LINE = 64 * 1024

/** What takes the rows of a file one by one, and may refuse one. */
export interface RowReader {
  readonly addRow: (cells: readonly string[]) => void
}

/** How large a file may be, and what is said of one that is larger. */
export interface CsvLimit {
  readonly mostBytes: number
  readonly tooLarge: () => AppError
}

/** The text decoder that fits: that of the file's own mark, UTF-8, or the Western one many dynos still write. Refuses a binary file. */
function decoderFor(head: Buffer): TextDecoder {
  if (head[0] === 0xff && head[1] === 0xfe) return new TextDecoder('utf-16le')
  if (head[0] === 0xfe && head[1] === 0xff) return new TextDecoder('utf-16be')
  const controls = head.filter((byte) => byte < 9 || (byte > 13 && byte < 32)).length
  if (controls > 0) throw new CalculationError('unreadable', 'file', 'This is not a text file. Export it as CSV and choose that file.')
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true })
    return new TextDecoder('utf-8')
  } catch {
    return new TextDecoder('windows-1252')
  }
}

/** The first rows of a file, and a reader that was handed them: for a file that nobody could read until a person says what its columns are. */
export async function readFirstRows<Reader extends RowReader>(
  source: Readable,
  readerFor: (delimiter: string) => Reader,
): Promise<{ reader: Reader; delimiter: string; rows: readonly (readonly string[])[] }> {
  const chunks: Buffer[] = []
  let bytes = 0
  for await (const chunk of source) {
    chunks.push(chunk as Buffer)
    bytes += (chunk as Buffer).length
    if (bytes >= 4 * HEAD_BYTES) break
  }
  const head = Buffer.concat(chunks)
  const text = decoderFor(head.subarray(0, HEAD_BYTES)).decode(head, { stream: true })
  const delimiter = findDelimiter(text.slice(0, HEAD_BYTES))
  const { data } = Papa.parse<string[]>(text, { delimiter, preview: 60 })
  const reader = readerFor(delimiter)
  try {
    for (const row of data) reader.addRow(row)
  } catch (error) {
    // What cannot be read yet is what the person is asked about.
    if (!(error instanceof CalculationError)) throw error
  }
  return { reader, delimiter, rows: data }
}

const SHOWN_ROWS = 6

/** Some rows below the heading that a reader found, to show what its columns hold. */
export function rowsBelow(rows: readonly (readonly string[])[], headings: readonly string[]): (readonly string[])[] {
  const at = rows.findIndex((row) => row.length >= headings.length && headings.every((heading, i) => row[i]?.replace(/^\ufeff/, '').trim() === heading))
  return rows.slice(at + 1, at + 1 + SHOWN_ROWS)
}

/** Reads a file of rows as it streams in: text is not kept. The stream is ended early when it is refused. */
export async function streamRows<Reader extends RowReader>(
  source: Readable,
  { mostBytes, tooLarge }: CsvLimit,
  readerFor: (delimiter: string) => Reader,
): Promise<{ reader: Reader; delimiter: string }> {
  const head: Buffer[] = []
  let headBytes = 0
  let total = 0
  const chunks = source[Symbol.asyncIterator]() as AsyncIterator<Buffer>
  const next = async () => {
    const { value, done } = await chunks.next()
    if (done) return undefined
    total += value.length
    if (total > mostBytes) throw tooLarge()
    return value
  }
  while (headBytes < HEAD_BYTES) {
    const chunk = await next()
    if (!chunk) break
    head.push(chunk)
    headBytes += chunk.length
  }
  const first = Buffer.concat(head)
  const decoder = decoderFor(first.subarray(0, HEAD_BYTES))
  const start = decoder.decode(first, { stream: true })
  const delimiter = findDelimiter(start.slice(0, HEAD_BYTES))
  const reader = readerFor(delimiter)
  const text = new PassThrough({ encoding: 'utf8' })
  const guard = lineGuard()
  guard(start)
  const parsed = parseInto(text, delimiter, reader)
  parsed.catch(() => text.destroy())
  text.write(start)
  for (let chunk = await next(); chunk && !text.destroyed; chunk = await next()) {
    const decoded = decoder.decode(chunk, { stream: true })
    guard(decoded)
    if (!text.write(decoded)) await new Promise<void>((resolve) => text.once('drain', resolve).once('close', resolve))
  }
  text.end(decoder.decode())
  await parsed
  return { reader, delimiter }
}

const longest = (text: string) => text.split(/[\r\n]/).reduce((most, line) => Math.max(most, line.length), 0)

/** Refuses a file whose lines are longer than any table has, before they pile up in memory. */
function lineGuard(): (text: string) => void {
  let open = 0
  return (text) => {
    const last = Math.max(text.lastIndexOf('\n'), text.lastIndexOf('\r'))
    const first = text.search(/[\r\n]/)
    // A text that is no longer than a line may be holds none that is too long, but for the one that began before it.
    const isTooLong = open + (first < 0 ? text.length : first) > LONGEST_LINE || (text.length > LONGEST_LINE && longest(text) > LONGEST_LINE)
    open = last < 0 ? open + text.length : text.length - last - 1
    if (isTooLong)
      throw new CalculationError(
        'out-of-range',
        'file',
        'A line of the file is longer than 64 kB: it has no line breaks, or is no table. Export it as CSV with one row a line.',
      )
  }
}

function parseInto(text: Readable, delimiter: string, reader: RowReader): Promise<void> {
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(text as unknown as File, {
      delimiter,
      chunk: (results, parser) => {
        try {
          for (const row of results.data) reader.addRow(row)
        } catch (error) {
          // Before the abort, which ends the parser as if the file were complete.
          reject(error)
          parser.abort()
        }
      },
      complete: () => resolve(),
      error: (error: Error) => reject(error),
    })
  })
}
