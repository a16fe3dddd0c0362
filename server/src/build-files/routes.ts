import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { buildFileJsonSchema, buildFileQuerySchema, buildFileWishSchema } from '@bold-ballast/contract'
import { type Request, Router } from 'express'
import type { Knex } from 'knex'
import type { OpenBuilds } from '../builds/open-builds.ts'
import { actorOf } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { WorkPool } from '../workers/pool.ts'
import { buildArchive, buildFileOf } from './export.ts'
import { BuildFileService } from './service.ts'
import { type BuildFileSource, jsonSource, LARGEST_UPLOAD_BYTES, zipSource } from './source.ts'

const tooLarge = () => new AppError('too-large', 'The build file is larger than 100 MB. Leave out pulls that are not needed, and send it again.')

function countBytes(): Transform {
  let bytes = 0
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length
      done(bytes > LARGEST_UPLOAD_BYTES ? tooLarge() : null, chunk)
    },
  })
}

/** Keeps an upload in a file of its own while `work` reads it; the file is gone afterwards whatever happens. */
async function withUpload<Answer>(request: Request, work: (source: BuildFileSource) => Promise<Answer>): Promise<Answer> {
  if (Number(request.headers['content-length'] ?? 0) > LARGEST_UPLOAD_BYTES) throw tooLarge()
  if (request.is('application/json')) {
    const chunks: Buffer[] = []
    for await (const chunk of request.pipe(countBytes())) chunks.push(chunk as Buffer)
    return work(jsonSource(Buffer.concat(chunks)))
  }
  const folder = await mkdtemp(path.join(tmpdir(), 'bold-ballast-'))
  try {
    const file = path.join(folder, 'upload.zip')
    await pipeline(request, countBytes(), createWriteStream(file))
    const source = await zipSource(file)
    try {
      return await work(source)
    } finally {
      source.close()
    }
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** A name every file system takes. */
const fileName = (name: string, day: string) =>
  `${
    name
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .toLowerCase() || 'build'
  }-${day}.zip`

export function buildFileRoutes(knex: Knex, open: OpenBuilds, pool: WorkPool): Router {
  const router = Router()
  const service = new BuildFileService(knex, pool)
  router.get('/build-files/schema', (_request, response) => {
    response.type('application/schema+json').send(JSON.stringify(buildFileJsonSchema()))
  })
  router.post('/build-files', async (request, response) => {
    const wish = read(buildFileQuerySchema, request.query)
    const report = await withUpload(request, (source) => service.take(actorOf(request), source, wish))
    response.status(wish.mode === 'import' ? 201 : 200).json(report)
  })
  router.get('/builds/:buildId/file', async (request, response) => {
    const now = new Date().toISOString()
    const { logs, at } = read(buildFileWishSchema, request.query)
    const buildId = readId(request.params.buildId, 'build')
    const build = at === undefined ? await open.get(buildId) : await open.at(buildId, at)
    const file = await buildFileOf(knex, build, now, { withLogs: logs === 'yes' })
    response.type('application/zip').attachment(fileName(file.build.name, now.slice(0, 10)))
    await pipeline(buildArchive(knex, file), response)
  })
  return router
}
