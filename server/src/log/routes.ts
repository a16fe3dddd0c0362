import { logQuerySchema, sinceQuerySchema } from '@bold-ballast/contract'
import { z } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import type { OpenBuilds } from '../builds/open-builds.ts'
import { actorOf, today } from '../http/actor.ts'
import { askerOf } from '../http/asker.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { WorkPool } from '../workers/pool.ts'
import { LogService } from './service.ts'
import { SinceService } from './since.ts'

const entryIdSchema = z.coerce.number().int().positive()

export function logRoutes(knex: Knex, open: OpenBuilds, pool: WorkPool): Router {
  const router = Router()
  const log = new LogService(knex)
  const since = new SinceService(knex, open, pool)
  router.get('/builds/:buildId/log', async (request, response) => {
    response.json(await log.page(readId(request.params.buildId, 'build'), read(logQuerySchema, request.query)))
  })
  router.get('/builds/:buildId/since', async (request, response) => {
    response.json(await since.answer(readId(request.params.buildId, 'build'), read(sinceQuerySchema, request.query), today(), askerOf(response)))
  })
  router.post('/builds/:buildId/log/:entryId/undo', async (request, response) => {
    const entryId = entryIdSchema.safeParse(request.params.entryId)
    if (!entryId.success) throw new AppError('not-found', 'The log of this build has no such entry.')
    read(z.strictObject({}), request.body)
    response.json(await log.undo(actorOf(request), readId(request.params.buildId, 'build'), entryId.data))
  })
  return router
}
