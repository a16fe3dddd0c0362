import { type DecimalMark, decimalsForSpread, formatNumber, fromSi, parseQuantity, type QuantityKind, quantityOf, spreadFromSi } from '@bold-ballast/core'
import { useMemo } from 'react'
import { unitsOf } from '../data/preferences.ts'
import { usePreferences } from '../data/store.ts'

export interface Shown {
  readonly number: string
  readonly unit: string
  /** "± 1.8", or empty. */
  readonly spread: string
}

export type Formatter = (kind: QuantityKind, value: number, options?: { sd?: number | undefined; sign?: boolean; decimals?: number; isGoal?: boolean }) => Shown

const spreadText = (sd: number | undefined, places: number, mark: DecimalMark) => (sd && sd > 0 ? `± ${formatNumber(sd, places, { mark })}` : '')

const MOST_GOAL_DECIMALS = 3

/** A goal has no spread: it is shown with the digits it needs, so that 5.35 is never 5.4. */
function goalDecimals(value: number): number {
  if (Math.abs(value - Math.round(value)) < 0.005) return 0
  const isEnough = (places: number) => Math.abs(value - Number(value.toFixed(places))) <= 5e-4 * Math.abs(value)
  return [1, 2].find(isEnough) ?? MOST_GOAL_DECIMALS
}

/** Numbers in the picked units; the spread's two digits decide the decimals. */
export function makeFormatter(units: Record<QuantityKind, string>, mark: DecimalMark = '.'): Formatter {
  return (kind, value, { sd, sign, decimals, isGoal } = {}) => {
    const unit = units[kind]
    const shownSd = sd === undefined ? undefined : spreadFromSi(kind, sd, unit)
    const plain = fromSi(kind, value, unit)
    const needed = isGoal ? goalDecimals(plain) : undefined
    const places = decimals ?? needed ?? (shownSd && shownSd > 0 ? Math.min(decimalsForSpread(shownSd), 3) : quantityOf(kind).decimals)
    const { clock } = quantityOf(kind)
    if (clock && !sign) return { number: clock.write(plain, places), unit: plain >= 60 ? '' : unit, spread: spreadText(shownSd, places, mark) }
    return {
      number: formatNumber(plain, places, sign ? { sign, mark } : { mark }),
      unit,
      spread: spreadText(shownSd, places, mark),
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

const shortNumber = (value: number) => String(Number(value.toPrecision(3)))

/** A usual value in the picked unit, for a hint: up to three digits, or a range from one to the other. */
export function usualText(units: Readonly<Record<QuantityKind, string>>, kind: QuantityKind, value: number, upTo?: number): string {
  const low = shortNumber(fromSi(kind, value, units[kind]))
  return `${upTo === undefined ? low : `${low} to ${shortNumber(fromSi(kind, upTo, units[kind]))}`} ${units[kind]}`.trim()
}

/** A number as text for a form, read the same with either decimal mark: "1.305" alone could be a thousand too. */
export function numberText(value: number): string {
  const text = String(Number(value.toPrecision(7)))
  return /^-?[1-9]\d{0,2}\.\d{3}$/.test(text) ? `${text}0` : text
}

/** A value as text a form can be filled with again: plain digits and the unit. */
export function typedText(kind: QuantityKind, value: number, unit: string): string {
  return `${numberText(fromSi(kind, value, unit))} ${unit}`.trim()
}

interface TypedValue {
  readonly value: number
  readonly sd?: number | null | undefined
  readonly typed?: string | null | undefined
}

function readsAs(typed: string, kind: QuantityKind, value: number, unit: string): boolean {
  try {
    return (['.', ','] as const).every(
      (decimalMark) => Math.abs(parseQuantity(typed, kind, { defaultUnit: unit, decimalMark }).value - value) <= 1e-9 * Math.abs(value),
    )
  } catch {
    return false
  }
}

/** A stored value as text for a form: as it was typed where that is read the same today, whatever is picked; else its value with its spread. */
export function typedAgain(kind: QuantityKind, { value, sd, typed }: TypedValue, unit: string): string {
  if (typed && readsAs(typed, kind, value, unit)) return typed
  return `${typedText(kind, value, unit)}${sd === null || sd === undefined ? '' : ` ± ${typedText(kind, sd, unit)}`}`
}
