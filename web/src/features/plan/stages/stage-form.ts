import type { Geometry, Stage } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { typedText } from '../../../ui/quantity.ts'

type Units = Readonly<Record<'length', string>>

const GEOMETRY = [
  ['wheelbaseM', 'Wheelbase', 1, 5],
  ['trackFrontM', 'Front track', 0.5, 3],
  ['trackRearM', 'Rear track', 0.5, 3],
] as const

export const stageFieldSpecs: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', isWide: true },
  { name: 'date', label: 'Date', type: 'date', hint: 'When it should be done; may stay empty.' },
  { name: 'note', label: 'Note' },
  {
    name: 'wheelbaseM',
    label: 'Wheelbase from here on',
    section: 'Where the wheels stand, if this stage changes it',
    hint: 'All three, or empty: as at the stage before.',
  },
  { name: 'trackFrontM', label: 'Front track' },
  { name: 'trackRearM', label: 'Rear track' },
]

/** Wheelbase and tracks of a stage, or null where all are empty; one or two alone are refused. */
function readGeometry(read: FormReader): Geometry | null {
  const missing = GEOMETRY.filter(([name]) => read.raw(name) === '')
  if (missing.length === GEOMETRY.length) return null
  for (const [name] of missing) read.refuse(name, 'Wheelbase and both tracks are needed together. Type the missing one, or empty the others.')
  return Object.fromEntries(
    GEOMETRY.map(([name, label, least, most]) => {
      const value = read.raw(name) === '' ? least : read.quantity(name, label, 'length').value
      if (!(value >= least && value <= most)) read.refuse(name, `${label} lies from ${least} to ${most} m. Check the number and its unit.`)
      return [name, value]
    }),
  ) as Geometry
}

/** The texts that the form of a stage begins with. */
export const stageDefaults = ({ name, date, note, geometry }: Pick<Stage, 'name' | 'date' | 'note' | 'geometry'>, units: Units): FormValues => ({
  name,
  date: date ?? '',
  note: note ?? '',
  ...(geometry ? Object.fromEntries(GEOMETRY.map(([key]) => [key, typedText('length', geometry[key], units.length)])) : {}),
})

export const stageBody = (read: FormReader) => ({
  name: read.text('name', 'Name'),
  date: read.optional('date'),
  note: read.optional('note'),
  geometry: readGeometry(read),
})
