import { batchSchema } from '@bold-ballast/contract'
import express, { Router } from 'express'
import { actorOf } from '../http/actor.ts'
import { read, readId } from '../http/read.ts'
import type { BatchService } from './service.ts'

/** Many records at once: pasted lines, a bulk edit, plates that go into the ledger. */
export function batchRoutes(service: BatchService): Router {
  const router = Router()
  router.post('/builds/:buildId/batches', express.json({ limit: '4mb' }), async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    response.json(await service.write(actorOf(request), buildId, read(batchSchema, request.body)))
  })
  return router
}
