import { randomUUID } from 'node:crypto'
import type { NextFunction, Request, Response } from 'express'
import type { Logger } from 'pino'
import { findRoute } from '../access/route-table.ts'

export const REQUEST_ID_HEADER = 'x-request-id'
const GIVEN = /^[\w-]{8,64}$/

/** What is noted of a request once it is answered: no body, no cookie, no secret, nobody's name. */
export interface Watched {
  readonly method: string
  /** The address as the table of routes has it, without what was asked for by id. */
  readonly route: string
  readonly status: number
  readonly seconds: number
  /** The kind of refusal, where it was one. */
  readonly code: string | null
}

/** The address of a request as a template; what is no address of ours has one name for all. */
export function routeOf(method: string, path: string): string {
  if (path.startsWith('/api/')) return findRoute(method, path.slice(4))?.rule.path ?? 'unknown'
  return path.startsWith('/assets/') ? 'asset' : 'page'
}

/** Gives each request an id, or keeps the one that a proxy of ours gave it, and tells of it once it is answered: to the log, and to whoever counts. */
export function watchRequests(logger: Logger, isBehindProxy: boolean, count: (watched: Watched) => void) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const given = isBehindProxy ? request.get(REQUEST_ID_HEADER) : undefined
    const id = given !== undefined && GIVEN.test(given) ? given : randomUUID()
    response.locals.requestId = id
    response.setHeader(REQUEST_ID_HEADER, id)
    const begun = process.hrtime.bigint()
    const { method, path } = request
    response.once('close', () => {
      const seconds = Number(process.hrtime.bigint() - begun) / 1e9
      const code = (response.locals.refusal as string | undefined) ?? null
      const watched: Watched = { method, route: routeOf(method, path), status: response.writableFinished ? response.statusCode : 499, seconds, code }
      count(watched)
      logger.info({ id, ...watched }, 'request')
    })
    next()
  }
}
