import { isMeasured } from '../proof/quantity.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import { chanceOf, type StageValues, satisfies } from './stage-values.ts'

export type TargetWord = 'met' | 'missed' | 'on course' | 'doubtful' | 'unlikely' | 'no plan'
export type LimitWord = 'broken' | 'would break' | 'holds' | 'would hold' | 'holds if nothing goes in' | 'no plan'

export interface TargetVerdict {
  readonly word: TargetWord
  /** How sure a measured verdict is, or how likely the plan makes it; null with no plan. */
  readonly chance: number | null
  /** A measured verdict that is less than 90 % sure. */
  readonly withinDoubt: boolean
  /** The due date has passed and nothing measured says yes or no. */
  readonly isLate: boolean
  readonly duePosition: number
  readonly verdictPosition: number
  /** The due stage lists nothing yet, so there is no plan; what stands there is the stage before it. */
  readonly isEmptyStage: boolean
  /** Met when due, and missed again since this stage. */
  readonly missedSincePosition: number | null
}

export interface LimitVerdict {
  readonly word: LimitWord
  /** How likely this word is right; null with no plan. */
  readonly chance: number | null
  readonly fromPosition: number
  readonly verdictPosition: number
}

/** Index of the stage an id names; a stage that is gone, or null, is the last one. */
function positionOrLast(values: StageValues, stageId: string | null): number {
  const last = values.car.stages.length - 1
  if (stageId === null) return last
  const found = values.car.stages.findIndex((stage) => stage.id === stageId)
  return found < 0 ? last : found
}

/**
 * Verdict of a target: at the latest stage from the due one on whose value is measured, else at the due stage.
 * Measured: met or missed, and "within doubt" under 90 %. Else open by the plan's chance: on course from 0.8, unlikely under 0.2, doubtful between.
 * A due stage that lists nothing has no plan. `today` is an ISO date; a passed due date makes an open target late, never missed. Null while a value that it rests on is being worked out.
 */
export function targetVerdict(values: StageValues, target: Target, today: string): TargetVerdict | null {
  const duePosition = positionOrLast(values, target.dueStageId)
  if (values.isWaiting(target, duePosition)) return null
  const verdictPosition = values.latestMeasured(target, duePosition) ?? duePosition
  const value = values.value(target, verdictPosition)
  const dueDate = values.car.stages[duePosition]?.date ?? null
  const common = { duePosition, verdictPosition, missedSincePosition: null, withinDoubt: false, isLate: false, isEmptyStage: value?.isEmptyStage === true }
  const passed = dueDate !== null && dueDate < today
  if (!value || value.isEmptyStage) return { ...common, word: 'no plan', chance: null, isLate: passed }
  const yes = chanceOf(target, value.distribution)
  if (!isMeasured(value.proof)) {
    const word = yes >= 0.8 ? 'on course' : yes < 0.2 ? 'unlikely' : 'doubtful'
    return { ...common, word, chance: yes, isLate: passed }
  }
  const met = satisfies(target, value.value)
  const sure = met ? yes : 1 - yes
  return {
    ...common,
    word: met ? 'met' : 'missed',
    chance: sure,
    withinDoubt: sure < 0.9,
    missedSincePosition: met ? null : missedSince(values, target, duePosition, verdictPosition),
  }
}

function missedSince(values: StageValues, target: Target, due: number, now: number): number | null {
  let since: number | null = null
  for (let at = now; at >= due; at--) {
    const value = values.value(target, at)
    if (!value || !isMeasured(value.proof)) continue
    if (satisfies(target, value.value)) return since
    since = at
  }
  return null
}

/**
 * Verdict of a limit over all stages it holds for, from its first to its last: a measured breach is broken; else a predicted one (chance under 0.5) would
 * break. Null while a value that it rests on is being worked out.
 */
export function limitVerdict(values: StageValues, limit: Limit): LimitVerdict | null {
  const fromPosition = positionOrLast(values, limit.fromStageId)
  const untilPosition = positionOrLast(values, limit.untilStageId)
  if (values.isWaiting(limit, fromPosition, untilPosition)) return null
  let worst: { readonly yes: number; readonly verdict: LimitVerdict } | undefined
  for (let at = fromPosition; at <= untilPosition; at++) {
    const value = values.value(limit, at)
    if (!value) continue
    const yes = chanceOf(limit, value.distribution)
    if (isMeasured(value.proof) && !satisfies(limit, value.value)) return { word: 'broken', chance: 1 - yes, fromPosition, verdictPosition: at }
    const word = isMeasured(value.proof) ? 'holds' : yes < 0.5 ? 'would break' : value.isEmptyStage ? 'holds if nothing goes in' : 'would hold'
    const chance = word === 'would break' ? 1 - yes : yes
    if (!worst || yes < worst.yes) worst = { yes, verdict: { word, chance, fromPosition, verdictPosition: at } }
  }
  return worst?.verdict ?? { word: 'no plan', chance: null, fromPosition, verdictPosition: fromPosition }
}
