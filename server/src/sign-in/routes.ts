import { codeSchema, handOverSchema, joinSchema, ownerSchema, passwordSchema, signInSchema } from '@bold-ballast/contract'
import { z } from '@bold-ballast/core'
import express, { type Request, type Response, Router } from 'express'
import type { Mode } from '../access/mode.ts'
import type { Standing } from '../access/person-access.ts'
import { AppError } from '../http/problem.ts'
import { read } from '../http/read.ts'
import { meOf } from './me.ts'
import type { SignInService } from './service.ts'

const nothing = z.strictObject({})
const standingOf = (response: Response) => response.locals.standing as Standing | undefined
/** Of an address that the gate lets nobody through to who is not signed in; in open mode it stands for nothing. */
function requireStanding(response: Response): Standing {
  const standing = standingOf(response)
  if (!standing) throw new AppError('rule-broken', 'Nobody signs in here. Make an owner first.')
  return standing
}

/** Signing in and out: what anybody may ask, and what a person asks about himself. */
export function signInRoutes(service: SignInService, mode: Mode): Router {
  const router = Router()
  const json = express.json({ limit: '16kb' })
  const me = async (request: Request, response: Response) => void response.json(await meOf(service.knex, request, await mode.isClosed()))
  const requireClosed = async () => {
    if (!(await mode.isClosed())) throw new AppError('rule-broken', 'Nobody signs in here. Make an owner first.')
  }
  router.get('/me', me)
  router.post('/owner', json, async (request, response) => {
    if (await mode.isClosed()) throw new AppError('duplicate', 'There is an owner already. Ask for an invitation, or sign in.')
    await service.makeOwner(request, read(ownerSchema, request.body))
    response.status(201)
    await me(request, response)
  })
  router.post('/sign-in', json, async (request, response) => {
    await requireClosed()
    await service.signIn(request, read(signInSchema, request.body))
    await me(request, response)
  })
  router.post('/hand-over', json, async (request, response) => {
    await requireClosed()
    await service.handOver(request, read(handOverSchema, request.body))
    await me(request, response)
  })
  router.post('/join', json, async (request, response) => {
    await service.join(request, standingOf(response), read(joinSchema, request.body))
    await me(request, response)
  })
  router.post('/sign-out', json, async (request, response) => {
    read(nothing, request.body)
    if (await mode.isClosed()) await service.signOut(request)
    await me(request, response)
  })
  router.post('/sign-out-everywhere', json, async (request, response) => {
    read(nothing, request.body)
    await service.signOutEverywhere(request, requireStanding(response))
    await me(request, response)
  })
  router.post('/password', json, async (request, response) => {
    await service.changePassword(request, requireStanding(response), read(passwordSchema, request.body))
    await me(request, response)
  })
  router.post('/code', json, async (request, response) => {
    await service.changeCode(request, requireStanding(response), read(codeSchema, request.body))
    await me(request, response)
  })
  return router
}
