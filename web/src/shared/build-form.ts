import { BOOST_SCHOOLS, STANDARDS } from '@bold-ballast/core'
import type { FormReader } from '../ui/form-reader.ts'
import type { FieldSpec } from '../ui/record-form.tsx'
import { DISCIPLINE_WORDS, DRIVE_WORDS, SCHOOL_WORDS } from '../ui/words.ts'

const options = (words: Record<string, string>) => Object.entries(words).map(([value, label]) => ({ value, label }))

export function buildFieldSpecs(units: Record<string, string>): FieldSpec[] {
  return [
    { name: 'name', label: 'Name of the build', isWide: true },
    { name: 'discipline', label: 'Discipline', type: 'select', options: options(DISCIPLINE_WORDS) },
    { name: 'drivenAxles', label: 'Driven axles', type: 'select', options: options(DRIVE_WORDS) },
    { name: 'className', label: 'Class', hint: 'As the event calls it; may stay empty.' },
    { name: 'wheelbase', label: 'Wheelbase', hint: `in ${units.length} unless a unit is typed` },
    { name: 'trackFront', label: 'Front track', hint: 'between contact centres' },
    { name: 'trackRear', label: 'Rear track' },
    {
      name: 'driver',
      label: 'Driver with suit and helmet',
      section: 'Reference condition: every mass is quoted with it',
      hint: `in ${units.mass} unless a unit is typed`,
    },
    { name: 'fuel', label: 'Fuel', hint: `in ${units.volume} unless a unit is typed` },
    { name: 'fuelDensity', label: 'Fuel density', hint: 'petrol about 0.745 kg/L' },
    { name: 'baselineMass', label: 'Mass before any weighing', hint: 'From papers; counts until the car has been on the scales. May stay empty.' },
    {
      name: 'place',
      label: 'Power is counted',
      section: 'Power basis: powers on another basis are shown, never mixed in',
      type: 'select',
      options: [
        { value: 'hub', label: 'at the hubs' },
        { value: 'roller', label: 'on rollers' },
        { value: 'engine', label: 'at the engine' },
      ],
    },
    {
      name: 'standard',
      label: 'Correction standard',
      type: 'select',
      options: STANDARDS.map((value) => ({ value, label: value === 'none' ? 'none, as observed' : value })),
    },
    {
      name: 'boostSchool',
      label: 'An engine under boost is',
      type: 'select',
      options: BOOST_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] })),
      hint: 'Good people differ here; the choice is named wherever power stands.',
    },
  ]
}

/** The build's own fields as they were typed. */
export function buildBody(read: FormReader): Record<string, unknown> {
  const baseline = read.optionalQuantity('baselineMass', 'Mass before any weighing', 'mass')
  const length = (name: string, label: string) => read.quantity(name, label, 'length').value
  return {
    name: read.text('name', 'Name'),
    discipline: read.raw('discipline'),
    className: read.optional('className'),
    drivenAxles: read.raw('drivenAxles'),
    wheelbaseM: length('wheelbase', 'Wheelbase'),
    trackFrontM: length('trackFront', 'Front track'),
    trackRearM: length('trackRear', 'Rear track'),
    reference: {
      driverKg: read.quantity('driver', 'Driver', 'mass').value,
      fuelL: read.quantity('fuel', 'Fuel', 'volume').value,
      fuelKgPerL: read.quantity('fuelDensity', 'Fuel density', 'fuelDensity').value,
    },
    powerBasis: { place: read.raw('place'), standard: read.raw('standard'), boostSchool: read.raw('boostSchool') },
    baselineMass: baseline && { massKg: baseline.value, sdKg: baseline.sd ?? null, proof: 'catalogue', typed: baseline.typed },
  }
}
