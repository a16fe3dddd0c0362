import { attempt } from '../attempt.ts'
import { CalculationError } from '../errors.ts'
import { type CourseCorner, type CourseRun, driveCourse } from './course.ts'
import type { DriveCar } from './drive-car.ts'
import { leaveSpeeds } from './leave-speeds.ts'
import { driveMotion } from './motion.ts'

/** A choice of final drive, with the tyre it would roll on where that is another. */
export interface FinalChoice {
  readonly id: string
  readonly finalRatio: number
  readonly radiusM?: number | undefined
}

/** What a choice does on a course. */
export interface FinalScore {
  readonly id: string
  readonly timeS: number
  readonly course: CourseRun
  /** Slower than the best by so much, and how sure that difference is: by what the unsure inputs do to it. */
  readonly behindS: number
  readonly behindSdS: number
  /** Within doubt of the best: for time it does not matter. */
  readonly doesNotMatter: boolean
}

export interface RankedFinals {
  readonly ranked: readonly FinalScore[]
  readonly refused: readonly { readonly id: string; readonly reason: string }[]
}

/** Below this a difference of a lap is nothing (common practice, no source). */
export const LEAST_DIFFERENCE_S = 0.05

interface Course {
  readonly corners: readonly CourseCorner[]
  readonly isClosed: boolean
  readonly brakingMps2: number
}

const withChoice = (car: DriveCar, { finalRatio, radiusM }: FinalChoice): DriveCar => ({ ...car, finalRatio, radiusM: radiusM ?? car.radiusM })

function drivenWith(car: DriveCar, course: Course): CourseRun {
  const motion = driveMotion(car)
  return driveCourse({ motion, leaveRpm: leaveSpeeds(motion), ...course })
}

/**
 * Finals on a course, best first: by time; those within the larger of 0.05 s and two spreads of the difference do not matter for time, and among them
 * fewer shifts are better, then less use of a gear with little life. `variants` are the car with each unsure input moved by a spread: what they do to the
 * difference of two finals is its spread. `told` hears how many are done. Source: the room's page. A choice that cannot drive the course is named apart.
 * @example rankFinals(DRIVE, COURSE, [{ id: 'long', finalRatio: 3.73 }]).ranked.length // 1
 */
export function rankFinals(
  car: DriveCar,
  course: Course,
  choices: readonly FinalChoice[],
  options: { variants?: readonly DriveCar[]; wornGears?: readonly number[]; told?: (done: number) => void } = {},
): RankedFinals {
  const { variants = [], wornGears = [], told } = options
  const refused: { id: string; reason: string }[] = []
  const driven = choices.flatMap((choice, i) => {
    const found = attempt(() => ({
      id: choice.id,
      course: drivenWith(withChoice(car, choice), course),
      moved: variants.map((variant) => attempt(() => drivenWith(withChoice(variant, choice), course).timeS)),
    }))
    told?.(i + 1)
    if (!(found instanceof CalculationError)) return [found]
    refused.push({ id: choice.id, reason: found.message })
    return []
  })
  const best = driven.reduce<(typeof driven)[number] | undefined>((least, each) => (least && least.course.timeS <= each.course.timeS ? least : each), undefined)
  if (!best) return { ranked: [], refused }
  const scored = driven.map(({ id, course: run, moved }): FinalScore => {
    const behindS = run.timeS - best.course.timeS
    const variance = moved.reduce<number>((sum, time, i) => {
      const other = best.moved[i]
      return typeof time === 'number' && typeof other === 'number' ? sum + (time - other - behindS) ** 2 : sum
    }, 0)
    const behindSdS = Math.sqrt(variance)
    return { id, timeS: run.timeS, course: run, behindS, behindSdS, doesNotMatter: behindS <= Math.max(LEAST_DIFFERENCE_S, 2 * behindSdS) }
  })
  return { ranked: scored.sort((a, b) => compare(a, b, wornGears)), refused }
}

const shifts = ({ course }: FinalScore) => course.upshiftsInto.reduce((sum, count) => sum + count, 0)
const intoWorn = ({ course }: FinalScore, wornGears: readonly number[]) => wornGears.reduce((sum, gear) => sum + (course.upshiftsInto[gear - 2] ?? 0), 0)

function compare(a: FinalScore, b: FinalScore, wornGears: readonly number[]): number {
  if (a.doesNotMatter && b.doesNotMatter) return shifts(a) - shifts(b) || intoWorn(a, wornGears) - intoWorn(b, wornGears) || a.timeS - b.timeS
  if (a.doesNotMatter !== b.doesNotMatter) return a.doesNotMatter ? -1 : 1
  return a.timeS - b.timeS
}
