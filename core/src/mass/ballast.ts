import { CalculationError, requireFinite, requirePositive } from '../errors.ts'
import type { MilpAnswer, MilpProblem, SolveMilp } from '../solver/milp.ts'
import { cornerShares, sharesOf } from './add-at.ts'
import { PAD_NAMES } from './corners.ts'
import { type CornerPlaces, type CornerRates, type PerCorner, perCorner, STANDARD_GRAVITY_MPS2 } from './suspension.ts'

/** A place where plates can be bolted down. */
export interface BallastSite {
  readonly id: string
  readonly xM: number
  readonly yM: number
  readonly zM: number
  /** What the mount may carry. */
  readonly limitKg: number
  /** Sizes there are for this place, and how many of each. */
  readonly plates: readonly { readonly massKg: number; readonly count: number }[]
}

export const BALLAST_OBJECTIVES = ['nearestShares', 'lowestCentre', 'leastYawInertia', 'leastMass'] as const
export type BallastObjective = (typeof BALLAST_OBJECTIVES)[number]

/** A share that is wanted; `within` makes it a bound, otherwise it is only come near to. */
export interface WantedShare {
  readonly value: number
  readonly within?: number | undefined
  /** Against the other shares, in the objective of coming near; 1 where left out. */
  readonly weight?: number | undefined
}

export interface BallastInput extends CornerPlaces {
  /** The car without ballast, as the minimum is weighed (with driver). */
  readonly corners: PerCorner<number>
  readonly centreHeightM?: number | undefined
  /** Wheel rates, needed only where a cross share is wanted. */
  readonly rates?: CornerRates | undefined
  readonly sites: readonly BallastSite[]
  readonly minimumKg: number
  /** How far over the minimum the car may come; the smallest plate where left out. */
  readonly mostOverKg?: number | undefined
  readonly front?: WantedShare | undefined
  readonly left?: WantedShare | undefined
  readonly crossRfLr?: WantedShare | undefined
  readonly objective: BallastObjective
  /** How many times its weight a mount must hold, from the rule book. */
  readonly loadFactorG?: number | undefined
  readonly timeLimitS?: number | undefined
  /** How many other placements to look for; 2 where left out. */
  readonly runnersUp?: number | undefined
}

export interface BallastPlacement {
  readonly sites: readonly {
    readonly id: string
    readonly plates: readonly { readonly massKg: number; readonly count: number }[]
    readonly massKg: number
    /** What the mount must hold under the stated load factor, N; null where none is stated. */
    readonly mountLoadN: number | null
  }[]
  readonly ballastKg: number
  readonly totalKg: number
  readonly frontShare: number
  readonly leftShare: number
  /** Null where no rates are given: then nobody can tell. */
  readonly crossShareRfLr: number | null
  /** Height of the ballast's own centre; null without ballast. */
  readonly ballastHeightM: number | null
  /** Height of the car's centre with it, where the car's own is given. */
  readonly centreHeightM: number | null
  /** In the unit of the objective: kg of load off the wanted shares, kg·m, kg·m², or kg. */
  readonly objective: number
}

export interface BallastAnswer {
  readonly best: BallastPlacement
  readonly runnersUp: readonly BallastPlacement[]
  /** Proven that no better one exists, or how far the best possible may be away. */
  readonly isProven: boolean
  readonly gap: number
}

const DEFAULT_TIME_LIMIT_S = 4
const MASS_TIE_BREAK = 1e-4

interface Column {
  readonly site: number
  readonly plateKg: number
}

