import { PassThrough, type Readable } from 'node:stream'
import { TextDecoder } from 'node:util'
import type { PullColumns } from '@bold-ballast/contract'
import { CalculationError, type ColumnMapping, delimiterWord, findDelimiter, type PullFileReport, PullReader } from '@bold-ballast/core'
import Papa from 'papaparse'
import { AppError } from '../http/problem.ts'

export const LARGEST_CSV_BYTES = 100 * 1024 * 1024
const HEAD_BYTES = 4096
const LONGEST_LINE = 64 * 1024

const tooLarge = () => new AppError('too-large', 'The file is larger than 100 MB. Export fewer pulls, or fewer channels, into one file.')

/** The text decoder that fits: that of the file's own mark, UTF-8, or the Western one many dynos still write. Refuses a binary file. */
function decoderFor(head: Buffer): TextDecoder {
  if (head[0] === 0xff && head[1] === 0xfe) return new TextDecoder('utf-16le')
  if (head[0] === 0xfe && head[1] === 0xff) return new TextDecoder('utf-16be')
  const controls = head.filter((byte) => byte < 9 || (byte > 13 && byte < 32)).length
  if (controls > 0) throw new CalculationError('unreadable', 'file', 'This is not a text file. Export the pulls from the dyno as CSV and choose that file.')
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true })
    return new TextDecoder('utf-8')
  } catch {
    return new TextDecoder('windows-1252')
  }
}

const SHOWN_ROWS = 6

/** What the columns of a file seem to be, by its first lines alone: for a file that nobody could read until a person says it. */
export async function readPullColumns(source: Readable, mapping: readonly ColumnMapping[] | undefined): Promise<PullColumns> {
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
  const reader = new PullReader({ delimiter, mapping })
  try {
    for (const row of data) reader.addRow(row)
  } catch (error) {
    // What cannot be read yet is what the person is asked about.
    if (!(error instanceof CalculationError)) throw error
  }
  const columns = reader.guess()
  const at = data.findIndex((row) => row.length >= columns.length && columns.every(({ heading }, i) => row[i]?.replace(/^\ufeff/, '').trim() === heading))
  return { delimiter: delimiterWord(delimiter), columns, firstRows: data.slice(at + 1, at + 1 + SHOWN_ROWS) }
}

/** Reads a dyno file as it streams in: numbers are kept, text is not. The stream is ended early when it is refused. */
export async function readPullFile(source: Readable, mapping: readonly ColumnMapping[] | undefined): Promise<{ report: PullFileReport; delimiter: string }> {
  const head: Buffer[] = []
  let headBytes = 0
  let total = 0
  const chunks = source[Symbol.asyncIterator]() as AsyncIterator<Buffer>
  const next = async () => {
    const { value, done } = await chunks.next()
    if (done) return undefined
    total += value.length
    if (total > LARGEST_CSV_BYTES) throw tooLarge()
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
  const reader = new PullReader({ delimiter, mapping })
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
  return { report: reader.finish(), delimiter }
}

/** Refuses a file whose lines are longer than any dyno writes, before they pile up in memory. */
function lineGuard(): (text: string) => void {
  let open = 0
  return (text) => {
    const last = Math.max(text.lastIndexOf('\n'), text.lastIndexOf('\r'))
    const parts = last < 0 ? [text.length + open] : text.split(/[\r\n]/).map((line, i) => line.length + (i === 0 ? open : 0))
    open = last < 0 ? open + text.length : text.length - last - 1
    if (parts.some((length) => length > LONGEST_LINE))
      throw new CalculationError(
        'out-of-range',
        'file',
        'A line of the file is longer than 64 kB: it has no line breaks, or is no table. Export the pulls as CSV with one row a line.',
      )
  }
}

function parseInto(text: Readable, delimiter: string, reader: PullReader): Promise<void> {
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
