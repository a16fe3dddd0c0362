import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { type Grounded, requireGrounded, requireRatios } from './drive-car.ts'
import { gripLimitN } from './traction.ts'

export const SHOCK_SCHOOLS = ['engineOnly', 'both'] as const
/** What shock multiplies: the engine's side alone, because tyres cap what is steady, or the tyres' limit too, because hop goes past it. */
export type ShockSchool = (typeof SHOCK_SCHOOLS)[number]
export const SHOCK_SCHOOL_WORDS: Record<ShockSchool, string> = {
  engineOnly: 'the engine’s side alone: tyres cap what is steady',
  both: 'the tyres’ limit too: an axle that hops goes past it',
}
export const DRIVE_USES = ['circuit', 'kerbs', 'clutchKicks', 'dragLaunch'] as const
export type DriveUse = (typeof DRIVE_USES)[number]
/** How many times its steady torque a driveline meets by how it is used (common practice, no source). */
export const SHOCK_OF_USE: Record<DriveUse, number> = { circuit: 1.5, kerbs: 2, clutchKicks: 2.5, dragLaunch: 2.5 }
export const DRIVE_USE_WORDS: Record<DriveUse, string> = {
  circuit: 'a circuit',
  kerbs: 'kerbs taken hard',
  clutchKicks: 'clutch kicks',
  dragLaunch: 'launches on sticky tyres',
}

export const DIFFERENTIAL_KINDS = ['open', 'plate', 'helical', 'welded'] as const
export type DifferentialKind = (typeof DIFFERENTIAL_KINDS)[number]
export const USUAL_BIAS_RATIO = 2.5

/**
 * The share of an axle's torque that one shaft may have to carry: half with an open differential, bias/(1 + bias) with a plate or helical one, 0.7 welded
 * (common practice, no source). Rejects a bias ratio outside 1 to 10.
 * @example shaftShare('plate', 2.5) // 0.714286
 */
export function shaftShare(kind: DifferentialKind, biasRatio = USUAL_BIAS_RATIO): number {
  if (kind === 'open') return 0.5
  if (kind === 'welded') return 0.7
  if (!(biasRatio >= 1 && biasRatio <= 10))
    throw new CalculationError('out-of-range', 'biasRatio', `A bias ratio of ${biasRatio} is none: 1 (open) to 10, usually 1.5 to 4.`)
  return biasRatio / (1 + biasRatio)
}

export interface TorquePathInput {
  /** What the tyres can hold: peak friction on the dry, without air. */
  readonly car: Grounded
  readonly radiusM: number
  readonly primaryRatio: number
  readonly ratios: readonly number[]
  readonly finalRatio: number
  /** The engine's greatest torque at the crank, and what is left of it at the wheels. */
  readonly crankTorqueNm: number
  readonly efficiency: number
  /** The gearbox's part of that; its square root where nobody knows. */
  readonly gearboxEfficiency?: number | undefined
  readonly shockFactor: number
  readonly shockSchool: ShockSchool
  /** What the clutch carries and how much more it holds before it slips; without one nothing slips. */
  readonly clutch?: { readonly torqueNm: number; readonly holding: number; readonly isBehindPrimary: boolean } | undefined
  readonly shaftShareFront?: number | undefined
  readonly shaftShareRear?: number | undefined
}

/** What each place of the driveline meets in one gear, N m. */
export interface GearPath {
  readonly gear: number
  readonly limitedBy: 'tyres' | 'engine'
  readonly gearboxNm: number
  readonly propNm: number
  readonly frontAxleNm: number
  readonly rearAxleNm: number
  readonly frontShaftNm: number
  readonly rearShaftNm: number
}

export interface TorquePath {
  /** At the crank: shock times torque, or what the clutch lets through. */
  readonly engineSideNm: number
  readonly isClutchTheFuse: boolean
  readonly frontGripNm: number
  readonly rearGripNm: number
  readonly gears: GearPath[]
}

