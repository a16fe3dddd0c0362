import type { RecordsAnswer } from '@bold-ballast/contract'
import { LOSS_SCHOOL_WORDS, LOSS_SCHOOLS, type LossSchool, type QuantityKind } from '@bold-ballast/core'
import { buildForm } from '../../../shared/fields/build-form.ts'
import { placeDefaults, placeFields, readPlace } from '../../../shared/fields/place-fields.ts'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText, usualText } from '../../../ui/quantity.ts'

type Units = Record<QuantityKind, string>

const AXLES = ['front', 'rear'] as const
const CORNER_FIELDS = [
  ['wheelRate', 'wheelRateNPerM', 'springRate', 'rate at the wheel', 'Spring rate times motion ratio squared; bars left out.'],
  ['tyreRate', 'tyreRateNPerM', 'springRate', 'tyre rate', (units: Units) => `May stay empty; ${usualText(units, 'springRate', 200_000)} is usual.`],
  ['motionRatio', 'motionRatio', 'ratio', 'motion ratio', 'Spring travel over wheel travel.'],
  ['pitch', 'threadPitchM', 'length', 'perch thread pitch', 'How far one turn moves it.'],
] as const

function moreFields(courses: RecordsAnswer['courses']): FieldSpec[] {
  return [
    {
      name: 'drivers',
      label: 'Drivers, one a line: name; mass in their gear; seat; belts',
      section: 'Drivers: a weighing or a goal may name one',
      hint: (units) => `Such as: Ilse; ${usualText(units, 'mass', 66)}; seat forward two holes. The reference driver above stays the default.`,
      type: 'textarea',
      isWide: true,
    },
    ...placeFields('driver', 'Where the driver sits', 'Brings corners to the reference; may stay empty.'),
    ...placeFields('fuel', 'Where the tank is'),
    ...AXLES.flatMap((axle) =>
      CORNER_FIELDS.map(
        ([name, , , word, hint], i): FieldSpec => ({
          name: `${axle}${name}`,
          label: `${axle === 'front' ? 'Front' : 'Rear'} ${word}`,
          hint,
          ...(i === 0 && axle === 'front' ? { section: 'Springs: for corner balance, and for cross share with ballast' } : {}),
        }),
      ),
    ),
    {
      name: 'lossSchool',
      label: 'Crank power is reckoned from wheel power by',
      section: 'Driveline loss: good people differ here',
      type: 'select',
      options: [{ value: '', label: 'usual numbers, and it says so' }, ...LOSS_SCHOOLS.map((value) => ({ value, label: LOSS_SCHOOL_WORDS[value] }))],
    },
    { name: 'lossShare', label: 'Share of the crank power', hint: '10 to 22 % on rollers, 6 to 10 % at hubs (common practice, no source).' },
    { name: 'fixedLoss', label: 'Fixed part', hint: (units) => `${usualText(units, 'power', 5000, 20_000)} (common practice, no source).` },
    { name: 'proportionalLoss', label: 'with it a share of', hint: '3 to 8 % (common practice, no source).' },
    { name: 'coastLoss', label: 'Measured by coasting down', hint: 'Reads low at high torque.' },
    {
      name: 'airDensity',
      label: 'Air of every planned number, kg/m³',
      section: 'Air and clock: of straights, slides and wings',
      hint: '1.20 is usual at 20 °C near the sea (common practice, no source).',
    },
    {
      name: 'rollOut',
      label: 'Rolled before the clock begins',
      hint: (units) => `0 by the rules of most; ${usualText(units, 'length', 0.305)} at many strips.`,
    },
    { name: 'dampShare', label: 'Grip left on damp ground', hint: '70 % is usual (common practice, no source).' },
    { name: 'wetShare', label: 'Grip left on wet ground', hint: '55 % is usual (common practice, no source).' },
    {
      name: 'courseId',
      label: 'The Board’s slides are on',
      type: 'select',
      options: [{ value: '', label: 'the only course' }, ...courses.map(({ id, name }) => ({ value: id, label: name }))],
    },
    {
      name: 'crossConvention',
      label: 'Cross is said as',
      section: 'Schools: good people differ here',
      type: 'select',
      options: [
        { value: 'rfLr', label: 'right front and left rear, share' },
        { value: 'lfRr', label: 'left front and right rear, share' },
        { value: 'wedge', label: 'wedge: left rear less right rear, mass' },
      ],
    },
    {
      name: 'guessPairsFrom',
      label: 'How guesses run is learned from',
      type: 'select',
      options: [
        { value: 'build', label: 'this build alone' },
        { value: 'garage', label: 'every build in the garage' },
      ],
    },
  ]
}

