import { requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { type Lap, lapOf } from '../track/lap.ts'
import type { LapCar } from '../track/lap-car.ts'
import { type TrackLine, trackShape } from '../track/track.ts'
import { USUAL_SLIP } from './log-power.ts'
import { metresPerDegree, type Origin } from './plane.ts'

/** One row of what a logger would write of a lap that the model drives. */
export interface DrivenRow {
  readonly timeS: number
  readonly latitudeDeg: number
  readonly longitudeDeg: number
  readonly speedMps: number
  readonly engineRpm: number
  readonly throttle: number
  readonly brakeFrontPa: number
  readonly brakeRearPa: number
  readonly alongMps2: number
  readonly acrossMps2: number
  readonly lap: number
}

const RPM = Math.PI / 30
/** What a hard stop shows at both ends, Pa for each m/s² (common practice, no source). */
const FRONT_PA = 450_000
const REAR_PA = 310_000
const CORNER_THROTTLE = 0.35

/** Laps of the model as a logger sees them: its rows at an even rate, from the line on; each lap takes so much longer than the model's. */
export class LapDriver {
  readonly lapS: number
  private readonly lap: Lap
  private readonly shape: ReturnType<typeof trackShape>
  private readonly car: LapCar
  private readonly origin: Origin
  private readonly bearingRad: number
  private readonly slower: number
  private readonly perDegree: { readonly north: number; readonly east: number }

  /** Rejects what `lapOf` rejects, and a track without a place on the Earth. */
  constructor(track: TrackLine, car: LapCar, { origin, bearingRad, slower = 1 }: { origin: Origin; bearingRad: number; slower?: number }) {
    requireWithin(slower, 0.9, 2, 'slower')
    // The road takes what slip of the tyres leaves.
    const own = { ...car, curve: { ...car.curve, powerW: car.curve.powerW.map((power) => power / (1 + USUAL_SLIP.share)) } }
    this.car = own
    this.lap = lapOf(track, own)
    this.shape = trackShape(track, 1)
    this.slower = slower
    this.lapS = this.lap.lapS * slower
    this.origin = origin
    this.bearingRad = bearingRad
    this.perDegree = metresPerDegree(origin)
  }

  /** The row at a moment since the first line; laps follow each other. */
  at(timeS: number): DrivenRow {
    const { lap, shape, slower, car } = this
    const turns = Math.floor(timeS / this.lapS)
    const own = (timeS - turns * this.lapS) / slower
    let [low, high] = [0, lap.timeS.length - 1]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (itemAt(lap.timeS, middle) <= own) low = middle
      else high = middle
    }
    const whole = itemAt(lap.timeS, low + 1) - itemAt(lap.timeS, low)
    const share = whole > 0 ? Math.min(1, (own - itemAt(lap.timeS, low)) / whole) : 0
    const between = (list: ArrayLike<number>) => itemAt(list, low) * (1 - share) + itemAt(list, low + 1) * share
    const speedMps = between(lap.speedMps) / slower
    const cell = itemAt(lap.cells, low)
    const alongMps2 = (itemAt(lap.speedMps, low + 1) ** 2 - itemAt(lap.speedMps, low) ** 2) / (2 * cell.lengthM) / slower ** 2
    const holder = itemAt(lap.holder, low)
    const braking = Math.max(0, -alongMps2 - 0.3)
    const [x, y] = [between(shape.x), between(shape.y)]
    const [cos, sin] = [Math.cos(this.bearingRad), Math.sin(this.bearingRad)]
    const ratio = car.gears?.overallRatios[itemAt(lap.gear, low) - 1]
    return {
      timeS,
      latitudeDeg: this.origin.latitudeDeg + (x * sin + y * cos) / this.perDegree.north,
      longitudeDeg: this.origin.longitudeDeg + (x * cos - y * sin) / this.perDegree.east,
      speedMps,
      engineRpm: ratio && car.gears ? (speedMps * (1 + USUAL_SLIP.share) * ratio) / car.gears.radiusM / RPM : 0,
      throttle: holder === 'power' || holder === 'gear' ? 1 : holder === 'grip' ? CORNER_THROTTLE : 0,
      brakeFrontPa: FRONT_PA * braking,
      brakeRearPa: REAR_PA * braking,
      alongMps2,
      acrossMps2: speedMps ** 2 * cell.curvaturePerM,
      lap: turns + 1,
    }
  }
}
