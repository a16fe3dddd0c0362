export interface Unit {
  readonly symbol: string
  /** Record value = (shown + offset) × factor. */
  readonly factor: number
  readonly offset?: number
  readonly aliases: readonly string[]
  /** How a field kept in this unit ends: `wheelRateNPerM`. */
  readonly ending?: string
}

/** A quantity that is written in another way than as a number and a unit. */
export interface Clock {
  /** The value in the record unit, or undefined where the text is not of this shape. */
  readonly read: (text: string) => number | undefined
  readonly write: (value: number, decimals: number) => string
}

interface Definition<Kind extends string> {
  readonly kind: Kind
  /** The first is the record unit; the others are known when they are typed. */
  readonly units: readonly Unit[]
  /** Which unit it is shown in, and read in when none is typed. */
  readonly metric: string
  readonly imperial: string
  /** Decimals where no spread says how many. */
  readonly decimals: number
  /** What a person may pick alone, beside the set. */
  readonly choices?: { readonly word: string; readonly symbols: readonly string[] }
  readonly clock?: Clock
}

export type Quantity<Kind extends string = string> = Definition<Kind>

/** Declares a kind of quantity, once: units and how they are typed, sets, choices, decimals and the endings of its fields follow. */
export const defineQuantity = <const Kind extends string>(definition: Definition<Kind>): Quantity<Kind> => definition
