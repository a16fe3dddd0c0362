import { SHARED_LISTS, type SharedList, type ShelfEntry } from '@bold-ballast/contract'
import { listOfAddress } from '@bold-ballast/core'
import { Router } from 'express'
import type { Knex } from 'knex'
import { accessOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { BuildModel, modelOf } from '../records/models.ts'
import { plain } from '../records/versioned.ts'

const isShared = (list: string): list is SharedList => (SHARED_LISTS as readonly string[]).includes(list)

/** What builds of the garage share with each other, a list each: parts, rule books, lessons, tracks, courses. */
export function shelfRoutes(knex: Knex): Router {
  const router = Router()
  router.get('/shelf/:address', async (request, response) => {
    const list = listOfAddress(request.params.address)
    if (!isShared(list)) throw new AppError('not-found', `Nothing of this kind is shared. There are ${SHARED_LISTS.join(', ')}.`)
    const builds = await BuildModel.query(knex).whereNull('deletedAt').select('id', 'name')
    const seen = await accessOf(response).buildsSeen(knex)
    const names = new Map(builds.filter(({ id }) => seen === null || seen.has(id)).map((build) => [build.id, (build as unknown as { name: string }).name]))
    const records = await modelOf(list).query(knex).where({ isShared: true }).whereNull('deletedAt').orderBy('id')
    const shared = records.flatMap((record) => {
      const buildName = names.get(record.buildId)
      return buildName === undefined ? [] : [{ record: plain(record) as unknown as ShelfEntry['record'], buildName }]
    })
    response.json(shared satisfies ShelfEntry[])
  })
  return router
}