const readDrivers = (read: FormReader) =>
  read.lines('drivers').map((line) => {
    const [name = '', mass = '', seat = '', belts = ''] = line.split(/\s*;\s*/)
    if (name === '' || mass === '') read.refuse('drivers', `"${line}" needs a name and a mass, parted by a semicolon: Ilse; 66 kg.`)
    const kg = mass === '' ? 1 : (read.typedQuantity('drivers', mass, 'mass', `The mass of ${name}`)?.value ?? 1)
    if (!(kg > 0 && kg <= 300)) read.refuse('drivers', `The mass of ${name} lies over 0 and up to 300 kg. Check the number and its unit.`)
    return { name, massKg: kg, seat: seat || null, belts: belts || null }
  })

function readSuspension(read: FormReader) {
  const names = AXLES.flatMap((axle) => CORNER_FIELDS.filter(([name]) => name !== 'tyreRate').map(([name]) => `${axle}${name}`))
  if (names.every((name) => read.raw(name) === '')) return null
  for (const name of names) if (read.raw(name) === '') read.refuse(name, 'Springs need all of these. Type it, or empty the others.')
  const axle = (which: (typeof AXLES)[number]) =>
    Object.fromEntries(
      CORNER_FIELDS.map(([name, key, kind, word]) => {
        const found = read.optionalQuantity(`${which}${name}`, word, kind)
        if (found && found.value <= 0) read.refuse(`${which}${name}`, `The ${word} must be more than zero.`)
        return [key, found?.value ?? null]
      }),
    )
  return { front: axle('front'), rear: axle('rear') }
}

const LOSS_NEEDS: Record<LossSchool, readonly string[]> = {
  percentage: ['lossShare'],
  fixedAndProportional: ['fixedLoss', 'proportionalLoss'],
  coastDown: ['coastLoss'],
}

/** The school of the driveline and the numbers of every school that are known; the picked one needs its own. */
function readLoss(read: FormReader) {
  const school = read.raw('lossSchool') as LossSchool | ''
  if (school === '') return null
  for (const name of LOSS_NEEDS[school]) if (read.raw(name) === '') read.refuse(name, 'The picked school needs this number. Type it.')
  const share = (name: string, label: string) => {
    const found = read.optionalQuantity(name, label, 'share')
    if (found && !(found.value >= 0 && found.value < 0.5)) read.refuse(name, 'A loss lies from 0 to under 50 %.')
    return found?.value ?? null
  }
  const power = (name: string, label: string) => read.optionalQuantity(name, label, 'power')?.value ?? null
  return {
    school,
    lossShare: share('lossShare', 'Share of the crank power'),
    fixedLossW: power('fixedLoss', 'Fixed part'),
    proportionalShare: share('proportionalLoss', 'The share with it'),
    coastDownLossW: power('coastLoss', 'Coasting down'),
  }
}

/** How yardsticks are clocked and what surfaces leave of grip; null as long as all of it is usual. */
function readDriveBasis(read: FormReader, { driveBasis }: RecordsAnswer['build']) {
  const part = (name: string, label: string, kind: QuantityKind, usual: number, least: number, most: number) => {
    const value = read.optionalQuantity(name, label, kind)?.value ?? usual
    if (!(value >= least && value <= most))
      read.refuse(name, `${label} lies from ${typedText(kind, least, read.units[kind])} to ${typedText(kind, most, read.units[kind])}.`)
    return value
  }
  const basis = {
    rollOutM: part('rollOut', 'The roll-out', 'length', 0, 0, 1),
    dampShare: part('dampShare', 'Grip on damp ground', 'share', 0.7, 0.1, 1),
    wetShare: part('wetShare', 'Grip on wet ground', 'share', 0.55, 0.1, 1),
    courseId: read.raw('courseId') || null,
  }
  const isUsual = basis.rollOutM === 0 && basis.dampShare === 0.7 && basis.wetShare === 0.55 && basis.courseId === null
  return driveBasis === null && isUsual ? null : basis
}