/**
 * Plates on sites so that the car makes its minimum and comes as near as can be to the wanted shares (least weighted absolute error, in kg of
 * load), or has the lowest ballast (Σ m z), the least yaw inertia about the wanted or present centre (Σ m r²), or the least mass, with the
 * shares inside their bounds. Mixed-integer linear; cross share through the elastic corners of `cornerShares`. The solver is handed in.
 * Source: linear programming, closed form of the rows; solved by branch and cut. Rejects sites without a limit or plates, masses and lengths of
 * zero or less, and what cannot be reached, with the nearest limit that stands in the way.
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

interface Bounds {
  readonly lowKg: number
  readonly highKg: number
  readonly columns: readonly { readonly low: number; readonly high: number }[]
}

function ballastModel(input: BallastInput) {
  const { corners, sites, wheelbaseM, rates, objective } = input
  const carKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const columns = sites.flatMap(({ plates }, site): Column[] => plates.map(({ massKg }) => ({ site, plateKg: massKg })))
  const smallestKg = Math.min(...columns.map(({ plateKg }) => plateKg))
  const at = (column: Column) => sites[column.site] as BallastSite
  const before = sharesOf(corners)
  const crossOf = sites.map(({ xM, yM }) => {
    if (!rates) return 0
    const shares = cornerShares(input, rates, xM, yM)
    return shares.RF + shares.LR
  })
  // Where a kilogram at the site lands: front axle, left side, the diagonal.
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  const leftOf = sites.map(({ xM, yM }) => {
    if (!rates) return 0.5 + yM / trackM
    const shares = cornerShares(input, rates, xM, yM)
    return shares.LF + shares.LR
  })
  const wanted = [
    { name: 'front', aim: input.front, carKg: carKg * before.frontShare, perKg: sites.map(({ xM }) => 1 - xM / wheelbaseM) },
    { name: 'left', aim: input.left, carKg: carKg * before.leftShare, perKg: leftOf },
    { name: 'cross', aim: input.crossRfLr, carKg: carKg * before.crossShareRfLr, perKg: crossOf },
  ].flatMap(({ aim, ...rest }) => (aim ? [{ ...rest, aim }] : []))
  const target = centreAimedAt(input, before)
  const costPerKg = ({ site }: Column): number => {
    const { xM, yM, zM } = sites[site] as BallastSite
    if (objective === 'lowestCentre') return zM
    if (objective === 'leastYawInertia') return (xM - target.xM) ** 2 + (yM - target.yM) ** 2
    return objective === 'leastMass' ? 1 : MASS_TIE_BREAK
  }
  const near = objective === 'nearestShares' ? wanted : []
  const problem = (bounds: Bounds): MilpProblem => ({
    variables: [
      ...columns.map((column, i) => ({
        name: `n${i}`,
        cost: costPerKg(column) * column.plateKg,
        low: bounds.columns[i]?.low ?? 0,
        high: bounds.columns[i]?.high ?? 0,
        isWhole: true,
      })),
      ...near.map(({ name, aim }) => ({ name: `off ${name}`, cost: aim.weight ?? 1, low: 0, high: Number.POSITIVE_INFINITY, isWhole: false })),
    ],
    rows: [
      {
        name: 'mass',
        low: bounds.lowKg - carKg,
        high: bounds.highKg - carKg,
        coefficients: columns.map(({ plateKg }, i) => [i, plateKg] as const),
      },
      ...sites.flatMap(({ limitKg, id }, site) => [
        {
          name: `limit ${id}`,
          low: 0,
          high: limitKg,
          coefficients: columns.flatMap((column, i) => (column.site === site ? [[i, column.plateKg] as const] : [])),
        },
      ]),
      ...near.flatMap(({ name, aim, carKg: loadKg, perKg }, k) => {
        // Load on the axle, side or diagonal less the wanted share of the whole car, in kg, between −off and +off.
        const coefficients = columns.map(({ site, plateKg }, i) => [i, plateKg * ((perKg[site] as number) - aim.value)] as const)
        const fixed = loadKg - aim.value * carKg
        return [
          { name: `${name} over`, low: Number.NEGATIVE_INFINITY, high: -fixed, coefficients: [...coefficients, [columns.length + k, -1] as const] },
          { name: `${name} under`, low: -fixed, high: Number.POSITIVE_INFINITY, coefficients: [...coefficients, [columns.length + k, 1] as const] },
        ]
      }),
      ...wanted.flatMap(({ name, aim, carKg: loadKg, perKg }) => {
        if (aim.within === undefined) return []
        const bound = (share: number) => ({
          coefficients: columns.map(({ site, plateKg }, i) => [i, plateKg * ((perKg[site] as number) - share)] as const),
          edge: share * carKg - loadKg,
        })
        const [least, most] = [bound(aim.value - aim.within), bound(aim.value + aim.within)]
        return [
          { name: `${name} at least`, low: least.edge, high: Number.POSITIVE_INFINITY, coefficients: least.coefficients },
          { name: `${name} at most`, low: Number.NEGATIVE_INFINITY, high: most.edge, coefficients: most.coefficients },
        ]
      }),
    ],
  })
  const needed = input.minimumKg > carKg
  const bounds: Bounds = {
    lowKg: input.minimumKg,
    // A car over its minimum already may still carry plates for its shares, as few as help.
    highKg: (needed ? input.minimumKg : carKg) + (input.mostOverKg ?? (needed ? smallestKg : 0)),
    columns: columns.map((column) => ({
      low: 0,
      high: Math.min(plateCount(at(column), column.plateKg), Math.floor(at(column).limitKg / column.plateKg + 1e-9)),
    })),
  }
  const placement = (answer: MilpAnswer): BallastPlacement => {
    const counts = columns.map((_, i) => Math.round(answer.values[i] as number))
    // Without the mass that only breaks ties.
    const off = near.reduce((sum, { aim }, k) => sum + (aim.weight ?? 1) * (answer.values[columns.length + k] as number), 0)
    return describe(input, columns, counts, objective === 'nearestShares' ? off : answer.objective)
  }
  return { columns, carKg, bounds, problem, placement }
}

type Model = ReturnType<typeof ballastModel>

const plateCount = (site: BallastSite, plateKg: number) => site.plates.filter(({ massKg }) => massKg === plateKg).reduce((sum, { count }) => sum + count, 0)

function centreAimedAt(input: BallastInput, before: { frontShare: number; leftShare: number }): { xM: number; yM: number } {
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  return { xM: input.wheelbaseM * (1 - (input.front?.value ?? before.frontShare)), yM: trackM * ((input.left?.value ?? before.leftShare) - 0.5) }
}

function describe(input: BallastInput, columns: readonly Column[], counts: readonly number[], objective: number): BallastPlacement {
  const { corners, sites, rates, loadFactorG, centreHeightM } = input
  const massAt = sites.map((_, site) => columns.reduce((sum, column, i) => sum + (column.site === site ? column.plateKg * (counts[i] as number) : 0), 0))
  const ballastKg = massAt.reduce((sum, kg) => sum + kg, 0)
  const carKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const totalKg = carKg + ballastKg
  const moment = (pick: (site: BallastSite) => number) => sites.reduce((sum, site, i) => sum + pick(site) * (massAt[i] as number), 0)
  const before = sharesOf(corners)
  const shares = rates ? loaded(input, rates, massAt) : undefined
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  const leftKg = carKg * before.leftShare + 0.5 * ballastKg + moment((site) => site.yM) / trackM
  return {
    sites: sites.map(({ id }, site) => ({
      id,
      plates: columns.flatMap((column, i) =>
        column.site === site && (counts[i] as number) > 0 ? [{ massKg: column.plateKg, count: counts[i] as number }] : [],
      ),
      massKg: massAt[site] as number,
      mountLoadN: loadFactorG === undefined ? null : (massAt[site] as number) * loadFactorG * STANDARD_GRAVITY_MPS2,
    })),
    ballastKg,
    totalKg,
    frontShare: (carKg * before.frontShare + ballastKg - moment((site) => site.xM) / input.wheelbaseM) / totalKg,
    leftShare: shares?.leftShare ?? leftKg / totalKg,
    crossShareRfLr: shares?.crossShareRfLr ?? null,
    ballastHeightM: ballastKg > 0 ? moment((site) => site.zM) / ballastKg : null,
    centreHeightM: centreHeightM === undefined ? null : (carKg * centreHeightM + moment((site) => site.zM)) / totalKg,
    objective,
  }
}

function loaded(input: BallastInput, rates: CornerRates, massAt: readonly number[]) {
  const shares = input.sites.map(({ xM, yM }) => cornerShares(input, rates, xM, yM))
  return sharesOf(perCorner((name) => input.corners[name] + shares.reduce((sum, share, i) => sum + share[name] * (massAt[i] as number), 0)))
}

/**
 * The next best placements: any other one has, in at least one place, a plate fewer or a plate more than the best, so the best of those
 * neighbouring problems is the runner-up; the one after it is found the same way with the runner-up's own problem split again.
 */
