import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'

export const GRIP_SCHOOLS = ['acceleration', 'driveForce'] as const
/** What the tyres hold at the limit: the whole car's acceleration, or the force alone, with turning masses on top (formulas F.8). */
export type GripSchool = (typeof GRIP_SCHOOLS)[number]
export const FRICTION_SCHOOLS = ['constant', 'loadSensitive'] as const
export type FrictionSchool = (typeof FRICTION_SCHOOLS)[number]
export const FRICTION_SCHOOL_WORDS: Record<FrictionSchool, string> = {
  constant: 'the same friction under any load',
  loadSensitive: 'friction that falls with load',
}

/** Torque by engine speed, left at the wheels: wheel power over engine speed. Straight between its points, nothing beyond them. */
export interface TorqueCurve {
  readonly speedRpm: readonly number[]
  readonly torqueNm: readonly number[]
}

/** How a car stands and holds the road; the names are those that rooms share. */
export interface Grounded {
  readonly massKg: number
  readonly wheelbaseM: number
  readonly frontShare: number
  readonly centreHeightM: number
  readonly drivenAxles: 'front' | 'rear' | 'all'
  /** Of a fixed split between the axles; null: both slip together. */
  readonly rearTorqueShare: number | null
  /** Peak friction of the driven tyres. */
  readonly friction: number
  readonly frictionSchool: FrictionSchool
  /** Friction lost for each time the load of a tyre at rest is added. */
  readonly loadSensitivity: number
  /** How much of the peak a driver uses. */
  readonly gripUse: number
  /** What the surface leaves of it: 1 dry. */
  readonly surfaceFactor: number
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  /** At the contact patches, down positive. */
  readonly downforceFrontM2: number
  readonly downforceRearM2: number
  readonly airDensityKgM3: number
}

/** A car that accelerates. */
export interface DriveCar extends Grounded {
  readonly curve: TorqueCurve
  /** What is left of the curve's torque at the wheels; 1 where it is already what is left there. */
  readonly driveEfficiency: number
  readonly primaryRatio: number
  readonly ratios: readonly number[]
  readonly finalRatio: number
  readonly radiusM: number
  /** Null: a usual share of the mass stands for all that turns. */
  readonly engineInertiaKgM2: number | null
  /** All wheels. */
  readonly wheelInertiaKgM2: number
  /** How much of the usual share counts where the inertia is unknown; 1 unless its doubt is asked. */
  readonly inertiaScale: number
  readonly topRpm: number
  readonly launchRpm: number
  readonly shiftS: number
  readonly gripSchool: GripSchool
  /** Whether the curve was measured on rollers: what the driven tyres take to roll is in it already. */
  readonly isOnRollers: boolean
}

export const GEAR_WORDS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'] as const
const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)

/**
 * Gears in order, each from 0.2 to 6 and smaller than the one before. Rejects others, with the gear's name.
 * @example requireRatios([3.4, 2.08, 1.46]).length // 3
 */
export function requireRatios(ratios: readonly number[]): readonly number[] {
  if (ratios.length < 1 || ratios.length > 10)
    throw new CalculationError('out-of-range', 'ratios', 'A gearbox has one to ten gears. Type their ratios, first to last.')
  ratios.forEach((ratio, i) => {
    const gear = GEAR_WORDS[i] as string
    if (!(ratio >= 0.2 && ratio <= 6)) throw new CalculationError('out-of-range', `ratios.${i}`, `${capital(gear)} (${ratio}) must lie from 0.2 to 6.`)
    const before = ratios[i - 1]
    if (before !== undefined && ratio >= before) {
      const words = `${capital(gear)} (${ratio.toFixed(2)}) must be smaller than ${GEAR_WORDS[i - 1]} (${before.toFixed(2)}). In order, first to last.`
      throw new CalculationError('inconsistent', `ratios.${i}`, words)
    }
  })
  return ratios
}

/** A curve of two points or more whose speeds rise. Rejects others. */
export function requireCurve({ speedRpm, torqueNm }: TorqueCurve): void {
  if (speedRpm.length < 2 || speedRpm.length !== torqueNm.length)
    throw new CalculationError('missing', 'curve', 'The curve needs two points or more, each with a speed and a torque.')
  speedRpm.forEach((speed, i) => {
    requireFinite(torqueNm[i] as number, `curve.torqueNm.${i}`)
    if (!(speed > 0 && speed <= 25_000))
      throw new CalculationError('out-of-range', `curve.speedRpm.${i}`, `curve.speedRpm is ${speed}; it lies from 0 to 25 000.`)
    if (i > 0 && speed <= (speedRpm[i - 1] as number))
      throw new CalculationError('inconsistent', `curve.speedRpm.${i}`, 'The speeds of the curve must rise from point to point.')
  })
}

