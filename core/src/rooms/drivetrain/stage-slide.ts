import { attempt } from '../../attempt.ts'
import type { SlideState, SlidingCar } from '../../drivetrain/slide.ts'
import { type Powertrain, type SlideCorner, type SlideGear, slideThrough } from '../../drivetrain/slide-gears.ts'
import { CalculationError } from '../../errors.ts'
import type { Course } from '../../records/drive-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { chanceAtMost, normalDistribution } from '../../stats/distribution.ts'
import type { DriveInput, DriveInputKey } from './drive-inputs.ts'
import { settingsAtStage } from './drive-settings.ts'
import { driveOf } from './driveline.ts'
import { driveStage } from './stage-inputs.ts'

/** How much power a slide wants in hand (common practice, no source). */
export const USUAL_RESERVE = 0.15

/** A stage that slides, with what its gears rest on. */
export interface SlideSetup {
  readonly car: SlidingCar
  readonly train: Powertrain
  readonly reserve: number
  /** At the wheels; null: nobody said. */
  readonly lockRad: number | null
  /** Peak friction of the front tyres, to see whether the nose runs wide first. */
  readonly frontPeak: number
  readonly inputs: readonly DriveInput[]
}

/** A stage as a slide needs it, or why it does not slide by these sums. */
export const slideSetup = rememberByIndex((car: Car, position: number): SlideSetup | { readonly reason: string } | undefined => {
  const { car: own, line, inputs } = driveStage(car, position)
  if (!own) return undefined
  if (own.drivenAxles !== 'rear') return { reason: 'Slides are worked out for rear drive alone: front and all-wheel drive hold them by other means.' }
  const differential = driveOf(line, 'differential rear')
  if (differential?.drive.kind === 'open')
    return { reason: 'On an open differential the inner wheel spins first: no slide is held by it. Fit a locked or limited-slip one.' }
  const value = (key: DriveInputKey) => inputs.find((input) => input.key === key)?.value ?? 0
  const front = driveOf(line, 'tyre front')?.drive
  const settings = settingsAtStage(car, position)
  return {
    car: {
      massKg: own.massKg,
      wheelbaseM: own.wheelbaseM,
      frontShare: own.frontShare,
      centreHeightM: own.centreHeightM,
      slidingFriction: own.friction * value('slideShare'),
      frontSlipRad: value('frontSlipRad'),
      dragAreaM2: own.dragAreaM2,
      rollingCoefficient: own.rollingCoefficient,
      airDensityKgM3: own.airDensityKgM3,
    },
    train: {
      curve: own.curve,
      driveEfficiency: own.driveEfficiency,
      primaryRatio: own.primaryRatio,
      ratios: own.ratios,
      finalRatio: own.finalRatio,
      radiusM: own.radiusM,
      topRpm: own.topRpm,
    },
    reserve: settings.reserveWanted ?? USUAL_RESERVE,
    lockRad: driveOf(line, 'steering')?.drive.lockRad ?? null,
    frontPeak: front?.friction?.peak ?? own.friction,
    inputs,
  }
})

/**
 * What sliding, and the surface, leave of the peak grip that the rear tyres are known by.
 * @example slidingShare({ car: SLIDING, inputs: [{ key: 'friction', value: 1.1875 }] }) // 0.80
 */
export const slidingShare = ({
  car,
  inputs,
}: {
  readonly car: Pick<SlidingCar, 'slidingFriction'>
  readonly inputs: readonly Pick<DriveInput, 'key' | 'value'>[]
}): number => car.slidingFriction / (inputs.find(({ key }) => key === 'friction')?.value ?? car.slidingFriction)

/** A sliding car with one of its numbers moved by so much; power is moved in the gears. */
export function movedSlide(
  { car, train }: Pick<SlideSetup, 'car' | 'train'>,
  key: DriveInputKey,
  by: number,
  friction: number,
): Pick<SlideSetup, 'car' | 'train'> {
  const slid = (changed: Partial<SlidingCar>) => ({ car: { ...car, ...changed }, train })
  switch (key) {
    case 'power':
      return { car, train: { ...train, curve: { ...train.curve, torqueNm: train.curve.torqueNm.map((torque) => torque * (1 + by)) } } }
    case 'friction':
      return slid({ slidingFriction: car.slidingFriction * (1 + by / friction) })
    case 'slideShare':
      return slid({ slidingFriction: car.slidingFriction + friction * by })
    case 'massKg':
    case 'frontShare':
    case 'centreHeightM':
    case 'dragAreaM2':
    case 'rollingCoefficient':
    case 'frontSlipRad':
      return slid({ [key]: car[key] + by })
    default:
      return { car, train }
  }
}

/** A corner slid through: what it takes, what each gear has in hand, and how sure that is. */
export interface CornerSlide {
  readonly name: string
  readonly corner: SlideCorner
  readonly speedMps: number
  readonly state: SlideState
  readonly gears: readonly SlideGear[]
  readonly best: SlideGear | undefined
  /** Spread of the share in hand, and the chance that it holds at all. */
  readonly sd: number
  readonly chance: number
}

const SLIDE_KEYS: readonly DriveInputKey[] = ['friction', 'slideShare', 'frontSlipRad', 'centreHeightM', 'dragAreaM2', 'power', 'massKg']

