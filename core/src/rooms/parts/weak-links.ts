import { attempt } from '../../attempt.ts'
import { type Headroom, headroomShare, type Rating, ratingChain } from '../../engine/rating-chain.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import { RATING_SUBJECTS, type RatingSubject } from '../../records/part-kinds.ts'
import type { DrivelineLoss } from '../power/driveline-loss.ts'
import { type NextStep, nextStep } from './next-step.ts'
import { ratedLimit } from './parts.ts'
import { demandsAt, type SubjectDemands } from './subject-demands.ts'

/** A part by one of its ratings, against what the engine asks of it as power rises. */
export interface WeakLink {
  readonly partId: string
  readonly ratingIndex: number
  readonly subject: RatingSubject
  readonly demand: number
  readonly limit: number
  /** At the target: a share of the limit, under 0 where it is over. Temperatures are counted from the plan's air outside. */
  readonly headroom: number
  /** Where it reaches its limit, at the plan's place; null: not up to the end of the sweep. */
  readonly limitPowerW: number | null
  /** Headroom at each power of the sweep; null where the plan has no answer. */
  readonly headrooms: readonly (number | null)[]
  readonly next: NextStep | null
}

/** A rating that was left out, and why. */
export interface LeftOut {
  readonly partId: string
  readonly subject: RatingSubject
  readonly reason: string
}

export interface WeakLinks {
  readonly powersW: readonly number[]
  /** In order of failure. */
  readonly links: readonly WeakLink[]
  /** Ratings that were left out, and why. */
  readonly leftOut: readonly LeftOut[]
  /** The power from which the plan itself has no answer, and why. */
  readonly refusedFrom: { readonly powerW: number; readonly message: string } | null
}

/** How far the fuel's ethanol share may lie from that of a rating (common practice, no source). */
const FUEL_TOLERANCE = 0.1
const SWEEP_POINTS = 61

/**
 * Every part of a car swept from one power to another, in order of failure, with what each next step would cost and weigh.
 * `parts` are those in the car, `all` those of the register; powers in W at the plan's place. Ratings for another fuel are left out and named.
 * Source: engine.rating-chain. Rejects a sweep that does not rise and a plan that has no answer where it begins.
 * @example weakLinks({ plan: PLAN, loss: lossOf(EXAMPLE.build), parts: [PART], all: [PART], fromPowerW: 150e3, toPowerW: 400e3 }).links[0].subject // 'crankTorque'
 */
export function weakLinks(input: {
  plan: EnginePlan
  loss: DrivelineLoss
  parts: readonly Part[]
  all: readonly Part[]
  fromPowerW: number
  toPowerW: number
}): WeakLinks {
  const { plan, parts, all } = input
  const sweep = sweepOf(input)
  const inCar = parts.map((part) => ratingsOf(part, plan))
  const ratings = inCar.flatMap((found) => found.ratings)
  const chain = chainOf(sweep, ratings)
  const unasked = ratings
    .filter(({ id }) => chain.withoutDemand.includes(id))
    .map(({ part, kind }) => ({ partId: part.id, subject: kind, reason: `the plan does not say ${RATING_SUBJECTS[kind].word}` }))
  const limitPowerOf = (part: Part) => leastLimitPowerW(chainOf(sweep, ratingsOf(part, plan).ratings).headrooms)
  const byId = new Map(ratings.map((rating) => [rating.id, rating]))
  const links = chain.headrooms.flatMap((headroom): WeakLink[] => {
    const rating = byId.get(headroom.id)
    if (!rating) return []
    const next = headroom.limitPowerW === null ? null : nextStep(rating.part, parts, all, limitPowerOf)
    return [linkOf(sweep, rating, headroom, next)]
  })
  return {
    powersW: sweep.powersW,
    links: links.sort((a, b) => (a.limitPowerW ?? Number.POSITIVE_INFINITY) - (b.limitPowerW ?? Number.POSITIVE_INFINITY) || a.headroom - b.headroom),
    leftOut: [...inCar.flatMap(({ leftOut }) => leftOut), ...unasked],
    refusedFrom: sweep.refusedFrom,
  }
}

/** What the plan asks of each subject from one power to another, up to where it has an answer. */
interface Sweep {
  readonly fromPowerW: number
  readonly toPowerW: number
  readonly targetPowerW: number
  readonly powersW: readonly number[]
  /** The highest power of the sweep at which the plan has an answer. */
  readonly lastW: number
  readonly asked: (powerW: number) => SubjectDemands
  readonly refusedFrom: WeakLinks['refusedFrom']
}

