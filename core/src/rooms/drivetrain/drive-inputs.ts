import type { DriveCar } from '../../drivetrain/drive-car.ts'
import { tyreRolling } from '../../drivetrain/tyre.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { DriveOf, GearboxStyle, Known, TyreClass } from '../../records/drive-schemas.ts'
import type { Car } from '../../stages/car.ts'
import type { QuantityKind } from '../../units/units.ts'
import { aeroValue } from '../aero/stage-aero.ts'
import { powerAtStage } from '../power/power-at-stage.ts'
import { liftedHeightAt } from '../weight/centres.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { type KnownField, settingsAtStage } from './drive-settings.ts'
import { type Driveline, driveOf } from './driveline.ts'

/** What a number of a stage is called, in which unit, and what it does to the car. */
export type DriveInputKey =
  | 'massKg'
  | 'frontShare'
  | 'centreHeightM'
  | 'friction'
  | 'gripUse'
  | 'dragAreaM2'
  | 'rollingCoefficient'
  | 'engineInertiaKgM2'
  | 'shiftS'
  | 'power'
  | 'radiusM'
  | 'slideShare'
  | 'frontSlipRad'

export const DRIVE_INPUT_WORDS: Readonly<Record<DriveInputKey, { readonly word: string; readonly kind: QuantityKind; readonly measure: string }>> = {
  massKg: { word: 'mass', kind: 'mass', measure: 'weigh the car' },
  frontShare: { word: 'front share', kind: 'share', measure: 'weigh the car by axles' },
  centreHeightM: { word: 'height of the centre of mass', kind: 'length', measure: 'lift an axle on the scales' },
  friction: { word: 'grip of the driven tyres', kind: 'ratio', measure: 'time 60 ft from rest' },
  gripUse: { word: 'how much of the grip is used', kind: 'share', measure: 'time 60 ft from rest' },
  dragAreaM2: { word: 'drag area', kind: 'area', measure: 'coast down' },
  rollingCoefficient: { word: 'rolling', kind: 'ratio', measure: 'coast down' },
  engineInertiaKgM2: { word: 'inertia of the engine', kind: 'inertia', measure: 'time it in two gears' },
  shiftS: { word: 'time of a shift', kind: 'duration', measure: 'film a run' },
  power: { word: 'power', kind: 'share', measure: 'book the dyno' },
  radiusM: { word: 'rolling radius', kind: 'length', measure: 'roll the car one turn' },
  slideShare: { word: 'sliding over peak grip', kind: 'share', measure: 'log a slide' },
  frontSlipRad: { word: 'slip of the front tyres', kind: 'angle', measure: 'log a slide' },
}

/** One number of a stage with its doubt; of power the value is 1 and the spread a share of it. */
export interface DriveInput {
  readonly key: DriveInputKey
  readonly value: number
  readonly sd: number
  readonly isGuess: boolean
  /** Which record it comes from: the same number at two stages is one where this is the same. */
  readonly source: string
}

/** How far the usual share of the mass for all that turns may be off. */
const UNKNOWN_INERTIA_SD = 0.3

/** Usual times of a shift by how the box is shifted, s; a converter slips and is not counted (common practice, no source). */
export const USUAL_SHIFT_S: Readonly<Record<GearboxStyle, number>> = { hPattern: 0.4, sequential: 0.15, paddle: 0.06, twinClutch: 0.05, converter: 0.4 }
const SHIFT_RELATIVE_SD = 0.25
/** Peak friction of a tyre by its class (common practice, no source). */
export const USUAL_FRICTION: Readonly<Record<TyreClass, number>> = { street: 1, fastRoad: 1.15, soft: 1.3, slick: 1.5 }
const CLASS_RELATIVE_SD = 0.08
const UNKNOWN_FRICTION = { value: 1.1, sd: 0.15 } as const
const TYPED_FRICTION_RELATIVE_SD = 0.06
const USUAL = {
  gripUse: { value: 0.92, sd: 0.05 },
  frontSlipRad: { value: (6 * Math.PI) / 180, sd: (2 * Math.PI) / 180 },
  slideShare: { value: 0.8, sd: 0.06 },
  dragAreaM2: { value: 0.75, sd: 0.12 },
  rollingCoefficient: { value: 0.014, sd: 0.003 },
  clutchHolding: { value: 1.2, sd: 0.1 },
} as const
/** Height over wheelbase where no axle was lifted (common practice, no source). */
const USUAL_HEIGHT_OVER_WHEELBASE = 0.19
const HEIGHT_RELATIVE_SD = 0.1

