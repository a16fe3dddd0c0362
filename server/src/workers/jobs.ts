import { type CalculationAnswer, findCalculation, runCalculation } from '@bold-ballast/core'
import { solverTools } from '../solver/solver.ts'

/** What the pool can be asked for; each runs on a thread of its own, away from the one that serves. */
export const JOBS = {
  /** A registered calculation on raw input. */
  calculate: async ({ name, body }: { readonly name: string; readonly body: unknown }): Promise<CalculationAnswer> => {
    const calculation = findCalculation(name)
    if (!calculation) throw new Error(`no calculation is called ${name}`)
    return runCalculation(calculation, body, calculation.needsSolver ? await solverTools() : {})
  },
}

export type JobName = keyof typeof JOBS
export type JobInput<Name extends JobName> = Parameters<(typeof JOBS)[Name]>[0]
export type JobAnswer<Name extends JobName> = Awaited<ReturnType<(typeof JOBS)[Name]>>
