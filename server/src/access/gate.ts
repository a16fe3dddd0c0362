import { CLOSED_HEADER, ROLE_HEADER } from '@bold-ballast/contract'
import type { NextFunction, Request, Response } from 'express'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { readId } from '../http/read.ts'
import type { Mode } from './mode.ts'
import { PersonAccess, requireRole, type Standing, standingOf } from './person-access.ts'
import { isEnough } from './roles.ts'
import { findRoute, type RouteRule } from './route-table.ts'

/** Who a browser says is at it now: the person whose seat is taken, and the epoch it was taken in. */
export interface SeatTaken {
  readonly personId: string
  readonly epoch: number
}

interface GateParts {
  readonly knex: Knex
  readonly mode: Mode
  /** Others can reach this server: it answers nobody while nobody has to sign in. */
  readonly isOutside: boolean
  /** The seat that is taken on the browser of a request. */
  readonly seatOf: (request: Request) => SeatTaken | null
}

const signedOut = () => new AppError('signed-out', 'Nobody is signed in on this browser. Sign in; what you typed is kept.')

/** Ids of the address that a role is held over. */
function placeOf({ over }: RouteRule, params: Readonly<Record<string, string>>): { buildId?: string; garageId?: string } {
  if (over === 'build') return { buildId: readId(params.buildId, 'build') }
  return over === 'garage' ? { garageId: readId(params.garageId, 'garage') } : {}
}

/** What a server that others can reach answers before it has an owner: that it is up, and the link that makes one. */
const BEFORE_AN_OWNER = new Set(['/health', '/me', '/join'])

/** Somebody who writes anywhere may have the devices of this machine. */
const isCrewAnywhere = ({ memberships }: Standing) => memberships.some(({ role }) => isEnough(role, 'crew'))

/**
 * Stands before every address and before any body is read. As long as nobody signs in it lets everything through;
 * then what the table of routes says decides, and an address that is not in it leads nowhere.
 */
export function gate({ knex, mode, isOutside, seatOf }: GateParts) {
  return async (request: Request, response: Response, next: NextFunction): Promise<void> => {
    if (!(await mode.isClosed())) {
      if (isOutside && !BEFORE_AN_OWNER.has(request.path))
        throw new AppError('not-allowed', 'Others can reach this server, and it has no owner. Make one at the terminal: npm run people -- owner "NAME".')
      return next()
    }
    response.setHeader(CLOSED_HEADER, 'yes')
    const found = findRoute(request.method, request.path)
    if (!found) throw new AppError('not-found', 'There is no such address.')
    const { rule, params } = found
    const taken = seatOf(request)
    const place = taken || rule.least === 'anyone' ? placeOf(rule, params) : {}
    const standing = taken ? await standingOf(knex, taken.personId, place) : undefined
    const isSeated = standing !== undefined && standing.epoch === taken?.epoch
    if (isSeated) {
      response.locals.standing = standing
      response.locals.access = new PersonAccess(standing.id)
      response.locals.signedInAs = standing.name
      response.locals.lastEntryId = standing.lastEntryId
      if (!standing.isNotedHere) await knex('people').where({ id: standing.id }).update({ hereAt: knex.fn.now() })
    }
    if (rule.least === 'anyone') return next()
    if (!isSeated) throw signedOut()
    if (rule.least === 'signedIn') return next()
    if (rule.over === 'device') {
      if (!isCrewAnywhere(standing)) throw new AppError('may-not', 'Devices are for those who write. Ask an owner to make you one of the crew.')
      return next()
    }
    const role = await requireRole(knex, standing, { garageId: standing.placeGarageId, buildId: place.buildId ?? null }, rule.least)
    response.setHeader(ROLE_HEADER, role)
    next()
  }
}
