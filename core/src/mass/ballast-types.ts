import type { CornerPlaces, CornerRates, PerCorner } from './suspension.ts'

/** A place where plates can be bolted down. */
export interface BallastSite {
  readonly id: string
  readonly xM: number
  readonly yM: number
  readonly zM: number
  /** What the mount may carry. */
  readonly limitKg: number
  /** Sizes there are for this place, and how many of each. */
  readonly plates: readonly { readonly massKg: number; readonly count: number }[]
}

export const BALLAST_OBJECTIVES = ['nearestShares', 'lowestCentre', 'leastYawInertia', 'leastMass'] as const
export type BallastObjective = (typeof BALLAST_OBJECTIVES)[number]

/** A share that is wanted; `within` makes it a bound, otherwise it is only come near to. */
export interface WantedShare {
  readonly value: number
  readonly within?: number | undefined
  /** Against the other shares, in the objective of coming near; 1 where left out. */
  readonly weight?: number | undefined
}

export interface BallastInput extends CornerPlaces {
  /** The car without ballast, as the minimum is weighed (with driver). */
  readonly corners: PerCorner<number>
  readonly centreHeightM?: number | undefined
  /** Wheel rates, needed only where a cross share is wanted. */
  readonly rates?: CornerRates | undefined
  readonly sites: readonly BallastSite[]
  readonly minimumKg: number
  /** How far over the minimum the car may come; the smallest plate where left out. */
  readonly mostOverKg?: number | undefined
  readonly front?: WantedShare | undefined
  readonly left?: WantedShare | undefined
  readonly crossRfLr?: WantedShare | undefined
  readonly objective: BallastObjective
  /** How many times its weight a mount must hold, from the rule book. */
  readonly loadFactorG?: number | undefined
  readonly timeLimitS?: number | undefined
  /** How many other placements to look for; 2 where left out. */
  readonly runnersUp?: number | undefined
}

export interface BallastPlacement {
  readonly sites: readonly {
    readonly id: string
    readonly plates: readonly { readonly massKg: number; readonly count: number }[]
    readonly massKg: number
    /** What the mount must hold under the stated load factor, N; null where none is stated. */
    readonly mountLoadN: number | null
  }[]
  readonly ballastKg: number
  readonly totalKg: number
  readonly frontShare: number
  readonly leftShare: number
  /** Null where no rates are given: then nobody can tell. */
  readonly crossShareRfLr: number | null
  /** Height of the ballast's own centre; null without ballast. */
  readonly ballastHeightM: number | null
  /** Height of the car's centre with it, where the car's own is given. */
  readonly centreHeightM: number | null
  /** In the unit of the objective: kg of load off the wanted shares, kg·m, kg·m², or kg. */
  readonly objective: number
}

export interface BallastAnswer {
  readonly best: BallastPlacement
  readonly runnersUp: readonly BallastPlacement[]
  /** Proven that no better one exists, or how far the best possible may be away. */
  readonly isProven: boolean
  readonly gap: number
}
