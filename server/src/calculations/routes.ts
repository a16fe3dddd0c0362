import { CALCULATIONS, type Calculation, type CalculationAnswer, describeCalculation, findCalculation, runCalculation } from '@bold-ballast/core'
import express, { type Response, Router } from 'express'
import { askerOf } from '../http/asker.ts'
import { AppError, toProblem } from '../http/problem.ts'
import { SEARCH_LIMIT_MS, SUM_LIMIT_MS, type WorkPool } from '../workers/pool.ts'

type Refusal = Extract<CalculationAnswer, { ok: false }>

/** A sum that was ended, as a refusal like any other. */
const endedRefusal = (message: string, body: unknown): Refusal => {
  const [field = 'input'] = Object.keys((body ?? {}) as object)
  return { ok: false, error: { code: 'too-long', field, message } }
}

/** An input of fewer bytes makes a sum of a few milliseconds: handing it to a thread would cost more than it. */
const SHORT_BYTES = 32_000

/** Runs a sum on a thread; it is ended at its limit, and when nobody waits for it any more. */
function onThread(pool: WorkPool, { name, needsSolver }: Calculation, body: unknown, response: Response): Promise<CalculationAnswer> {
  const limitMs = needsSolver ? SEARCH_LIMIT_MS : SUM_LIMIT_MS
  return pool.run('calculate', { name, body }, { limitMs, ...askerOf(response) }).catch((error: unknown) => {
    if (error instanceof AppError && error.code === 'calculation-refused') return endedRefusal(error.message, body)
    throw error
  })
}

/** The registry over HTTP: a list with schemas, and each calculation by name, a long one worked out on a thread of its own. A refusal is 422 with its code and field. */
export function calculationRoutes(pool: WorkPool): Router {
  const router = Router()
  router.get('/calc', (_request, response) => {
    response.json(CALCULATIONS.map(describeCalculation))
  })
  router.post('/calc/:name', express.json({ limit: '4mb' }), async (request, response) => {
    const { name } = request.params
    const calculation = findCalculation(name)
    if (!calculation) throw new AppError('not-found', 'No calculation has this name. GET /api/calc lists them.')
    const isShort = !calculation.needsSolver && !calculation.isLong && Number(request.headers['content-length'] ?? Infinity) < SHORT_BYTES
    const answer = isShort ? runCalculation(calculation, request.body) : await onThread(pool, calculation, request.body, response)
    if (answer.ok) return void response.json(answer)
    const { field, message } = answer.error
    const problem = toProblem(new AppError('calculation-refused', message, { errors: [{ path: field, message }] }))
    response
      .status(problem.status)
      .type('application/problem+json')
      .send(JSON.stringify({ ...problem, ...answer }))
  })
  return router
}
