/** A linear problem in which some variables are whole numbers: least Σ cost x, within bounds, with rows between two values. */
export interface MilpProblem {
  readonly variables: readonly { readonly name: string; readonly cost: number; readonly low: number; readonly high: number; readonly isWhole: boolean }[]
  /** Coefficients by the variable's place in the list. */
  readonly rows: readonly {
    readonly name: string
    readonly low: number
    readonly high: number
    readonly coefficients: readonly (readonly [number, number])[]
  }[]
}

export interface MilpAnswer {
  /** `limit`: the time ran out with a solution whose distance from the best possible is `gap`. */
  readonly status: 'optimal' | 'limit' | 'infeasible' | 'none'
  readonly values: readonly number[]
  readonly objective: number
  /** No solution is better than this. */
  readonly bound: number
  /** (objective − bound)/|objective|; zero when it is proven that no better one exists. */
  readonly gap: number
}

/** A solver handed in from outside, so that what is computed here stays pure. */
export type SolveMilp = (problem: MilpProblem, timeLimitS: number) => MilpAnswer
