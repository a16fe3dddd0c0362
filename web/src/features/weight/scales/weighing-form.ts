import type { RecordsAnswer } from '@bold-ballast/contract'
import { PAD_NAMES, PAD_WORDS, type PadName } from '@bold-ballast/core'
import { type FormReader, type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec, Hint } from '../../../ui/forms/record-form.tsx'
import { typedAgain, typedText, usualText } from '../../../ui/quantity.ts'

type StoredWeighing = RecordsAnswer['weighings'][number]
type Units = Readonly<Record<'mass' | 'length' | 'pressure' | 'volume', string>>

export const METHODS = ['one', 'axles', 'total', 'axlesOnBlocks', 'cornerSwapped', 'otherAxleOnFloor'] as const
export type Method = (typeof METHODS)[number]

export const METHOD_WORDS: Record<Method, string> = {
  one: 'all four pads, or three and what they tell',
  axles: 'two axle loads, one after the other',
  total: 'a total alone: a weighbridge, a figure read aloud',
  axlesOnBlocks: 'a pad is dead: axle by axle, the other on blocks of pad height',
  cornerSwapped: 'a pad is dead: a block under one corner, then swapped',
  otherAxleOnFloor: 'a pad is dead: axle by axle, the other on the bare floor',
}

interface Step {
  readonly title: string
  readonly pads: readonly PadName[]
  readonly isSecond: boolean
}

/** The placements of a method in their order, each with what to do and the pads that are read. */
export function stepsOf(method: Method, dead: PadName): readonly Step[] {
  const front = ['LF', 'RF'] as const
  const rear = ['LR', 'RR'] as const
  const others = PAD_NAMES.filter((pad) => pad !== dead)
  const ground = method === 'otherAxleOnFloor' ? 'the bare floor' : 'blocks of pad height'
  switch (method) {
    case 'axles':
    case 'total':
      return []
    case 'one':
      return [{ title: 'Pads (leave a dead pad empty)', pads: PAD_NAMES, isSecond: false }]
    case 'cornerSwapped':
      return [
        { title: `Step 1: a block of pad height under the ${PAD_WORDS[dead]} wheel, good pads under the others`, pads: others, isSecond: false },
        {
          title: `Step 2: swap the block with a good pad, settle the car, and read the ${PAD_WORDS[dead]} wheel; the others if they stand on pads`,
          pads: PAD_NAMES,
          isSecond: true,
        },
      ]
    default:
      return [
        { title: `Step 1: front wheels on two good pads, rear wheels on ${ground}`, pads: front, isSecond: false },
        { title: `Step 2: rear wheels on two good pads, front wheels on ${ground}`, pads: rear, isSecond: true },
      ]
  }
}

const fieldOf = (pad: PadName, isSecond: boolean) => (isSecond ? `second${pad}` : pad)
const upper = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const YES_NO = [
  { value: '', label: 'not noted' },
  { value: 'true', label: 'yes' },
  { value: 'false', label: 'no' },
]

const WHOLE_HINT: Hint = (units) => `With ± if you know its spread; ${usualText(units, 'mass', 5)} where nobody says.`
const WHOLE_FIELDS: Partial<Record<Method, FieldSpec[]>> = {
  axles: [
    { name: 'axleFront', label: 'Front axle', section: 'Axle loads', hint: WHOLE_HINT },
    { name: 'axleRear', label: 'Rear axle' },
  ],
  total: [{ name: 'total', label: 'The whole car', section: 'Total', hint: WHOLE_HINT, isWide: true }],
}

interface Option {
  readonly value: string
  readonly label: string
}

