import { open } from 'node:fs/promises'
import type { LogSamples } from '@bold-ballast/contract'
import { BLOCK_SAMPLES, LOG_LEVELS, levelsOf, type TrackLog } from '@bold-ballast/core'
import type { Knex } from 'knex'
import type { SpooledBlock } from '../file-reading/read-log-file.ts'

/** So many pieces go into one statement. */
const BLOCKS_A_STATEMENT = 8

/** Copied, because a buffer need not start on a number's boundary. */
const floatsOf = (bytes: Buffer): Float32Array => new Float32Array(new Uint8Array(bytes).buffer)
const bytesOf = (floats: Float32Array): Buffer => Buffer.from(floats.buffer, floats.byteOffset, floats.byteLength)

const rowOf = (buildId: string, logId: string, channel: number, block: number, samples: Float32Array) => ({
  buildId,
  logId,
  channel,
  block,
  samples: bytesOf(samples),
  fine: bytesOf(levelsOf(samples, LOG_LEVELS.fine)),
  coarse: bytesOf(levelsOf(samples, LOG_LEVELS.coarse)),
})

/** Stores the samples of a log piece by piece out of the file they lie in. */
export async function insertBlocks(trx: Knex, buildId: string, logId: string, samplesPath: string, blocks: readonly SpooledBlock[]): Promise<void> {
  const file = await open(samplesPath, 'r')
  const nextOf = new Map<number, number>()
  try {
    for (let from = 0; from < blocks.length; from += BLOCKS_A_STATEMENT) {
      const rows: object[] = []
      for (const { channel, byteOffset, byteLength } of blocks.slice(from, from + BLOCKS_A_STATEMENT)) {
        const bytes = Buffer.alloc(byteLength)
        await file.read(bytes, 0, byteLength, byteOffset)
        const block = nextOf.get(channel) ?? 0
        nextOf.set(channel, block + 1)
        rows.push(rowOf(buildId, logId, channel, block, floatsOf(bytes)))
      }
      await trx('log_blocks').insert(rows)
    }
  } finally {
    await file.close()
  }
}

/** Stores whole channels, as a build file brings them. */
export async function insertChannels(trx: Knex, buildId: string, logId: string, channels: readonly Float32Array[]): Promise<void> {
  for (const [channel, samples] of channels.entries())
    for (let block = 0; block * BLOCK_SAMPLES < samples.length; block++)
      await trx('log_blocks').insert(rowOf(buildId, logId, channel, block, samples.slice(block * BLOCK_SAMPLES, (block + 1) * BLOCK_SAMPLES)))
}

type Level = 'samples' | keyof typeof LOG_LEVELS
const PER: Readonly<Record<Level, number>> = { samples: 1, ...LOG_LEVELS }

/** Part of a channel, each value or each pair of a level; rows from one to before another. */
async function partOf(
  knex: Knex,
  of: { readonly buildId: string; readonly logId: string },
  channel: number,
  level: Level,
  from: number,
  to: number,
): Promise<Float32Array> {
  const first = Math.floor(from / BLOCK_SAMPLES)
  const rows = (await knex('log_blocks')
    .where({ ...of, channel })
    .whereBetween('block', [first, Math.floor((to - 1) / BLOCK_SAMPLES)])
    .orderBy('block')
    .select(level)) as Record<Level, Buffer>[]
  const parts = rows.map((row) => floatsOf(row[level]))
  const all = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  const wide = level === 'samples' ? 1 : 2
  const begin = Math.floor((from - first * BLOCK_SAMPLES) / PER[level])
  return all.subarray(wide * begin, wide * Math.ceil((to - first * BLOCK_SAMPLES) / PER[level]))
}

/** The rows of a log that lie within a time: found by the clock's fine level, so within 64 rows. */
async function rowsWithin(knex: Knex, of: { buildId: string; logId: string }, log: TrackLog, clock: number, fromS: number, toS: number) {
  const fine = await partOf(knex, of, clock, 'fine', 0, log.rowCount)
  const runs = fine.length / 2
  let [first, last] = [0, runs]
  while (first < runs - 1 && (fine[2 * first + 1] as number) < fromS) first++
  while (last > first + 1 && (fine[2 * (last - 1)] as number) > toS) last--
  return { from: first * LOG_LEVELS.fine, to: Math.min(log.rowCount, last * LOG_LEVELS.fine) }
}

const listOf = (values: Float32Array, step: number, at: number): number[] =>
  Array.from({ length: values.length / step }, (_, i) => values[i * step + at] as number)

/**
 * Channels of a log over a time, in at most so many entries: each sample where they are few, else least and most of each 64 or 4,096. Null where its samples
 * are not here.
 */
export async function samplesOf(
  knex: Knex,
  of: { readonly buildId: string; readonly logId: string },
  log: TrackLog,
  wish: { readonly channels: readonly number[]; readonly fromS: number; readonly toS: number; readonly most: number },
): Promise<LogSamples | null> {
  const clock = log.channels.findIndex(({ role }) => role === 'time')
  if (!(await knex('log_blocks').where(of).first('block'))) return null
  const { from, to } = await rowsWithin(knex, of, log, clock, wish.fromS, wish.toS)
  const rows = to - from
  const level: Level = rows <= wish.most ? 'samples' : rows / LOG_LEVELS.fine <= wish.most ? 'fine' : 'coarse'
  const time = await partOf(knex, of, clock, level, from, to)
  const isWhole = level === 'samples'
  const channels = []
  for (const channel of wish.channels) {
    const head = log.channels[channel]
    if (!head) continue
    const part = await partOf(knex, of, channel, level, from, to)
    const { role, name, unit } = head
    channels.push({ channel, role, name, unit, least: listOf(part, isWhole ? 1 : 2, 0), most: isWhole ? null : listOf(part, 2, 1) })
  }
  return { perEntry: PER[level], timeS: listOf(time, isWhole ? 1 : 2, 0), channels }
}

/** All samples of a log, channel by channel; empty where they are not here. */
export async function wholeChannels(knex: Knex, of: { readonly buildId: string; readonly logId: string }, log: TrackLog): Promise<Float32Array[]> {
  const all: Float32Array[] = []
  for (const channel of log.channels.keys()) {
    const values = await partOf(knex, of, channel, 'samples', 0, log.rowCount)
    if (values.length > 0) all.push(values)
  }
  return all
}
