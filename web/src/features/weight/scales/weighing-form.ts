import { PAD_NAMES, PAD_WORDS, type PadName } from '@bold-ballast/core'
import type { FormReader } from '../../../ui/form-reader.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'

export const METHODS = ['one', 'axlesOnBlocks', 'cornerSwapped', 'otherAxleOnFloor'] as const
export type Method = (typeof METHODS)[number]

export const METHOD_WORDS: Record<Method, string> = {
  one: 'all four pads, or three and what they tell',
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

export function weighingFields(method: Method, dead: PadName): FieldSpec[] {
  return [
    { name: 'at', label: 'When', type: 'datetime-local', section: 'Visit' },
    { name: 'scales', label: 'Which scales', hint: 'Two sets that agree confirm more than one set twice.' },
    ...stepsOf(method, dead).flatMap(({ title, pads, isSecond }) =>
      pads.map((pad, i): FieldSpec => ({ name: fieldOf(pad, isSecond), label: upper(PAD_WORDS[pad]), ...(i === 0 ? { section: title } : {}) })),
    ),
    ...(method === 'axlesOnBlocks' || method === 'cornerSwapped'
      ? [
          {
            name: 'blockError',
            label: 'How far a block may be off the pads’ height',
            hint: 'Leave empty for 2 mm. It goes into the spread of every corner.',
            isWide: true,
          },
        ]
      : []),
    ...(method === 'otherAxleOnFloor'
      ? [{ name: 'padHeight', label: 'Height of the pads over the floor', hint: 'The tilt goes into the spread.', isWide: true }]
      : []),
    { name: 'driver', label: 'Driver in the car', section: 'Conditions', hint: '0 when the driver was out.' },
    { name: 'fuel', label: 'Fuel in the tank', hint: 'With ± if you are not sure: 42 L ± 3.' },
    { name: 'barsDisconnected', label: 'Bars disconnected', type: 'select', options: YES_NO },
    { name: 'isLevel', label: 'Floor levelled', type: 'select', options: YES_NO },
    { name: 'tyrePressure', label: 'Tyre pressure' },
    { name: 'rideHeightFront', label: 'Ride height, front' },
    { name: 'rideHeightRear', label: 'Ride height, rear' },
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

export function weighingBody(read: FormReader, method: Method, dead: PadName): Record<string, unknown> {
  const steps = stepsOf(method, dead)
  const first = steps[0]
  const second = steps[1]
  const pads = readPads(read, false, first?.pads ?? PAD_NAMES)
  if (PAD_NAMES.every((pad) => pads[pad] === null)) read.refuse(first?.pads[0] ?? 'LF', 'No pad was read. Type at least one.')
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
  }
  return {
    at: read.instant('at', 'When'),
    scales: read.optional('scales'),
    pads,
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
    fuelL: fuel.value,
    fuelSdL: fuel.sd ?? null,
    extras: extra ? [{ name: extraName, massKg: extra.value, sdKg: extra.sd ?? null }] : [],
    note: read.optional('note'),
  }
}
