import { BASIS_STANDARDS, BOOST_SCHOOLS, buildFields } from '@bold-ballast/core'
import { field, makeForm, type OwnKind } from '../../ui/forms/form-fields.ts'
import { typedAgain, usualText } from '../../ui/quantity.ts'
import { DISCIPLINE_WORDS, DRIVE_WORDS, SCHOOL_WORDS } from '../../ui/words.ts'

const STANDARD_WORDS = Object.fromEntries(
  [...BASIS_STANDARDS]
    .reverse()
    .map((value) => [value, value === 'none' ? 'none, as observed' : value === 'asPrinted' ? 'as printed, whatever the dyno prints' : value]),
)
const BOOST_WORDS = Object.fromEntries(BOOST_SCHOOLS.map((value) => [value, SCHOOL_WORDS[value]]))

/** A mass with what was typed and how it is known: from papers. */
const fromPapers: OwnKind = {
  read: (read, name) => {
    const found = read.optionalQuantity(name, 'Mass before any weighing', 'mass')
    return found && { massKg: found.value, sdKg: found.sd ?? null, proof: 'catalogue', typed: found.typed }
  },
  begin: (record, units) => {
    const { baselineMass } = record as {
      readonly baselineMass?: { readonly massKg: number; readonly sdKg?: number | null; readonly typed?: string | null } | null
    }
    return baselineMass ? typedAgain('mass', { value: baselineMass.massKg, sd: baselineMass.sdKg, typed: baselineMass.typed }, units.mass as string) : ''
  },
}

const FIELDS = [
  field('name', 'text', { label: 'Name of the build', isWide: true }),
  field('discipline', 'choice', { label: 'Discipline', words: DISCIPLINE_WORDS }),
  field('drivenAxles', 'choice', { label: 'Driven axles', words: DRIVE_WORDS }),
  field('className', 'note', { label: 'Class', hint: 'As the event calls it; may stay empty.' }),
  field('wheelbaseM', 'length', { label: 'Wheelbase', hint: (units) => `${units.length} unless a unit is typed` }),
  field('trackFrontM', 'length', { label: 'Front track', hint: 'between contact centres' }),
  field('trackRearM', 'length', { label: 'Rear track' }),
  field('reference.driverKg', 'mass', {
    label: 'Driver with suit and helmet',
    section: 'Reference condition: every mass is quoted with it',
    hint: (units) => `${units.mass} unless a unit is typed`,
  }),
  field('reference.fuelL', 'volume', { label: 'Fuel', hint: (units) => `${units.volume} unless a unit is typed` }),
  field('reference.fuelKgPerL', 'fuelDensity', { label: 'Fuel density', hint: (units) => `petrol about ${usualText(units, 'fuelDensity', 0.745)}` }),
  field('reference.nitrousKg', 'mass', { label: 'Nitrous in its bottle', hint: 'Where the car carries one; a full bottle is usual.' }),
  field('baselineMass', fromPapers, {
    label: 'Mass before any weighing',
    hint: 'From papers; counts until the car has been on the scales. May stay empty.',
  }),
  field('baselineMass.hasDriver', 'checkbox', { label: 'The driver is in that mass', begin: true }),
  field('baselineMass.hasFuel', 'checkbox', { label: 'The fuel is in that mass', begin: true }),
  field('powerBasis.place', 'choice', {
    label: 'Power is counted',
    section: 'Power basis: powers on another basis are shown, never mixed in',
    words: { hub: 'at the hubs', roller: 'on rollers', engine: 'at the engine' },
  }),
  field('powerBasis.standard', 'choice', {
    label: 'Powers are counted',
    words: STANDARD_WORDS,
    hint: 'As printed needs no air record; one standard compares dynos that print in several.',
  }),
  field('powerBasis.boostSchool', 'choice', {
    label: 'An engine under boost is',
    words: BOOST_WORDS,
    hint: 'Good people differ here; the choice is named wherever power stands.',
  }),
]

/** The form of a build's own fields. */
export const buildForm = makeForm(buildFields, FIELDS, [{ path: 'baselineMass', unless: 'baselineMass' }])
