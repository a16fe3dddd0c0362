import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import { rootBetween } from '../stats/root.ts'
import { signChange } from './integrate.ts'

/** A car that slides with its rear wheels driven together. */
export interface SlidingCar {
  readonly massKg: number
  readonly wheelbaseM: number
  readonly frontShare: number
  readonly centreHeightM: number
  /** Of the rear tyres while they slide. */
  readonly slidingFriction: number
  /** How far the front tyres run off their path. */
  readonly frontSlipRad: number
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  readonly airDensityKgM3: number
}

/** What it takes to keep a speed and an angle. */
export interface SlideState {
  readonly yawRateRadPerS: number
  readonly rearLoadN: number
  /** Between the force of the rear tyres and the wheel's own direction. */
  readonly forceAngleRad: number
  readonly wheelSpeedMps: number
  readonly powerW: number
  /** Of it: what the sliding tyres turn to heat, what keeps the car on its path, and rolling. */
  readonly slidingW: number
  readonly pathW: number
  readonly rollingW: number
  readonly radiusM: number
  /** Friction that the front tyres need. */
  readonly frontNeeds: number
  /** At the wheels, into the slide. */
  readonly steeringRad: number
}

const LEAST_ANGLE = (2 * Math.PI) / 180
const MOST_ANGLE = (80 * Math.PI) / 180