const isGuess = (known: Known | Proof) => known === 'guess'

/** A number of the settings, else the usual one: a guess. */
function fromSettings(car: Car, position: number, key: DriveInputKey & keyof typeof USUAL & KnownField): DriveInput {
  const settings = settingsAtStage(car, position)
  const said = settings[key]
  const usual = USUAL[key]
  if (!said) return { key, ...usual, isGuess: true, source: `usual ${key}` }
  return { key, value: said.value, sd: said.sd ?? (usual.sd / usual.value) * said.value, isGuess: isGuess(said.known), source: settings.from[key] ?? key }
}

/** Drag area: what Aero says of the whole car at the stage, else the settings, else the usual one. */
function dragOf(car: Car, position: number): DriveInput {
  const found = aeroValue(car, position, 'dragArea')
  if (!found) return fromSettings(car, position, 'dragAreaM2')
  return { key: 'dragAreaM2', value: found.value, sd: found.sd, isGuess: isGuess(found.proof), source: `aero ${position}` }
}

function heightOf(car: Car, position: number): DriveInput {
  const key = 'centreHeightM' as const
  const settings = settingsAtStage(car, position)
  const lifted = liftedHeightAt(car, position)
  if (lifted) return { key, value: lifted.height.heightM, sd: lifted.height.sdM, isGuess: false, source: lifted.weighingId }
  const said = settings.centreHeightM
  if (said) return { key, value: said.value, sd: said.sd ?? HEIGHT_RELATIVE_SD * said.value, isGuess: isGuess(said.known), source: settings.from[key] ?? key }
  const value = USUAL_HEIGHT_OVER_WHEELBASE * (car.builds[position]?.wheelbaseM ?? car.records.build.wheelbaseM)
  return { key, value, sd: HEIGHT_RELATIVE_SD * value, isGuess: true, source: 'usual height' }
}

/** Grip of a tyre: as typed, by its class, else of any. */
export function frictionOf(drive: DriveOf<'tyre'> | undefined, partId: string): DriveInput {
  const key = 'friction' as const
  if (drive?.friction) {
    const { peak, sd, known } = drive.friction
    return { key, value: peak, sd: sd ?? TYPED_FRICTION_RELATIVE_SD * peak, isGuess: isGuess(known), source: partId }
  }
  if (drive?.class) return { key, value: USUAL_FRICTION[drive.class], sd: CLASS_RELATIVE_SD * USUAL_FRICTION[drive.class], isGuess: true, source: partId }
  return { key, ...UNKNOWN_FRICTION, isGuess: true, source: partId }
}

/** The axle whose tyres drive: of all wheels the rear one, by which speed is counted. */
export const drivenAxle = (car: Car): 'front' | 'rear' => (car.records.build.drivenAxles === 'front' ? 'front' : 'rear')

/** The tyre parts of a stage: that of the driven axle, and of either. */
export function tyresOf(car: Car, line: Driveline) {
  const own = driveOf(line, `tyre ${drivenAxle(car)}`)
  const [front, rear] = [driveOf(line, 'tyre front'), driveOf(line, 'tyre rear')]
  return { own, front, rear }
}

/** Whether anybody said how large a tyre is. */
export const hasSize = (drive: DriveOf<'tyre'> | undefined): drive is DriveOf<'tyre'> =>
  drive !== undefined && (drive.code !== null || drive.circumferenceM !== null)

/** Rolling radius of a tyre, m. */
export function radiusOf(drive: DriveOf<'tyre'>): { value: number; sd: number; isMeasured: boolean } {
  const { radiusM, radiusSdM, isMeasured: byRollOut } = tyreRolling(drive)
  return { value: radiusM, sd: radiusSdM, isMeasured: byRollOut }
}

