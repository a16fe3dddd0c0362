import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  BOOST_SCHOOLS,
  type BoostSchool,
  basisFactor,
  CalculationError,
  type DynoSession,
  type DynoSetting,
  STANDARDS,
  type Stage,
} from '@bold-ballast/core'
import { airValues } from '../../../shared/fields/air-fields.ts'
import { type FormReader, type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { typedText } from '../../../ui/quantity.ts'
import { SCHOOL_WORDS } from '../../../ui/words.ts'

const of = (i: number, field: string) => `setting${i}${field}`

const settingFields = (i: number, count: number, units: Record<string, string>): FieldSpec[] => [
  {
    name: of(i, 'name'),
    label: 'Called',
    section: count === 1 ? 'Setting: what the engine ran on' : `Setting ${i + 1}`,
    ...(i > 0 ? { hint: 'Empty: left out.' } : {}),
  },
  { name: of(i, 'fuel'), label: 'Fuel' },
  { name: of(i, 'ethanol'), label: 'Ethanol share', hint: 'in %, by volume; empty where nobody knows' },
  {
    name: of(i, 'control'),
    label: 'Boost is held',
    type: 'select',
    options: [
      { value: 'none', label: 'no boost' },
      { value: 'absolute', label: 'above nothing: by an engine control with its own pressure' },
      { value: 'gauge', label: 'above the air: by a spring against it' },
    ],
  },
  { name: of(i, 'boost'), label: 'Boost', hint: `${units.pressure} unless a unit is typed, above what holds it` },
  {
    name: of(i, 'nitrous'),
    label: 'Nitrous: the shot',
    hint: 'As its maker calls it; 20 % more or less is usual. Bottle and lines as your event’s rules ask, fitted by people who know how.',
  },
  {
    name: of(i, 'computer'),
    label: 'Computer, a line each: launch limit = 5200 rpm',
    type: 'textarea',
    isWide: true,
    hint: 'Launch, blip, warm-up and rev limits by the names that the engine’s computer gives them.',
  },
  { name: of(i, 'wasSet'), label: 'What was set', hint: 'Each change with a comma between: cams advanced 4 deg, spark 2 deg later.' },
]

export const sessionFieldSpecs = (stages: readonly Stage[], units: Record<string, string>, settingCount: number): FieldSpec[] => [
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
    hint: `${units.pressure} unless a unit is typed`,
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
  { name: 'temperature', label: 'Inlet air temperature', hint: `${units.temperature} unless a unit is typed` },
  { name: 'humidity', label: 'Relative humidity', hint: 'in %' },
  {
    name: 'boostSchool',
    label: 'Power under boost is',
    section: 'Engine',
    type: 'select',
    options: BOOST_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] })),
    hint: 'Good people differ; schools are never mixed. Another than the build’s counts for no target.',
  },
  { name: 'tuneNote', label: 'Note', isWide: true },
  ...Array.from({ length: settingCount }, (_, i) => settingFields(i, settingCount, units)).flat(),
]

/** What the computer was set to, a line each: "launch limit = 5200 rpm"; nothing where none is typed. */
function readComputer(read: FormReader, name: string): Pick<DynoSetting, 'computer'> {
  const computer = read.lines(name).flatMap((line) => {
    const [own = '', value = ''] = line.split(/\s*=\s*/)
    if (own === '' || value === '') read.refuse(name, `“${line}” is no setting. Type its name = its value, such as launch limit = 5200 rpm.`)
    return [{ name: own, value }]
  })
  return computer.length > 0 ? { computer } : {}
}

