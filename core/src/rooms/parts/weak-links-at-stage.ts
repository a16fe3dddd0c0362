import { crankToWheel } from '../../dyno/wheel-to-crank.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { RatingSubject } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { lossOf } from '../power/driveline-loss.ts'
import { planAtStage } from '../power/engine-plan-at-stage.ts'
import { isSamePlace } from '../power/measured-engine.ts'
import { partsAtStage } from './parts.ts'
import { type WeakLinks, weakLinks } from './weak-links.ts'

export interface StageWeakLinks extends WeakLinks {
  readonly plan: EnginePlan
  /** Whether the sweep begins at what the stage makes; else at half of the target. */
  readonly startsToday: boolean
}

/**
 * The weak links of a build at a stage: its engine plan, its parts and its loss, from what it makes today (W where the build counts power; undefined: not
 * known) to twice the target. Where today's power is of another place than the plan's, or unknown, the sweep begins at half of the target.
 * Undefined without a plan. Rejects what `weakLinks` rejects.
 * @example weakLinksAtStage(WITH_PLAN, 1, undefined).startsToday // false
 */
export function weakLinksAtStage(
  records: Pick<BuildRecords, 'build' | 'parts' | 'stages' | 'enginePlans'>,
  position: number,
  todayW: number | undefined,
): StageWeakLinks | undefined {
  const plan = planAtStage(records, position)?.plan
  if (!plan) return undefined
  const target = plan.target.powerW
  const startsToday = todayW !== undefined && todayW > 0 && isSamePlace(plan, records.build)
  const swept = weakLinks({
    plan,
    loss: lossOf(records.build),
    parts: partsAtStage(records, position),
    all: records.parts,
    fromPowerW: startsToday ? Math.min(todayW, target) : target / 2,
    toPowerW: 2 * target,
  })
  return { ...swept, plan, startsToday }
}

/** The part that first has less headroom than a share as power rises, and the power there. */
export interface HeadroomStop {
  readonly partId: string
  readonly subject: RatingSubject
  readonly powerW: number
}

/**
 * Where power must not be raised further if every part is to keep a share of headroom (0 to 0.9): by straight lines between the powers of the sweep, and
 * its first power where a part has less from the start. Null where all keep it. Source: ratios.
 * @example headroomStop(weakLinksAtStage(WITH_PLAN, 1, undefined), 0.1).powerW // 228242.0
 */
export function headroomStop({ links, powersW }: WeakLinks, share: number): HeadroomStop | null {
  const stops = links.flatMap(({ partId, subject, headrooms }): HeadroomStop[] => {
    const at = headrooms.findIndex((value) => value !== null && value < share)
    if (at < 0) return []
    const [under, above] = [headrooms[at] as number, headrooms[at - 1]]
    const [high, low] = [powersW[at] as number, powersW[at - 1]]
    if (above === undefined || above === null || low === undefined) return [{ partId, subject, powerW: high }]
    return [{ partId, subject, powerW: low + ((high - low) * (above - share)) / (above - under) }]
  })
  return stops.reduce<HeadroomStop | null>((least, stop) => (least && least.powerW <= stop.powerW ? least : stop), null)
}

/**
 * The power, W where the build counts power, above which a part of a stage keeps less headroom than a share; null where none does up to twice the
 * target, and without a plan. A plan for the crank is brought to the wheels by the build's loss. Rejects what `weakLinks` rejects.
 * @example headroomStopAtStage(WITH_PLAN, 1, 0.1).subject // 'crankTorque'
 */
export function headroomStopAtStage(records: Parameters<typeof weakLinksAtStage>[0], position: number, share: number): HeadroomStop | null {
  const swept = weakLinksAtStage(records, position, undefined)
  const stop = swept ? headroomStop(swept, share) : null
  if (!swept || !stop) return null
  const isAtCrank = swept.plan.target.place === 'crank'
  return isAtCrank ? { ...stop, powerW: crankToWheel({ crankPowerW: stop.powerW, ...lossOf(records.build) }) } : stop
}
