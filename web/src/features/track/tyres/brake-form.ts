import { type BrakeSystem, brakeSystemKind } from '@bold-ballast/core'
import { field, makeForm } from '../../../ui/forms/form-fields.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'

const pistons = (path: string) => ({
  read: (read: FormReader, name: string) => {
    const raw = read.raw(name)
    if (raw === '') read.refuse(name, 'Give the pistons of one side of the caliper; of a sliding caliper its own.')
    const cells = raw.split(/[\s;+]+/).filter((cell) => cell !== '' && !/^(mm|in)$/i.test(cell))
    const unit = /(mm|in)\s*$/i.exec(raw)?.[1] ?? 'mm'
    const found = cells.map((cell) => read.typedQuantity(name, `${cell.replace(/(mm|in)$/i, '')} ${unit}`, 'length', 'A piston')?.value ?? Number.NaN)
    if (found.some((value) => value < 0.01 || value > 0.1)) read.refuse(name, 'A piston is 10 to 100 mm across. Check its unit.')
    return found
  },
  begin: (record: unknown, units: Readonly<Record<string, string>>) => {
    const own = (record as BrakeSystem | null)?.[path as 'front' | 'rear']
    return own ? `${own.pistonsOneSideM.map((value) => typedText('length', value, units.length ?? 'mm').split(' ')[0]).join(' ')} ${units.length ?? 'mm'}` : ''
  },
})

const axle = (path: 'front' | 'rear', word: string) => [
  field(`${path}.pistonsOneSideM`, pistons(path), {
    label: 'Pistons of one side',
    section: word,
    hint: 'One side of one caliper, such as 36 40: counting both sides doubles the force.',
  }),
  field(`${path}.padFriction`, 'number', { label: 'Friction of the pad', hint: '0.3 to 0.6, by its maker.' }),
  field(`${path}.effectiveRadiusM`, 'length', { label: 'Middle of the pad from the hub’s centre' }),
  field(`${path}.discKg`, 'mass', { label: 'Mass of one disc' }),
]

/** The brakes of a stage. */
export const brakeForm = makeForm(
  brakeSystemKind.fields,
  [
    ...axle('front', 'Front'),
    ...axle('rear', 'Rear'),
    field('masters.frontM', 'length', { label: 'Front master cylinder', section: 'Two cylinders on a bar', hint: 'Empty: one pressure for both ends.' }),
    field('masters.rearM', 'length', { label: 'Rear master cylinder' }),
    field('masters.barFront', 'share', { label: 'Front share of the bar' }),
    field('rearValve', 'number', { label: 'What a valve leaves of the rear’s pressure', begin: 1, hint: '1: none.' }),
  ],
  [{ path: 'masters', unless: 'masters.frontM' }],
)

/** Windows of pads stay as they are: the form does not name them. */
export const keepWindows = (body: Record<string, unknown>, before: BrakeSystem | null): Record<string, unknown> => ({
  ...body,
  front: { padWindowK: before?.front.padWindowK ?? null, ...(body.front as object) },
  rear: { padWindowK: before?.rear.padWindowK ?? null, ...(body.rear as object) },
})
