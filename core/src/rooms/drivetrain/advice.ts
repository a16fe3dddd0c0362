import { attempt } from '../../attempt.ts'
import { driveCourse } from '../../drivetrain/course.ts'
import { leaveSpeeds } from '../../drivetrain/leave-speeds.ts'
import { driveMotion } from '../../drivetrain/motion.ts'
import { CalculationError } from '../../errors.ts'
import { gearWord } from '../../records/drive-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { runnableCourse } from './courses.ts'
import { drivelineAtStage } from './driveline.ts'
import { driveStage } from './stage-inputs.ts'
import { stagePath } from './stage-path.ts'
import { courseOf, worstSlide } from './stage-slide.ts'

const lastWith = (car: Car) => car.stages.findLastIndex((_, position) => driveStage(car, position).car !== null)

/** Two parts of one place in one stage: nothing can be worked out before one is moved. */
const conflicts = defineAdvice({
  rank: 60,
  find: ({ records, stages }: Car) =>
    stages.flatMap((_, position) =>
      drivelineAtStage(records, position)
        .conflicts.filter((conflict) => conflict.position === position)
        .map(({ message }) => ({ code: 'drive-conflict', position, message }) as const),
    ),
})

/** A corner that no gear holds, at the last stage that can be worked out. */
const cornerNotHeld = defineAdvice({
  rank: 61,
  find: (car: Car) => {
    const position = lastWith(car)
    const worst = position < 0 ? undefined : worstSlide(car, position)
    const inHand = worst?.best?.inHand ?? (worst ? -1 : 1)
    return worst && inHand < 0 ? [{ code: 'corner-not-held', position, name: worst.name, gear: worst.best?.gear ?? null, inHand } as const] : []
  },
})

/** More time than this at the end of the top gear on one straight is lost time (common practice, no source). */
const LONGEST_AT_END_S = 0.3
/** How hard a car pulls on a fast straight, to tell which one gets fastest. */
const USUAL_PULL_MPS2 = 3

const endOfTop = defineAdvice({
  rank: 62,
  find: (car: Car) => {
    const [position, course] = [lastWith(car), courseOf(car)]
    const own = position < 0 ? null : driveStage(car, position).car
    if (!own || !course) return []
    const { corners, isClosed, brakingMps2 } = runnableCourse(course, own)
    const found = attempt(() => {
      const motion = driveMotion(own)
      const leaveRpm = leaveSpeeds(motion)
      // The straights that get fastest: by what is driven and how long it is. The others say nothing of the top gear.
      const reach = (at: number) => (corners[at]?.speedMps ?? 0) ** 2 / (2 * USUAL_PULL_MPS2) + (corners[at]?.straightM ?? 0)
      const fastest = corners
        .map((_, at) => at)
        .sort((a, b) => reach(b) - reach(a))
        .slice(0, 1)
      return fastest.flatMap((at) => {
        const [corner, next] = [corners[at], corners[at + 1] ?? (isClosed ? corners[0] : undefined)]
        if (!corner) return []
        return driveCourse({ motion, leaveRpm, brakingMps2, isClosed: false, corners: next ? [corner, { ...next, straightM: null }] : [corner] }).straights
      })
    })
    if (found instanceof CalculationError) return []
    const worst = found.reduce<(typeof found)[number] | undefined>((most, each) => (most && most.atEndS >= each.atEndS ? most : each), undefined)
    return worst && worst.atEndS > LONGEST_AT_END_S ? [{ code: 'end-of-top', position, corner: worst.corner, seconds: worst.atEndS } as const] : []
  },
})

/** A part of the driveline that meets more than its rating, at the last stage that can be worked out. */
const overRating = defineAdvice({
  rank: 11,
  find: (car: Car) => {
    const position = lastWith(car)
    const least = position < 0 ? undefined : stagePath(car, position)?.headrooms[0]
    return least && least.headroom < 0
      ? [{ code: 'drive-over', position, name: least.name, gear: least.gear, demandNm: least.demandNm, limitNm: least.limitNm } as const]
      : []
  },
})

/** A target that the driveline decides, and no driveline. */
const noDriveline = defineAdvice({
  rank: 63,
  find: (car: Car) => {
    const target = car.records.targets.find(({ metric }) =>
      ['zeroTo100', 'zeroTo60Mph', 'from100To200', 'sixtyFoot', 'quarterMile', 'quarterMileSpeed'].includes(metric),
    )
    const position = car.stages.length - 1
    const missing = target ? driveStage(car, position).missing : []
    return target && missing.length > 0 ? [{ code: 'no-driveline', position, metric: target.metric, what: missing[0]?.what ?? '' } as const] : []
  },
})

export const DRIVETRAIN_ADVICE = [overRating, conflicts, cornerNotHeld, endOfTop, noDriveline] as const

export const DRIVETRAIN_SAYINGS: Sayings<ItemOf<typeof DRIVETRAIN_ADVICE>> = {
  'drive-over': ({ position, name, gear, demandNm, limitNm }, { text, stage, at }) => ({
    head: `${name} would be over its rating at ${stage(position)}`,
    text: `It meets ${text('torque', demandNm)} against ${text('torque', limitNm)} in ${gearWord(gear)}, shock of its use in it.`,
    to: at('drivetrain', position, '&tab=path'),
    isDanger: true,
  }),
  'drive-conflict': ({ position, message }, { at }) => ({
    head: 'Two parts stand in one place of the driveline',
    text: message,
    to: at('drivetrain', position),
  }),
  'corner-not-held': ({ position, name, gear, inHand }, { text, stage, at }) => ({
    head: `${name} is not held`,
    text:
      gear === null
        ? `No gear has the engine on its curve there at ${stage(position)}.`
        : `The best gear, ${gearWord(gear)}, lacks ${text('share', -inHand)} of the power at ${stage(position)}. The levers say what would do it.`,
    to: at('drivetrain', position, `&tab=slide&corner=${encodeURIComponent(name)}`),
  }),
  'end-of-top': ({ position, corner, seconds }, { text, at }) => ({
    head: 'The top gear ends before the straight does',
    text: `After ${corner} the car stands at its end for ${text('lapTime', seconds)}. Look at a longer final.`,
    to: at('drivetrain', position, '&tab=finals'),
  }),
  'no-driveline': ({ position, metric, what }, { metric: facts, at }) => ({
    head: `Say what decides ${facts(metric).word.toLowerCase()}`,
    text: `A target is set on it and what it rests on is missing: ${what}.`,
    to: at('drivetrain', position),
  }),
}