function sweepOf({ plan, loss, fromPowerW, toPowerW }: { plan: EnginePlan; loss: DrivelineLoss; fromPowerW: number; toPowerW: number }): Sweep {
  if (!(toPowerW > fromPowerW && fromPowerW > 0))
    throw new CalculationError('out-of-range', 'toPowerW', 'The sweep must rise: set a target above half of today’s power.')
  const powersW = Array.from({ length: SWEEP_POINTS }, (_, i) => fromPowerW + ((toPowerW - fromPowerW) * i) / (SWEEP_POINTS - 1))
  const known = new Map<number, SubjectDemands | CalculationError>()
  const demands = (powerW: number) => {
    const before = known.get(powerW)
    if (before) return before
    const found = attempt(() => demandsAt(plan, loss, powerW))
    known.set(powerW, found)
    return found
  }
  const asked = (powerW: number): SubjectDemands => {
    const found = demands(powerW)
    return found instanceof CalculationError ? {} : found
  }
  const first = demands(fromPowerW)
  if (first instanceof CalculationError) throw first
  let lastW = fromPowerW
  let refusedFrom: Sweep['refusedFrom'] = null
  for (const powerW of powersW) {
    const found = demands(powerW)
    if (found instanceof CalculationError) {
      refusedFrom = { powerW, message: found.message }
      break
    }
    lastW = powerW
  }
  return { fromPowerW, toPowerW, targetPowerW: Math.max(Math.min(plan.target.powerW, lastW), fromPowerW), powersW, lastW, asked, refusedFrom }
}

interface PartRating extends Rating<RatingSubject> {
  readonly part: Part
  readonly ratingIndex: number
  readonly from: number
}

/** The ratings of a part that hold for a plan, and those that do not with the reason. */
function ratingsOf(part: Part, { burn, air }: EnginePlan): { ratings: PartRating[]; leftOut: LeftOut[] } {
  const ratings: PartRating[] = []
  const leftOut: LeftOut[] = []
  for (const [ratingIndex, rating] of part.ratings.entries()) {
    const { ethanolShare, of: subject } = rating
    const limit = ratedLimit(part, rating)
    const from = RATING_SUBJECTS[subject].rating === 'temperature' ? air.ambientTemperatureK : 0
    const leave = (reason: string) => leftOut.push({ partId: part.id, subject, reason })
    if (ethanolShare !== null && Math.abs(ethanolShare - burn.ethanolShare) > FUEL_TOLERANCE)
      leave(`it holds for ${(100 * ethanolShare).toFixed(0)} % ethanol, the plan burns ${(100 * burn.ethanolShare).toFixed(0)} %`)
    else if (limit <= from) leave('it does not lie above the air outside that the plan counts with')
    else ratings.push({ id: `${part.id} ${ratingIndex}`, part, ratingIndex, kind: subject, limit, from })
  }
  return { ratings, leftOut }
}

/** The step of the sweep in which a rating is passed, so that its power is looked for there alone; the whole sweep where it is not. */
function bracket({ powersW, lastW, asked, fromPowerW }: Sweep, { kind, limit }: PartRating) {
  const at = powersW.findIndex((powerW) => powerW <= lastW && (asked(powerW)[kind] ?? 0) > limit)
  const [before, after] = [powersW[at - 1], powersW[at]]
  return before !== undefined && after !== undefined ? { fromPowerW: before, toPowerW: after } : { fromPowerW, toPowerW: lastW }
}

function chainOf(sweep: Sweep, ratings: readonly PartRating[]) {
  if (!(sweep.lastW > sweep.fromPowerW)) return { headrooms: [], withoutDemand: [] }
  const chains = ratings.map((rating) =>
    ratingChain<RatingSubject>({ targetPowerW: sweep.targetPowerW, ...bracket(sweep, rating), ratings: [rating], demandsAt: sweep.asked }),
  )
  return { headrooms: chains.flatMap(({ headrooms }) => headrooms), withoutDemand: chains.flatMap(({ withoutDemand }) => withoutDemand) }
}

/** The least power at which one of several ratings is reached; null beyond the sweep, undefined where there is none. */
function leastLimitPowerW(headrooms: readonly Headroom<RatingSubject>[]): number | null | undefined {
  if (headrooms.length === 0) return undefined
  return headrooms.reduce<number | null>((least, { limitPowerW }) => (least === null ? limitPowerW : Math.min(least, limitPowerW ?? least)), null)
}

function linkOf(
  { powersW, asked }: Sweep,
  rating: PartRating,
  { demand, limit, headroom, limitPowerW }: Headroom<RatingSubject>,
  next: NextStep | null,
): WeakLink {
  const headrooms = powersW.map((powerW) => {
    const value = asked(powerW)[rating.kind]
    return value === undefined ? null : headroomShare(value, limit, rating.from)
  })
  return { partId: rating.part.id, ratingIndex: rating.ratingIndex, subject: rating.kind, demand, limit, headroom, limitPowerW, headrooms, next }
}
