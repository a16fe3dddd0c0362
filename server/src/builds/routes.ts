import { buildCreateSchema, garageQuerySchema, patchSchema, TOTAL_HEADER, versionSchema, type WorkingAnswer } from '@bold-ballast/contract'
import {
  buildFields,
  findCalculation,
  makeAeroRoom,
  makeBoard,
  makeDriveRoom,
  makeJobsRoom,
  makePowerRoom,
  makeRules,
  makeSystemsRoom,
  makeTrackRoom,
  makeWeightRoom,
  makeWorking,
  WORKING_SUBJECTS,
  z,
} from '@bold-ballast/core'
import { type Request, Router } from 'express'
import { accessOf, actorOf, lastEntryOf, today } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import type { Garage } from './garage.ts'
import { answerRecords, type OpenBuild, type OpenBuilds } from './open-builds.ts'
import type { BuildService } from './service.ts'

const patch = patchSchema(buildFields)
const workingQuery = z.strictObject({ of: z.enum(WORKING_SUBJECTS), id: z.string(), day: z.iso.date().optional() })

/** The day it is where the page is looked at; else the server's. And a line of the log, for what stood behind it. */
const dayQuery = z.object({ day: z.iso.date().optional(), at: z.coerce.number().int().min(1).optional() })

/** What is worked out of a build's records, each under its own address. */
const ANSWERS: Record<string, (build: OpenBuild, today: string) => unknown> = {
  records: answerRecords,
  board: ({ car }, day) => makeBoard(car(), day),
  weight: ({ car }) => makeWeightRoom(car()),
  power: ({ car }) => makePowerRoom(car()),
  aero: ({ car }) => makeAeroRoom(car()),
  drivetrain: ({ car }) => makeDriveRoom(car()),
  track: ({ car }) => makeTrackRoom(car()),
  jobs: ({ car }, day) => makeJobsRoom(car(), day),
  rules: ({ car }) => makeRules(car()),
  systems: ({ car }) => makeSystemsRoom(car()),
}

export function buildRoutes(builds: BuildService, garage: Garage, open: OpenBuilds): Router {
  const router = Router()

  router.get('/builds', async (request, response) => {
    const { day = today(), name, page } = read(garageQuerySchema, request.query)
    const { entries, total } = await garage.page({ day, name, page }, accessOf(response))
    response.setHeader(TOTAL_HEADER, total)
    response.json(entries)
  })
  router.post('/builds', async (request, response) => {
    const { record, isNew } = await builds.create(actorOf(request), read(buildCreateSchema, request.body))
    response.status(isNew ? 201 : 200).json(record)
  })
  router.patch('/builds/:buildId', async (request, response) => {
    response.json(await builds.update(actorOf(request), readId(request.params.buildId, 'build'), read(patch, request.body) as { version: number }))
  })
  router.delete('/builds/:buildId', async (request, response) => {
    response.json(await builds.remove(actorOf(request), readId(request.params.buildId, 'build'), read(versionSchema, request.body).version))
  })
  router.post('/builds/:buildId/restore', async (request, response) => {
    response.json(await builds.restore(actorOf(request), readId(request.params.buildId, 'build'), read(versionSchema, request.body).version))
  })
  for (const [name, work] of Object.entries(ANSWERS)) {
    router.get(`/builds/:buildId/${name}`, async (request: Request<{ buildId: string }>, response) => {
      const { day = today(), at } = read(dayQuery, request.query)
      if (at !== undefined) return void response.json(work(await open.at(readId(request.params.buildId, 'build'), at), day))
      const text = await open.answer(readId(request.params.buildId, 'build'), `${name} ${day}`, (build) => work(build, day), lastEntryOf(response))
      response.type('json').send(text)
    })
  }
  router.get('/builds/:buildId/revision', async (request, response) => {
    response.json({ revision: await open.revision(readId(request.params.buildId, 'build')) })
  })
  router.get('/builds/:buildId/working', async (request, response) => {
    const { of, id, day = today() } = read(workingQuery, request.query)
    const { car } = await open.get(readId(request.params.buildId, 'build'))
    const working = makeWorking(car(), of, id, day)
    const calculation = findCalculation(working.calculation)
    if (!calculation) throw new AppError('not-found', 'There is no such calculation.')
    const { formula, sources, assumptions } = calculation
    response.json({ ...working, formula, sources, assumptions } satisfies WorkingAnswer)
  })
  return router
}