/**
 * A corner at an angle by a stage's gears: the one with most in hand, with the spread that the doubt of its numbers gives. Rejects what `slideThrough` rejects.
 * @example slideCorner({ car: SLIDING, train: TRAIN, inputs: [] }, 'Long', { cornerRadiusM: 58, slideAngleRad: 0.6981317 }).best.gear // 3
 */
export function slideCorner(setup: Pick<SlideSetup, 'car' | 'train' | 'inputs'>, name: string, corner: SlideCorner): CornerSlide {
  const { speedMps, state, gears, best } = slideThrough(setup.car, setup.train, corner)
  const friction = setup.inputs.find(({ key }) => key === 'friction')?.value ?? 1
  const inHand = (key: DriveInputKey, by: number) => {
    const moved = movedSlide(setup, key, by, friction)
    const found = attempt(() => slideThrough(moved.car, moved.train, corner).gears[(best?.gear ?? 1) - 1]?.inHand ?? null)
    return found instanceof CalculationError ? null : found
  }
  const variance = setup.inputs.reduce((sum, { key, sd }) => {
    if (!best || !SLIDE_KEYS.includes(key)) return sum
    const [up, down] = [inHand(key, sd), inHand(key, -sd)]
    // A gear that ends on one side: twice the other side's way.
    const own = best.inHand as number
    const half = up !== null && down !== null ? (up - down) / 2 : up !== null ? up - own : down !== null ? own - down : 0
    return sum + half ** 2
  }, 0)
  const sd = Math.sqrt(variance)
  const held = best?.inHand ?? null
  const chance = held === null ? 0 : sd > 0 ? 1 - chanceAtMost(normalDistribution(held, sd), 0) : held >= 0 ? 1 : 0
  return { name, corner, speedMps, state, gears, best, sd, chance }
}

/**
 * The corners of a course that have an angle, as slides.
 * @example slideCorners({ corners: [] }) // []
 */
export const slideCorners = ({ corners }: Pick<Course, 'corners'>): { name: string; corner: SlideCorner }[] =>
  corners.flatMap(({ name, slideAngleRad, radiusM, speedMps }) =>
    slideAngleRad === null ? [] : [{ name, corner: { slideAngleRad, ...(speedMps === null ? { cornerRadiusM: radiusM ?? undefined } : { speedMps }) } }],
  )

/** The course of the Board, or the only one there is. */
export function courseOf(car: Car): Course | undefined {
  const { courses, build } = car.records
  return courses.find(({ id }) => id === build.driveBasis?.courseId) ?? (courses.length === 1 ? courses[0] : undefined)
}

/** The worst corner of the Board's course by its best gear; undefined where nothing slides. */
export function worstSlide(car: Car, position: number): CornerSlide | undefined {
  const setup = slideSetup(car, position)
  const course = courseOf(car)
  if (!setup || 'reason' in setup || !course) return undefined
  const slides = slideCorners(course).flatMap(({ name, corner }) => {
    const found = attempt(() => slideCorner(setup, name, corner))
    return found instanceof CalculationError ? [] : [found]
  })
  const held = ({ best }: CornerSlide) => best?.inHand ?? -1
  return slides.reduce<CornerSlide | undefined>((worst, each) => (worst && held(worst) <= held(each) ? worst : each), undefined)
}

/** What a slide through a corner lacks, in a word: power, the right gear, or nothing. */
export type SlideLack = 'power' | 'gears' | null

/**
 * What a corner lacks to have a reserve in hand: power, where even the engine's peak would not give it, or gears, where another ratio would.
 * @example slideLack({ state: { powerW: 100 }, best: { inHand: 0.01 } }, TRAIN, 0.15) // 'gears'
 */
export function slideLack(
  { state, best }: { readonly state: Pick<SlideState, 'powerW'>; readonly best: Pick<SlideGear, 'inHand'> | undefined },
  train: Powertrain,
  reserve: number,
): SlideLack {
  if ((best?.inHand ?? -1) >= reserve) return null
  const peakW = Math.max(
    ...train.curve.speedRpm.map((rpm, i) => (rpm <= train.topRpm ? ((train.curve.torqueNm[i] as number) * rpm * Math.PI * train.driveEfficiency) / 30 : 0)),
  )
  return peakW < state.powerW * (1 + reserve) ? 'power' : 'gears'
}

/** One point of the map of slides: which gear has most in hand, and how much; null where no gear holds or no slide is possible. */
export interface SlideMap {
  readonly speedsMps: readonly number[]
  readonly anglesRad: readonly number[]
  /** By angle, then speed: share in hand of the best gear. */
  readonly inHand: readonly (readonly (number | null)[])[]
  readonly gear: readonly (readonly (number | null)[])[]
}

/**
 * What a stage's gears hold over speed and angle, for the grids handed in (up to 200 by 200).
 * @example slideMap({ car: SLIDING, train: TRAIN }, [20], [0.6283185]).gear[0][0] // 2
 */
export function slideMap({ car, train }: Pick<SlideSetup, 'car' | 'train'>, speedsMps: readonly number[], anglesRad: readonly number[]): SlideMap {
  const cells = anglesRad.map((slideAngleRad) =>
    speedsMps.map((speedMps) => {
      const found = attempt(() => slideThrough(car, train, { speedMps, slideAngleRad }).best)
      return found instanceof CalculationError ? undefined : found
    }),
  )
  return {
    speedsMps,
    anglesRad,
    inHand: cells.map((row) => row.map((best) => best?.inHand ?? null)),
    gear: cells.map((row) => row.map((best) => best?.gear ?? null)),
  }
}
