import type { RecordsAnswer } from '@bold-ballast/contract'
import { DRIVE_USE_WORDS, DRIVE_USES, type QuantityKind, SHOCK_OF_USE, SHOCK_SCHOOL_WORDS, SHOCK_SCHOOLS } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../ui/forms/record-form.tsx'
import { numberText, typedAgain, typedText, usualText } from '../../ui/quantity.ts'

type Setting = RecordsAnswer['driveSettings'][number]
type Units = Readonly<Record<QuantityKind, string>>

/** The numbers of the car that are known with a spread: what each is called, what is usual, and between which bounds it lies. */
const KNOWN_NUMBERS = [
  ['dragAreaM2', 'Drag area', 'area', 0.05, 5, 0.75, 'Drag coefficient times frontal area'],
  ['rollingCoefficient', 'Rolling resistance', 'ratio', 0, 0.1, 0.014, 'Force over weight'],
  [
    'centreHeightM',
    'Centre height',
    'length',
    0.1,
    1.2,
    null,
    'An axle that was lifted on the scales stands before it. Without both 19 % of the wheelbase, a guess',
  ],
  ['gripUse', 'Share of the grip that a driver uses', 'share', 0.2, 1.2, 0.92, 'Of the tyres’ peak'],
  ['engineInertiaKgM2', 'Inertia of engine and clutch', 'inertia', 0, 5, null, 'Without it a usual share of the mass stands for all that turns'],
  ['clutchHolding', 'Clutch holds over its rating', 'ratio', 0.5, 3, 1.2, 'How far it holds before it slips'],
  ['frontSlipRad', 'Slip of the front tyres in a slide', 'angle', 0, 0.5, 0.105, 'At their most grip'],
] as const satisfies readonly (readonly [keyof Setting, string, QuantityKind, number, number, number | null, string])[]

const ROOTS = [
  { value: 'guess', label: 'a guess' },
  { value: 'catalogue', label: 'by a catalogue' },
  { value: 'measured', label: 'measured' },
] as const

const asBefore = { value: '', label: 'as the stage before' } as const

export const settingFieldSpecs: readonly FieldSpec[] = [
  { name: 'topRpm', label: 'Highest speed of the engine used', section: 'How it is driven: what is empty stays as the stage before has it' },
  { name: 'launchRpm', label: 'Launch at', hint: 'The engine speed that the clutch is let in at.' },
  {
    name: 'use',
    label: 'Driven on',
    type: 'select',
    options: [asBefore, ...DRIVE_USES.map((value) => ({ value, label: `${DRIVE_USE_WORDS[value]}: shock ${SHOCK_OF_USE[value]}` }))],
  },
  { name: 'shockFactor', label: 'Shock, times the steady torque', hint: 'In place of the usual one of that use; from 1 to 5.' },
  {
    name: 'shockSchool',
    label: 'Shock multiplies',
    type: 'select',
    options: [asBefore, ...SHOCK_SCHOOLS.map((value) => ({ value, label: SHOCK_SCHOOL_WORDS[value] }))],
  },
  { name: 'reserveWanted', label: 'Power wanted in hand in a slide', hint: '15 to 25 % (common practice, no source).' },
  ...KNOWN_NUMBERS.flatMap(([name, label, kind, , , usual, more], i): FieldSpec[] => [
    {
      name,
      label,
      hint: (units) => (usual === null ? `${more}.` : `${more}; with ± if you can. Without it ${usualText(units, kind, usual)}, a guess.`),
      ...(i === 0 ? { section: 'What is known of the car' } : {}),
    },
    { name: `${name}-known`, label: `${label} is`, type: 'select', options: ROOTS },
  ]),
]

/** The texts of a stage's own settings. */
export function settingDefaults(setting: Setting | null, units: Units): FormValues {
  const rpm = (value: number | null | undefined) => (value ? typedText('engineSpeed', value, units.engineSpeed) : '')
  return {
    topRpm: rpm(setting?.topRpm),
    launchRpm: rpm(setting?.launchRpm),
    use: setting?.use ?? '',
    shockFactor: setting?.shockFactor ? numberText(setting.shockFactor) : '',
    shockSchool: setting?.shockSchool ?? '',
    reserveWanted: setting?.reserveWanted === null || !setting ? '' : typedText('share', setting.reserveWanted, units.share),
    ...Object.fromEntries(
      KNOWN_NUMBERS.flatMap(([name, , kind]) => {
        const said = setting?.[name]
        return [
          [name, said ? typedAgain(kind, said, units[kind]) : ''],
          [`${name}-known`, said?.known ?? 'guess'],
        ]
      }),
    ),
  }
}

/** What the form makes of the settings; a number out of its bounds is refused in the reader. */
export function settingBody(read: FormReader): Record<string, unknown> {
  const within = (name: string, label: string, kind: QuantityKind, least: number, most: number) => {
    const found = read.optionalQuantity(name, label, kind)
    if (found && !(found.value >= least && found.value <= most)) {
      const unit = read.units[kind]
      read.refuse(name, `${label} lies from ${typedText(kind, least, unit)} to ${typedText(kind, most, unit)}. Check the number and its unit.`)
    }
    return found
  }
  const known = ([name, label, kind, least, most]: (typeof KNOWN_NUMBERS)[number]) => {
    const found = within(name, label, kind, least, most)
    return found && { value: found.value, sd: found.sd ?? null, known: read.raw(`${name}-known`) || 'guess', typed: found.typed }
  }
  return {
    topRpm: within('topRpm', 'The highest speed', 'engineSpeed', 500, 25_000)?.value ?? null,
    launchRpm: within('launchRpm', 'The launch speed', 'engineSpeed', 300, 20_000)?.value ?? null,
    use: read.raw('use') || null,
    shockFactor: within('shockFactor', 'Shock', 'ratio', 1, 5)?.value ?? null,
    shockSchool: read.raw('shockSchool') || null,
    reserveWanted: within('reserveWanted', 'Power in hand', 'share', 0, 1)?.value ?? null,
    ...Object.fromEntries(KNOWN_NUMBERS.map((each) => [each[0], known(each)])),
  }
}
