import type { CopiesAnswer } from '@bold-ballast/contract'
import { z } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { accessOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import { writeAudit } from '../sign-in/audit.ts'
import type { CopyKeeper } from './keeper.ts'

const nothing = z.strictObject({})
const NOT_KEPT: CopiesAnswer = { folder: null, isRunning: false, copies: [] }

/** Copies of everything that stands on this server: what there is, one more, and a second look at one. */
export function copyRoutes(knex: Knex, keeper: CopyKeeper | null, logger: Logger): Router {
  const router = Router()
  const requireKeeper = (): CopyKeeper => {
    if (keeper) return keeper
    throw new AppError('rule-broken', 'Copies of this database are kept by whoever runs it. With COPIES_DIR they are kept here too.')
  }
  router.get('/garages/:garageId/copies', async (_request, response) => {
    response.json(keeper ? await keeper.list() : NOT_KEPT)
  })
  router.post('/garages/:garageId/copies', async (request, response) => {
    read(nothing, request.body)
    const own = requireKeeper()
    const garageId = readId(request.params.garageId, 'garage')
    await own.requireFree()
    await writeAudit(knex, request, { action: 'copy taken', subject: own.folder, personId: accessOf(response).personId, garageId })
    // What went wrong stands in the list of copies.
    own.take().catch((error: unknown) => logger.error({ err: error }, 'no copy was taken'))
    response.status(202).json({ ...(await own.list()), isRunning: true } satisfies CopiesAnswer)
  })
  router.post('/garages/:garageId/copies/:id/check', async (request, response) => {
    read(nothing, request.body)
    await requireKeeper().check(readId(request.params.id, 'copy'))
    response.status(202).json({})
  })
  return router
}
