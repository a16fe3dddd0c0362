import { decimalsForSpread, formatNumber, fromSi, type QuantityKind, spreadFromSi } from '@bold-ballast/core'
import { unitsOf } from '../app/preferences.ts'
import { usePreferences } from '../app/store.ts'

export interface Shown {
  readonly number: string
  readonly unit: string
  /** "± 1.8", or empty. */
  readonly spread: string
}

/** Decimals where no spread says how many; by kind and unit. */
const PLAIN_DECIMALS: Record<QuantityKind, number> = {
  mass: 1,
  power: 0,
  torque: 0,
  powerToMass: 0,
  pressure: 1,
  temperature: 1,
  length: 0,
  volume: 1,
  fuelDensity: 3,
  share: 1,
  engineSpeed: 0,
  ratio: 4,
}

export type Formatter = (kind: QuantityKind, value: number, options?: { sd?: number | undefined; sign?: boolean; decimals?: number }) => Shown

/** Numbers in the picked units; the spread's two digits decide the decimals. */
export function makeFormatter(units: Record<QuantityKind, string>): Formatter {
  return (kind, value, { sd, sign, decimals } = {}) => {
    const unit = units[kind]
    const shownSd = sd === undefined ? undefined : spreadFromSi(kind, sd, unit)
    const places = decimals ?? (shownSd && shownSd > 0 ? Math.min(decimalsForSpread(shownSd), 3) : PLAIN_DECIMALS[kind])
    return {
      number: formatNumber(fromSi(kind, value, unit), places, sign ? { sign } : {}),
      unit,
      spread: shownSd && shownSd > 0 ? `± ${formatNumber(shownSd, places)}` : '',
    }
  }
}

export function useQuantities() {
  const preferences = usePreferences()
  const units = unitsOf(preferences)
  const format = makeFormatter(units)
  const text: (...all: Parameters<Formatter>) => string = (...all) => {
    const { number, unit } = format(...all)
    return unit ? `${number}${unit === '%' ? ' %' : ` ${unit}`}` : number
  }
  return { units, format, text, decimalMark: preferences.decimalMark }
}

/** A value as text a form can be filled with again: plain digits and the unit. */
export function typedText(kind: QuantityKind, value: number, unit: string): string {
  return `${Number(fromSi(kind, value, unit).toPrecision(7))} ${unit}`.trim()
}
