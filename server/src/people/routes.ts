import {
  auditQuerySchema,
  claimSchema,
  garagePatchSchema,
  invitationSchema,
  membershipPatchSchema,
  membershipSchema,
  personPatchSchema,
  seenSchema,
} from '@bold-ballast/contract'
import { ownerAdvice, z } from '@bold-ballast/core'
import { type Request, type Response, Router } from 'express'
import type { Knex } from 'knex'
import { accessOf, today } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { read, readId } from '../http/read.ts'
import { auditPage } from './audit-page.ts'
import { ClaimService } from './claims.ts'
import { GarageService } from './garage.ts'
import { garageState } from './garage-state.ts'
import { markSeen, seenOf } from './seen.ts'

/** Who asks; refused as long as nobody signs in. */
function personId(response: Response): string {
  const { personId: id } = accessOf(response)
  if (id === null) throw new AppError('rule-broken', 'Nobody signs in here. Make an owner first.')
  return id
}

const dayQuery = z.object({ day: z.iso.date().optional() })
const garageIdOf = (request: Request) => readId(request.params.garageId, 'garage')
const buildIdOf = (request: Request) => readId(request.params.buildId, 'build')
const doerOf = (request: Request, response: Response) => ({ request, personId: personId(response), garageId: garageIdOf(request) })

/** People of a garage and of builds, for their owners; and where somebody left a build. */
export function peopleRoutes(knex: Knex, keepsCopies: boolean): Router {
  const router = Router()
  const service = new GarageService(knex)
  const claims = new ClaimService(knex)
  router.use('/garages', (_request, response, next) => {
    personId(response)
    next()
  })
  router.get('/garages/:garageId/people', async (request, response) => void response.json(await service.people(garageIdOf(request))))
  router.patch('/garages/:garageId/people/:personId', async (request, response) => {
    const doer = doerOf(request, response)
    await service.changePerson(doer, readId(request.params.personId, 'person'), read(personPatchSchema, request.body))
    response.json(await service.people(doer.garageId))
  })
  router.patch('/garages/:garageId', async (request, response) => {
    await service.changeGarage(doerOf(request, response), read(garagePatchSchema, request.body))
    response.json({})
  })
  router.get('/garages/:garageId/next', async (request, response) => {
    const { day = today() } = read(dayQuery, request.query)
    response.json(ownerAdvice(await garageState(knex, garageIdOf(request), keepsCopies), day))
  })
  router.get('/garages/:garageId/invitations', async (request, response) => void response.json(await service.invitations(garageIdOf(request))))
  router.post('/garages/:garageId/invitations', async (request, response) => {
    response.status(201).json(await service.invite(doerOf(request, response), read(invitationSchema, request.body)))
  })
  router.delete('/garages/:garageId/invitations/:id', async (request, response) => {
    await service.withdraw(doerOf(request, response), readId(request.params.id, 'invitation'))
    response.json({})
  })
  router.patch('/garages/:garageId/memberships/:id', async (request, response) => {
    const doer = doerOf(request, response)
    await service.changeMembership(doer, readId(request.params.id, 'membership'), read(membershipPatchSchema, request.body))
    response.json(await service.people(doer.garageId))
  })
  router.delete('/garages/:garageId/memberships/:id', async (request, response) => {
    const doer = doerOf(request, response)
    await service.endMembership(doer, readId(request.params.id, 'membership'))
    response.json(await service.people(doer.garageId))
  })
  router.get('/garages/:garageId/claims', async (request, response) => void response.json(await claims.list(garageIdOf(request))))
  router.post('/garages/:garageId/claims', async (request, response) => {
    const doer = doerOf(request, response)
    await claims.claim(doer, read(claimSchema, request.body))
    response.status(201).json(await claims.list(doer.garageId))
  })
  router.delete('/garages/:garageId/claims/:id', async (request, response) => {
    const doer = doerOf(request, response)
    await claims.unclaim(doer, readId(request.params.id, 'claim'))
    response.json(await claims.list(doer.garageId))
  })
  router.get('/garages/:garageId/audit', async (request, response) => {
    response.json(await auditPage(knex, garageIdOf(request), read(auditQuerySchema, request.query).before))
  })
  router.get('/builds/:buildId/memberships', async (request, response) => {
    personId(response)
    response.json(await service.ofBuild(buildIdOf(request)))
  })
  router.post('/builds/:buildId/memberships', async (request, response) => {
    const doer = { request, personId: personId(response) }
    response.status(201).json(await service.addToBuild(doer, buildIdOf(request), read(membershipSchema, request.body)))
  })
  router.get('/builds/:buildId/seen', async (request, response) => void response.json(await seenOf(knex, buildIdOf(request), personId(response))))
  router.put('/builds/:buildId/seen', async (request, response) => {
    const { entryId } = read(seenSchema, request.body)
    response.json(await markSeen(knex, buildIdOf(request), personId(response), entryId))
  })
  return router
}
