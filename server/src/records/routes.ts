import { createSchema, patchSchema, stageOrderSchema, versionSchema } from '@bold-ballast/contract'
import { KINDS, kindOf, type ResourceName } from '@bold-ballast/core'
import { type Request, Router } from 'express'
import { actorOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from './service.ts'

type Params = { buildId: string; id: string }
const ids = (request: Request<Params>) => ({ buildId: readId(request.params.buildId, 'build'), id: readId(request.params.id, 'record') })

/** The same six routes for every resource below a build. */
function resourceRoutes(router: Router, service: RecordService, resource: ResourceName): void {
  const base = `/builds/:buildId/${resource}`
  const { fields } = kindOf(resource)
  const create = createSchema(fields)
  const patch = patchSchema(fields)
  router.get(base, async (request, response) => {
    response.json(await service.list(resource, readId(request.params.buildId, 'build')))
  })
  router.post(base, async (request, response) => {
    const body = read(create, request.body) as { id: string }
    if (resource === 'photos') throw new AppError('rule-broken', 'A picture is sent with its bytes, to photo-files.')
    const { record, isNew } = await service.create(actorOf(request), resource, readId(request.params.buildId, 'build'), body)
    response.status(isNew ? 201 : 200).json(record)
  })
  router.get(`${base}/:id`, async (request: Request<Params>, response) => {
    const { buildId, id } = ids(request)
    response.json(await service.get(resource, buildId, id))
  })
  router.patch(`${base}/:id`, async (request: Request<Params>, response) => {
    const { buildId, id } = ids(request)
    response.json(await service.update(actorOf(request), resource, buildId, id, read(patch, request.body) as { version: number }))
  })
  router.delete(`${base}/:id`, async (request: Request<Params>, response) => {
    const { buildId, id } = ids(request)
    response.json(await service.remove(actorOf(request), resource, buildId, id, read(versionSchema, request.body).version))
  })
  router.post(`${base}/:id/restore`, async (request: Request<Params>, response) => {
    const { buildId, id } = ids(request)
    response.json(await service.restore(actorOf(request), resource, buildId, id, read(versionSchema, request.body).version))
  })
}

export function recordRoutes(service: RecordService): Router {
  const router = Router()
  for (const { address } of KINDS) resourceRoutes(router, service, address)
  router.put('/builds/:buildId/stage-order', async (request, response) => {
    const { stages } = read(stageOrderSchema, request.body)
    response.json(await service.reorderStages(actorOf(request), readId(request.params.buildId, 'build'), stages))
  })
  return router
}