/** What the driven axles hold at the tyres, N m each. */
function axleGrip(input: TorquePathInput): { front: number; rear: number } {
  const { car, radiusM, shockSchool, shockFactor } = input
  const bare: Grounded = { ...car, gripUse: 1, surfaceFactor: 1, rollingCoefficient: 0, dragAreaM2: 0, downforceFrontM2: 0, downforceRearM2: 0 }
  const times = shockSchool === 'both' ? shockFactor : 1
  const whole = gripLimitN(bare, 0, 1)
  const held = (forceN: number) => forceN * radiusM * times
  if (car.drivenAxles === 'rear') return { front: 0, rear: held(whole) }
  if (car.drivenAxles === 'front') return { front: held(whole), rear: 0 }
  // At the limit of the whole car each axle holds by its load.
  const moved = whole * (car.centreHeightM / car.wheelbaseM)
  const weightN = gripLimitN({ ...bare, centreHeightM: 0, rearTorqueShare: null, frictionSchool: 'constant' }, 0, 1) / car.friction
  const rearLoad = weightN * (1 - car.frontShare) + moved
  return { front: held(car.friction * (weightN - rearLoad)), rear: held(car.friction * rearLoad) }
}

/**
 * Torque from crank to tyre in every gear, at the speed of the engine's greatest torque: least of what the engine's side gives (shock times torque, or the
 * clutch, which slips and is the fuse) and what the tyres hold. Where the tyres are the limit, what lies before them is relieved too. All wheels driven:
 * each axle the least of its share and its grip. Source: F.10 and the room's page; shock and shares are common practice, no source.
 * Rejects a gearbox that loses more than the whole driveline.
 * @example torquePath(PATH).gears[0].gearboxNm // 261.87
 */
export function torquePath(input: TorquePathInput): TorquePath {
  const { car, primaryRatio, ratios, finalRatio, crankTorqueNm, efficiency, shockFactor, clutch } = input
  requireGrounded(car)
  requireRatios(ratios)
  requirePositive(crankTorqueNm, 'crankTorqueNm')
  requireWithin(efficiency, 0.5, 1, 'efficiency')
  requireWithin(shockFactor, 1, 5, 'shockFactor')
  const gearboxEfficiency = input.gearboxEfficiency ?? Math.sqrt(efficiency)
  if (gearboxEfficiency < efficiency)
    throw new CalculationError(
      'inconsistent',
      'gearboxEfficiency',
      'The gearbox would lose more than the whole driveline. Check its efficiency and the driveline loss.',
    )
  const fuse = clutch ? (clutch.torqueNm * clutch.holding) / (clutch.isBehindPrimary ? primaryRatio : 1) : Number.POSITIVE_INFINITY
  const engineSideNm = Math.min(shockFactor * crankTorqueNm, fuse)
  const grip = axleGrip(input)
  const gears = ratios.map((each, i): GearPath => {
    const overall = primaryRatio * each * finalRatio
    const asked = engineSideNm * overall * efficiency
    const [frontAsked, rearAsked] = shared(car, grip, asked)
    const [front, rear] = [Math.min(frontAsked, grip.front), Math.min(rearAsked, grip.rear)]
    const passed = Math.min(engineSideNm, (front + rear) / (overall * efficiency))
    return {
      gear: i + 1,
      limitedBy: front + rear < asked * (1 - 1e-9) ? 'tyres' : 'engine',
      gearboxNm: passed,
      propNm: passed * primaryRatio * each * gearboxEfficiency,
      frontAxleNm: front,
      rearAxleNm: rear,
      frontShaftNm: front * (input.shaftShareFront ?? 0.5),
      rearShaftNm: rear * (input.shaftShareRear ?? 0.5),
    }
  })
  return { engineSideNm, isClutchTheFuse: fuse < shockFactor * crankTorqueNm, frontGripNm: grip.front, rearGripNm: grip.rear, gears }
}

/** What the engine's side asks of each axle: a fixed split, or in the measure of what each holds. */
function shared({ drivenAxles, rearTorqueShare }: Grounded, grip: { front: number; rear: number }, asked: number): [number, number] {
  const rear = drivenAxles === 'rear' ? 1 : drivenAxles === 'front' ? 0 : (rearTorqueShare ?? grip.rear / (grip.front + grip.rear))
  return [asked * (1 - rear), asked * rear]
}
