import { closeSync, createReadStream, openSync, writeSync } from 'node:fs'
import type { LogColumns } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  delimiterWord,
  type LogColumnMapping,
  type LoggedLap,
  LogReader,
  type LogReport,
  lapsOfLog,
  type TrackPlace,
} from '@bold-ballast/core'
import { AppError } from '../http/problem.ts'
import { type CsvLimit, readFirstRows, rowsBelow, streamRows } from './csv-rows.ts'

/** A logger's file may be so large. */
export const LOG_FILE: CsvLimit = {
  mostBytes: 250 * 1024 * 1024,
  tooLarge: () => new AppError('too-large', 'The file is larger than 250 MB. Export one session of it, or fewer channels.'),
}

/** Where a piece of a channel lies in the file of samples. */
export interface SpooledBlock {
  readonly channel: number
  readonly byteOffset: number
  readonly byteLength: number
}

/** A log as its thread hands it on: samples lie in a file. */
export interface SpooledLog extends Pick<LogReport, 'channels' | 'rowCount' | 'durationS' | 'problems' | 'told' | 'origin'> {
  readonly laps: readonly LoggedLap[]
  /** Why no lap could be read from it; null: laps were. */
  readonly noLaps: string | null
  readonly blocks: readonly SpooledBlock[]
  readonly delimiter: string
}

export async function readLogColumns(path: string, mapping: readonly LogColumnMapping[] | undefined): Promise<LogColumns> {
  const { reader, delimiter, rows } = await readFirstRows(createReadStream(path), (mark) => new LogReader({ delimiter: mark, mapping }))
  const columns = reader.guess()
  const firstRows = rowsBelow(
    rows,
    columns.map(({ heading }) => heading),
  )
  return { delimiter: delimiterWord(delimiter), columns: columns.map(({ heading, role, unit }) => ({ heading, role, unit })), firstRows }
}

/** Reads a log; its samples go into a file as pieces fill, so that memory does not grow with it. */
export async function readLogFile(
  path: string,
  mapping: readonly LogColumnMapping[] | undefined,
  track: TrackPlace,
  samplesPath: string | null,
): Promise<SpooledLog> {
  const blocks: SpooledBlock[] = []
  let byteOffset = 0
  const file = samplesPath === null ? null : openSync(samplesPath, 'w')
  const onBlock = (channel: number, block: Float32Array) => {
    if (file === null) return
    writeSync(file, block)
    blocks.push({ channel, byteOffset, byteLength: block.byteLength })
    byteOffset += block.byteLength
  }
  try {
    const { reader, delimiter } = await streamRows(createReadStream(path), LOG_FILE, (mark) => new LogReader({ delimiter: mark, mapping, onBlock }))
    const report = reader.finish()
    const laps = attempt(() => lapsOfLog(report, track))
    const { channels, rowCount, durationS, problems, told, origin } = report
    const found = laps instanceof CalculationError ? { laps: [], noLaps: laps.message } : { laps, noLaps: null }
    return { channels, rowCount, durationS, problems, told, origin, ...found, blocks, delimiter }
  } finally {
    if (file !== null) closeSync(file)
  }
}
