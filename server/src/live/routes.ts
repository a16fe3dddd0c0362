import { hereSchema, liveQuerySchema } from '@bold-ballast/contract'
import { Router } from 'express'
import type { Knex } from 'knex'
import type { Standing } from '../access/person-access.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { LiveHub } from './hub.ts'
import { beat } from './presence.ts'
import { LiveStream } from './stream.ts'

const OPEN = 'Nobody signs in here, so nobody is told who is where.'

/** What others do, as it happens, and who is where; for those who are signed in. */
export function liveRoutes(knex: Knex, hub: LiveHub): Router {
  const router = Router()
  router.get('/live', async (request, response) => {
    const standing = response.locals.standing as Standing | undefined
    if (!standing) throw new AppError('rule-broken', OPEN)
    const { builds } = read(liveQuerySchema, request.query)
    const last = Number(request.get('last-event-id') ?? Number.NaN)
    const stream = new LiveStream(response, { knex, hub, person: standing, builds, lastEventId: Number.isInteger(last) ? last : null })
    await stream.begin()
  })
  router.put('/builds/:buildId/here', async (request, response) => {
    const standing = response.locals.standing as Standing | undefined
    if (!standing) throw new AppError('rule-broken', OPEN)
    await beat(knex, readId(request.params.buildId, 'build'), standing.id, read(hereSchema, request.body))
    response.json({})
  })
  return router
}
