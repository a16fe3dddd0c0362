import { CalculationError, requirePositive } from '../errors.ts'

export const RATING_KINDS = ['power', 'torque', 'airFlow', 'fuelFlow', 'speed', 'pressure', 'temperature', 'current', 'duty'] as const
export type RatingKind = (typeof RATING_KINDS)[number]

/** What a component can take, and of what: the demand of the same kind is held against it. SI; engine speed in rpm. */
export interface Rating<Kind extends string = RatingKind> {
  readonly id: string
  readonly kind: Kind
  readonly limit: number
  /** Demand and limit are counted from here, such as a temperature from that of the air; 0 where left out. */
  readonly from?: number | undefined
}

/** What the engine asks for at one power: `at(powerW)` gives the demand of each kind that is known. */
export type Demands<Kind extends string = RatingKind> = Partial<Record<Kind, number>>

export interface Headroom<Kind extends string = RatingKind> {
  readonly id: string
  readonly kind: Kind
  readonly demand: number
  readonly limit: number
  /** Share of the limit that is left: 0.2 is a fifth, under 0 it is over its limit. */
  readonly headroom: number
  /** The power at which it reaches its limit; null where it does not up to the highest power looked at. */
  readonly limitPowerW: number | null
}

const MOST_HALVINGS = 100

/** Share of a limit that a demand leaves, both counted from a datum: 0 at the limit, under 0 over it. */
export const headroomShare = (demand: number, limit: number, from = 0): number => 1 - (demand - from) / (limit - from)

/**
 * Headroom of each component at the target, weakest first, and the power at which each gives up as power rises.
 * Demands come from the function handed in, so that a chain of any plan can be judged; the power of a limit is found by bisection between
 * `fromPowerW` and `toPowerW` (a demand must not fall as power rises). Source: ratios. Rejects limits that do not lie above what they are
 * counted from, and an empty sweep.
 */
export function ratingChain<Kind extends string = RatingKind>(input: {
  targetPowerW: number
  fromPowerW: number
  toPowerW: number
  ratings: readonly Rating<Kind>[]
  demandsAt: (powerW: number) => Demands<Kind>
}): { headrooms: Headroom<Kind>[]; withoutDemand: string[] } {
  const { targetPowerW, fromPowerW, toPowerW, ratings, demandsAt } = input
  requirePositive(targetPowerW, 'targetPowerW')
  requirePositive(fromPowerW, 'fromPowerW')
  if (!(toPowerW > fromPowerW)) throw new CalculationError('out-of-range', 'toPowerW', 'The sweep must end above where it begins.')
  const target = demandsAt(targetPowerW)
  const withoutDemand: string[] = []
  const headrooms = ratings.flatMap((rating, i): Headroom<Kind>[] => {
    requirePositive(rating.limit - (rating.from ?? 0), `ratings[${i}].limit`)
    const demand = target[rating.kind]
    if (demand === undefined) {
      withoutDemand.push(rating.id)
      return []
    }
    const limitPowerW = limitPower(rating, fromPowerW, toPowerW, demandsAt)
    return [{ id: rating.id, kind: rating.kind, demand, limit: rating.limit, headroom: headroomShare(demand, rating.limit, rating.from), limitPowerW }]
  })
  return { headrooms: headrooms.sort((a, b) => a.headroom - b.headroom), withoutDemand }
}

function limitPower<Kind extends string>(
  rating: Rating<Kind>,
  fromPowerW: number,
  toPowerW: number,
  demandsAt: (powerW: number) => Demands<Kind>,
): number | null {
  const isOver = (powerW: number) => (demandsAt(powerW)[rating.kind] ?? 0) > rating.limit
  if (isOver(fromPowerW)) return fromPowerW
  if (!isOver(toPowerW)) return null
  let [low, high] = [fromPowerW, toPowerW]
  // Halving ends where a number has no more digits, however wide the sweep is.
  for (let halvings = 0; high - low > 1 && halvings < MOST_HALVINGS; halvings++) {
    const middle = (low + high) / 2
    if (isOver(middle)) high = middle
    else low = middle
  }
  return low
}
