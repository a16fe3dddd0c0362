import type { RecordsAnswer } from '@bold-ballast/contract'
import { type AeroRoom, type AeroTestKind, type CoastPair, type CoastRun, type QuantityKind, STEADY_READINGS, type SteadyReading } from '@bold-ballast/core'
import { readAir } from '../../../shared/fields/air-fields.ts'
import { type FormReader, type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText, usualText } from '../../../ui/quantity.ts'

type Test = RecordsAnswer['aeroTests'][number]
type Units = Readonly<Record<QuantityKind, string>>

export const TEST_KIND_WORDS: Readonly<Record<AeroTestKind, string>> = {
  coastDown: 'coasting both ways, for drag',
  steady: 'held speeds, for the load on each axle',
}
const READING_WORDS: Readonly<Record<SteadyReading, string>> = {
  height: 'ride height, how far the body sank',
  wheel: 'travel of the wheel',
  damper: 'travel of the damper',
}

const runFields = (i: number): FieldSpec[] =>
  (['out', 'back'] as const).map((way) => ({
    name: `${way}${i}`,
    label: way === 'out' ? 'Out: seconds; speed, a line each' : 'Back, the other way',
    ...(way === 'out' ? { section: `Pair ${i + 1}` } : {}),
    type: 'textarea' as const,
    ...(way === 'back' ? { hint: 'One direction cannot tell wind and slope from drag.' } : {}),
  }))

const STEADY_FIELDS: readonly FieldSpec[] = [
  {
    name: 'reading',
    label: 'What was read at the axles',
    section: 'What was read',
    type: 'select',
    options: STEADY_READINGS.map((value) => ({ value, label: READING_WORDS[value] })),
  },
  {
    name: 'points',
    label: 'Driven out, a line each: speed; front; rear; slowing in m/s²; pitot tube',
    hint: (units) =>
      `Mean of left and right, growing as it sinks, from any zero; with bump rubbers from the car at rest. Three speeds at least, such as 60 ${units.speed}; ${usualText(units, 'length', 0.0012)}; ${usualText(units, 'length', 0.0024)}. The last two where they were read.`,
    type: 'textarea',
    isWide: true,
  },
  {
    name: 'pointsBack',
    label: 'and back, on the same road',
    hint: 'A pitot tube is read both ways: one cannot tell the wind from what the tube reads too much.',
    type: 'textarea',
    isWide: true,
  },
]

/** The fields of a test: where, when and with what, the air, and its runs. */
export const testFieldSpecs = (stages: RecordsAnswer['stages'], kind: AeroTestKind, pairCount: number): FieldSpec[] => [
  {
    name: 'kind',
    label: 'The test',
    type: 'select',
    options: (['coastDown', 'steady'] as const).map((value) => ({ value, label: TEST_KIND_WORDS[value] })),
  },
  { name: 'placeName', label: 'Where' },
  { name: 'at', label: 'When', type: 'datetime-local' },
  {
    name: 'stage',
    label: 'Stage: the car as it then was',
    type: 'select',
    options: stages.map(({ id, position, name }) => ({ value: id, label: `${position} ${name}` })),
  },
  { name: 'mass', label: 'Mass, as it rolled', hint: 'With driver and fuel.' },
  { name: 'massSd', label: 'Give or take' },
  {
    name: 'pressure',
    label: 'Air pressure there',
    section: 'Air: all three or none',
    hint: 'As it stands, not reduced to sea level. Empty: the build’s air, less sure.',
  },
  { name: 'temperature', label: 'Air temperature' },
  { name: 'humidity', label: 'Relative humidity', hint: 'in %' },
  { name: 'gust', label: 'Gusts along the road' },
  ...(kind === 'coastDown' ? Array.from({ length: pairCount }, (_, i) => runFields(i)).flat() : STEADY_FIELDS),
]

/** The texts that a new test begins with, or those of a stored one. */
export function testDefaults(test: Test | null, room: AeroRoom, stageId: string, position: number, units: Units): FormValues {
  if (!test) {
    const mass = room.stages[position]?.mass
    return {
      kind: 'coastDown',
      stage: stageId,
      at: localTime(new Date()),
      mass: mass ? typedText('mass', Number(mass.value.toFixed(1)), units.mass) : '',
      massSd: mass ? typedText('mass', Math.max(1, mass.sd), units.mass) : '',
    }
  }
  const { ambient, gustMps } = test
  return {
    kind: test.kind,
    placeName: test.placeName,
    at: localTime(new Date(test.at)),
    stage: test.stageId,
    mass: typedText('mass', test.massKg, units.mass),
    massSd: typedText('mass', test.massSdKg, units.mass),
    pressure: ambient ? typedText('pressure', ambient.pressurePa, units.pressure) : '',
    temperature: ambient ? typedText('temperature', ambient.temperatureK, units.temperature) : '',
    humidity: ambient ? numberText(100 * ambient.relativeHumidity) : '',
    gust: gustMps === null ? '' : typedText('speed', gustMps, units.speed),
  }
}

