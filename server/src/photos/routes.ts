import { createHash } from 'node:crypto'
import { photoQuerySchema } from '@bold-ballast/contract'
import express, { Router } from 'express'
import type { Knex } from 'knex'
import { actorOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { RecordService } from '../records/service.ts'
import { insertPhotoBytes, LARGEST_PHOTO_BYTES, photoBytes, photoTypeOf } from './photo-bytes.ts'

/** Pictures that hang on records: sent as their bytes, stored beside the record of what they are. */
export function photoRoutes(knex: Knex, records: RecordService): Router {
  const router = Router()
  router.post('/builds/:buildId/photo-files', express.raw({ type: () => true, limit: LARGEST_PHOTO_BYTES }), async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const query = read(photoQuerySchema, request.query)
    const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0)
    const mediaType = photoTypeOf(bytes)
    const actor = actorOf(request)
    const { record, isNew } = await knex.transaction(async (trx) => {
      const made = await records.createIn(trx, actor, 'photos', buildId, { ...query, mediaType, byteCount: bytes.length })
      if (made.isNew) await insertPhotoBytes(trx, buildId, query.id, bytes)
      return made
    })
    response.status(isNew ? 201 : 200).json(record)
  })
  router.get('/builds/:buildId/photos/:id/bytes', async (request, response) => {
    const buildId = readId(request.params.buildId, 'build')
    const photo = await records.get('photos', buildId, readId(request.params.id, 'picture'))
    if (typeof photo.mediaType !== 'string') throw new AppError('not-found', 'There is no such picture.')
    const bytes = await photoBytes(knex, buildId, photo.id as string)
    // A browser keeps them and asks each time whether it may show them.
    response.setHeader('Cache-Control', 'private, no-cache')
    response.setHeader('ETag', `"${createHash('sha256').update(bytes).digest('base64url')}"`)
    response.type(photo.mediaType).send(bytes)
  })
  return router
}
