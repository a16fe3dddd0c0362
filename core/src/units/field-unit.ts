import type { Unit } from './define-quantity.ts'
import { QUANTITIES } from './quantities.ts'

/** Every ending of a field that says its unit, the longest first, so that `fuelKgPerL` is not taken for litres. */
const ENDINGS = QUANTITIES.flatMap(({ units }) => (units as readonly Unit[]).flatMap((unit) => (unit.ending ? [{ ending: unit.ending, unit }] : []))).sort(
  (a, b) => b.ending.length - a.ending.length,
)

/**
 * The unit that a field's name says at its end, and the name without it; undefined where it says none.
 * @example fieldUnit('wheelRateNPerM')?.unit.symbol // 'N/m'
 */
export function fieldUnit(field: string): { readonly bare: string; readonly unit: Unit } | undefined {
  const found = ENDINGS.find(({ ending }) => field.endsWith(ending) && /[a-z0-9]$/.test(field.slice(0, -ending.length)))
  return found && { bare: field.slice(0, -found.ending.length), unit: found.unit }
}
