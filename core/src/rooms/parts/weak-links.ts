import { type Headroom, headroomShare } from '../../engine/rating-chain.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import { RATING_SUBJECTS, type RatingSubject } from '../../records/part-kinds.ts'
import type { DrivelineLoss } from '../power/driveline-loss.ts'
import { flowOfOne, fuelRoleOf, planWithParts } from '../power/plan-of-car.ts'
import { chainOf, type Sweep, sweepOf } from '../power/power-sweep.ts'
import type { Demanded } from '../power/subject-demands.ts'
import { type NextStep, nextStep } from './next-step.ts'
import { type LeftOut, type PartRating, ratingsOf } from './part-ratings.ts'

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

export interface WeakLinks {
  readonly powersW: readonly number[]
  /** In order of failure. */
  readonly links: readonly WeakLink[]
  /** Ratings that were left out, and why. */
  readonly leftOut: readonly LeftOut[]
  /** The power from which the plan itself has no answer, and why. */
  readonly refusedFrom: Sweep['refusedFrom']
}

/**
 * Every part of a car swept from one power to another, in order of failure, with what each next step would cost and weigh.
 * `parts` are those in the car, `all` those of the register; powers in W at the plan's place. Ratings for another fuel are left out and named; injectors and
 * feed pumps have the limit that the engine plan shows of them.
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
  const { parts, all } = input
  const plan = planWithParts(input.plan, parts)
  const sweep = sweepOf({ ...input, plan })
  const feed = parts.find((part) => fuelRoleOf(part) === 'feedPump' && flowOfOne(part, plan) !== undefined)
  const inCar = parts.map((part) => ratingsOf(part, plan, feed))
  const ratings = inCar.flatMap((found) => found.ratings)
  const chain = chainOf(sweep, ratings)
  const unasked = ratings
    .filter(({ id }) => chain.withoutDemand.includes(id))
    .map(({ part, subject }) => ({ partId: part.id, subject, reason: `the plan does not say ${RATING_SUBJECTS[subject].word}` }))
  const limitPowerOf = (part: Part) => leastLimitPowerW(chainOf(sweep, ratingsOf(part, plan, feed).ratings).headrooms)
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

/** The least power at which one of several ratings is reached; null beyond the sweep, undefined where there is none. */
function leastLimitPowerW(headrooms: readonly Headroom<Demanded>[]): number | null | undefined {
  if (headrooms.length === 0) return undefined
  return headrooms.reduce<number | null>((least, { limitPowerW }) => (least === null ? limitPowerW : Math.min(least, limitPowerW ?? least)), null)
}

function linkOf({ powersW, asked }: Sweep, rating: PartRating, { demand, limit, headroom, limitPowerW }: Headroom<Demanded>, next: NextStep | null): WeakLink {
  const headrooms = powersW.map((powerW) => {
    const value = asked(powerW)[rating.kind]
    return value === undefined ? null : headroomShare(value, limit, rating.from)
  })
  const { part, ratingIndex, subject, scale } = rating
  return { partId: part.id, ratingIndex, subject, demand: demand * scale, limit: limit * scale, headroom, limitPowerW, headrooms, next }
}
