import {
  attempt,
  CalculationError,
  type DrivenRow,
  driveTest,
  type LapCar,
  LapDriver,
  type SimulatedTest,
  type TestRow,
  type TrackLine,
} from '@bold-ballast/core'
import { noiseFrom, serveStandIn } from './stand-in.ts'

// A simulated logger as a process of its own: node logger.js PORT [NAME]. It drives laps of the track and car it was sent, in pieces of one text, and says what
// a logger would: its own state each second, ten rows a second of what the car does, and each lap; or it coasts a car down, or holds speeds, out and back, and
// tells each run. It can be told not to record, to lose the sky, and to fall silent.

const ROWS_PER_S = 10
const STATUS_MS = 1000
/** Where a track without a place on the Earth is driven; nowhere in particular. */
const NOWHERE = { latitudeDeg: 0, longitudeDeg: 0 }
const CHANNELS = [
  ['Speed', 'km/h'],
  ['RPM', 'rpm'],
  ['Throttle', '%'],
  ['Brake front', 'bar'],
  ['Brake rear', 'bar'],
  ['Long acc', 'g'],
  ['Lateral acc', 'g'],
  ['Latitude', '°'],
  ['Longitude', '°'],
  ['Coolant', '°C'],
  ['Oil temp', '°C'],
  ['Oil press', 'bar'],
  ['Damper LF', 'mm'],
  ['Damper RF', 'mm'],
  ['Damper LR', 'mm'],
  ['Damper RR', 'mm'],
  ['Height front', 'mm'],
  ['Height rear', 'mm'],
  ['Pitot', 'Pa'],
] as const
/** Heights over the ground at rest, as lasers on the sills read them. */
const REST_M = 0.12

interface Drive {
  readonly track: TrackLine & { readonly origin: { latitudeDeg: number; longitudeDeg: number } | null; readonly bearingRad: number | null }
  readonly car: LapCar
}

const noise = noiseFrom(20_261_129)
let pieces: string[] = []
let sent: Drive | { readonly test: SimulatedTest } | null = null
let driver: LapDriver | null = null
let drive = { laps: 0, faster: 1, startedAt: 0, told: 0 }
/** Runs of a test that are still to be told, the first of them being driven, and how many of its rows were told. */
let queue: { readonly way: 'out' | 'back'; readonly rows: readonly TestRow[] }[] = []
let runs = { faster: 1, startedAt: 0, told: 0, number: 0 }
let isRecording = true
let hasPosition = true
let silentUntil = 0

function takePiece({ index, count, text }: { index: number; count: number; text: string }): string | null {
  if (index !== pieces.length && index !== 0) return `Piece ${index + 1} came before piece ${pieces.length + 1}. Send them first to last.`
  if (index === 0) pieces = []
  pieces.push(text)
  if (pieces.length < count) return null
  const whole = pieces.join('')
  pieces = []
  try {
    sent = JSON.parse(whole) as typeof sent
    return null
  } catch {
    return 'What was sent is no track and car, and no test. Send it again.'
  }
}

function begin({ laps, slower, faster }: { laps: number; slower: number; faster: number }): string | null {
  if (!sent || !('track' in sent)) return 'No track and no car were sent yet.'
  const { track, car } = sent
  const made = attempt(() => new LapDriver(track, car, { origin: track.origin ?? NOWHERE, bearingRad: track.bearingRad ?? 0, slower }))
  if (made instanceof CalculationError) return made.message
  driver = made
  queue = []
  drive = { laps, faster, startedAt: performance.now(), told: 0 }
  return null
}

function beginTest({ pairs, faster }: { pairs: number; faster: number }): string | null {
  if (!sent || !('test' in sent)) return 'No test was sent yet.'
  const { test } = sent
  const made = attempt(() => Array.from({ length: pairs }, () => (['out', 'back'] as const).map((way) => ({ way, rows: driveTest(test, way, noise) }))).flat())
  if (made instanceof CalculationError) return made.message
  driver = null
  queue = made
  runs = { ...runs, faster, startedAt: performance.now(), told: 0 }
  sayRun(true)
  return null
}

function sayRun(isOn: boolean): void {
  const [run] = queue
  if (!run) return
  if (isOn) runs.number += 1
  device.say({ type: 'run', run: runs.number, way: run.way, isOn })
}

