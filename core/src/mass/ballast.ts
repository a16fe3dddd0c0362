import { CalculationError, requireFinite, requirePositive } from '../errors.ts'
import type { SolveMilp } from '../solver/milp.ts'
import { type BallastModel, ballastModel } from './ballast-model.ts'
import { otherPlacements } from './ballast-runners-up.ts'
import type { BallastAnswer, BallastInput } from './ballast-types.ts'
import { PAD_NAMES } from './corners.ts'

const DEFAULT_TIME_LIMIT_S = 4

/**
 * Plates on sites so that the car makes its minimum and comes as near as can be to the wanted shares (least weighted absolute error, in kg of
 * load), or has the lowest ballast (Σ m z), the least yaw inertia about the wanted or present centre (Σ m r²), or the least mass, with the
 * shares inside their bounds. Mixed-integer linear; cross share through the elastic corners of `cornerShares`. The solver is handed in.
 * Source: linear programming, closed form of the rows; solved by branch and cut. Rejects sites without a limit or plates, masses and lengths of
 * zero or less, and what cannot be reached, with the nearest limit that stands in the way.
 * @example planBallast(BALLAST, SOLVER).best.ballastKg // 10
 */
export function planBallast(input: BallastInput, solve: SolveMilp): BallastAnswer {
  checkInput(input)
  const model = ballastModel(input)
  const timeLimitS = input.timeLimitS ?? DEFAULT_TIME_LIMIT_S
  const from = model.problem(model.bounds)
  const answer = solve(from, timeLimitS)
  if (answer.status === 'infeasible') throw unreachable(input, model, solve, timeLimitS)
  if (answer.status === 'none')
    throw new CalculationError('inconsistent', 'sites', 'No placement was found in the time given. Give it more time, or fewer sites and sizes.')
  const best = model.placement(answer)
  return { best, runnersUp: otherPlacements(model, answer, input.runnersUp ?? 2, solve, timeLimitS), isProven: answer.status === 'optimal', gap: answer.gap }
}

function checkInput({ corners, sites, minimumKg, crossRfLr, rates, loadFactorG, front, left }: BallastInput): void {
  for (const name of PAD_NAMES) requirePositive(corners[name], `corners.${name}`)
  requirePositive(minimumKg, 'minimumKg')
  if (loadFactorG !== undefined) requirePositive(loadFactorG, 'loadFactorG')
  if (sites.length === 0) throw new CalculationError('missing', 'sites', 'There is no place for ballast. Add a site with its place, limit and plates.')
  sites.forEach((site, i) => {
    for (const key of ['xM', 'yM', 'zM'] as const) requireFinite(site[key], `sites[${i}].${key}`)
    requirePositive(site.limitKg, `sites[${i}].limitKg`)
    if (site.plates.length === 0)
      throw new CalculationError('missing', `sites[${i}].plates`, `Site ${site.id} has no plates. Give a size and how many there are.`)
    for (const plate of site.plates) requirePositive(plate.massKg, `sites[${i}].plates.massKg`)
  })
  for (const [field, wanted] of Object.entries({ front, left, crossRfLr }))
    if (wanted && !(wanted.value > 0 && wanted.value < 1))
      throw new CalculationError('out-of-range', field, `The wanted ${field} share is ${wanted.value}; a share lies between 0 and 1.`)
  if (crossRfLr && !rates)
    throw new CalculationError(
      'missing',
      'rates',
      'A cross share with ballast needs the wheel rates: statics alone cannot tell how a load off the middle splits.',
    )
}

/** Why nothing fits: the sites hold too little, no sum of plates lands in the band, or a share cannot be reached. */
function unreachable(input: BallastInput, model: BallastModel, solve: SolveMilp, timeLimitS: number): CalculationError {
  const neededKg = input.minimumKg - model.carKg
  const most = model.problem({ ...model.bounds, lowKg: 0, highKg: Number.POSITIVE_INFINITY })
  const heaviest = solve(
    {
      variables: most.variables.map((variable, i) => ({ ...variable, cost: -(model.columns[i]?.plateKg ?? 0) })),
      rows: most.rows.filter(({ name }) => name === 'mass' || name.startsWith('limit')),
    },
    timeLimitS,
  )
  const holdsKg = -heaviest.objective
  const rounded = (kg: number) => Math.round(kg * 10) / 10
  if (holdsKg < neededKg - 1e-6) {
    const sentence = `The sites hold ${rounded(holdsKg)} kg and the car lacks ${rounded(neededKg)} kg to its minimum: ${rounded(neededKg - holdsKg)} kg short. Raise a limit, add plates or add a site.`
    return new CalculationError('out-of-range', 'sites', sentence)
  }
  const named = (kind: string) => {
    const problem = model.problem(model.bounds)
    return solve({ ...problem, rows: problem.rows.filter(({ name }) => !name.startsWith(kind)) }, timeLimitS).status !== 'infeasible'
  }
  const share = ['front', 'left', 'cross'].find(named)
  if (share) {
    const field = share === 'cross' ? 'crossRfLr' : share
    return new CalculationError(
      'out-of-range',
      field,
      `The wanted ${share} share cannot be reached within its bound with these sites. Widen the bound, or add a site further from the middle.`,
    )
  }
  return new CalculationError(
    'out-of-range',
    'mostOverKg',
    'No sum of these plates lands in the allowed band over the minimum. Allow more over the minimum, or add smaller plates.',
  )
}
