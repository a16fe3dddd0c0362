import type { RecordList } from '../records/kinds.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { QuantityKind } from '../units/units.ts'
import type { Car } from './car.ts'
import type { AdviceWords, Said } from './define-advice.ts'
import type { StageValue, Waiting } from './stage-value.ts'

/** A sense of a goal. */
export type GoalSense = 'atMost' | 'atLeast' | 'between'

/** What a metric is: everything that is known of it without a car. */
export interface MetricDeclaration {
  readonly key: Metric
  readonly word: string
  readonly kind: QuantityKind
  /** Which way is better, for the beam and the trail. */
  readonly sense: GoalSense
  /** The conditions it is quoted in, so that no number stands without them. */
  readonly basis: readonly ('mass' | 'power' | 'air')[]
  /** The room that shows it, by its path. */
  readonly room: string
  /** Every measurement that it takes to prove it. */
  readonly provedBy: readonly string[]
  /** The lists it reads beside those that every car is opened from. */
  readonly reads?: readonly RecordList[]
  /** Of which subject its working is, and the registered calculation that stands behind a verdict on it. */
  readonly working: string
  readonly calculation: string
  /** How far its beam runs when the first value stands on the goal, or the goal is nothing; a tenth of the goal where it is left out. */
  readonly range?: number
  /** Whether the Board shows it without a goal. */
  readonly isAlwaysShown?: boolean
}

/** How a metric is worked out at a stage, and what the plan had said there before it was measured. */
export interface MetricWork {
  /** `trackId`: of which track, where a goal says one; null: of the build's own. */
  readonly at: (car: Car, position: number, trackId?: string | null) => StageValue | Waiting | undefined
  /** What tells it from the same metric elsewhere, in words: the track that a lap is of. */
  readonly place?: (car: Car, trackId: string | null) => string | null
  readonly planned?: (car: Car, position: number) => number | null
}

/** A base that is measured as one: the car on the scales, its power. */
export interface MeasurementDeclaration {
  readonly key: string
  /** The metric it gives; a target that rests on this base is measured when that is. */
  readonly metric: Metric
  /** What What next says where the measurement is missing; `built` is the stage that is built and not measured, or none was ever measured. */
  readonly cure: (item: { readonly metric: Metric; readonly position: number; readonly isBuilt: boolean }, words: AdviceWords) => Said
}

/** Whether a stage alters a base, and whether the base was measured there after its last change. */
export interface MeasurementWork {
  /** Whether the car as bought is to be measured too; it is, where nothing is said. */
  readonly asksAsBought?: boolean
  readonly touches: (car: Car, position: number) => boolean
  readonly isMeasuredAt: (car: Car, position: number) => boolean
  /** Whether a measurement of it was entered at the stage, whatever came of it: work there has begun. */
  readonly isEnteredAt: (car: Car, stageId: string) => boolean
}

/**
 * Declares what a metric is. Its key stands in `records/metric-keys.ts`; how it is worked out stands in the same file of its room, apart, so that a
 * page that only names it need not load the sums.
 */
export const defineMetric = (declaration: MetricDeclaration): MetricDeclaration => declaration

/** Declares a base that can be measured and what its absence asks for; how it is seen in a car stands in the same file, apart. */
export const defineMeasurement = (declaration: MeasurementDeclaration): MeasurementDeclaration => declaration

/** The work of metrics that are worked out alike; declared, so that a page that only names them need not load the sums. */
export const workOfEach = <Key extends Metric>(keys: readonly Key[], work: (key: Key) => MetricWork): Readonly<Record<Key, MetricWork>> =>
  Object.fromEntries(keys.map((key) => [key, work(key)])) as Record<Key, MetricWork>