/** The rows of a test that are due by now; behind the last of a run the next one begins. */
function tellTest(): void {
  const [run] = queue
  if (!run) return
  const timeS = ((performance.now() - runs.startedAt) / 1000) * runs.faster
  while (runs.told < run.rows.length && (run.rows[runs.told] as TestRow).timeS <= timeS) {
    const row = run.rows[runs.told++] as TestRow
    device.say({ type: 'log-sample', timeS: shown(row.timeS, 3), values: valuesOfTest(row) })
  }
  if (runs.told < run.rows.length) return
  sayRun(false)
  queue = queue.slice(1)
  runs = { ...runs, startedAt: performance.now(), told: 0 }
  sayRun(true)
}

const shown = (value: number, decimals: number) => Number(value.toFixed(decimals))

function valuesOf(row: DrivenRow): (number | null)[] {
  const bar = (pascal: number) => shown(Math.max(0, pascal / 1e5 + 0.1 * noise()), 1)
  return [
    shown(3.6 * (row.speedMps + 0.05 * noise()), 2),
    shown(row.engineRpm + 8 * noise(), 0),
    shown(100 * row.throttle, 0),
    bar(row.brakeFrontPa),
    bar(row.brakeRearPa),
    shown(row.alongMps2 / 9.80665 + 0.01 * noise(), 3),
    shown(row.acrossMps2 / 9.80665 + 0.01 * noise(), 3),
    hasPosition ? shown(row.latitudeDeg, 7) : null,
    hasPosition ? shown(row.longitudeDeg, 7) : null,
    shown(84 + 0.3 * noise(), 1),
    shown(104 + 0.3 * noise(), 1),
    // A pump's pressure rises with its speed up to the relief valve.
    shown(Math.min(5, 0.8 + row.engineRpm / 1500) + 0.02 * noise(), 2),
    ...Array.from({ length: 7 }, () => null),
  ]
}

function valuesOfTest({ speedMps, frontDamperM, rearDamperM, frontDropM, rearDropM, pitotPa }: TestRow): (number | null)[] {
  const mm = (value: number | null) => (value === null ? null : shown(1000 * value, 2))
  const over = (dropM: number | null) => (dropM === null ? null : mm(REST_M - dropM))
  const others = CHANNELS.slice(1, -7).map(() => null)
  return [
    shown(3.6 * speedMps, 2),
    ...others,
    mm(frontDamperM),
    mm(frontDamperM),
    mm(rearDamperM),
    mm(rearDamperM),
    over(frontDropM),
    over(rearDropM),
    shown(pitotPa, 1),
  ]
}

const status = () => ({
  type: 'log-status',
  clock: new Date().toISOString(),
  hasPosition,
  freeShare: 0.82,
  voltageV: shown(13.8 + 0.05 * noise(), 2),
  isRecording,
})

const device = serveStandIn({
  hello: (name, serial) => ({
    type: 'hello',
    protocol: 1,
    device: 'logger',
    name,
    serial,
    isSimulated: true,
    channels: CHANNELS.map(([channel, unit]) => ({ name: channel, unit, rateHz: ROWS_PER_S })),
  }),
  name: 'Simulated logger',
  greet: status,
  obey: (command) => {
    if (command.type === 'piece') return takePiece(command as unknown as Parameters<typeof takePiece>[0])
    if (command.type === 'drive') return begin(command as unknown as Parameters<typeof begin>[0])
    if (command.type === 'test') return beginTest(command as unknown as Parameters<typeof beginTest>[0])
    if (command.type === 'stop') {
      driver = null
      queue = []
    } else if (command.type === 'record') isRecording = command.isOn === true
    else if (command.type === 'sky') hasPosition = command.isOpen === true
    else if (command.type === 'silence') silentUntil = performance.now() + 1000 * Number(command.seconds)
    else return 'This logger does not know that command.'
    device.say(status())
    return null
  },
})

const isSilent = () => performance.now() < silentUntil

setInterval(() => {
  if (!isSilent()) tellTest()
  if (!driver || isSilent()) return
  const timeS = ((performance.now() - drive.startedAt) / 1000) * drive.faster
  const done = Math.min(drive.laps, Math.floor(timeS / driver.lapS))
  while (drive.told < done) device.say({ type: 'lap', lap: ++drive.told, lapS: shown(driver.lapS * (1 + 0.001 * noise()), 2) })
  if (done >= drive.laps) driver = null
  else device.say({ type: 'log-sample', timeS: shown(timeS, 3), values: valuesOf(driver.at(timeS)) })
}, 1000 / ROWS_PER_S)
setInterval(() => {
  if (!isSilent()) device.say(status())
}, STATUS_MS)
