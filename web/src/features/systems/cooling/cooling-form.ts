import type { RecordsAnswer } from '@bold-ballast/contract'
import { buildFields, type COOLER_MOUNTS, coolingPlanKind, otherCoolerSchema } from '@bold-ballast/core'
import { choiceOrNone } from '../../../shared/fields/own-fields.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'

export const MOUNT_WORDS: Readonly<Record<(typeof COOLER_MOUNTS)[number], string>> = {
  ductedNose: 'nose, ducted',
  bareNose: 'nose, bare',
  ductedBoot: 'boot, ducted',
  other: 'elsewhere',
}

type Logged = RecordsAnswer['coolingPlans'][number]['logged']
const C = 273.15

/** Steady laps that were logged, a line each: km/h; air °C; coolant °C; kW. */
const logged: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).flatMap((line): Logged => {
      const cells = line.split(/\s*;\s*/).map((cell) => Number(cell.replace(',', '.').replace(/[^\d.-]/g, '')))
      const [kmh = Number.NaN, air = Number.NaN, coolant = Number.NaN, kW = Number.NaN] = cells
      if (cells.length !== 4 || cells.some((cell) => !Number.isFinite(cell))) {
        read.refuse(name, `“${line}” has not four numbers: km/h; air °C; coolant °C; kW.`)
        return []
      }
      if (coolant <= air) read.refuse(name, `“${line}”: the air is hotter than what it cools. Swap the two.`)
      return [{ speedMps: kmh / 3.6, airK: air + C, coolantK: coolant + C, heatW: kW * 1000 }]
    }),
  begin: (record) =>
    ((record as { logged?: Logged } | null)?.logged ?? [])
      .map(({ speedMps, airK, coolantK, heatW }) => [speedMps * 3.6, airK - C, coolantK - C, heatW / 1000].map((value) => Number(value.toFixed(1))).join('; '))
      .join('\n'),
}

const FACE_HINT = 'Empty: 28, 18, 16 % by where it sits (common practice, no source, ± 20 %).'

const ratingFields = (section: string) => [
  field('rating.ratedW', 'power', { label: 'Rated', section }),
  field('rating.ratedItdK', 'number', { label: 'at, K of coolant in over air in' }),
  field('rating.ratedFaceMps', 'speed', { label: 'with air at the face of' }),
  field('rating.ratedFlowM3PerS', 'volumeFlow', { label: 'and a flow of' }),
  field('rating.known', 'choice', { label: 'Known by', begin: 'catalogue', words: { guess: 'a guess', catalogue: 'a catalogue', measured: 'a measurement' } }),
]

/** A plan of cooling as a form. */
export const coolingForm = ({ parts }: RecordsAnswer) =>
  makeForm(
    coolingPlanKind.fields,
    [
      field('kind', 'choice', { label: 'Cools', words: { coolant: 'coolant', oil: 'oil', charge: 'charge air' } }),
      field('heatW', 'power', { label: 'Heat at full pace', hint: 'Empty: the engine plan’s, times its share.' }),
      field('loadShare', 'share', {
        label: 'A lap’s mean of full heat',
        hint: 'Empty: 55 % time attack, 50 % circuit, 70 % drift (common practice, no source).',
      }),
      field('partId', choiceOrNone('partId'), { label: 'Core', words: { '': 'none', ...Object.fromEntries(parts.map(({ id, name }) => [id, name])) } }),
      field('areaM2', 'area', { label: 'Face' }),
      ...ratingFields('Its rating; empty where nobody knows it: a logged lap stands for it'),
      field('mount', 'choice', { label: 'Sits in the', begin: 'bareNose', words: MOUNT_WORDS, section: 'In the car' }),
      field('faceShare', 'share', {
        label: 'Air in the core over road speed',
        hint: FACE_HINT,
      }),
      field('flowM3PerS', 'volumeFlow', { label: 'Flow through it' }),
      field('fluidL', 'volume', { label: 'Fluid in all' }),
      field('metalKg', 'mass', { label: 'Metal that warms with it', begin: 60 }),
      field('stopK', 'temperature', { label: 'Stops over' }),
      field('warmK', 'temperature', { label: 'Warm from', begin: 343.15 }),
      field('thermostatK', 'temperature', { label: 'Thermostat', hint: 'Empty: none.' }),
      field('hot.speedMps', 'speed', { label: 'Speed, hot day', section: 'The days it is for' }),
      field('hot.airK', 'temperature', { label: 'Air, hot day' }),
      field('cold.speedMps', 'speed', { label: 'Speed, cold day' }),
      field('cold.airK', 'temperature', { label: 'Air, cold day' }),
      field('cold.heatW', 'power', { label: 'Heat, cold day' }),
      field('logged', logged, { label: 'Steady laps that were logged, a line each: km/h; air °C; coolant °C; kW', isWide: true, section: 'What was logged' }),
    ],
    [
      { path: 'rating', unless: 'rating.ratedW' },
      { path: 'cold', unless: 'cold.speedMps' },
    ],
  )

/** Another core in another place, as a form of its own. */
export const otherCoolerForm = ({ parts }: RecordsAnswer) =>
  makeForm(
    otherCoolerSchema.shape,
    [
      field('name', 'text', { label: 'Called' }),
      field('partId', choiceOrNone('partId'), {
        label: 'Part',
        hint: 'Its mass, place and price count.',
        words: { '': 'none', ...Object.fromEntries(parts.map(({ id, name }) => [id, name])) },
      }),
      field('mount', 'choice', { label: 'Sits in the', begin: 'bareNose', words: MOUNT_WORDS }),
      field('faceShare', 'share', { label: 'Air in the core over road speed', hint: FACE_HINT }),
      field('areaM2', 'area', { label: 'Face' }),
      field('fluidL', 'volume', { label: 'Fluid in all' }),
      field('flowM3PerS', 'volumeFlow', { label: 'Flow through it', hint: 'Empty: as in the plan.' }),
      ...ratingFields('Its rating'),
    ],
    [{ path: 'rating', unless: 'rating.ratedW' }],
  )

type Spaces = RecordsAnswer['build']['spaces']

/** Spaces of the car, a line each: name; length; width; height in mm. */
const spaces: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).flatMap((line): Spaces => {
      const [own = '', ...sizes] = line.split(/\s*;\s*/)
      const [lengthM = Number.NaN, widthM = Number.NaN, heightM = Number.NaN] = sizes.map(
        (size) => Number(size.replace(',', '.').replace(/[^\d.]/g, '')) / 1000,
      )
      if (own === '' || sizes.length !== 3 || !(lengthM > 0 && widthM > 0 && heightM > 0)) {
        read.refuse(name, `“${line}” is no space. Type its name; length; width; height in mm.`)
        return []
      }
      return [{ name: own, lengthM, widthM, heightM }]
    }),
  begin: (record) =>
    ((record as { spaces?: Spaces } | null)?.spaces ?? [])
      .map((own) => [own.name, ...[own.lengthM, own.widthM, own.heightM].map((size) => Math.round(size * 1000))].join('; '))
      .join('\n'),
}

export const spacesForm = () =>
  makeForm({ spaces: buildFields.spaces }, [
    field('spaces', spaces, { label: 'Spaces of the car, a line each: name; length along the car; width; height, mm', isWide: true }),
  ])