export function weighingFields(method: Method, dead: PadName, stages: readonly Option[], drivers: readonly { readonly name: string }[]): FieldSpec[] {
  return [
    { name: 'at', label: 'When', type: 'datetime-local', section: 'Visit' },
    { name: 'stageId', label: 'The car was at', type: 'select', options: stages },
    { name: 'scales', label: 'Which scales', hint: 'Two sets that agree confirm more than one set twice.', isWide: true },
    ...(WHOLE_FIELDS[method] ?? []),
    ...stepsOf(method, dead).flatMap(({ title, pads, isSecond }) =>
      pads.map((pad, i): FieldSpec => ({ name: fieldOf(pad, isSecond), label: upper(PAD_WORDS[pad]), ...(i === 0 ? { section: title } : {}) })),
    ),
    ...(method === 'axlesOnBlocks' || method === 'cornerSwapped'
      ? [
          {
            name: 'blockError',
            label: 'How far a block may be off the pads’ height',
            hint: ((units) => `Leave empty for ${usualText(units, 'length', 0.002)}. It goes into the spread of every corner.`) satisfies Hint,
            isWide: true,
          },
        ]
      : []),
    ...(method === 'otherAxleOnFloor'
      ? [{ name: 'padHeight', label: 'Height of the pads over the floor', hint: 'The tilt goes into the spread.', isWide: true }]
      : []),
    { name: 'driver', label: 'Driver in the car', section: 'Conditions', hint: '0 when the driver was out.' },
    ...(drivers.length > 0
      ? [
          {
            name: 'driverName',
            label: 'Who was in',
            type: 'select' as const,
            options: [{ value: '', label: 'not said' }, ...drivers.map(({ name }) => ({ value: name, label: name }))],
          },
        ]
      : []),
    {
      name: 'fuel',
      label: 'Fuel in the tank',
      hint: (units) => `With ± if you are not sure: ${usualText(units, 'volume', 42)} ± ${usualText(units, 'volume', 3)}.`,
    },
    { name: 'barsDisconnected', label: 'Bars disconnected', type: 'select', options: YES_NO },
    { name: 'isLevel', label: 'Floor levelled', type: 'select', options: YES_NO },
    { name: 'tyrePressure', label: 'Tyre pressure' },
    { name: 'rideHeightFront', label: 'Ride height, front' },
    { name: 'rideHeightRear', label: 'Ride height, rear' },
    { name: 'nitrous', label: 'Nitrous in the bottle', hint: 'Empty where the car carries none, or as the reference.' },
    { name: 'extraName', label: 'Something extra in the car', hint: 'Tools, spare wheel: it is taken off again.' },
    { name: 'extraMass', label: 'Its mass' },
    { name: 'note', label: 'Note', isWide: true },
  ]
}

function readPads(read: FormReader, isSecond: boolean, wanted: readonly PadName[]) {
  return Object.fromEntries(
    PAD_NAMES.map((pad) => {
      const name = fieldOf(pad, isSecond)
      const found = wanted.includes(pad) ? read.optionalQuantity(name, PAD_WORDS[pad], 'mass') : null
      if (found && found.value < 0) read.refuse(name, `The ${PAD_WORDS[pad]} pad reads under zero. Zero the pads and read again.`)
      if (found && found.value > 5000) read.refuse(name, `The ${PAD_WORDS[pad]} pad reads over 5 000 kg. Check the number and its unit.`)
      return [pad, found && { massKg: found.value, sdKg: found.sd ?? null, typed: found.typed }]
    }),
  )
}

/** A total or one axle's load. */
function readWhole(read: FormReader, name: string, label: string, most: number) {
  const { value, sd, typed } = read.quantity(name, label, 'mass')
  if (value <= 0) read.refuse(name, `${label} must be more than zero. Type what the scale read.`)
  if (value > most) read.refuse(name, `${label} reads over ${most.toLocaleString('en').replace(',', ' ')} kg. Check the number and its unit.`)
  return { massKg: value, sdKg: sd ?? null, typed }
}

