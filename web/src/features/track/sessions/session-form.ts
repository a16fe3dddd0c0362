import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  LOGGER_STATES,
  type LoggerState,
  type QuantityKind,
  SURFACES,
  TIMINGS,
  TRACK_SESSION_KINDS,
  type TrackRoom,
  type TrackSessionKind,
  WHEEL_KEYS,
} from '@bold-ballast/core'
import { readAir } from '../../../shared/fields/air-fields.ts'
import { type FormReader, type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText } from '../../../ui/quantity.ts'

type Session = RecordsAnswer['trackSessions'][number]
type Units = Readonly<Record<QuantityKind, string>>

export const SESSION_KIND_WORDS: Readonly<Record<TrackSessionKind, string>> = {
  laps: 'laps',
  runs: 'drift runs',
  shakedown: 'shakedown',
  straight: 'a straight, both ways',
}
export const LOGGER_WORDS: Readonly<Record<LoggerState, string>> = {
  recorded: 'recorded',
  partly: 'recorded in part',
  nothing: 'recorded nothing',
  none: 'no logger',
}
export const TIMING_WORDS = { beacon: 'a beacon', gps: 'satellites', film: 'film', watch: 'a watch' } as const

const options = <Value extends string>(values: readonly Value[], words: Readonly<Record<Value, string>>) =>
  values.map((value) => ({ value, label: words[value] }))

/** Settings that were run at a dyno, as a session on track names one. */
const settingOptions = ({ sessions }: RecordsAnswer): { value: string; label: string }[] =>
  sessions.flatMap(({ id, dynoName, at, settings }) =>
    settings.map((setting) => ({ value: `${id} ${setting.id}`, label: `${setting.name}, ${dynoName} ${at.slice(0, 10)}` })),
  )

export const sessionFieldSpecs = (records: RecordsAnswer, room: TrackRoom): FieldSpec[] => [
  { name: 'track', label: 'Track', type: 'select', options: room.tracks.map(({ id, name }) => ({ value: id, label: name })) },
  { name: 'kind', label: 'What it is', type: 'select', options: options(TRACK_SESSION_KINDS, SESSION_KIND_WORDS) },
  { name: 'at', label: 'When', type: 'datetime-local' },
  {
    name: 'stage',
    label: 'Stage: the car as it then was',
    type: 'select',
    options: records.stages.map(({ id, position, name }) => ({ value: id, label: `${position} ${name}` })),
  },
  { name: 'driver', label: 'Driver', suggestions: room.drivers },
  { name: 'aim', label: 'What it is for', hint: 'One change at a time: what shall it show?' },
  ...(settingOptions(records).length > 0
    ? [
        {
          name: 'setting',
          label: 'What the engine ran on',
          type: 'select' as const,
          options: [{ value: '', label: 'what stands for the stage' }, ...settingOptions(records)],
        },
      ]
    : []),
  { name: 'fuelStart', label: 'Fuel on the way out', section: 'Fuel and tyres' },
  { name: 'fuelEnd', label: 'Fuel on the way in' },
  ...(['front', 'rear'] as const).map(
    (axle): FieldSpec => ({
      name: `${axle}Tyres`,
      label: `${axle === 'front' ? 'Front' : 'Rear'} tyres`,
      type: 'select',
      options: [{ value: '', label: 'as the stage has them' }, ...room.tyres.map(({ id, name }) => ({ value: id, label: name }))],
    }),
  ),
  { name: 'pairs', label: 'Rear pairs used up' },
  {
    name: 'turned',
    label: 'What was turned since the session before, a line each: what; from; to',
    type: 'textarea',
    hint: 'Such as: rear bar; soft; middle.',
  },
  { name: 'pressure', label: 'Air pressure there', section: 'Air and track', hint: 'As it stands. All three of the air or none.' },
  { name: 'temperature', label: 'Air temperature' },
  { name: 'humidity', label: 'Relative humidity', hint: 'in %' },
  { name: 'trackTemperature', label: 'Track temperature' },
  { name: 'wind', label: 'Wind' },
  { name: 'surface', label: 'Surface', type: 'select', options: SURFACES.map((value) => ({ value, label: value })) },
  {
    name: 'cold',
    label: 'Cold pressures: left front, right front, left rear, right rear',
    section: 'Four corners',
    hint: (units) => `Four numbers, such as 1.55 1.55 1.50 1.50${units.pressure === 'bar' ? '' : ` bar`}.`,
  },
  { name: 'coldTemperature', label: 'Tyres when cold' },
  { name: 'hot', label: 'Hot pressures, in the same order' },
  { name: 'timing', label: 'Clock', section: 'How it was recorded', type: 'select', options: options(TIMINGS, TIMING_WORDS) },
  { name: 'logger', label: 'Logger', type: 'select', options: options(LOGGER_STATES, LOGGER_WORDS) },
  {
    name: 'ease',
    label: 'How the driver felt in the car, 1 to 5',
    type: 'select',
    options: ['', '1', '2', '3', '4', '5'].map((value) => ({ value, label: value || 'nobody said' })),
  },
  { name: 'words', label: 'What the driver said', type: 'textarea', isWide: true },
]

