import { randomUUID } from 'node:crypto'
import { type BatchWrite, type LogColumns, type LogPreview, type LogSamples, logFileQuerySchema, logSamplesQuerySchema } from '@bold-ballast/contract'
import { lengthOfTrack, type Track, type TrackLap, type TrackLog, type TrackPlace, type TrackSession } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import type { BatchService } from '../batches/service.ts'
import { answerOf, requireSize, withBody } from '../file-reading/answer.ts'
import { LOG_FILE, type SpooledLog } from '../file-reading/read-log-file.ts'
import { accessOf, actorOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from '../records/service.ts'
import { READ_LIMIT_MS, type WorkPool } from '../workers/pool.ts'
import { insertBlocks, samplesOf } from './blocks.ts'

type Versioned<Entry> = Entry & { readonly version: number }

/** Where the session's track lies. */
async function placeOf(records: RecordService, buildId: string, session: TrackSession): Promise<TrackPlace> {
  const track = (await records.get('tracks', buildId, session.trackId)) as unknown as Track
  return { origin: track.origin, bearingRad: track.bearingRad, lengthM: lengthOfTrack(track.segments) }
}

/** What storing a log writes: the log, its laps where the session has none, and that the logger recorded. */
function writesOf(
  log: SpooledLog,
  { logId, loggerName, fileName }: { logId: string; loggerName: string; fileName: string },
  session: Versioned<TrackSession>,
  hasLaps: boolean,
): BatchWrite[] {
  const { channels, rowCount, durationS, origin, problems } = log
  const body = { id: logId, trackSessionId: session.id, loggerName, fileName, rowCount, durationS, origin, channels, problems }
  const takes = !hasLaps && (session.kind === 'laps' || session.kind === 'shakedown')
  const laps = (takes ? log.laps : []).map(
    ({ fromS, lapS }, position): BatchWrite => ({
      kind: 'create',
      resource: 'laps',
      body: { id: randomUUID(), trackSessionId: session.id, position, lapS, kind: 'clean', logId, fromS },
    }),
  )
  const state = { version: session.version, logger: problems.length > 0 ? 'partly' : 'recorded', ...(laps.length > 0 ? { timing: 'gps' } : {}) }
  return [
    { kind: 'create', resource: 'track-logs', body: body as unknown as Record<string, unknown> },
    ...laps,
    { kind: 'update', resource: 'track-sessions', id: session.id, body: state },
  ]
}

export function trackLogRoutes(knex: Knex, records: RecordService, batches: BatchService, pool: WorkPool): Router {
  const router = Router()
  router.post('/builds/:buildId/track-sessions/:sessionId/log-files', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const sessionId = readId(request.params.sessionId, 'session')
    const { mode, importId, mapping, ...named } = read(logFileQuerySchema, request.query)
    requireSize(request, LOG_FILE)
    const session = (await records.get('track-sessions', buildId, sessionId)) as unknown as Versioned<TrackSession>
    const track = await placeOf(records, buildId, session)
    await withBody(request, LOG_FILE, async ({ path, beside }, signal) => {
      const limits = { limitMs: READ_LIMIT_MS, signal, personId: accessOf(response).personId }
      if (mode === 'columns') return void response.json(answerOf(await pool.run('logColumnsOf', { path, mapping }, limits)) satisfies LogColumns)
      const samplesPath = mode === 'import' ? beside('samples') : null
      const log = answerOf(await pool.run('logOf', { path, mapping, track, samplesPath }, limits))
      if (samplesPath === null) {
        const { blocks: _, origin: __, ...shown } = log
        return void response.json(shown satisfies LogPreview)
      }
      const laps = ((await records.list('laps', buildId)) as unknown as TrackLap[]).filter(({ trackSessionId }) => trackSessionId === sessionId)
      const writes = writesOf(log, named, session, laps.length > 0)
      const written = await batches.write(actorOf(request), buildId, { batchId: importId, writes }, (trx) =>
        insertBlocks(trx, buildId, named.logId, samplesPath, log.blocks),
      )
      response.status(201).json(written)
    })
  })
  router.get('/builds/:buildId/track-logs/:logId/samples', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const logId = readId(request.params.logId, 'log')
    const wish = read(logSamplesQuerySchema, request.query)
    const log = (await records.get('track-logs', buildId, logId)) as unknown as TrackLog
    const found = await samplesOf(knex, { buildId, logId }, log, wish)
    if (!found) throw new AppError('not-found', 'The samples of this log are not here: the build came in without them. Import the log again.')
    response.json(found satisfies LogSamples)
  })
  return router
}
