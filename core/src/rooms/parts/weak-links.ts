import { attempt } from '../../attempt.ts'
import { headroomShare, ratingChain } from '../../engine/rating-chain.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import { RATING_SUBJECTS, type RatingSubject } from '../../records/part-kinds.ts'
import type { DrivelineLoss } from '../power/driveline-loss.ts'
import { partsOfKind, ratedLimit, wholeCost, wholeMassKg } from './parts.ts'
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

/** What could replace a part: the cheapest of its kind that carries the whole sweep, else the one that carries most. */
export interface NextStep {
  readonly partId: string
  readonly cost: number | null
  readonly massDifferenceKg: number | null
  readonly limitPowerW: number | null
}

export interface WeakLinks {
  readonly powersW: readonly number[]
  /** In order of failure. */
  readonly links: readonly WeakLink[]
  /** Ratings that were left out, and why. */
  readonly leftOut: readonly { readonly partId: string; readonly subject: RatingSubject; readonly reason: string }[]
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
  const { plan, loss, parts, all, fromPowerW, toPowerW } = input
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
  const first = demands(fromPowerW)
  if (first instanceof CalculationError) throw first
  const refusedAt = powersW.findIndex((powerW) => demands(powerW) instanceof CalculationError)
  const lastW = refusedAt < 0 ? toPowerW : (powersW[refusedAt - 1] as number)
  const refusal = refusedAt < 0 ? null : (demands(powersW[refusedAt] as number) as CalculationError)
  const target = Math.min(plan.target.powerW, lastW)
  const leftOut: WeakLinks['leftOut'][number][] = []
  const datumOf = (subject: RatingSubject) => (RATING_SUBJECTS[subject].rating === 'temperature' ? plan.air.ambientTemperatureK : 0)
  const rated = (part: Part) =>
    part.ratings.flatMap((rating, ratingIndex) => {
      const { ethanolShare } = rating
      if (ethanolShare !== null && Math.abs(ethanolShare - plan.burn.ethanolShare) > FUEL_TOLERANCE) {
        leftOut.push({
          partId: part.id,
          subject: rating.of,
          reason: `it holds for ${(100 * ethanolShare).toFixed(0)} % ethanol, the plan burns ${(100 * plan.burn.ethanolShare).toFixed(0)} %`,
        })
        return []
      }
      const limit = ratedLimit(part, rating)
      const from = datumOf(rating.of)
      if (limit <= from) {
        leftOut.push({ partId: part.id, subject: rating.of, reason: 'it does not lie above the air outside that the plan counts with' })
        return []
      }
      return [{ id: `${part.id} ${ratingIndex}`, part, ratingIndex, kind: rating.of, limit, from }]
    })
  const asked = (powerW: number): SubjectDemands => {
    const found = demands(powerW)
    return found instanceof CalculationError ? {} : found
  }
  /** The step of the sweep in which a rating is passed, so that its power is looked for there alone; the whole sweep where it is not. */
  const bracket = ({ kind, limit }: { kind: RatingSubject; limit: number }) => {
    const at = powersW.findIndex((powerW) => powerW <= lastW && (asked(powerW)[kind] ?? 0) > limit)
    return at > 0 ? { fromPowerW: powersW[at - 1] as number, toPowerW: powersW[at] as number } : { fromPowerW, toPowerW: lastW }
  }
  const chainOf = (list: ReturnType<typeof rated>) => {
    if (!(lastW > fromPowerW)) return { headrooms: [], withoutDemand: [] }
    const chains = list.map((rating) =>
      ratingChain<RatingSubject>({ targetPowerW: Math.max(target, fromPowerW), ...bracket(rating), ratings: [rating], demandsAt: asked }),
    )
    return { headrooms: chains.flatMap(({ headrooms }) => headrooms), withoutDemand: chains.flatMap(({ withoutDemand }) => withoutDemand) }
  }
  const ratings = parts.flatMap(rated)
  const chain = chainOf(ratings)
  for (const id of chain.withoutDemand) {
    const rating = ratings.find((entry) => entry.id === id)
    if (rating) leftOut.push({ partId: rating.part.id, subject: rating.kind, reason: `the plan does not say ${RATING_SUBJECTS[rating.kind].word}` })
  }
  const count = leftOut.length
  const nextOf = (part: Part): NextStep | null => {
    const limitOf = (other: Part) => {
      const found = chainOf(rated(other)).headrooms
      if (found.length === 0) return undefined
      return found.reduce<number | null>((least, { limitPowerW }) => (least === null ? limitPowerW : Math.min(least, limitPowerW ?? least)), null)
    }
    const own = limitOf(part)
    const better = partsOfKind(all, part.kind).flatMap((other) => {
      if (other.id === part.id || other.status === 'wornOut' || parts.some(({ id }) => id === other.id)) return []
      const limitPowerW = limitOf(other)
      return limitPowerW === undefined || !isHigher(limitPowerW, own) ? [] : [{ other, limitPowerW }]
    })
    const cost = ({ other }: { other: Part }) => wholeCost(other) ?? Number.POSITIVE_INFINITY
    const found =
      better.filter(({ limitPowerW }) => limitPowerW === null).sort((a, b) => cost(a) - cost(b))[0] ??
      better.sort((a, b) => (b.limitPowerW as number) - (a.limitPowerW as number))[0]
    if (!found) return null
    const [mine, theirs] = [wholeMassKg(part), wholeMassKg(found.other)]
    return {
      partId: found.other.id,
      cost: wholeCost(found.other),
      massDifferenceKg: mine === null || theirs === null ? null : theirs - mine,
      limitPowerW: found.limitPowerW,
    }
  }
  const links = chain.headrooms.map(({ id, kind, demand, limit, headroom, limitPowerW }): WeakLink => {
    const rating = ratings.find((entry) => entry.id === id) as (typeof ratings)[number]
    const headrooms = powersW.map((powerW) => {
      const value = asked(powerW)[kind]
      return value === undefined ? null : headroomShare(value, limit, rating.from)
    })
    return {
      partId: rating.part.id,
      ratingIndex: rating.ratingIndex,
      subject: kind,
      demand,
      limit,
      headroom,
      limitPowerW,
      headrooms,
      next: limitPowerW === null ? null : nextOf(rating.part),
    }
  })
  return {
    powersW,
    links: [...links].sort((a, b) => (a.limitPowerW ?? Number.POSITIVE_INFINITY) - (b.limitPowerW ?? Number.POSITIVE_INFINITY) || a.headroom - b.headroom),
    leftOut: leftOut.slice(0, count),
    refusedFrom: refusal && { powerW: powersW[refusedAt] as number, message: refusal.message },
  }
}

/** Whether a limit power is higher than another; null is beyond the sweep. */
const isHigher = (limitPowerW: number | null, than: number | null | undefined): boolean =>
  than === undefined || (than !== null && (limitPowerW === null || limitPowerW > than))
