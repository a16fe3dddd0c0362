import { CalculationError } from '../errors.ts'
import type { Quantity, Unit } from './define-quantity.ts'
import { QUANTITIES, type QuantityKind } from './quantities.ts'

export type { QuantityKind } from './quantities.ts'

const BY_KIND = new Map<string, Quantity>(QUANTITIES.map((quantity) => [quantity.kind, quantity]))

/**
 * Everything that is declared of a kind of quantity.
 * @example quantityOf('force').metric // 'N'
 */
export const quantityOf = (kind: QuantityKind): Quantity => BY_KIND.get(kind) as Quantity

const fold = (text: string) => text.trim().toLowerCase().replace(/\s+/g, '').replace(/[·∙•]/g, '')

/**
 * The unit of a kind by its symbol or a usual spelling; undefined when nobody knows it. Case decides only where it must.
 * @example findUnit('torque', 'ft-lb').symbol // 'lb·ft'
 */
export function findUnit(kind: QuantityKind, text: string): Unit | undefined {
  const exact = quantityOf(kind).units.find((unit) => unit.symbol === text.trim())
  if (exact) return exact
  const folded = fold(text)
  return quantityOf(kind).units.find((unit) => fold(unit.symbol) === folded || unit.aliases.some((alias) => fold(alias) === folded))
}

function requireUnit(kind: QuantityKind, symbol: string): Unit {
  const unit = findUnit(kind, symbol)
  if (unit) return unit
  const known = quantityOf(kind)
    .units.map((entry) => entry.symbol || 'none')
    .join(', ')
  throw new CalculationError('unknown-unit', 'unit', `"${symbol}" is not a unit of ${kind} known here. Use one of: ${known}.`)
}

/**
 * A number in a named unit turned into the record unit of its kind (SI; litres; kg/L). Rejects a unit that nobody knows.
 * @example toSi('mass', 41, 'lb') // 18.59728717
 */
export const toSi = (kind: QuantityKind, value: number, symbol: string): number => siReader(kind, symbol)(value)

/** toSi for many numbers of one unit: the unit is looked up once. */
export function siReader(kind: QuantityKind, symbol: string): (value: number) => number {
  const { factor, offset = 0 } = requireUnit(kind, symbol)
  return (value) => (value + offset) * factor
}

/**
 * Volumes are read in litres; engines are reckoned in cubic metres.
 * @example m3FromLitres(2) // 0.002
 */
export const m3FromLitres = (litres: number): number => litres / 1000
/**
 * Litres of a volume in cubic metres.
 * @example litresFromM3(0.002) // 2
 */
export const litresFromM3 = (m3: number): number => m3 * 1000

/**
 * A value in the record unit of its kind turned into a named unit: the inverse of toSi. Rejects a unit that nobody knows.
 * @example fromSi('mass', 1, 'lb') // 2.20462
 */
export function fromSi(kind: QuantityKind, value: number, symbol: string): number {
  const unit = requireUnit(kind, symbol)
  return value / unit.factor - (unit.offset ?? 0)
}

/**
 * A spread (a difference, so without the offset of temperatures) in the named unit.
 * @example spreadFromSi('temperature', 5, '°F') // 9
 */
export function spreadFromSi(kind: QuantityKind, value: number, symbol: string): number {
  return value / requireUnit(kind, symbol).factor
}

/** A spread in the named unit turned into the record unit. */
export function spreadToSi(kind: QuantityKind, value: number, symbol: string): number {
  return value * requireUnit(kind, symbol).factor
}
