import { attempt } from '../../attempt.ts'
import { ratingChain } from '../../engine/rating-chain.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { DrivelineLoss } from './driveline-loss.ts'
import { type Demanded, demandsAt, type SubjectDemands } from './subject-demands.ts'

const SWEEP_POINTS = 61

/** What the plan asks of each subject from one power to another, up to where it has an answer. */
export interface Sweep {
  readonly fromPowerW: number
  readonly toPowerW: number
  readonly targetPowerW: number
  readonly powersW: readonly number[]
  /** The highest power of the sweep at which the plan has an answer. */
  readonly lastW: number
  readonly asked: (powerW: number) => SubjectDemands
  /** The power from which the plan has no answer, and why. */
  readonly refusedFrom: { readonly powerW: number; readonly message: string } | null
}

/** A plan swept from one power to another, W at its place. Rejects a sweep that does not rise and a plan that has no answer where it begins. */
export function sweepOf({ plan, loss, fromPowerW, toPowerW }: { plan: EnginePlan; loss: DrivelineLoss; fromPowerW: number; toPowerW: number }): Sweep {
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

/** What is asked, and how much of it can be carried; counted from a datum where one is given. */
export interface SweptRating {
  readonly id: string
  readonly kind: Demanded
  readonly limit: number
  readonly from?: number
}

/** The step of the sweep in which a rating is passed, so that its power is looked for there alone; the whole sweep where it is not. */
function bracket({ powersW, lastW, asked, fromPowerW }: Sweep, { kind, limit }: SweptRating) {
  const at = powersW.findIndex((powerW) => powerW <= lastW && (asked(powerW)[kind] ?? 0) > limit)
  const [before, after] = [powersW[at - 1], powersW[at]]
  return before !== undefined && after !== undefined ? { fromPowerW: before, toPowerW: after } : { fromPowerW, toPowerW: lastW }
}

/** Headroom of ratings over a sweep and the power at which each is reached, to 1 W. */
export function chainOf(sweep: Sweep, ratings: readonly SweptRating[]) {
  if (!(sweep.lastW > sweep.fromPowerW)) return { headrooms: [], withoutDemand: [] }
  const chains = ratings.map((rating) =>
    ratingChain<Demanded>({ targetPowerW: sweep.targetPowerW, ...bracket(sweep, rating), ratings: [rating], demandsAt: sweep.asked }),
  )
  return { headrooms: chains.flatMap(({ headrooms }) => headrooms), withoutDemand: chains.flatMap(({ withoutDemand }) => withoutDemand) }
}
