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

/** Writable inside this file alone: a lap asks 10,000 times, and one object each time would cost more than the sums. */
type Scratch = { -readonly [Key in keyof TyreLimits]: TyreLimits[Key] }

/** What the tyres of a car can do, asked by place and speed. Each answer is overwritten by the next. */
export type AskLimits = (place: Place, speedMps: number) => TyreLimits

/** Load of one axle of the reference car at rest, N. */
function restLoads(car: LapCar): { front: number; rear: number; massKg: number } {
  const massKg = car.reference?.massKg ?? car.massKg
  const share = car.reference?.frontShare ?? car.frontShare
  return { front: massKg * G * share, rear: massKg * G * (1 - share), massKg }
}

/**
 * What the tyres of a car can do at a place and a speed. Each axle carries its share of m (g cos b + |K| v² sin b) and of the air; its friction falls with load
 * and with what moves to the outer tyres, μ = f μ0 [(1 + k) x − k (x² + d²)]/x; the axle that gives up first sets the corner, and √(1 − use²) of both is left
 * to pull and brake, with load transfer by H = h/L. Source: the room's page; F.5, H.5, H.6. The answer is one object that the next question overwrites.
 * @example tyreLimits(LAP_CAR)({ curvaturePerM: 1 / 88, grade: 0, camberRad: 0, gripFactor: 1 }, 30).use // 0.83372
 */
export function tyreLimits(car: LapCar): AskLimits {
  const { massKg, frontShare, loadSensitivity: k, drivenAxles, rearTorqueShare, brakeFrontShare: p, rollingCoefficient } = car
  const rest = restLoads(car)
  const H = car.centreHeightM / car.wheelbaseM
  const halfDensity = 0.5 * car.airDensityKgM3
  const moved = (2 * massKg * car.centreHeightM) / (car.trackM * rest.massKg * G)
  const peak = car.friction * car.gripFactor
  const out: Scratch = { frontN: 0, rearN: 0, frontFriction: 0, rearFriction: 0, use: 0, left: 0, resistanceN: 0, slopeN: 0, tractionN: 0, brakingN: 0 }
  const friction = (loadN: number, restN: number, d: number, place: Place) => {
    const x = Math.max(loadN / restN, 1e-3)
    return Math.max(0.01, (peak * place.gripFactor * ((1 + k) * x - k * (x * x + d * d))) / x)
  }
  const traction = (f: number, r: number, N: Scratch) => {
    const front = Math.max(0, N.frontN + N.resistanceN * H)
    const rear = Math.max(0, N.rearN - N.resistanceN * H)
    if (drivenAxles === 'rear') return r * H < 1 ? (r * rear) / (1 - r * H) : N.frontN / H
    if (drivenAxles === 'front') return (f * front) / (1 + f * H)
    if (rearTorqueShare === null) return f * N.frontN + r * N.rearN
    const atFront = (f * front) / (1 - rearTorqueShare + f * H)
    return rearTorqueShare > r * H ? Math.min(atFront, (r * rear) / (rearTorqueShare - r * H)) : atFront
  }
  const braking = (f: number, r: number, N: Scratch) => {
    if (p === null) return f * N.frontN + r * N.rearN
    const rear = (r * Math.max(0, N.rearN - N.resistanceN * H)) / (1 - p + r * H)
    return p > f * H ? Math.min(rear, (f * (N.frontN + N.resistanceN * H)) / (p - f * H)) : rear
  }
  return (place, speedMps) => {
    const v2 = speedMps * speedMps
    const bend = Math.abs(place.curvaturePerM) * v2
    const sin = place.camberRad === 0 ? 0 : Math.sin(place.camberRad)
    const cos = place.camberRad === 0 ? 1 : Math.cos(place.camberRad)
    const slope = Math.sqrt(1 + place.grade * place.grade)
    const along = place.grade / slope
    const down = G / slope
    const across = bend * cos - down * sin
    const pressed = down * cos + bend * sin
    const q = halfDensity * v2
    const d = Math.abs(across) * moved
    out.frontN = Math.max(1, massKg * frontShare * pressed + q * car.downforceFrontM2)
    out.rearN = Math.max(1, massKg * (1 - frontShare) * pressed + q * car.downforceRearM2)
    const f = friction(out.frontN, rest.front, d, place)
    const r = friction(out.rearN, rest.rear, d, place)
    const side = massKg * Math.abs(across)
    out.frontFriction = f
    out.rearFriction = r
    out.use = Math.max((side * frontShare) / (f * out.frontN), (side * (1 - frontShare)) / (r * out.rearN))
    out.left = out.use < 1 ? Math.sqrt(1 - out.use * out.use) : 0
    out.resistanceN = q * car.dragAreaM2 + rollingCoefficient * massKg * pressed
    out.slopeN = massKg * G * along
    out.tractionN = traction(f, r, out)
    out.brakingN = braking(f, r, out)
    return out
  }
}

/** No car on wheels is faster. */
export const FASTEST_MPS = 150
const SCAN_MPS = 2

/**
 * The fastest that a place is driven, m/s: the first speed at which what the turning leaves of the traction no longer overcomes air, rolling and slope.
 * Found by steps of 2 m/s and by halving; 150 m/s where nothing holds it. Source: the room's page.
 * @example cornerSpeed(tyreLimits(LAP_CAR), { curvaturePerM: 1 / 88, grade: 0, camberRad: 0, gripFactor: 1 }) // 32.595
 */
export function cornerSpeed(ask: AskLimits, place: Place): number {
  const isHeld = (speed: number) => {
    const { use, left, tractionN, resistanceN, slopeN } = ask(place, speed)
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
