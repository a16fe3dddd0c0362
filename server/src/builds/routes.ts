import { buildCreateSchema, patchSchema, versionSchema, type WorkingAnswer } from '@bold-ballast/contract'
import { buildFields, findCalculation, makeBoard, makePowerRoom, makeWeightRoom, makeWorking, WORKING_SUBJECTS, z } from '@bold-ballast/core'
import { Router } from 'express'
import { actorOf, today } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from '../records/service.ts'
import { type BuildService, calculationRecords } from './service.ts'

const patch = patchSchema(buildFields)
const workingQuery = z.strictObject({ of: z.enum(WORKING_SUBJECTS), id: z.string() })

export function buildRoutes(builds: BuildService, records: RecordService): Router {
  const router = Router()
  const recordsOf = async (buildId: unknown) => calculationRecords(await records.all(readId(buildId, 'build')))

  router.get('/builds', async (_request, response) => {
    response.json(await builds.garage(today()))
  })
  router.post('/builds', async (request, response) => {
    const { record, isNew } = await builds.create(actorOf(request), read(buildCreateSchema, request.body))
    response.status(isNew ? 201 : 200).json(record)
  })
  router.patch('/builds/:buildId', async (request, response) => {
    response.json(await builds.update(actorOf(request), readId(request.params.buildId, 'build'), read(patch, request.body) as { version: number }))
  })
  router.delete('/builds/:buildId', async (request, response) => {
    response.json(await builds.remove(actorOf(request), readId(request.params.buildId, 'build'), read(versionSchema, request.body).version))
  })
  router.post('/builds/:buildId/restore', async (request, response) => {
    response.json(await builds.restore(actorOf(request), readId(request.params.buildId, 'build'), read(versionSchema, request.body).version))
  })
  router.get('/builds/:buildId/board', async (request, response) => {
    response.json(makeBoard(await recordsOf(request.params.buildId), today()))
  })
  router.get('/builds/:buildId/weight', async (request, response) => {
    response.json(makeWeightRoom(await recordsOf(request.params.buildId)))
  })
  router.get('/builds/:buildId/power', async (request, response) => {
    response.json(makePowerRoom(await recordsOf(request.params.buildId)))
  })
  router.get('/builds/:buildId/working', async (request, response) => {
    const { of, id } = read(workingQuery, request.query)
    const working = makeWorking(await recordsOf(request.params.buildId), of, id, today())
    const calculation = findCalculation(working.calculation)
    if (!calculation) throw new AppError('not-found', 'There is no such calculation.')
    const { formula, sources, assumptions } = calculation
    response.json({ ...working, formula, sources, assumptions } satisfies WorkingAnswer)
  })
  return router
}
