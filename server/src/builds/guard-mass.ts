import { type Change, kindOf, offShare, orElse, whyTooMuchOff, z } from '@bold-ballast/core'
import express, { type RequestHandler, Router } from 'express'
import { AppError } from '../http/problem.ts'
import type { OpenBuild, OpenBuilds } from './open-builds.ts'

type Row = Record<string, unknown>
interface Wanted {
  readonly id: unknown
  readonly body: Row
  /** Where the body stands in what was sent. */
  readonly path: string
}

const lineSchema = z.object(kindOf('changes').fields)
const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null

/** The ledger lines that a request would write; what is no line is left to the route, which says what is wrong with it. */
function wantedOf(body: unknown, id: string | undefined): Wanted[] {
  if (!isRow(body)) return []
  if (!Array.isArray(body.writes)) return [{ id: id ?? body.id, body, path: '' }]
  return body.writes.flatMap((write: unknown, i): Wanted[] =>
    isRow(write) && write.resource === 'changes' && isRow(write.body) ? [{ id: write.id ?? write.body.id, body: write.body, path: `writes.${i}.body.` }] : [],
  )
}

/** The lines as they would stand in a build. */
const linesOf = ({ records }: OpenBuild, wanted: readonly Wanted[]): Change[] =>
  wanted.flatMap(({ id, body }): Change[] => {
    const before = records.changes.find((change) => change.id === id)
    const { version: _, ...fields } = body
    const read = lineSchema.safeParse({ ...before, ...fields, id })
    return read.success ? [read.data as Change] : []
  })

/** So little of the car that some lines more or less cannot matter. */
const LIGHT_SHARE = 0.01
const areLight = ({ car }: OpenBuild, lines: readonly Change[]): boolean =>
  orElse(
    () => offShare(car(), lines) < LIGHT_SHARE,
    () => false,
  )

/** Refuses ledger lines that would take more off than the car weighs; it looks at the build as it stands, which is worked out once for everybody. */
function guardMass(open: OpenBuilds): RequestHandler<{ buildId: string; id?: string }> {
  return async (request, _response, next) => {
    const wanted = wantedOf(request.body, request.params.id)
    if (!wanted.some(({ body }) => 'values' in body || 'count' in body || 'kind' in body)) return next()
    const { buildId } = request.params
    const nearly = await open.nearly(buildId).catch(() => undefined)
    // Far from nothing, what was written since the build was read last changes nothing; a line that was made since has to be read.
    const lines = nearly ? linesOf(nearly, wanted) : []
    if (nearly && lines.length === wanted.length && areLight(nearly, lines)) return next()
    const build = await open.get(buildId).catch(() => undefined)
    if (!build) return next()
    const why = orElse(
      () => whyTooMuchOff(build.car(), linesOf(build, wanted)),
      () => null,
    )
    const at = wanted.find(({ id }) => id === why?.changeId)
    if (why) throw new AppError('rule-broken', why.message, { errors: [{ path: `${at?.path ?? ''}values`, message: why.message }] })
    next()
  }
}

/** Stands before the routes that write ledger lines. */
export function massGuard(open: OpenBuilds): Router {
  const router = Router()
  const guard = guardMass(open)
  router.post('/builds/:buildId/batches', express.json({ limit: '4mb' }), guard)
  router.post('/builds/:buildId/changes', express.json({ limit: '256kb' }), guard)
  router.patch('/builds/:buildId/changes/:id', express.json({ limit: '256kb' }), guard)
  return router
}
