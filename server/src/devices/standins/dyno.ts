import type { DynoSample, SimulatedCar } from '@bold-ballast/contract'
import { noiseFrom, serveStandIn } from './stand-in.ts'

// A simulated dyno as a process of its own: node dyno.js PORT [NAME]. It speaks the protocol of docs/device-protocol.md on loopback, makes a pull of the car
// it is told, by inertia or held by its brake, with noise, air and heat soak, and can be stopped in the middle.

const SAMPLES_PER_S = 50
const STEP_S = 1 / SAMPLES_PER_S
const STATUS_MS = 1000
/** Half of the heat of a pull is gone after so long. */
const COOLING_HALF_S = 180
const RISING_SHARE = 0.92
const WARM_COOLANT_K = 361
const BASE_FUEL_PA = 300_000

let car: SimulatedCar = {
  torqueCurve: [
    { speedRpm: 2500, torqueNm: 210 },
    { speedRpm: 3500, torqueNm: 330 },
    { speedRpm: 4500, torqueNm: 370 },
    { speedRpm: 6000, torqueNm: 350 },
    { speedRpm: 7200, torqueNm: 290 },
  ],
  mode: 'brake',
  inertiaKgM2: 1.1,
  rateRpmPerS: 500,
  boostPa: 90_000,
  ambient: { pressurePa: 100_400, temperatureK: 295.15, relativeHumidity: 0.5 },
  noiseShare: 0.004,
  soakShare: 0.006,
}
const noise = noiseFrom(20_261_125)
let pull = 0
let ended: 'none' | 'whole' | 'stopped' = 'none'
let running: { timeS: number; speedRpm: number } | null = null
/** How many pulls' heat is in it. */
let heat = 0

function torqueAt(speedRpm: number): number {
  const curve = [...car.torqueCurve].sort((a, b) => a.speedRpm - b.speedRpm)
  const above = curve.findIndex((point) => point.speedRpm >= speedRpm)
  const [high, low] = [curve[above], curve[above - 1]]
  if (!high) return curve.at(-1)?.torqueNm ?? 0
  if (!low) return high.torqueNm
  return low.torqueNm + ((high.torqueNm - low.torqueNm) * (speedRpm - low.speedRpm)) / (high.speedRpm - low.speedRpm)
}

/** Density of the air over that of 99 kPa and 298 K, dry: what a naturally aspirated engine would follow; vapour is left out. */
const airShare = () => (car.ambient.pressurePa / 99_000) * (298 / car.ambient.temperatureK)

function sample(): DynoSample {
  const { timeS, speedRpm } = running as NonNullable<typeof running>
  const strength = airShare() * (1 - car.soakShare * heat)
  const torqueNm = torqueAt(speedRpm) * strength * (1 + car.noiseShare * noise())
  const speeds = car.torqueCurve.map((point) => point.speedRpm)
  const way = (speedRpm - Math.min(...speeds)) / (Math.max(...speeds) - Math.min(...speeds))
  const boost = car.boostPa === 0 ? 0 : Math.round(car.boostPa * Math.min(1, 0.4 + 2 * way) + 400 * noise())
  return {
    type: 'sample',
    pull,
    timeS: Number(timeS.toFixed(3)),
    speedRpm: Number(speedRpm.toFixed(1)),
    torqueNm: Number(torqueNm.toFixed(2)),
    powerW: Number(((torqueNm * speedRpm * Math.PI) / 30).toFixed(0)),
    boostPa: car.boostPa === 0 ? null : boost,
    lambda: Number((0.86 - 0.06 * way + 0.004 * noise()).toFixed(3)),
    intakeK: Number((car.ambient.temperatureK + 8 + 6 * heat + 14 * way + 0.2 * noise()).toFixed(2)),
    coolantK: Number((WARM_COOLANT_K + 3 * heat + 4 * way + 0.1 * noise()).toFixed(2)),
    // The regulator holds its base above the boost; the pumps lose a little of it as the flow rises.
    fuelPressurePa: Math.round(BASE_FUEL_PA + boost - 8000 * way + 500 * noise()),
  }
}

/** One step of the pull: by its own torque against the inertia, or at the rate the brake allows. */
function advance(): void {
  if (!running) return
  const radPerS2 = car.mode === 'inertia' ? (torqueAt(running.speedRpm) * airShare() * RISING_SHARE) / car.inertiaKgM2 : (car.rateRpmPerS * Math.PI) / 30
  running = { timeS: running.timeS + STEP_S, speedRpm: running.speedRpm + (radPerS2 * STEP_S * 30) / Math.PI }
}

function end(how: 'whole' | 'stopped'): void {
  running = null
  ended = how
  heat += 1
  device.say(status())
}

const status = () => ({ type: 'status', isPulling: running !== null, pull, ambient: car.ambient, ended })

const device = serveStandIn({
  hello: (name, serial) => ({ type: 'hello', protocol: 1, device: 'dyno', name, serial, place: 'hub', samplesPerS: SAMPLES_PER_S, isSimulated: true }),
  name: 'Simulated hub dyno',
  greet: status,
  obey: (command) => {
    if (command.type === 'car') {
      if (running) return 'A pull is running. Stop it before the car is changed.'
      car = command.car as SimulatedCar
    } else if (command.type === 'pull') {
      if (running) return 'A pull is running already.'
      pull += 1
      ended = 'none'
      running = { timeS: 0, speedRpm: Math.min(...car.torqueCurve.map((point) => point.speedRpm)) }
    } else if (command.type === 'stop') {
      if (!running) return 'No pull is running.'
      end('stopped')
    } else if (command.type === 'cool') heat = 0
    else return 'This dyno does not know that command.'
    device.say(status())
    return null
  },
})

let due = performance.now()
setInterval(() => {
  const now = performance.now()
  // As many steps as are due, so that a slow machine keeps the rate.
  while (due <= now) {
    due += STEP_S * 1000
    heat *= 0.5 ** (STEP_S / COOLING_HALF_S)
    if (!running) continue
    device.say(sample())
    advance()
    if (running.speedRpm > Math.max(...car.torqueCurve.map((point) => point.speedRpm))) end('whole')
  }
}, STEP_S * 1000)
setInterval(() => device.say(status()), STATUS_MS)
