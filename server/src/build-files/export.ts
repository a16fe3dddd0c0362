import { Readable } from 'node:stream'
import {
  BUILD_FILE_FORMAT,
  BUILD_FILE_NAME,
  BUILD_FILE_VERSION,
  type BuildFile,
  type BuildFileRecord,
  logSamplesFileName,
  photoFileName,
  samplesFileName,
} from '@bold-ballast/contract'
import { type Channel, KINDS } from '@bold-ballast/core'
import type { Knex } from 'knex'
import yazl from 'yazl'
import { answerRecords, type OpenBuild } from '../builds/open-builds.ts'
import { photoBytes } from '../photos/photo-bytes.ts'
import { storedChannels } from '../pull-files/channels.ts'
import { wholeChannels } from '../track-logs/blocks.ts'
import { samplesCsv } from './samples.ts'

interface ChannelRow extends Omit<Channel, 'values'> {
  readonly pullId: string
}

/** A stored record as a file keeps it: its fields, who made it and which version it was. */
function fileRecord({ buildId: _b, updatedAt: _a, updatedBy: _u, deletedAt: _d, ...record }: Record<string, unknown>): BuildFileRecord {
  return record as BuildFileRecord
}

/** The build as a build file; broken records are left out, because no program could read them. Samples of logs go with it where they are asked for. */
export async function buildFileOf(knex: Knex, open: OpenBuild, exportedAt: string, { withLogs }: { withLogs: boolean }): Promise<BuildFile> {
  const stored = answerRecords(open)
  const buildId = stored.build.id
  const pullIds = stored.pulls.map((pull) => pull.id)
  const versions = (await knex('pulls').where({ buildId }).whereIn('id', pullIds).select('id', 'curveVersion')) as { id: string; curveVersion: number }[]
  const versionOf = new Map(versions.map((row) => [row.id, row.curveVersion]))
  const channels = new Map<string, Omit<Channel, 'values'>[]>()
  const rows = (await knex('pull_channels')
    .where({ buildId })
    .whereIn('pullId', pullIds)
    .orderBy(['pullId', 'position'])
    .select('pullId', 'role', 'name', 'unit')) as ChannelRow[]
  for (const { pullId, role, name, unit } of rows) channels.set(pullId, [...(channels.get(pullId) ?? []), { role, name, unit }])
  const lists = KINDS.map(({ list }) => [list, (stored[list] as unknown as Record<string, unknown>[]).map(fileRecord)] as const)
  const samples = (id: string) => (channels.has(id) ? { file: samplesFileName(id), channels: channels.get(id) } : null)
  const sampled = new Set(withLogs ? ((await knex('log_blocks').where({ buildId }).distinct('logId')) as { logId: string }[]).map(({ logId }) => logId) : [])
  return {
    format: BUILD_FILE_FORMAT,
    formatVersion: BUILD_FILE_VERSION,
    exportedAt,
    build: fileRecord(stored.build),
    ...Object.fromEntries(lists),
    pulls: stored.pulls.map((pull) => ({ ...fileRecord(pull), curveVersion: versionOf.get(pull.id), samples: samples(pull.id) })),
    trackLogs: stored.trackLogs.map((log) => ({
      ...fileRecord(log as never),
      samples: sampled.has(log.id) ? { file: logSamplesFileName(log.id), channels: log.channels.map(({ role, name, unit }) => ({ role, name, unit })) } : null,
    })),
    photos: stored.photos.map((photo) => ({ ...fileRecord(photo as never), file: photoFileName(photo.id, photo.mediaType) })),
  } as unknown as BuildFile
}

async function* samplesOf(knex: Knex, buildId: string, pullId: string): AsyncGenerator<string> {
  yield* samplesCsv(await storedChannels(knex, buildId, pullId))
}

async function* logSamplesOf(knex: Knex, buildId: string, log: BuildFile['trackLogs'][number]): AsyncGenerator<string> {
  const channels = await wholeChannels(knex, { buildId, logId: log.id }, log)
  yield* samplesCsv(log.channels.map(({ role, name, unit }, i) => ({ role, name, unit, values: Float64Array.from(channels[i] ?? []) })))
}

/** The archive of a build: the build file and a CSV of samples for each pull, and for each log that goes with it, made as it is sent. */
export function buildArchive(knex: Knex, file: BuildFile): Readable {
  const zip = new yazl.ZipFile()
  const mtime = new Date(file.exportedAt ?? 0)
  zip.addBuffer(Buffer.from(`${JSON.stringify(file, null, 1)}\n`), BUILD_FILE_NAME, { mtime })
  for (const { id, samples } of file.pulls) {
    if (samples) zip.addReadStreamLazy(samples.file, { mtime }, (done) => done(null, Readable.from(samplesOf(knex, file.build.id, id))))
  }
  for (const log of file.trackLogs) {
    if (log.samples) zip.addReadStreamLazy(log.samples.file, { mtime }, (done) => done(null, Readable.from(logSamplesOf(knex, file.build.id, log))))
  }
  for (const { id, file: name } of file.photos) {
    zip.addReadStreamLazy(name, { mtime, compress: false }, (done) => {
      const bytes = async function* () {
        yield await photoBytes(knex, file.build.id, id)
      }
      done(null, Readable.from(bytes()))
    })
  }
  zip.end()
  return zip.outputStream as Readable
}
