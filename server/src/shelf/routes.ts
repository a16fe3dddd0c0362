import type { ShelfPart } from '@bold-ballast/contract'
import { Router } from 'express'
import type { Knex } from 'knex'
import { BuildModel, modelOf } from '../records/models.ts'
import { plain } from '../records/versioned.ts'

/** Parts that builds of the garage share with each other. */
export function shelfRoutes(knex: Knex): Router {
  const router = Router()
  router.get('/shelf', async (_request, response) => {
    const builds = await BuildModel.query(knex).whereNull('deletedAt').select('id', 'name')
    const names = new Map(builds.map((build) => [build.id, (build as unknown as { name: string }).name]))
    const parts = await modelOf('parts').query(knex).where({ isShared: true }).whereNull('deletedAt').orderBy(['kind', 'name', 'id'])
    const shared = parts.flatMap((part) => {
      const buildName = names.get(part.buildId)
      return buildName === undefined ? [] : [{ part: plain(part) as unknown as ShelfPart['part'], buildName }]
    })
    response.json(shared satisfies ShelfPart[])
  })
  return router
}
