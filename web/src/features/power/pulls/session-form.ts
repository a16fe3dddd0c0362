import type { DynoStatus, RecordsAnswer } from '@bold-ballast/contract'
import { BOOST_SCHOOLS, type BoostSchool, STANDARDS, type Stage } from '@bold-ballast/core'
import { type FormReader, type FormValues, localTime } from '../../../ui/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'
import { SCHOOL_WORDS } from '../../../ui/words.ts'

export const sessionFieldSpecs = (stages: readonly Stage[], units: Record<string, string>): FieldSpec[] => [
  { name: 'dynoName', label: 'Dyno', hint: 'Its name decides what counts as another instrument.' },
  { name: 'at', label: 'When', type: 'datetime-local' },
  { name: 'stage', label: 'Stage', type: 'select', options: stages.map((stage) => ({ value: stage.id, label: `${stage.position} ${stage.name}` })) },
  {
    name: 'place',
    label: 'Measured',
    type: 'select',
    options: [
      { value: 'hub', label: 'at the hubs' },
      { value: 'roller', label: 'on rollers' },
      { value: 'engine', label: 'at the engine' },
    ],
  },
  {
    name: 'printedStandard',
    label: 'The printout is corrected to',
    type: 'select',
    options: STANDARDS.map((value) => ({ value, label: value === 'none' ? 'nothing, as observed' : value })),
  },
  { name: 'gear', label: 'Gear' },
  {
    name: 'pressure',
    label: 'Air pressure',
    section: 'Air record: needed to restate the power, all three or none',
    hint: `in ${units.pressure} unless a unit is typed`,
  },
  {
    name: 'pressureKind',
    label: 'That pressure is',
    type: 'select',
    options: [
      { value: 'station', label: 'at the dyno (station pressure)' },
      { value: 'seaLevel', label: 'reduced to sea level' },
    ],
  },
  { name: 'temperature', label: 'Inlet air temperature', hint: `in ${units.temperature} unless a unit is typed` },
  { name: 'humidity', label: 'Relative humidity', hint: 'in %' },
  {
    name: 'boostControl',
    label: 'Boost is held',
    section: 'Engine',
    type: 'select',
    options: [
      { value: 'none', label: 'no boost' },
      { value: 'absolute', label: 'absolute: by an engine control with its own pressure' },
      { value: 'gauge', label: 'gauge: by a spring against the air' },
    ],
  },
  {
    name: 'boostSchool',
    label: 'Power under boost is',
    type: 'select',
    options: BOOST_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] })),
    hint: 'Good people differ; schools are never mixed. Another than the build’s counts for no target.',
  },
  { name: 'boost', label: 'Boost', hint: `in ${units.pressure}, above the air` },
  { name: 'fuel', label: 'Fuel' },
  { name: 'ethanol', label: 'Ethanol share', hint: 'in %, by volume' },
  { name: 'tuneNote', label: 'What was set', isWide: true },
]

export function sessionBody(read: FormReader): Record<string, unknown> {
  const hasAir = ['pressure', 'temperature', 'humidity'].some((name) => read.raw(name) !== '')
  const ambient = hasAir
    ? {
        pressurePa: read.quantity('pressure', 'Air pressure', 'pressure').value,
        pressureKind: read.raw('pressureKind'),
        temperatureK: read.quantity('temperature', 'Inlet air temperature', 'temperature').value,
        relativeHumidity: read.quantity('humidity', 'Relative humidity', 'share').value,
      }
    : null
  return {
    dynoName: read.text('dynoName', 'Dyno'),
    at: read.instant('at', 'When'),
    stageId: read.text('stage', 'Stage'),
    place: read.raw('place'),
    printedStandard: read.raw('printedStandard'),
    gear: read.optional('gear'),
    ambient,
    boostControl: read.raw('boostControl'),
    boostSchool: read.raw('boostControl') === 'none' ? null : read.optional('boostSchool'),
    boostPa: read.optionalQuantity('boost', 'Boost', 'pressure')?.value ?? null,
    fuel: read.optional('fuel'),
    ethanolShare: read.optionalQuantity('ethanol', 'Ethanol share', 'share')?.value ?? null,
    tuneNote: read.optional('tuneNote'),
  }
}

/** Air as the texts its fields start with. */
export const airValues = ({ pressurePa, temperatureK, relativeHumidity }: DynoStatus['ambient'], units: Record<string, string>): FormValues => ({
  pressure: typedText('pressure', pressurePa, units.pressure as string),
  temperature: typedText('temperature', temperatureK, units.temperature as string),
  humidity: typedText('share', relativeHumidity, '%'),
})

/** A session as the texts its form starts with. */
export function sessionDefaults(session: RecordsAnswer['sessions'][number], units: Record<string, string>, counted: BoostSchool): FormValues {
  const { ambient } = session
  return {
    dynoName: session.dynoName,
    at: localTime(new Date(session.at)),
    stage: session.stageId,
    place: session.place,
    printedStandard: session.printedStandard,
    gear: session.gear ?? '',
    pressureKind: ambient?.pressureKind ?? 'station',
    ...(ambient ? airValues(ambient, units) : {}),
    boostControl: session.boostControl,
    boostSchool: session.boostSchool ?? counted,
    boost: session.boostPa === null ? '' : typedText('pressure', session.boostPa, units.pressure as string),
    fuel: session.fuel ?? '',
    ethanol: session.ethanolShare === null ? '' : typedText('share', session.ethanolShare, '%'),
    tuneNote: session.tuneNote ?? '',
  }
}
