import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import { RATING_SUBJECTS, type RatingSubject } from '../../records/part-kinds.ts'
import { flowOfOne, fuelRoleOf, holdsForFuel, injectorLimitM3PerS, planWithParts } from '../power/plan-of-car.ts'
import type { Demanded } from '../power/subject-demands.ts'
import { ratedLimit } from './parts.ts'

/** A rating of a part, as it is held against what a plan asks. */
export interface PartRating {
  readonly id: string
  readonly part: Part
  readonly ratingIndex: number
  readonly subject: RatingSubject
  readonly kind: Demanded
  readonly limit: number
  /** What demand and limit are counted from. */
  readonly from: number
  /** What they are shown in, for one of the unit they are compared in. */
  readonly scale: number
}

/** A rating that was left out, and why. */
export interface LeftOut {
  readonly partId: string
  readonly subject: RatingSubject
  readonly reason: string
}

type Compared = { readonly kind: Demanded; readonly limit: number; readonly scale?: number }

/** How the fuel flow of a part is compared, by what it does; a reason where it is not, null where it is no rating of its own. */
function fuelFlowOf(part: Part, plan: EnginePlan, feed: Part | undefined): Compared | string {
  const role = fuelRoleOf(part)
  const each = flowOfOne(part, plan)
  const limit = (each ?? 0) * part.count
  if (role === 'liftPump') return 'a lift pump fills the pot of the feed pumps; the rail is not on it'
  if (role === 'sparePump') return 'a spare pump counts when another has failed: the engine plan says how far it carries then'
  if (role === 'injectors') {
    if (!plan.injectors) return 'the plan does not say at which pressure and duty the injectors run; choose injectors there'
    const found = attempt(() => injectorLimitM3PerS(planWithParts(plan, [part])))
    return found instanceof CalculationError ? found.message : { kind: 'fuelFlow', limit: found }
  }
  if (role !== 'feedPump' || !plan.pump || each === undefined) return { kind: 'fuelFlow', limit }
  const ofThePlan = (feed && flowOfOne(feed, plan)) || each
  const isInCar = feed?.id === part.id
  return { kind: 'feedPumps', limit: isInCar ? plan.pump.count : limit / ofThePlan, scale: ofThePlan }
}

/**
 * The ratings of a part that hold for a plan of the car, and those that do not with the reason. An injector carries what flows at the plan's pressure and
 * duty; a feed pump what it gives at the pressure of each power; a torque past the gears is compared in the torque path of Drivetrain. `feed` is the car's own feed pump.
 */
export function ratingsOf(part: Part, plan: EnginePlan, feed?: Part): { ratings: PartRating[]; leftOut: LeftOut[] } {
  const ratings: PartRating[] = []
  const leftOut: LeftOut[] = []
  const isRatedInjector = fuelRoleOf(part) === 'injectors' && flowOfOne(part, plan) !== undefined
  for (const [ratingIndex, rating] of part.ratings.entries()) {
    const { of: subject, ethanolShare } = rating
    const from = RATING_SUBJECTS[subject].rating === 'temperature' ? plan.air.ambientTemperatureK : 0
    const compared = (): Compared | string | null => {
      if (!holdsForFuel(rating, plan))
        return `it holds for ${(100 * (ethanolShare ?? 0)).toFixed(0)} % ethanol, the plan burns ${(100 * plan.burn.ethanolShare).toFixed(0)} %`
      if (subject === 'axleTorque' || subject === 'wheelTorque' || subject === 'propTorque')
        return 'it is met through the gears: the torque path of Drivetrain holds it against what the tyres let through'
      if (subject === 'fuelFlow') return fuelFlowOf(part, plan, feed)
      // Its flow says the same in power, at the smaller of both duty limits.
      if (subject === 'injectorDuty') return isRatedInjector ? null : { kind: subject, limit: Math.min(rating.limit, plan.injectors?.dutyLimit ?? 1) }
      const limit = ratedLimit(part, rating)
      return limit <= from ? 'it does not lie above the air outside that the plan counts with' : { kind: subject, limit }
    }
    const found = compared()
    if (typeof found === 'string') leftOut.push({ partId: part.id, subject, reason: found })
    else if (found) ratings.push({ scale: 1, ...found, id: `${part.id} ${ratingIndex}`, part, ratingIndex, subject, from })
  }
  return { ratings, leftOut }
}