function readAirDensity(read: FormReader): number {
  const value = read.raw('airDensity') === '' ? 1.2 : read.number('airDensity', 'Air')
  if (!(value >= 0.6 && value <= 1.5)) read.refuse('airDensity', 'Air lies from 0.6 to 1.5 kg/m³.')
  return value
}

/** A baseline mass that was not typed anew stays as it is, with its proof; what is in it may be said anew. */
function keptBaseline(read: FormReader, { baselineMass }: RecordsAnswer['build'], defaults: FormValues) {
  if (!baselineMass || read.raw('baselineMass') !== defaults.baselineMass) return {}
  return { baselineMass: { ...baselineMass, hasDriver: read.flag('baselineMass-hasDriver'), hasFuel: read.flag('baselineMass-hasFuel') } }
}

/** The fields of the car itself, in their order. */
export const carFieldSpecs = (courses: RecordsAnswer['courses']): FieldSpec[] => [...buildForm.specs(), ...moreFields(courses)]

/** The texts that the form starts with. */
export function carDefaults(build: RecordsAnswer['build'], units: Units): FormValues {
  const { suspension } = build
  const shown = (kind: 'length' | 'springRate' | 'ratio' | 'share' | 'power', value: number | null | undefined) =>
    value === null || value === undefined ? '' : typedText(kind, value, units[kind])
  return {
    ...buildForm.defaults(build, units),
    drivers: build.drivers
      .map(({ name, massKg, seat, belts }) => [name, typedText('mass', massKg, units.mass), seat ?? '', belts ?? ''].join('; ').replace(/(; )+$/, ''))
      .join('\n'),
    ...placeDefaults('driver', build.driverPlace, units.length),
    ...placeDefaults('fuel', build.fuelPlace, units.length),
    ...Object.fromEntries(AXLES.flatMap((axle) => CORNER_FIELDS.map(([name, key, kind]) => [`${axle}${name}`, shown(kind, suspension?.[axle][key])]))),
    lossSchool: build.drivelineLoss?.school ?? '',
    lossShare: shown('share', build.drivelineLoss?.lossShare),
    fixedLoss: shown('power', build.drivelineLoss?.fixedLossW),
    proportionalLoss: shown('share', build.drivelineLoss?.proportionalShare),
    coastLoss: shown('power', build.drivelineLoss?.coastDownLossW),
    airDensity: numberText(build.airDensityKgM3),
    rollOut: shown('length', build.driveBasis?.rollOutM),
    dampShare: shown('share', build.driveBasis?.dampShare),
    wetShare: shown('share', build.driveBasis?.wetShare),
    courseId: build.driveBasis?.courseId ?? '',
    crossConvention: build.crossConvention ?? 'rfLr',
    guessPairsFrom: build.guessPairsFrom ?? 'build',
  }
}

/** What the form makes of the car; what the build holds beside it is kept. */
export const carBody = (read: FormReader, build: RecordsAnswer['build'], defaults: FormValues): Record<string, unknown> => ({
  ...buildForm.body(read),
  ...keptBaseline(read, build, defaults),
  drivers: readDrivers(read),
  driverPlace: readPlace(read, 'driver'),
  fuelPlace: readPlace(read, 'fuel'),
  suspension: readSuspension(read),
  drivelineLoss: readLoss(read),
  airDensityKgM3: readAirDensity(read),
  driveBasis: readDriveBasis(read, build),
  crossConvention: read.raw('crossConvention'),
  guessPairsFrom: read.raw('guessPairsFrom'),
})
