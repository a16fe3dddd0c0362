import type { Highs } from 'highs'
import type { MilpAnswer, MilpProblem, SolveMilp } from './milp.ts'

/**
 * Makes a solver of a loaded HiGHS (MIT licence; branch and cut). Whoever loads it says where its wasm file is.
 * @example typeof SOLVER // 'function'
 */
export function highsSolver(highs: Highs): SolveMilp {
  const { modelStatus, variableType } = highs.constants
  const bounded = (value: number) => (value === Number.POSITIVE_INFINITY ? highs.infinity : value === Number.NEGATIVE_INFINITY ? -highs.infinity : value)
  return ({ variables, rows }, timeLimitS): MilpAnswer =>
    highs.withModel(
      {
        numCols: variables.length,
        numRows: rows.length,
        colCost: variables.map(({ cost }) => cost),
        colLower: variables.map(({ low }) => bounded(low)),
        colUpper: variables.map(({ high }) => bounded(high)),
        rowLower: rows.map(({ low }) => bounded(low)),
        rowUpper: rows.map(({ high }) => bounded(high)),
        integrality: variables.map(({ isWhole }) => (isWhole ? variableType.integer : variableType.continuous)),
        matrix: {
          format: 'csr',
          numCols: variables.length,
          numRows: rows.length,
          starts: startsOf(rows),
          indices: rows.flatMap(({ coefficients }) => coefficients.map(([at]) => at)),
          values: rows.flatMap(({ coefficients }) => coefficients.map(([, value]) => value)),
        },
      },
      (model): MilpAnswer => {
        model.options.set({ output_flag: false, time_limit: timeLimitS, mip_rel_gap: 0, mip_abs_gap: 1e-9 })
        try {
          model.run()
        } catch {
          // Simplifying some small models beforehand ends in an error of the solver; as they stand they are solved.
          model.options.set({ presolve: 'off' })
          model.run()
        }
        const status = model.getModelStatus()
        if (status === modelStatus.infeasible) return { status: 'infeasible', values: [], objective: Number.POSITIVE_INFINITY, bound: 0, gap: 1 }
        const objective = model.getObjectiveValue()
        const values = [...model.getSolution().colValue]
        const isOptimal = status === modelStatus.optimal
        if (!isOptimal && (values.length === 0 || !Number.isFinite(objective) || Math.abs(objective) >= 1e29))
          return { status: 'none', values: [], objective, bound: 0, gap: 1 }
        const bound = Number(model.info.get('mip_dual_bound'))
        const gap = isOptimal ? 0 : Math.max(0, objective - bound) / Math.max(Math.abs(objective), 1e-9)
        return { status: isOptimal ? 'optimal' : 'limit', values, objective, bound: isOptimal ? objective : bound, gap }
      },
    )
}

function startsOf(rows: MilpProblem['rows']): number[] {
  const starts = [0]
  for (const { coefficients } of rows) starts.push((starts.at(-1) ?? 0) + coefficients.length)
  return starts
}
