import { LINK_HEADER, linkSchema } from '@bold-ballast/contract'
import { type Request, Router } from 'express'
import type { Knex } from 'knex'
import type { OpenBuilds } from '../builds/open-builds.ts'
import { accessOf, today } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { Tries } from '../sign-in/tries.ts'
import { LinkService } from './service.ts'

const buildIdOf = (request: Request) => readId(request.params.buildId, 'build')

/** Links that show a Board or one stage: made and withdrawn by owners, opened by whoever holds one. */
export function linkRoutes(knex: Knex, open: OpenBuilds, tries: Tries): Router {
  const router = Router()
  const service = new LinkService(knex, open)
  router.get('/builds/:buildId/links', async (request, response) => void response.json(await service.list(buildIdOf(request))))
  router.post('/builds/:buildId/links', async (request, response) => {
    const { personId } = accessOf(response)
    if (personId === null) throw new AppError('rule-broken', 'Nobody signs in here, so that nobody could hold a link back. Make an owner first.')
    response.status(201).json(await service.make({ request, personId }, buildIdOf(request), read(linkSchema, request.body)))
  })
  router.delete('/builds/:buildId/links/:id', async (request, response) => {
    await service.withdraw({ request, personId: accessOf(response).personId }, buildIdOf(request), readId(request.params.id, 'link'))
    response.json({})
  })
  router.get('/shared', async (request, response) => {
    await tries.link(request.ip ?? '')
    response.setHeader('X-Robots-Tag', 'noindex')
    response.json(await service.show(request.get(LINK_HEADER) ?? '', today()))
  })
  return router
}