/** How a car stands: mass, places, friction and air within what a car can be. Rejects what lies outside. */
export function requireGrounded(car: Grounded): void {
  requirePositive(car.massKg, 'massKg')
  requireWithin(car.wheelbaseM, 1, 5, 'wheelbaseM')
  requireWithin(car.frontShare, 0.05, 0.95, 'frontShare')
  requireWithin(car.centreHeightM, 0, 1.5, 'centreHeightM')
  if (car.rearTorqueShare !== null) requireWithin(car.rearTorqueShare, 0, 1, 'rearTorqueShare')
  if (!(car.friction > 0 && car.friction <= 3))
    throw new CalculationError('out-of-range', 'friction', `friction is ${car.friction}; it lies over 0 and up to 3: about 1 on the street, 1.5 on slicks.`)
  requireWithin(car.loadSensitivity, 0, 0.5, 'loadSensitivity')
  requireWithin(car.gripUse, 0.2, 1.2, 'gripUse')
  requireWithin(car.surfaceFactor, 0.1, 1.2, 'surfaceFactor')
  requireWithin(car.dragAreaM2, 0, 10, 'dragAreaM2')
  requireWithin(car.rollingCoefficient, 0, 0.2, 'rollingCoefficient')
  requireWithin(car.downforceFrontM2, -5, 20, 'downforceFrontM2')
  requireWithin(car.downforceRearM2, -5, 20, 'downforceRearM2')
  requireWithin(car.airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
}

/** The whole car: what `requireGrounded` asks, and gears, curve and engine speeds that fit each other. Rejects others. */
export function requireDriveCar(car: DriveCar): void {
  requireGrounded(car)
  requireRatios(car.ratios)
  requireCurve(car.curve)
  requireWithin(car.primaryRatio, 0.3, 4, 'primaryRatio')
  requireWithin(car.finalRatio, 0.5, 12, 'finalRatio')
  requireWithin(car.radiusM, 0.15, 0.5, 'radiusM')
  requireWithin(car.driveEfficiency, 0.5, 1, 'driveEfficiency')
  requireWithin(car.shiftS, 0, 3, 'shiftS')
  requireWithin(car.wheelInertiaKgM2, 0, 50, 'wheelInertiaKgM2')
  if (car.engineInertiaKgM2 !== null) requireWithin(car.engineInertiaKgM2, 0, 5, 'engineInertiaKgM2')
  const [first, last] = [car.curve.speedRpm[0] as number, car.curve.speedRpm.at(-1) as number]
  if (car.topRpm > last) throw new CalculationError('out-of-range', 'topRpm', `Pulls end at ${spaced(last)} rpm. Set it to that, or pull further.`)
  if (!(car.topRpm > first))
    throw new CalculationError('out-of-range', 'topRpm', `Pulls begin at ${spaced(first)} rpm. The top speed of the engine must lie above that.`)
  if (!(car.launchRpm >= first && car.launchRpm < car.topRpm)) {
    const words = `launchRpm is ${spaced(car.launchRpm)}; it lies from the curve’s first speed, ${spaced(first)}, to under the top speed of the engine, ${spaced(car.topRpm)}.`
    throw new CalculationError('inconsistent', 'launchRpm', words)
  }
}

const spaced = (rpm: number) =>
  Math.round(rpm)
    .toString()
    .replace(/\B(?=(\d{3})+$)/g, ' ')

/** What a car has where nobody says otherwise: no aero load, constant friction, grip at the car's acceleration, a curve from hubs. */
export const USUAL_DRIVE = {
  rearTorqueShare: null,
  frictionSchool: 'constant',
  loadSensitivity: 0.1,
  gripUse: 0.92,
  surfaceFactor: 1,
  dragAreaM2: 0.75,
  rollingCoefficient: 0.014,
  downforceFrontM2: 0,
  downforceRearM2: 0,
  airDensityKgM3: 1.2,
  driveEfficiency: 1,
  primaryRatio: 1,
  inertiaScale: 1,
  gripSchool: 'acceleration',
  isOnRollers: false,
} as const satisfies Partial<DriveCar>