/** The settings typed; ids stand for them in their order, and one after the first without a name or content is left out. */
function readSettings(read: FormReader, ids: readonly string[]) {
  return ids.flatMap((id, i) => {
    const isEmpty = ['name', 'fuel', 'ethanol', 'boost', 'nitrous', 'computer', 'wasSet'].every((field) => read.raw(of(i, field)) === '')
    if (i > 0 && isEmpty) return []
    if (i > 0 && read.raw(of(i, 'name')) === '') read.refuse(of(i, 'name'), 'This setting has no name. Call it as it is called at the dyno: spring, 1.5 bar.')
    const boost = read.optionalQuantity(of(i, 'boost'), 'Boost', 'pressure')
    const boostControl = read.raw(of(i, 'control'))
    const shot = read.optionalQuantity(of(i, 'nitrous'), 'The shot', 'power')
    if (shot && !(shot.value > 0)) read.refuse(of(i, 'nitrous'), 'A shot is more than zero. Type its power, or leave it empty.')
    if (boost && boostControl === 'none') read.refuse(of(i, 'control'), 'A boost is typed and held by nothing. Say what it is above, or empty the boost.')
    return [
      {
        id,
        name: read.raw(of(i, 'name')) || 'as it ran',
        fuel: read.optional(of(i, 'fuel')),
        ethanolShare: read.optionalQuantity(of(i, 'ethanol'), 'Ethanol share', 'share')?.value ?? null,
        boostControl,
        boostPa: boost?.value ?? null,
        nitrousShot: shot ? { powerW: shot.value, typed: shot.typed } : null,
        ...readComputer(read, of(i, 'computer')),
        wasSet: read.optional(of(i, 'wasSet')),
      },
    ]
  })
}

export function sessionBody(read: FormReader, settingIds: readonly string[]): Record<string, unknown> {
  const settings = readSettings(read, settingIds)
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
    boostSchool: settings.every(({ boostControl }) => boostControl === 'none') ? null : read.optional('boostSchool'),
    settings,
    tuneNote: read.optional('tuneNote'),
  }
}

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
    boostSchool: session.boostSchool ?? counted,
    ...Object.assign({}, ...session.settings.map((setting, i) => settingDefaults(setting, i, units))),
    tuneNote: session.tuneNote ?? '',
  }
}

function settingDefaults(setting: DynoSetting, i: number, units: Record<string, string>): FormValues {
  const { name, fuel, ethanolShare, boostControl, boostPa, nitrousShot, computer, wasSet } = setting
  return {
    [of(i, 'name')]: name,
    [of(i, 'fuel')]: fuel ?? '',
    [of(i, 'ethanol')]: ethanolShare === null ? '' : typedText('share', ethanolShare, '%'),
    [of(i, 'control')]: boostControl,
    [of(i, 'boost')]: boostPa === null ? '' : typedText('pressure', boostPa, units.pressure as string),
    [of(i, 'nitrous')]: nitrousShot ? (nitrousShot.typed ?? typedText('power', nitrousShot.powerW, units.power as string)) : '',
    [of(i, 'computer')]: (computer ?? []).map((each) => `${each.name} = ${each.value}`).join('\n'),
    [of(i, 'wasSet')]: wasSet ?? '',
  }
}

/** What the fields of a setting that is added begin with: the fuel and boost of the one before. */
export const nextSetting = (i: number, values: FormValues): FormValues =>
  Object.fromEntries(['fuel', 'ethanol', 'control'].map((field) => [of(i, field), values[of(i - 1, field)] ?? (field === 'control' ? 'none' : '')]))

/** Air that stands for any record of it: whether there is one is all that is asked here. */
const ANY_AIR = { pressurePa: 101_325, pressureKind: 'station', temperatureK: 298.15, relativeHumidity: 0 } as const

/** Why what is typed would count nowhere, and whether counting as printed would mend it; null where it counts. */
export function whyUncounted(
  values: FormValues,
  build: Pick<RecordsAnswer['build'], 'powerBasis'>,
): { readonly why: string; readonly isMended: boolean } | null {
  const hasAir = (values.pressure ?? '').trim() !== ''
  const session = {
    place: values.place,
    printedStandard: values.printedStandard,
    boostSchool: values.boostSchool || null,
    ambient: hasAir ? { ...ANY_AIR, pressureKind: values.pressureKind || 'station' } : null,
  }
  const setting = { boostControl: values[of(0, 'control')] || 'none' }
  const found = attempt(() => basisFactor(session as DynoSession, setting as DynoSetting, build as RecordsAnswer['build']))
  return found instanceof CalculationError ? { why: found.message, isMended: found.code === 'missing' } : null
}
