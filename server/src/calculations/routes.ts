import { CALCULATIONS, type CalculationAnswer, describeCalculation, findCalculation } from '@bold-ballast/core'
import express, { Router } from 'express'
import { AppError, toProblem } from '../http/problem.ts'
import { SEARCH_LIMIT_MS, SUM_LIMIT_MS, type WorkPool } from '../workers/pool.ts'

type Refusal = Extract<CalculationAnswer, { ok: false }>

/** A sum that was ended, as a refusal like any other. */
const endedRefusal = (message: string, body: unknown): Refusal => {
  const [field = 'input'] = Object.keys((body ?? {}) as object)
  return { ok: false, error: { code: 'too-long', field, message } }
}

/** The registry over HTTP: a list with schemas, and each calculation by name, worked out on a thread of its own. A refusal is 422 with its code and field. */
export function calculationRoutes(pool: WorkPool): Router {
  const router = Router()
  router.get('/calc', (_request, response) => {
    response.json(CALCULATIONS.map(describeCalculation))
  })
  router.post('/calc/:name', express.json({ limit: '4mb' }), async (request, response) => {
    const { name } = request.params
    const calculation = findCalculation(name)
    if (!calculation) throw new AppError('not-found', 'No calculation has this name. GET /api/calc lists them.')
    const left = new AbortController()
    response.once('close', () => left.abort())
    const limitMs = calculation.needsSolver ? SEARCH_LIMIT_MS : SUM_LIMIT_MS
    const body: unknown = request.body
    const answer = await pool.run('calculate', { name, body }, { limitMs, signal: left.signal }).catch((error: unknown) => {
      if (error instanceof AppError && error.code === 'calculation-refused') return endedRefusal(error.message, body)
      throw error
    })
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
