import { STANDARD_GRAVITY_MPS2 as G } from '../mass/suspension.ts'
import type { LapCar } from './lap-car.ts'

/** A place of a track as the car feels it. */
export interface Place {
  /** 1/m, left positive. */
  readonly curvaturePerM: number
  /** Rise over run, up positive. */
  readonly grade: number
  /** Leaning inward positive. */
  readonly camberRad: number
  readonly gripFactor: number
}

/** What the tyres can do at a place and a speed. */
export interface TyreLimits {
  readonly frontN: number
  readonly rearN: number
  readonly frontFriction: number
  readonly rearFriction: number
  /** The greater share of its friction that an axle uses to turn; over 1 the corner is not held. */
  readonly use: number
  /** What is left to pull and brake: √(1 − use²), 0 from use 1 on. */
  readonly left: number
  /** Air and rolling. */
  readonly resistanceN: number
  /** What gravity takes along the road. */
  readonly slopeN: number
  /** What the tyres would pull, and brake, in a straight line. */
  readonly tractionN: number
  readonly brakingN: number
}

/** Load of one axle of the reference car at rest, N. */
function restLoads(car: LapCar): { front: number; rear: number; massKg: number } {
  const massKg = car.reference?.massKg ?? car.massKg
  const share = car.reference?.frontShare ?? car.frontShare
  return { front: massKg * G * share, rear: massKg * G * (1 - share), massKg }
}

/**
 * The tyres of a car, asked by place and speed. A lap asks 30,000 times: an answer is the object itself, which the next question overwrites, and what stays the
 * same is worked out once.
 */
export class TyreModel implements TyreLimits {
  frontN = 0
  rearN = 0
  frontFriction = 0
  rearFriction = 0
  use = 0
  left = 0
  resistanceN = 0
  slopeN = 0
  tractionN = 0
  brakingN = 0
  readonly #car: LapCar
  readonly #frontKg: number
  readonly #rearKg: number
  readonly #frontRestN: number
  readonly #rearRestN: number
  /** Height of the centre over the wheelbase. */
  readonly #lift: number
  /** What moves to the outer tyres, over the load at rest, for each m/s² across. */
  readonly #moved: number
  readonly #peak: number

  constructor(car: LapCar) {
    const rest = restLoads(car)
    this.#car = car
    this.#frontKg = car.massKg * car.frontShare
    this.#rearKg = car.massKg * (1 - car.frontShare)
    this.#frontRestN = rest.front
    this.#rearRestN = rest.rear
    this.#lift = car.centreHeightM / car.wheelbaseM
    this.#moved = (2 * car.massKg * car.centreHeightM) / (car.trackM * rest.massKg * G)
    this.#peak = car.friction * car.gripFactor
  }

  #friction(loadN: number, restN: number, d: number, gripFactor: number): number {
    const k = this.#car.loadSensitivity
    const x = Math.max(loadN / restN, 1e-3)
    return Math.max(0.01, (this.#peak * gripFactor * ((1 + k) * x - k * (x * x + d * d))) / x)
  }

  #traction(f: number, r: number): number {
    const { drivenAxles, rearTorqueShare } = this.#car
    const H = this.#lift
    const front = Math.max(0, this.frontN + this.resistanceN * H)
    const rear = Math.max(0, this.rearN - this.resistanceN * H)
    if (drivenAxles === 'rear') return r * H < 1 ? (r * rear) / (1 - r * H) : this.frontN / H
    if (drivenAxles === 'front') return (f * front) / (1 + f * H)
    if (rearTorqueShare === null) return f * this.frontN + r * this.rearN
    const atFront = (f * front) / (1 - rearTorqueShare + f * H)
    return rearTorqueShare > r * H ? Math.min(atFront, (r * rear) / (rearTorqueShare - r * H)) : atFront
  }

