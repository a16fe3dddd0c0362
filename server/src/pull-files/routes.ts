import { randomUUID } from 'node:crypto'
import { type PullColumns, type PullPreview, type PullSamples, pullFileQuerySchema } from '@bold-ballast/contract'
import { delimiterWord } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import { answerOf, requireSize, withBody } from '../file-reading/answer.ts'
import type { SpooledReport } from '../file-reading/read-for.ts'
import { PULL_FILE } from '../file-reading/read-pull-file.ts'
import { accessOf, actorOf } from '../http/actor.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from '../records/service.ts'
import { READ_LIMIT_MS, type WorkPool } from '../workers/pool.ts'
import { spooledBytes, storedChannels } from './channels.ts'
import { importPulls } from './import-pulls.ts'

/** A read pull as a record, without its channels. */
function pullFields(pull: SpooledReport['pulls'][number], sessionId: string, settingId: string | null) {
  const { label, curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount } = pull
  const figures = { label, curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount }
  return { id: randomUUID() as string, sessionId, settingId, ...figures, setAside: null }
}

export function pullFileRoutes(knex: Knex, records: RecordService, pool: WorkPool): Router {
  const router = Router()
  router.post('/builds/:buildId/sessions/:sessionId/pull-files', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const sessionId = readId(request.params.sessionId, 'session')
    const { mode, importId, mapping, settingId } = read(pullFileQuerySchema, request.query)
    requireSize(request, PULL_FILE)
    await records.get('sessions', buildId, sessionId)
    await withBody(request, PULL_FILE, async ({ path, beside }, signal) => {
      const limits = { limitMs: READ_LIMIT_MS, signal, personId: accessOf(response).personId }
      if (mode === 'columns') return void response.json(answerOf(await pool.run('columnsOf', { path, mapping }, limits)) satisfies PullColumns)
      const samplesPath = mode === 'import' ? beside('samples') : null
      const { delimiter, ...report } = answerOf(await pool.run('pullsOf', { path, mapping, samplesPath }, limits))
      if (samplesPath !== null) {
        const bytes = await spooledBytes(samplesPath)
        try {
          const pulls = report.pulls.map((pull) => ({
            fields: pullFields(pull, sessionId, settingId),
            channels: pull.channels.map(({ role, name, unit, byteOffset, byteLength }) => ({
              role,
              name,
              unit,
              byteLength,
              bytes: () => bytes.read(byteOffset, byteLength),
            })),
          }))
          response.status(201).json(await importPulls(knex, actorOf(request), buildId, sessionId, importId, pulls))
        } finally {
          await bytes.close()
        }
        return
      }
      const pulls = report.pulls.map(({ channels, ...pull }) => ({ ...pull, channelNames: channels.map((channel) => channel.name) }))
      response.json({ ...report, pulls, delimiter: delimiterWord(delimiter) } satisfies PullPreview)
    })
  })
  router.get('/builds/:buildId/pulls/:pullId/samples', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const pullId = readId(request.params.pullId, 'pull')
    await records.get('pulls', buildId, pullId)
    const channels = await storedChannels(knex, buildId, pullId)
    // A gap is NaN, which JSON writes as null.
    response.json({ channels: channels.map(({ values, ...head }) => ({ ...head, values: Array.from(values) })) } satisfies PullSamples)
  })
  return router
}
