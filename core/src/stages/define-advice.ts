import type { Metric } from '../records/metric-keys.ts'
import type { QuantityKind } from '../units/units.ts'

/** What a rule of What next is told in: the formatter of the page, with the names of stages and the addresses of rooms. */
export interface AdviceWords {
  readonly text: (kind: QuantityKind, value: number, options?: { readonly sd?: number; readonly sign?: boolean }) => string
  /** "stage 2 Glass". */
  readonly stage: (position: number) => string
  /** The address of a room at a stage, with more of its query behind. */
  readonly at: (room: string, position: number, more?: string) => string
  /** The address of a room with a query of its own. */
  readonly to: (room: string, query: string) => string
  readonly metric: (key: Metric) => { readonly word: string; readonly kind: QuantityKind; readonly room: string }
  /** "27 Mar 2027". */
  readonly day: (day: string) => string
  /** "7 in 10". */
  readonly chance: (share: number) => string
}

/** One thing to do next, in words. */
export interface Said {
  readonly head: string
  readonly text: string
  readonly to: string
  readonly isDanger?: boolean
}

/** A kind of thing to do next: how pressing it is against the others, and where it applies. */
export interface Advice<Subject, Item extends { readonly code: string }> {
  /** Smaller is more pressing. */
  readonly rank: number
  readonly find: (subject: Subject, today: string) => readonly Item[]
}

/** Declares a rule of What next. How each of its items is said stands in the same file, apart, so that a page need not load the sums. */
export const defineAdvice = <Subject, Item extends { readonly code: string }>(advice: Advice<Subject, Item>): Advice<Subject, Item> => advice

/** What rules of a list can answer. */
export type ItemOf<List extends readonly Advice<never, { readonly code: string }>[]> = List[number] extends Advice<never, infer Item> ? Item : never

/** How each item of some rules is said, by its code. */
export type Sayings<Item extends { readonly code: string }> = {
  readonly [Code in Item['code']]: (item: Extract<Item, { readonly code: Code }>, words: AdviceWords) => Said
}