/** The four corners of one reading as they were typed. */
function cornersText(session: Session, key: 'coldPa' | 'hotPa', units: Units): string {
  const corners = session.corners
  const values = WHEEL_KEYS.map((wheel) => corners?.[wheel]?.[key] ?? null)
  if (values.every((value) => value === null)) return ''
  return `${values.map((value) => (value === null ? '-' : typedText('pressure', value, units.pressure).split(' ')[0])).join(' ')} ${units.pressure}`
}

/** The texts that a new session begins with, or those of a stored one; a new one takes over what rarely changes from the last. */
export function sessionDefaults(session: Session | null, last: Session | null, room: TrackRoom, stageId: string, isDrift: boolean, units: Units): FormValues {
  if (!session)
    return {
      track: last?.trackId ?? room.controlTrackId ?? room.tracks[0]?.id ?? '',
      kind: isDrift ? 'runs' : 'laps',
      at: localTime(new Date()),
      stage: stageId,
      driver: last?.driver ?? room.drivers[0] ?? '',
      frontTyres: last?.stageId === stageId ? (last.frontTyresPartId ?? '') : '',
      rearTyres: last?.stageId === stageId ? (last.rearTyresPartId ?? '') : '',
      surface: 'dry',
      timing: last?.timing ?? 'watch',
      logger: 'none',
      ease: '',
    }
  const { ambient } = session
  const quantity = (kind: QuantityKind, value: number | null) => (value === null ? '' : typedText(kind, value, units[kind]))
  return {
    track: session.trackId,
    kind: session.kind,
    at: localTime(new Date(session.at)),
    stage: session.stageId,
    driver: session.driver ?? '',
    aim: session.aim ?? '',
    setting: session.dynoSessionId && session.dynoSettingId ? `${session.dynoSessionId} ${session.dynoSettingId}` : '',
    fuelStart: session.fuelStartL === null ? '' : typedText('volume', session.fuelStartL, units.volume),
    fuelEnd: session.fuelEndL === null ? '' : typedText('volume', session.fuelEndL, units.volume),
    frontTyres: session.frontTyresPartId ?? '',
    rearTyres: session.rearTyresPartId ?? '',
    pairs: session.rearPairsUsed === null ? '' : numberText(session.rearPairsUsed),
    turned: session.turned.map(({ what, from, to }) => [what, from ?? '', to].join('; ')).join('\n'),
    pressure: quantity('pressure', ambient?.pressurePa ?? null),
    temperature: quantity('temperature', ambient?.temperatureK ?? null),
    humidity: ambient ? numberText(100 * ambient.relativeHumidity) : '',
    trackTemperature: quantity('temperature', session.trackK),
    wind: quantity('speed', session.windMps),
    surface: session.surface,
    cold: cornersText(session, 'coldPa', units),
    coldTemperature: quantity('temperature', session.corners?.LF?.coldK ?? null),
    hot: cornersText(session, 'hotPa', units),
    timing: session.timing,
    logger: session.logger,
    ease: session.ease === null ? '' : String(session.ease),
    words: session.words ?? '',
  }
}

