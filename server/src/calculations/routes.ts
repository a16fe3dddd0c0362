import { CALCULATIONS, describeCalculation, findCalculation, runCalculation } from '@bold-ballast/core'
import express, { Router } from 'express'
import { AppError, toProblem } from '../http/problem.ts'
import { solverTools } from '../solver/solver.ts'

/** The registry over HTTP: a list with schemas, and each calculation by name. A refusal is 422 with its code and field. */
export function calculationRoutes(): Router {
  const router = Router()
  router.get('/calc', (_request, response) => {
    response.json(CALCULATIONS.map(describeCalculation))
  })
  router.post('/calc/:name', express.json({ limit: '4mb' }), async (request, response) => {
    const calculation = findCalculation(request.params.name)
    if (!calculation) throw new AppError('not-found', 'No calculation has this name. GET /api/calc lists them.')
    const answer = runCalculation(calculation, request.body, calculation.needsSolver ? await solverTools() : {})
    if (answer.ok) response.json(answer)
    else {
      const { field, message } = answer.error
      const problem = toProblem(new AppError('calculation-refused', message, { errors: [{ path: field, message }] }))
      response
        .status(problem.status)
        .type('application/problem+json')
        .send(JSON.stringify({ ...problem, ...answer }))
    }
  })
  return router
}
