import type { RecordsAnswer } from '@bold-ballast/contract'
import { LOSS_SCHOOL_WORDS, LOSS_SCHOOLS, type LossSchool, type QuantityKind } from '@bold-ballast/core'
import { buildForm } from '../../../shared/build-form.ts'
import { placeDefaults, placeFields, readPlace } from '../../../shared/place-fields.ts'
import type { FormReader, FormValues } from '../../../ui/form-reader.ts'
import { typedText, usualText } from '../../../ui/quantity.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'

type Units = Record<QuantityKind, string>

const AXLES = ['front', 'rear'] as const
const CORNER_FIELDS = [
  ['wheelRate', 'wheelRateNPerM', 'springRate', 'rate at the wheel', 'Spring rate times motion ratio squared; bars left out.'],
  ['tyreRate', 'tyreRateNPerM', 'springRate', 'tyre rate', (units: Units) => `May stay empty; ${usualText(units, 'springRate', 200_000)} is usual.`],
  ['motionRatio', 'motionRatio', 'ratio', 'motion ratio', 'Spring travel over wheel travel.'],
  ['pitch', 'threadPitchM', 'length', 'perch thread pitch', 'How far one turn moves it.'],
] as const

function moreFields(): FieldSpec[] {
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

/** A baseline mass that was not typed anew stays as it is, with its proof; what is in it may be said anew. */
function keptBaseline(read: FormReader, { baselineMass }: RecordsAnswer['build'], defaults: FormValues) {
  if (!baselineMass || read.raw('baselineMass') !== defaults.baselineMass) return {}
  return { baselineMass: { ...baselineMass, hasDriver: read.flag('baselineMass-hasDriver'), hasFuel: read.flag('baselineMass-hasFuel') } }
}

/** The fields of the car itself, in their order. */
export const carFieldSpecs = (): FieldSpec[] => [...buildForm.specs(), ...moreFields()]

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
  crossConvention: read.raw('crossConvention'),
  guessPairsFrom: read.raw('guessPairsFrom'),
})
