import { type DecimalMark, decimalsForSpread, formatNumber, fromSi, type QuantityKind, spreadFromSi } from '@bold-ballast/core'
import { useMemo } from 'react'
import { unitsOf } from '../data/preferences.ts'
import { usePreferences } from '../data/store.ts'

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
  speed: 1,
  springRate: 1,
  force: 0,
  ratio: 4,
  massFlow: 3,
  volumeFlow: 0,
  current: 1,
  fuelUse: 0,
  injectorFlow: 0,
  pistonSpeed: 1,
  duration: 0,
}

export type Formatter = (kind: QuantityKind, value: number, options?: { sd?: number | undefined; sign?: boolean; decimals?: number; isGoal?: boolean }) => Shown

/** Numbers in the picked units; the spread's two digits decide the decimals. */
export function makeFormatter(units: Record<QuantityKind, string>, mark: DecimalMark = '.'): Formatter {
  return (kind, value, { sd, sign, decimals, isGoal } = {}) => {
    const unit = units[kind]
    const shownSd = sd === undefined ? undefined : spreadFromSi(kind, sd, unit)
    const plain = fromSi(kind, value, unit)
    // A goal has no spread: it is shown with the digits it needs.
    const needed = isGoal ? (Math.abs(plain - Math.round(plain)) < 0.005 ? 0 : 1) : undefined
    const places = decimals ?? needed ?? (shownSd && shownSd > 0 ? Math.min(decimalsForSpread(shownSd), 3) : PLAIN_DECIMALS[kind])
    return {
      number: formatNumber(plain, places, sign ? { sign, mark } : { mark }),
      unit,
      spread: shownSd && shownSd > 0 ? `± ${formatNumber(shownSd, places, { mark })}` : '',
    }
  }
}

export function useQuantities() {
  const preferences = usePreferences()
  const units = useMemo(() => unitsOf(preferences), [preferences])
  const format = useMemo(() => makeFormatter(units, preferences.decimalMark), [units, preferences.decimalMark])
  const text: (...all: Parameters<Formatter>) => string = (...all) => {
    const { number, unit } = format(...all)
    return unit ? `${number}\u00a0${unit}` : number
  }
  return { units, format, text, decimalMark: preferences.decimalMark }
}

/** A value as text a form can be filled with again: plain digits and the unit. */
export function typedText(kind: QuantityKind, value: number, unit: string): string {
  return `${Number(fromSi(kind, value, unit).toPrecision(7))} ${unit}`.trim()
}
