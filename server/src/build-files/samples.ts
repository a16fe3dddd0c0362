import type { Readable } from 'node:stream'
import type { Channel } from '@bold-ballast/core'
import Papa from 'papaparse'
import { AppError } from '../http/problem.ts'

type ChannelHead = Omit<Channel, 'values'>

const CHUNK_ROWS = 500

/** A pull's samples as CSV, some rows at a time: a column a channel, numbers in full precision, a gap as an empty cell. */
export function* samplesCsv(channels: readonly Channel[]): Generator<string> {
  yield `${Papa.unparse([channels.map((channel) => (channel.unit ? `${channel.name} [${channel.unit}]` : channel.name))])}\r\n`
  const count = channels[0]?.values.length ?? 0
  for (let from = 0; from < count; from += CHUNK_ROWS) {
    let text = ''
    for (let row = from; row < Math.min(from + CHUNK_ROWS, count); row++) {
      text += channels.map(({ values }) => (Number.isNaN(values[row]) ? '' : String(values[row]))).join(',')
      text += '\r\n'
    }
    yield text
  }
}

/** Reads such a CSV back into channels; refuses a row of another width and a cell that is no number, by file and line. */
export async function readSamples(stream: Readable, file: string, heads: readonly ChannelHead[]): Promise<Channel[]> {
  const columns: number[][] = heads.map(() => [])
  let line = 0
  const refuse = (message: string) => new AppError('bad-input', `${file}, line ${line}: ${message}`, { errors: [{ path: file, message }] })
  const takeRow = (cells: readonly string[]) => {
    line++
    if (cells.length === 1 && cells[0] === '') return
    if (cells.length !== heads.length) throw refuse(`it has ${cells.length} cells where the build file names ${heads.length} channels.`)
    if (line === 1) return
    cells.forEach((cell, i) => {
      const value = cell === '' ? Number.NaN : Number(cell)
      if (cell !== '' && !Number.isFinite(value)) throw refuse(`"${cell.slice(0, 30)}" is no number. Numbers have a decimal point and no unit.`)
      columns[i]?.push(value)
    })
  }
  stream.setEncoding('utf8')
  await new Promise<void>((resolve, reject) => {
    stream.once('error', reject)
    Papa.parse<string[]>(stream as unknown as File, {
      delimiter: ',',
      chunk: ({ data }, parser) => {
        try {
          data.forEach(takeRow)
        } catch (error) {
          // Before the abort, which ends the parser as if the file were complete.
          reject(error)
          parser.abort()
        }
      },
      complete: () => resolve(),
      error: reject,
    })
  })
  return heads.map((head, i) => ({ ...head, values: Float64Array.from(columns[i] as number[]) }))
}
