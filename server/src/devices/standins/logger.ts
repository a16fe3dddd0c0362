import { attempt, CalculationError, type DrivenRow, type LapCar, LapDriver, type TrackLine } from '@bold-ballast/core'
import { noiseFrom, serveStandIn } from './stand-in.ts'

// A simulated logger as a process of its own: node logger.js PORT [NAME]. It drives laps of the track and car it was sent, in pieces of one text, and says what
// a logger would: its own state each second, ten rows a second of what the car does, and each lap. It can be told not to record, to lose the sky, and to fall silent.

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
] as const

interface Sent {
  readonly track: TrackLine & { readonly origin: { latitudeDeg: number; longitudeDeg: number } | null; readonly bearingRad: number | null }
  readonly car: LapCar
}

const noise = noiseFrom(20_261_129)
let pieces: string[] = []
let sent: Sent | null = null
let driver: LapDriver | null = null
let drive = { laps: 0, faster: 1, startedAt: 0, told: 0 }
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
    sent = JSON.parse(whole) as Sent
    return null
  } catch {
    return 'What was sent is no track and car. Send it again.'
  }
}

function begin({ laps, slower, faster }: { laps: number; slower: number; faster: number }): string | null {
  if (!sent) return 'No track and no car were sent yet.'
  const { track, car } = sent
  const made = attempt(() => new LapDriver(track, car, { origin: track.origin ?? NOWHERE, bearingRad: track.bearingRad ?? 0, slower }))
  if (made instanceof CalculationError) return made.message
  driver = made
  drive = { laps, faster, startedAt: performance.now(), told: 0 }
  return null
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
    if (command.type === 'stop') driver = null
    else if (command.type === 'record') isRecording = command.isOn === true
    else if (command.type === 'sky') hasPosition = command.isOpen === true
    else if (command.type === 'silence') silentUntil = performance.now() + 1000 * Number(command.seconds)
    else return 'This logger does not know that command.'
    device.say(status())
    return null
  },
})

const isSilent = () => performance.now() < silentUntil

setInterval(() => {
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
