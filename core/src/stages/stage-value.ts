import type { Proof } from '../proof/quantity.ts'
import type { Distribution } from '../stats/distribution.ts'

/** A metric of the car at one stage. */
export interface StageValue {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
  readonly distribution: Distribution
  /** The stage a carried value comes from, when it is not this one. */
  readonly fromPosition: number | null
  /** The stage lists nothing and was not measured: what stands here is the stage before it, and no plan. */
  readonly isEmptyStage?: boolean
}

/** In place of a value that is being worked out elsewhere and arrives later. */
export const WAITING = 'waiting'
export type Waiting = typeof WAITING