/** A run as its lines: seconds and speed in the picked unit. */
export const runText = ({ timeS, speedMps }: CoastRun, units: Units): string =>
  timeS.map((time, i) => `${numberText(Number(time.toFixed(3)))}; ${typedText('speed', speedMps[i] ?? 0, units.speed)}`).join('\n')

function readRun(read: FormReader, name: string): CoastRun | null {
  if (read.raw(name) === '') return null
  const points = read.points(name, 'a run', [{ kind: 'lapTime' }, { kind: 'speed' }]) as [number, number][]
  return { timeS: points.map(([time]) => time), speedMps: points.map(([, speed]) => speed) }
}

/** Pairs that were typed or came from files; one direction alone is refused. */
function readPairs(read: FormReader, pairCount: number, isNew: boolean): CoastPair[] {
  const pairs = Array.from({ length: pairCount }, (_, i) => i).flatMap((i): CoastPair[] => {
    const [out, back] = [readRun(read, `out${i}`), readRun(read, `back${i}`)]
    if (out && back) return [{ out, back }]
    if (out || back)
      read.refuse(out ? `back${i}` : `out${i}`, 'One direction cannot tell wind and slope from drag. Run it back as well, and put that run here.')
    return []
  })
  if (pairs.length === 0 && isNew) read.refuse('out0', 'No run yet. Choose its files below, or type seconds and speed, a line each.')
  return pairs
}

/** A run of the test as it is to be stored, its fit still to be made. */
export type TypedRun = { readonly coast: CoastPair } | { readonly steady: Record<string, unknown> }

/** What the form makes of a test; `runs` are those to be added to it. */
export function testBody(
  read: FormReader,
  { room, stages, isNew, pairCount }: { room: AeroRoom; stages: RecordsAnswer['stages']; isNew: boolean; pairCount: number },
) {
  const stageId = read.text('stage', 'Stage')
  const kind = read.raw('kind') as AeroTestKind
  const position = stages.find(({ id }) => id === stageId)?.position ?? 0
  const picks = (room.stages[position]?.devices ?? []).flatMap(({ id, picked, notches }) => (notches.length > 1 ? [{ deviceId: id, notchId: picked }] : []))
  const massKg = read.quantity('mass', 'The mass', 'mass').value
  if (massKg < 100 || massKg > 5000) read.refuse('mass', 'A car rolls with 100 to 5000 kg. Check the mass and its unit.')
  return {
    kind,
    stageId,
    placeName: read.text('placeName', 'Where'),
    at: read.instant('at', 'When'),
    massKg,
    massSdKg: read.quantity('massSd', 'How well the mass is known', 'mass').value,
    ambient: readAir(read),
    gustMps: read.optionalQuantity('gust', 'Gusts', 'speed')?.value ?? null,
    ...(isNew ? { picks } : {}),
    runs: kind === 'coastDown' ? readPairs(read, pairCount, isNew).map((coast): TypedRun => ({ coast })) : readSteady(read, isNew),
  }
}

const POINT_KINDS = [
  { kind: 'speed' },
  { kind: 'length' },
  { kind: 'length' },
  { kind: 'ratio', isOptional: true },
  { kind: 'pressure', isOptional: true },
] as const

function readSteady(read: FormReader, isNew: boolean): TypedRun[] {
  const runs = (['points', 'pointsBack'] as const).map((name) => ({
    name,
    points: read
      .points(name, 'a point', POINT_KINDS)
      .map(([speedMps, frontM, rearM, decelerationMps2 = null, pitotPa = null]) => ({ speedMps, frontM, rearM, decelerationMps2, pitotPa })),
  }))
  const driven = runs.filter(({ points }) => points.length > 0)
  if (driven.length === 0 && isNew) read.refuse('points', 'No point yet. Type speed, front and rear, a line each; three speeds at least.')
  const hasTube = driven.some(({ points }) => points.some(({ pitotPa }) => pitotPa !== null))
  if (hasTube && driven.length < 2)
    read.refuse(
      driven[0]?.name === 'points' ? 'pointsBack' : 'points',
      'One direction cannot tell the wind from what the tube reads too much. Hold the speeds on the way back as well.',
    )
  return driven.map(({ name, points }) => ({
    steady: { reading: read.raw('reading') || 'height', direction: name === 'points' ? 'out' : 'back', points },
  }))
}