/** Every number that a stage's runs and slides rest on, with its doubt and where it comes from. */
export function inputsOf(car: Car, position: number, line: Driveline): DriveInput[] {
  const [mass, front, power] = [massOf(car, position), frontShareAt(car, position), powerAtStage(car, position)]
  const { own } = tyresOf(car, line)
  const box = driveOf(line, 'gearbox')
  const settings = settingsAtStage(car, position)
  const radius = hasSize(own?.drive) ? radiusOf(own.drive) : undefined
  const inertia = settings.engineInertiaKgM2
  const shiftS = box ? (box.drive.shiftS ?? USUAL_SHIFT_S[box.drive.style]) : undefined
  const slide = own?.drive.slideShare
  const head = power?.steps[0]
  return [
    ...(mass
      ? [
          {
            key: 'massKg',
            value: mass.value,
            sd: mass.sd,
            isGuess: isGuess(mass.proof),
            source: `mass ${mass.anchor.kind === 'equal' ? position : 'planned'}`,
          } as const,
        ]
      : []),
    ...(front ? [{ key: 'frontShare', value: front.value, sd: front.sd, isGuess: isGuess(front.proof), source: 'front share' } as const] : []),
    heightOf(car, position),
    ...(own ? [frictionOf(own.drive, own.part.id)] : []),
    fromSettings(car, position, 'gripUse'),
    dragOf(car, position),
    fromSettings(car, position, 'rollingCoefficient'),
    inertia
      ? {
          key: 'engineInertiaKgM2',
          value: inertia.value,
          sd: inertia.sd ?? 0.25 * inertia.value,
          isGuess: isGuess(inertia.known),
          source: settings.from.engineInertiaKgM2 ?? '',
        }
      : { key: 'engineInertiaKgM2', value: 1, sd: UNKNOWN_INERTIA_SD, isGuess: true, source: 'usual inertia' },
    ...(box && shiftS !== undefined
      ? [
          {
            key: 'shiftS',
            value: shiftS,
            sd: SHIFT_RELATIVE_SD * shiftS,
            isGuess: box.drive.shiftS === null || isGuess(box.drive.known),
            source: box.part.id,
          } as const,
        ]
      : []),
    ...(power
      ? [
          {
            key: 'power',
            value: 1,
            sd: power.sd / power.value,
            isGuess: isGuess(power.proof),
            source: `power ${head?.position ?? ''} ${power.isMeasuredHere ? 'here' : position}`,
          } as const,
        ]
      : []),
    ...(radius && own ? [{ key: 'radiusM', value: radius.value, sd: radius.sd, isGuess: !radius.isMeasured, source: own.part.id } as const] : []),
    slide === null || slide === undefined
      ? { key: 'slideShare', ...USUAL.slideShare, isGuess: true, source: 'usual slide' }
      : { key: 'slideShare', value: slide, sd: USUAL.slideShare.sd, isGuess: false, source: own?.part.id ?? '' },
    fromSettings(car, position, 'frontSlipRad'),
  ]
}

/**
 * A car with one of its numbers moved; power moves the whole curve, an unknown inertia the share that stands for it.
 * @example movedCar(DRIVE, 'massKg', 10).massKg // 1250
 */
export function movedCar(car: DriveCar, key: DriveInputKey, by: number): DriveCar {
  switch (key) {
    case 'power':
      return { ...car, curve: { ...car.curve, torqueNm: car.curve.torqueNm.map((torque) => torque * (1 + by)) } }
    case 'engineInertiaKgM2':
      return car.engineInertiaKgM2 === null
        ? { ...car, inertiaScale: Math.max(0, car.inertiaScale + by) }
        : { ...car, engineInertiaKgM2: Math.max(0, car.engineInertiaKgM2 + by) }
    case 'slideShare':
    case 'frontSlipRad':
      return car
    case 'shiftS':
      return { ...car, shiftS: Math.max(0, car.shiftS + by) }
    default:
      return { ...car, [key]: car[key] + by }
  }
}
