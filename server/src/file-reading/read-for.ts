import { createReadStream, createWriteStream } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { LogColumns, PullColumns } from '@bold-ballast/contract'
import { CalculationError, type ColumnMapping, type LogColumnMapping, type PullFileReport, type TrackPlace } from '@bold-ballast/core'
import { readLogColumns, readLogFile, type SpooledLog } from './read-log-file.ts'
import { readPullColumns, readPullFile } from './read-pull-file.ts'

/** Where a file of pulls lies, and what is wanted of it. */
export interface PullFileWish {
  readonly path: string
  readonly mapping: readonly ColumnMapping[] | undefined
}

/** A channel whose samples lie in a file, as 64-bit numbers. */
export interface SpooledChannel {
  readonly role: string
  readonly name: string
  readonly unit: string
  readonly byteOffset: number
  readonly byteLength: number
}

type Pull = PullFileReport['pulls'][number]
export interface SpooledReport extends Omit<PullFileReport, 'pulls'> {
  readonly pulls: readonly (Omit<Pull, 'channels'> & { readonly channels: readonly SpooledChannel[] })[]
  readonly delimiter: string
}

/** A refusal crosses threads as its parts. */
export type Refusable<Answer> = { readonly ok: true; readonly answer: Answer } | { readonly ok: false; readonly field: string; readonly message: string }

async function orRefusal<Answer>(work: () => Promise<Answer>): Promise<Refusable<Answer>> {
  try {
    return { ok: true, answer: await work() }
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    return { ok: false, field: error.field, message: error.message }
  }
}

/** What the columns of a file seem to be. */
export const columnsOf = ({ path, mapping }: PullFileWish): Promise<Refusable<PullColumns>> => orRefusal(() => readPullColumns(createReadStream(path), mapping))

/** The pulls of a file; their samples are put into a file of their own, one behind the other, so that they never stand in two memories. */
export const pullsOf = ({ path, mapping, samplesPath }: PullFileWish & { readonly samplesPath: string | null }): Promise<Refusable<SpooledReport>> =>
  orRefusal(async () => {
    const { report, delimiter } = await readPullFile(createReadStream(path), mapping)
    let offset = 0
    const pulls = report.pulls.map(({ channels, ...pull }) => ({
      ...pull,
      channels: channels.map(({ role, name, unit, values }): SpooledChannel => {
        const byteOffset = offset
        offset += values.byteLength
        return { role, name, unit, byteOffset, byteLength: values.byteLength }
      }),
    }))
    if (samplesPath !== null) {
      const all = report.pulls.flatMap(({ channels }) => channels.map(({ values }) => Buffer.from(values.buffer, values.byteOffset, values.byteLength)))
      await pipeline(Readable.from(all), createWriteStream(samplesPath))
    }
    return { ...report, pulls, delimiter }
  })

/** Where a logger's file lies, and what is wanted of it. */
export interface LogFileWish {
  readonly path: string
  readonly mapping: readonly LogColumnMapping[] | undefined
}

/** What the columns of a logger's file seem to be. */
export const logColumnsOf = ({ path, mapping }: LogFileWish): Promise<Refusable<LogColumns>> => orRefusal(() => readLogColumns(path, mapping))

/** A log with its laps on a track; its samples go into a file of their own. */
export const logOf = ({
  path,
  mapping,
  track,
  samplesPath,
}: LogFileWish & { readonly track: TrackPlace; readonly samplesPath: string | null }): Promise<Refusable<SpooledLog>> =>
  orRefusal(() => readLogFile(path, mapping, track, samplesPath))
