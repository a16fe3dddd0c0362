import { QUANTITIES, type QuantityKind } from './quantities.ts'

export type UnitSetName = 'metric' | 'imperial'

const setOf = (name: UnitSetName) => Object.fromEntries(QUANTITIES.map((quantity) => [quantity.kind, quantity[name]])) as Record<QuantityKind, string>

/** Which unit each kind is shown in, and read in when none is typed. */
export const UNIT_SETS: Record<UnitSetName, Record<QuantityKind, string>> = { metric: setOf('metric'), imperial: setOf('imperial') }

export interface UnitChoice {
  readonly kind: QuantityKind
  readonly word: string
  readonly symbols: readonly string[]
}

/** Quantities whose unit a person may pick alone, beside the set, and what they may pick. */
export const UNIT_CHOICES: readonly UnitChoice[] = QUANTITIES.flatMap((quantity) =>
  'choices' in quantity && quantity.choices ? [{ kind: quantity.kind, ...quantity.choices }] : [],
)

/**
 * The set with single quantities replaced; a symbol that is not offered is left out.
 * @example chooseUnits('metric', { power: 'PS' }).power // 'PS'
 */
export function chooseUnits(set: UnitSetName, own: Partial<Record<QuantityKind, string>>): Record<QuantityKind, string> {
  const picked = UNIT_CHOICES.flatMap(({ kind, symbols }) => (symbols.includes(own[kind] ?? '') ? [[kind, own[kind]]] : []))
  return { ...UNIT_SETS[set], ...Object.fromEntries(picked) }
}