/** What the form makes of a weighing; `keptExtras` are those that it does not show: all but the first. */
export function weighingBody(read: FormReader, method: Method, dead: PadName, keptExtras: StoredWeighing['extras'] = []): Record<string, unknown> {
  const steps = stepsOf(method, dead)
  const first = steps[0]
  const second = steps[1]
  const pads = readPads(read, false, first?.pads ?? [])
  if (first && PAD_NAMES.every((pad) => pads[pad] === null)) read.refuse(first?.pads[0] ?? 'LF', 'No pad was read. Type at least one.')
  // A corner that no good pad read can never be made up.
  if (second) {
    const needed =
      method === 'cornerSwapped' ? [fieldOf(dead, true), ...(first?.pads ?? [])] : steps.flatMap((step) => step.pads.map((pad) => fieldOf(pad, step.isSecond)))
    for (const name of needed) if (read.raw(name) === '') read.refuse(name, 'This corner has to be read on a good pad. Type its reading.')
  }
  const fuel = read.quantity('fuel', 'Fuel', 'volume')
  const extraName = read.optional('extraName')
  const extra = extraName ? read.quantity('extraMass', 'Its mass', 'mass') : null
  const flag = (name: string) => (read.raw(name) === '' ? null : read.raw(name) === 'true')
  const size = (name: string, label: string, kind: 'length' | 'pressure') => {
    const found = read.optionalQuantity(name, label, kind)
    if (found && found.value <= 0) read.refuse(name, `${label} must be more than zero.`)
    return found?.value ?? null
  }
  const padHeight = method === 'otherAxleOnFloor' ? read.quantity('padHeight', 'Height of the pads', 'length').value : null
  const conditions = {
    barsDisconnected: flag('barsDisconnected'),
    isLevel: flag('isLevel'),
    tyrePressurePa: size('tyrePressure', 'Tyre pressure', 'pressure'),
    rideHeightFrontM: size('rideHeightFront', 'Ride height', 'length'),
    rideHeightRearM: size('rideHeightRear', 'Ride height', 'length'),
    nitrousKg: read.optionalQuantity('nitrous', 'Nitrous in the bottle', 'mass')?.value ?? null,
  }
  return {
    at: read.instant('at', 'When'),
    stageId: read.raw('stageId'),
    scales: read.optional('scales'),
    pads,
    total: method === 'total' ? readWhole(read, 'total', 'The total', 20_000) : null,
    axles:
      method === 'axles' ? { front: readWhole(read, 'axleFront', 'The front axle', 10_000), rear: readWhole(read, 'axleRear', 'The rear axle', 10_000) } : null,
    secondPlacement: second
      ? {
          method,
          pads: readPads(read, true, second.pads),
          blockErrorM: method === 'otherAxleOnFloor' ? null : (read.optionalQuantity('blockError', 'Block height', 'length')?.value ?? null),
          padHeightM: padHeight,
        }
      : null,
    conditions: Object.values(conditions).every((value) => value === null) ? null : conditions,
    driverInKg: read.quantity('driver', 'Driver', 'mass').value,
    driverName: read.optional('driverName'),
    fuelL: fuel.value,
    fuelSdL: fuel.sd ?? null,
    extras: [...keptExtras, ...(extra ? [{ name: extraName, massKg: extra.value, sdKg: extra.sd ?? null }] : [])],
    note: read.optional('note'),
  }
}

/** How a stored weighing was taken, as the form asks for it. */
export function methodOf({ total, axles, secondPlacement }: StoredWeighing): Method {
  return total ? 'total' : axles ? 'axles' : (secondPlacement?.method ?? 'one')
}

/** The corner that was dead at the first of two placements. */
export const deadOf = ({ pads, secondPlacement }: StoredWeighing): PadName =>
  (secondPlacement?.method === 'cornerSwapped' ? PAD_NAMES.find((pad) => pads[pad] === null) : undefined) ?? 'LR'

/** The texts of a stored weighing: as typed where that still reads the same, else in the picked units. */
export function weighingDefaults(weighing: StoredWeighing, units: Units): FormValues {
  const { pads, secondPlacement, total, axles, conditions, extras } = weighing
  const shown = (kind: 'mass' | 'length' | 'pressure' | 'volume', value: number | null | undefined) =>
    value === null || value === undefined ? '' : typedText(kind, value, units[kind])
  const reading = (read: { readonly massKg: number; readonly sdKg?: number | null; readonly typed?: string | null | undefined } | null | undefined) =>
    read ? typedAgain('mass', { value: read.massKg, sd: read.sdKg, typed: read.typed }, units.mass) : ''
  const flag = (value: boolean | null | undefined) => (value === null || value === undefined ? '' : String(value))
  return {
    at: localTime(new Date(weighing.at)),
    stageId: weighing.stageId,
    scales: weighing.scales ?? '',
    ...Object.fromEntries(PAD_NAMES.flatMap((pad) => [[pad, reading(pads[pad])] as const, [fieldOf(pad, true), reading(secondPlacement?.pads[pad])] as const])),
    total: reading(total),
    axleFront: reading(axles?.front),
    axleRear: reading(axles?.rear),
    blockError: shown('length', secondPlacement?.blockErrorM),
    padHeight: shown('length', secondPlacement?.padHeightM),
    driver: shown('mass', weighing.driverInKg),
    driverName: weighing.driverName ?? '',
    fuel: typedAgain('volume', { value: weighing.fuelL, sd: weighing.fuelSdL }, units.volume),
    barsDisconnected: flag(conditions?.barsDisconnected),
    isLevel: flag(conditions?.isLevel),
    tyrePressure: shown('pressure', conditions?.tyrePressurePa),
    rideHeightFront: shown('length', conditions?.rideHeightFrontM),
    rideHeightRear: shown('length', conditions?.rideHeightRearM),
    nitrous: shown('mass', conditions?.nitrousKg),
    extraName: extras[0]?.name ?? '',
    extraMass: reading(extras[0]),
    note: weighing.note ?? '',
  }
}
