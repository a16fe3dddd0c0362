import { BOOST_SCHOOLS, STANDARDS } from '@bold-ballast/core'
import { useNavigate } from 'react-router'
import { api } from '../../api/api.ts'
import type { FormReader } from '../../ui/form-reader.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { type FieldSpec, RecordForm } from '../../ui/record-form.tsx'
import { DISCIPLINE_WORDS, DRIVE_WORDS, SCHOOL_WORDS } from '../../ui/words.ts'

const options = (words: Record<string, string>) => Object.entries(words).map(([value, label]) => ({ value, label }))

function buildFieldSpecs(units: Record<string, string>): FieldSpec[] {
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
      options: BOOST_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value]/builds/${String(body.id)}/plan`)}
      />
    </main>
  )
}