/** Four pressures in one field, a dash for one that was not read. */
function readFour(read: FormReader, name: string, label: string): (number | null)[] | null {
  const raw = read.raw(name)
  if (raw === '') return null
  const unit = /([a-z]+)\s*$/i.exec(raw)?.[1] ?? ''
  const cells = raw
    .replace(/([a-z]+)\s*$/i, '')
    .trim()
    .split(/[\s;]+/)
  if (cells.length !== 4) {
    read.refuse(name, `${label} are four numbers: left front, right front, left rear, right rear; a dash for one that was not read.`)
    return null
  }
  return cells.map((cell) => (cell === '-' || cell === '–' ? null : (read.typedQuantity(name, `${cell} ${unit}`.trim(), 'pressure', label)?.value ?? null)))
}

const EMPTY_WHEEL = { coldPa: null, coldK: null, hotPa: null, isBled: false, treadK: null, discK: null }

function readCorners(read: FormReader, before: Session | null): Session['corners'] {
  const [cold, hot] = [readFour(read, 'cold', 'Cold pressures'), readFour(read, 'hot', 'Hot pressures')]
  const coldK = read.optionalQuantity('coldTemperature', 'Tyres when cold', 'temperature')?.value ?? null
  if (!cold && !hot && !before?.corners) return null
  const wheels = WHEEL_KEYS.map((wheel, i) => {
    const own = before?.corners?.[wheel] ?? EMPTY_WHEEL
    const next = { ...own, coldPa: cold?.[i] ?? null, hotPa: hot?.[i] ?? null, coldK }
    return [wheel, Object.values(next).some((value) => value !== null && value !== false) ? next : null] as const
  })
  return Object.fromEntries(wheels) as unknown as Session['corners']
}

function readTurned(read: FormReader): Session['turned'] {
  return read.lines('turned').flatMap((line) => {
    const cells = line.split(/\s*;\s*/)
    const [what, from, to] = cells.length === 2 ? [cells[0], null, cells[1]] : cells
    if (!what || !to || cells.length > 3) {
      read.refuse('turned', `“${line}” is what; from; to with semicolons between, such as rear bar; soft; middle.`)
      return []
    }
    return [{ what, from: from || null, to }]
  })
}

/** The dyno session and the setting within it; none: what stands for the stage. */
function readSetting(read: FormReader): Pick<Session, 'dynoSessionId' | 'dynoSettingId'> {
  const [, dynoSessionId = null, dynoSettingId = null] = /^(\S+) (.+)$/.exec(read.raw('setting')) ?? []
  return { dynoSessionId, dynoSettingId }
}

/** What the form makes of a session. */
export function sessionBody(read: FormReader, before: Session | null): Record<string, unknown> {
  return {
    trackId: read.text('track', 'The track'),
    kind: read.raw('kind'),
    at: read.instant('at', 'When'),
    stageId: read.text('stage', 'The stage'),
    driver: read.optional('driver'),
    aim: read.optional('aim'),
    ...readSetting(read),
    fuelStartL: read.optionalQuantity('fuelStart', 'Fuel on the way out', 'volume')?.value ?? null,
    fuelEndL: read.optionalQuantity('fuelEnd', 'Fuel on the way in', 'volume')?.value ?? null,
    frontTyresPartId: read.optional('frontTyres'),
    rearTyresPartId: read.optional('rearTyres'),
    rearPairsUsed: read.raw('pairs') === '' ? null : read.number('pairs', 'Rear pairs used up'),
    turned: readTurned(read),
    ambient: readAir(read),
    trackK: read.optionalQuantity('trackTemperature', 'Track temperature', 'temperature')?.value ?? null,
    windMps: read.optionalQuantity('wind', 'Wind', 'speed')?.value ?? null,
    surface: read.raw('surface') || 'dry',
    corners: readCorners(read, before),
    timing: read.raw('timing') || 'watch',
    logger: read.raw('logger') || 'none',
    ease: read.raw('ease') === '' ? null : Number(read.raw('ease')),
    words: read.optional('words'),
  }
}
