import { orElse } from '../attempt.ts'
import { isMeasured } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import { ratingLimits } from '../rooms/parts/rating-limits.ts'
import { systemsLimits } from '../rooms/systems/metrics.ts'
import { bookLimits } from '../stages/book-limits.ts'
import type { Car } from '../stages/car.ts'
import type { GoalSense, MetricDeclaration, MetricWork } from '../stages/define-metric.ts'
import type { StageValue } from '../stages/stage-value.ts'
import { WAITING, type Waiting } from '../stages/stage-value.ts'
import { chanceAtMost, type Distribution } from '../stats/distribution.ts'
import { goalAtReference } from './goal-at-reference.ts'
import { METRIC_VALUES } from './metric-values.ts'
import { METRIC_INFO } from './metrics.ts'

/** The metrics that are asked of a car: what each is, and how it is worked out. */
export interface MetricSet {
  readonly info: Readonly<Record<string, MetricDeclaration>>
  readonly work: Readonly<Record<string, MetricWork>>
}

export const ALL_METRICS: MetricSet = { info: METRIC_INFO, work: METRIC_VALUES }

/** What is asked of a car: a metric, or what a goal is of. */
export type Asked = Metric | { readonly metric: Metric; readonly trackId?: string | null | undefined }

/** Every metric of one car and the goals it is held against, each worked out once per stage. */
export class StageValues {
  readonly car: Car
  readonly metrics: MetricSet
  readonly targets: readonly Target[]
  /** The limits that people set, and those that parts and rooms bring along. */
  readonly limits: readonly Limit[]
  private readonly known = new Map<string, StageValue | Waiting | undefined>()

  constructor(car: Car, metrics: MetricSet = ALL_METRICS) {
    this.car = car
    this.metrics = metrics
    const { targets, limits, build } = car.records
    this.targets = targets.map((goal) => goalAtReference(goal, build))
    this.limits = [...limits.map((goal) => goalAtReference(goal, build)), ...ratingLimits(car), ...bookLimits(car), ...systemsLimits(car)]
  }

  info(metric: Metric): MetricDeclaration {
    return this.metrics.info[metric] as MetricDeclaration
  }

  /** The value at a stage, or that it is being worked out. */
  found(asked: Asked, position: number): StageValue | Waiting | undefined {
    const { metric, trackId } = partsOf(asked)
    const key = `${metric} ${trackId ?? ''} ${position}`
    if (!this.known.has(key))
      this.known.set(
        key,
        orElse(
          () => finite(this.metrics.work[metric]?.at(this.car, position, trackId)),
          () => undefined,
        ),
      )
    return this.known.get(key)
  }

  /** The value at a stage; undefined where there is none, or none yet. */
  value(asked: Asked, position: number): StageValue | undefined {
    const found = this.found(asked, position)
    return found === WAITING ? undefined : found
  }

  /** Whether a value is being worked out at any of these stages. */
  isWaiting(asked: Asked, from = 0, to = this.car.stages.length - 1): boolean {
    for (let at = from; at <= to; at++) if (this.found(asked, at) === WAITING) return true
    return false
  }

  planned(metric: Metric, position: number): number | null {
    return orElse(
      () => this.metrics.work[metric]?.planned?.(this.car, position) ?? null,
      () => null,
    )
  }

  /** What tells a metric from the same elsewhere, such as the track of a lap; null where nothing has to. */
  place(asked: Asked): string | null {
    const { metric, trackId } = partsOf(asked)
    return this.metrics.work[metric]?.place?.(this.car, trackId) ?? null
  }

  /** The latest stage at or after `from` whose value is at least measured. */
  latestMeasured(asked: Asked, from: number): number | undefined {
    for (let at = this.car.stages.length - 1; at >= from; at--) {
      const value = this.value(asked, at)
      if (value && isMeasured(value.proof)) return at
    }
    return undefined
  }
}

const partsOf = (asked: Asked): { readonly metric: Metric; readonly trackId: string | null } =>
  typeof asked === 'string' ? { metric: asked, trackId: null } : { metric: asked.metric, trackId: asked.trackId ?? null }

/** A value that can be shown; none where a sum ran out of numbers. */
const finite = (value: StageValue | Waiting | undefined) =>
  value === undefined || value === WAITING || (Number.isFinite(value.value) && Number.isFinite(value.sd)) ? value : undefined

export interface Goal {
  readonly sense: GoalSense
  readonly value: number
  readonly highValue?: number | null
}

/** Whether a value satisfies a goal. */
export function satisfies(goal: Goal, value: number): boolean {
  if (goal.sense === 'atMost') return value <= goal.value
  if (goal.sense === 'atLeast') return value >= goal.value
  return value >= goal.value && value <= (goal.highValue ?? goal.value)
}

/** The chance that a value so distributed satisfies a goal. */
export function chanceOf(goal: Goal, distribution: Distribution): number {
  if (goal.sense === 'atMost') return chanceAtMost(distribution, goal.value)
  const below = chanceAtMost(distribution, goal.value)
  if (goal.sense === 'atLeast') return 1 - below
  return Math.max(0, chanceAtMost(distribution, goal.highValue ?? goal.value) - below)
}
