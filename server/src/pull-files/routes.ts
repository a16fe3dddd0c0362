import { randomUUID } from 'node:crypto'
import { type PullColumns, type PullPreview, type PullSamples, pullFileQuerySchema } from '@bold-ballast/contract'
import { delimiterWord, type ReadPull } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import { actorOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from '../records/service.ts'
import { storedChannels } from './channels.ts'
import { importPulls } from './import-pulls.ts'
import { LARGEST_CSV_BYTES, readPullColumns, readPullFile } from './read-pull-file.ts'

/** A read pull as a record, without its channels. */
export function pullFields(pull: ReadPull, sessionId: string, settingId: string | null) {
  const { label, curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount } = pull
  const figures = { label, curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount }
  return { id: randomUUID() as string, sessionId, settingId, ...figures, setAside: null }
}

export function pullFileRoutes(knex: Knex, records: RecordService): Router {
  const router = Router()
  router.post('/builds/:buildId/sessions/:sessionId/pull-files', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const sessionId = readId(request.params.sessionId, 'session')
    const { mode, importId, mapping, settingId } = read(pullFileQuerySchema, request.query)
    if (Number(request.headers['content-length'] ?? 0) > LARGEST_CSV_BYTES) {
      throw new AppError('too-large', 'The file is larger than 100 MB. Export fewer pulls, or fewer channels, into one file.')
    }
    await records.get('sessions', buildId, sessionId)
    if (mode === 'columns') {
      response.json((await readPullColumns(request, mapping)) satisfies PullColumns)
      return
    }
    const { report, delimiter } = await readPullFile(request, mapping)
    if (mode === 'import') {
      const pulls = report.pulls.map((pull) => ({ fields: pullFields(pull, sessionId, settingId), channels: pull.channels }))
      response.status(201).json(await importPulls(knex, actorOf(request), buildId, sessionId, importId, pulls))
      return
    }
    const pulls = report.pulls.map(({ channels, ...pull }) => ({ ...pull, channelNames: channels.map((channel) => channel.name) }))
    response.json({ ...report, pulls, delimiter: delimiterWord(delimiter) } satisfies PullPreview)
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
