import type { Place } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../ui/forms/record-form.tsx'
import { typedText } from '../../ui/quantity.ts'

const AXES = [
  ['X', 'xM', 'Behind the front axle'],
  ['Y', 'yM', 'Left of the middle'],
  ['Z', 'zM', 'Above the ground'],
] as const

/** Three fields of one place, named `prefix` and X, Y, Z. */
export const placeFields = (prefix: string, section: string, hint = ''): FieldSpec[] =>
  AXES.map(([axis, , label], i) => ({
    name: `${prefix}${axis}`,
    label,
    ...(i === 0 ? { section, ...(hint ? { hint } : {}) } : {}),
    ...(axis === 'Y' ? { hint: 'Right of it is below zero.' } : {}),
  }))

/** The place that was typed, or null where all three are empty; one or two alone are refused. */
export function readPlace(read: FormReader, prefix: string): Place | null {
  const names = AXES.map(([axis]) => `${prefix}${axis}`)
  const empty = names.filter((name) => read.raw(name) === '')
  if (empty.length === names.length) return null
  for (const name of empty) read.refuse(name, 'A place needs all three. Type the missing one, or empty the others.')
  const [xM, yM, zM] = AXES.map(([axis, , label]) => (read.raw(`${prefix}${axis}`) === '' ? 0 : read.quantity(`${prefix}${axis}`, label, 'length').value))
  return { xM: xM as number, yM: yM as number, zM: zM as number }
}

/** A place as the texts its fields start with. */
export const placeDefaults = (prefix: string, place: Place | null | undefined, unit: string): FormValues =>
  place ? Object.fromEntries(AXES.map(([axis, key]) => [`${prefix}${axis}`, typedText('length', place[key], unit)])) : {}