  #braking(f: number, r: number): number {
    const p = this.#car.brakeFrontShare
    const H = this.#lift
    if (p === null) return f * this.frontN + r * this.rearN
    const rear = (r * Math.max(0, this.rearN - this.resistanceN * H)) / (1 - p + r * H)
    return p > f * H ? Math.min(rear, (f * (this.frontN + this.resistanceN * H)) / (p - f * H)) : rear
  }

  /** What the tyres can do there; good until it is asked again. */
  at(place: Place, speedMps: number): TyreLimits {
    const { massKg, frontShare, airDensityKgM3, downforceFrontM2, downforceRearM2, dragAreaM2, rollingCoefficient } = this.#car
    const v2 = speedMps * speedMps
    const bend = Math.abs(place.curvaturePerM) * v2
    const sin = place.camberRad === 0 ? 0 : Math.sin(place.camberRad)
    const cos = place.camberRad === 0 ? 1 : Math.cos(place.camberRad)
    const slope = Math.sqrt(1 + place.grade * place.grade)
    const down = G / slope
    const across = bend * cos - down * sin
    const pressed = down * cos + bend * sin
    const q = 0.5 * airDensityKgM3 * v2
    const d = Math.abs(across) * this.#moved
    this.frontN = Math.max(1, this.#frontKg * pressed + q * downforceFrontM2)
    this.rearN = Math.max(1, this.#rearKg * pressed + q * downforceRearM2)
    const f = this.#friction(this.frontN, this.#frontRestN, d, place.gripFactor)
    const r = this.#friction(this.rearN, this.#rearRestN, d, place.gripFactor)
    const side = massKg * Math.abs(across)
    this.frontFriction = f
    this.rearFriction = r
    this.use = Math.max((side * frontShare) / (f * this.frontN), (side * (1 - frontShare)) / (r * this.rearN))
    this.left = this.use < 1 ? Math.sqrt(1 - this.use * this.use) : 0
    this.resistanceN = q * dragAreaM2 + rollingCoefficient * massKg * pressed
    this.slopeN = massKg * G * (place.grade / slope)
    this.tractionN = this.#traction(f, r)
    this.brakingN = this.#braking(f, r)
    return this
  }
}

/**
 * What the tyres of a car can do at a place and a speed. Each axle carries its share of m (g cos b + |K| v² sin b) and of the air; its friction falls with load
 * and with what moves to the outer tyres, μ = f μ0 [(1 + k) x − k (x² + d²)]/x; the axle that gives up first sets the corner, and √(1 − use²) of both is left
 * to pull and brake, with load transfer by H = h/L. Source: the room's page; F.5, H.5, H.6. The answer is one object that the next question overwrites.
 * @example tyreLimits(LAP_CAR).at({ curvaturePerM: 1 / 88, grade: 0, camberRad: 0, gripFactor: 1 }, 30).use // 0.83372
 */
export const tyreLimits = (car: LapCar): TyreModel => new TyreModel(car)

/** No car on wheels is faster. */
export const FASTEST_MPS = 150
const SCAN_MPS = 2

/**
 * The fastest that a place is driven, m/s: the first speed at which what the turning leaves of the traction no longer overcomes air, rolling and slope.
 * Found by steps of 2 m/s and by halving; 150 m/s where nothing holds it. Source: the room's page.
 * @example cornerSpeed(tyreLimits(LAP_CAR), { curvaturePerM: 1 / 88, grade: 0, camberRad: 0, gripFactor: 1 }) // 32.595
 */
export function cornerSpeed(tyres: TyreModel, place: Place): number {
  const isHeld = (speed: number) => {
    const { use, left, tractionN, resistanceN, slopeN } = tyres.at(place, speed)
    return use < 1 && left * tractionN >= resistanceN + slopeN
  }
  // On a straight nothing turns: what pulls less than it resists is a matter of the engine, not of the corner.
  if (place.curvaturePerM === 0 && place.camberRad === 0) return FASTEST_MPS
  let low = 0.1
  while (low < FASTEST_MPS && isHeld(low + SCAN_MPS)) low += SCAN_MPS
  if (low >= FASTEST_MPS) return FASTEST_MPS
  let high = low + SCAN_MPS
  for (let round = 0; round < 50 && high - low > 1e-9; round++) {
    const middle = 0.5 * (low + high)
    if (isHeld(middle)) low = middle
    else high = middle
  }
  return low
}