function otherPlacements(model: Model, best: MilpAnswer, count: number, solve: SolveMilp, timeLimitS: number): BallastPlacement[] {
  const found: BallastPlacement[] = []
  // Other plates of the same mass in the same places are no other placement.
  const seen = new Set([massesOf(model.placement(best))])
  let open = splitAround(model, model.bounds, best, solve, timeLimitS)
  for (let i = 0; found.length < count && i < MOST_SPLITS; i++) {
    open = open.sort((a, b) => a.answer.objective - b.answer.objective)
    const [next, ...rest] = open
    if (!next) break
    const placement = model.placement(next.answer)
    if (!seen.has(massesOf(placement))) found.push(placement)
    seen.add(massesOf(placement))
    open = [...rest, ...(found.length < count ? splitAround(model, next.bounds, next.answer, solve, timeLimitS) : [])]
  }
  return found
}

const MOST_SPLITS = 8
const massesOf = ({ sites }: BallastPlacement) => sites.map(({ massKg }) => massKg.toFixed(3)).join(' ')

interface Branch {
  readonly bounds: Bounds
  readonly answer: MilpAnswer
}

/** Problems that between them hold every placement but the given one, without overlap, each with its best. */
function splitAround(model: Model, bounds: Bounds, given: MilpAnswer, solve: SolveMilp, timeLimitS: number): Branch[] {
  const branches: Branch[] = []
  let held = bounds.columns
  model.columns.forEach((_, i) => {
    const value = Math.round(given.values[i] as number)
    const { low, high } = bounds.columns[i] as { low: number; high: number }
    for (const range of [
      { low, high: value - 1 },
      { low: value + 1, high },
    ]) {
      if (range.low > range.high) continue
      const columns = held.map((column, k) => (k === i ? range : column))
      // All branches together take no longer than the best itself might.
      const answer = solve(model.problem({ ...bounds, columns }), timeLimitS / (2 * model.columns.length))
      if (answer.status === 'optimal' || answer.status === 'limit') branches.push({ bounds: { ...bounds, columns }, answer })
    }
    held = held.map((column, k) => (k === i ? { low: value, high: value } : column))
  })
  return branches
}

/** Why nothing fits: the sites hold too little, no sum of plates lands in the band, or a share cannot be reached. */
function unreachable(input: BallastInput, model: Model, solve: SolveMilp, timeLimitS: number): CalculationError {
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