function requireSliding(car: SlidingCar, speedMps: number, slideAngleRad: number): void {
  requirePositive(car.massKg, 'massKg')
  requireWithin(car.wheelbaseM, 1, 5, 'wheelbaseM')
  requireWithin(car.frontShare, 0.05, 0.95, 'frontShare')
  requireWithin(car.centreHeightM, 0, 1.5, 'centreHeightM')
  requireWithin(car.slidingFriction, 0.05, 3, 'slidingFriction')
  requireWithin(car.frontSlipRad, 0, 0.5, 'frontSlipRad')
  requireWithin(car.dragAreaM2, 0, 10, 'dragAreaM2')
  requireWithin(car.rollingCoefficient, 0, 0.2, 'rollingCoefficient')
  requireWithin(car.airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requireWithin(speedMps, 1, 120, 'speedMps')
  if (!(slideAngleRad >= LEAST_ANGLE && slideAngleRad <= MOST_ANGLE))
    throw new CalculationError('out-of-range', 'slideAngleRad', 'A slide is held at 2 to 80 degrees: under that it is none, over that no steering keeps it.')
}

/** Forces of a slide that turns at a yaw rate, with the yaw rate that they would give. */
function slideAt(car: SlidingCar, V: number, B: number, w: number) {
  const { massKg: m, wheelbaseM: L, frontShare, centreHeightM: h, slidingFriction: mu, frontSlipRad: f, dragAreaM2: C, rollingCoefficient: c } = car
  const [a, b] = [(1 - frontShare) * L, frontShare * L]
  const q = 0.5 * car.airDensityKgM3 * V * V
  const ax = w * (V * Math.sin(B) - b * w)
  const N = (m * (STANDARD_GRAVITY_MPS2 * a + ax * h)) / L
  const Nf = m * STANDARD_GRAVITY_MPS2 - N
  const path = Math.atan2(V * Math.sin(B) - L * w, V * Math.cos(B))
  const steering = path - f
  const s = (b * Math.sin(f) * Math.cos(B)) / (a * Math.cos(steering) * Math.cos(path))
  const j = (c * Nf + q * C) / (mu * N)
  const A = Math.hypot(Math.cos(B), Math.sin(B) + s)
  const theta = Math.acos(Math.max(-1, Math.min(1, j / A))) - Math.atan2(Math.sin(B) + s, Math.cos(B))
  const sideN = mu * N * Math.sin(theta)
  const turns = (sideN * L) / (m * a * V * Math.cos(B))
  const frontNeeds = (sideN * b) / (a * Math.cos(steering) * Nf)
  return { N, Nf, theta, steering, frontNeeds, sideN, turns, isPossible: j < A && N > 0 && Nf > 0 && theta > 0 }
}

const STEPS = 60

/** The first root from 0 on, found in steps. */
function firstRoot(excess: (w: number) => number, most: number): number {
  for (let step = 0; step < STEPS; step++) {
    const [from, to] = [(most * step) / STEPS, (most * (step + 1)) / STEPS]
    if (excess(from) < 0 && excess(to) >= 0) {
      const root = rootBetween(excess, from, to)
      if (Math.abs(excess(root)) < 1e-9) return root
    }
  }
  return Number.NaN
}

/** The slide by the root of its yaw rate; undefined where no force keeps it. */
function solve(car: SlidingCar, V: number, B: number): SlideState | undefined {
  const excess = (w: number) => w - slideAt(car, V, B, w).turns
  const most = (4 * STANDARD_GRAVITY_MPS2) / V
  if (!(excess(0) < 0 && excess(most) > 0)) return undefined
  const found = rootBetween(excess, 0, most)
  // Where the steering passes a right angle the balance jumps: a change of sign there is no root. The first true one is looked for step by step.
  const w = Math.abs(excess(found)) < 1e-9 ? found : firstRoot(excess, most)
  const { N, theta, steering, frontNeeds, sideN, isPossible } = slideAt(car, V, B, w)
  if (!isPossible) return undefined
  const driveN = car.slidingFriction * N * Math.cos(theta)
  const rollingN = car.rollingCoefficient * N
  const wheelSpeedMps = V * Math.cos(B) + (V * Math.sin(B)) / Math.tan(theta)
  return {
    yawRateRadPerS: w,
    rearLoadN: N,
    forceAngleRad: theta,
    wheelSpeedMps,
    powerW: (driveN + rollingN) * wheelSpeedMps,
    // The tyre slides backwards and sideways; what that does not take goes into the car.
    slidingW: car.slidingFriction * N * Math.hypot(wheelSpeedMps - V * Math.cos(B), V * Math.sin(B)),
    pathW: driveN * V * Math.cos(B) - sideN * V * Math.sin(B),
    rollingW: rollingN * wheelSpeedMps,
    radiusM: V / w,
    frontNeeds,
    steeringRad: steering,
  }
}

/**
 * What it takes to hold a slide at a speed (of the middle of the rear axle, 1 to 120 m/s) and an angle (2 to 80 degrees): speed is kept and yaw is
 * balanced. Rear drive, both rear wheels at one speed; friction of a sliding tyre opposes its sliding. The yaw rate is found as a root.
 * Without resistance and front slip wheels turn at V/cos B and the power is μ N V tan B. Source: F.11 and the room's page. Rejects a slide that no
 * force keeps.
 * @example holdSlide(SLIDING, 20, Math.PI / 5).rearLoadN // 7137.95
 */
export function holdSlide(car: SlidingCar, speedMps: number, slideAngleRad: number): SlideState {
  requireSliding(car, speedMps, slideAngleRad)
  const found = solve(car, speedMps, slideAngleRad)
  if (found) return found
  const words = 'No drive force keeps the car at that speed and angle: it slows down. Take a smaller angle, or more friction.'
  throw new CalculationError('out-of-range', 'slideAngleRad', words)
}

const [SLOWEST_MPS, FASTEST_MPS] = [1, 120]

/**
 * The speed at which a slide of an angle goes round a radius (5 to 500 m), m/s; undefined where none does.
 * @example slideSpeedMps(SLIDING, 58, 0.6981317) // 24.360
 */
export function slideSpeedMps(car: SlidingCar, cornerRadiusM: number, slideAngleRad: number): number | undefined {
  requireSliding(car, SLOWEST_MPS, slideAngleRad)
  requireWithin(cornerRadiusM, 5, 500, 'cornerRadiusM')
  const isWide = (speed: number) => (solve(car, speed, slideAngleRad)?.radiusM ?? Number.POSITIVE_INFINITY) > cornerRadiusM
  if (isWide(SLOWEST_MPS) || !isWide(FASTEST_MPS)) return undefined
  // The radius grows with speed by about its square: a few steps bring the ends so near that a root is found at once.
  let [low, high] = [SLOWEST_MPS, FASTEST_MPS]
  for (let halvings = 0; halvings < 4; halvings++) {
    const middle = Math.sqrt(low * high)
    if (isWide(middle)) high = middle
    else low = middle
  }
  const over = (speed: number) => (solve(car, speed, slideAngleRad)?.radiusM ?? Number.NaN) - cornerRadiusM
  const found = Number.isFinite(over(low)) && Number.isFinite(over(high)) ? rootBetween(over, low, high) : Number.NaN
  if (Math.abs(over(found)) < 1e-9 * cornerRadiusM) return found
  return signChange((speed) => (isWide(speed) ? 1 : -1), low, high)
}
