import { type CalculationTools, highsSolver } from '@bold-ballast/core'

let loading: Promise<CalculationTools> | undefined

/** The solver that calculations are handed; its wasm is loaded when it is first asked for. */
export function solverTools(): Promise<CalculationTools> {
  loading ??= import('highs').then(async ({ default: load }) => ({ solveMilp: highsSolver(await load()) }))
  // A load that failed is not kept.
  loading.catch(() => {
    loading = undefined
  })
  return loading
}
