import { CalculationError } from '../errors.ts'
import { proofRank } from '../proof/quantity.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import { AERO_WORKINGS } from '../rooms/aero/workings.ts'
import { DRIVETRAIN_WORKINGS } from '../rooms/drivetrain/workings.ts'
import { JOBS_WORKINGS } from '../rooms/jobs/workings.ts'
import { ratingLines } from '../rooms/parts/working-torque.ts'
import { PARTS_WORKINGS } from '../rooms/parts/workings.ts'
import { POWER_WORKINGS } from '../rooms/power/workings.ts'
import { SYSTEMS_WORKINGS } from '../rooms/systems/workings.ts'
import { TRACK_WORKINGS } from '../rooms/track/workings.ts'
import { WEIGHT_WORKINGS } from '../rooms/weight/workings.ts'
import type { Car } from '../stages/car.ts'
import { BEING_WORKED_OUT, stageName, type Working, type WorkingLine, type WorkingMaker } from '../stages/working-line.ts'
import { chanceOf, StageValues } from './stage-values.ts'
import { limitVerdict, targetVerdict } from './verdict.ts'

const ROOM_WORKINGS = {
  ...WEIGHT_WORKINGS,
  ...POWER_WORKINGS,
  ...PARTS_WORKINGS,
  ...DRIVETRAIN_WORKINGS,
  ...AERO_WORKINGS,
  ...TRACK_WORKINGS,
  ...JOBS_WORKINGS,
  ...SYSTEMS_WORKINGS,
} satisfies Record<string, WorkingMaker>

export type WorkingSubject = keyof typeof ROOM_WORKINGS | 'target' | 'limit'
export const WORKING_SUBJECTS = [...Object.keys(ROOM_WORKINGS), 'target', 'limit'] as unknown as [WorkingSubject, ...WorkingSubject[]]

/**
 * The working of a number of a build: what `of` it is and the id of the stage, weighing, session, pull, target or limit. Errors: `unknown`.
 * @example makeWorking(CAR, 'mass', 'strip', '2026-11-01').title // 'Mass at stage 1, Strip'
 */
export function makeWorking(car: Car, of: WorkingSubject, id: string, today: string): Working {
  const working = of === 'target' || of === 'limit' ? goalOf(new StageValues(car), of, id, today) : ROOM_WORKINGS[of](car, id)
  if (!working) throw new CalculationError('unknown', 'id', 'This number has no working: what it rests on is gone or was never measured.')
  return working
}

const goalOf = (values: StageValues, of: 'target' | 'limit', id: string, today: string) =>
  of === 'target'
    ? goalWorking(
        values,
        values.targets.find((entry) => entry.id === id),
        today,
      )
    : limitWorking(
        values,
        values.limits.find((entry) => entry.id === id),
      )

function goalLines(values: StageValues, goal: Target | Limit, position: number): WorkingLine[] {
  const value = values.value(goal, position)
  const { kind } = values.info(goal.metric)
  const word = wordOf(values, goal)
  return value ? [{ label: `${word} at ${stageName(values.car, position)}`, value: value.value, kind, sd: value.sd, proof: value.proof }] : []
}

/** What a goal is of, with the track of a lap. */
function wordOf(values: StageValues, goal: Target | Limit): string {
  const [{ word }, place] = [values.info(goal.metric), values.place(goal)]
  return place === null ? word : `${word} at ${place}`
}

const lower = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)

const senseWords = { atMost: 'or less', atLeast: 'or more', between: 'from' } as const

/** In place of the working of a goal whose number is on its way. */
function waitingWorking(values: StageValues, goal: Target | Limit): Working {
  const { kind, word, calculation } = values.info(goal.metric)
  return {
    title: `Verdict on ${lower(wordOf(values, goal))}`,
    calculation,
    result: { label: word.toLowerCase(), value: null, kind },
    lines: [],
    remarks: [BEING_WORKED_OUT],
  }
}

function goalWorking(values: StageValues, target: Target | undefined, today: string): Working | undefined {
  if (!target) return undefined
  if (values.isWaiting(target)) return waitingWorking(values, target)
  const verdict = targetVerdict(values, target, today)
  if (!verdict) return undefined
  const { kind, calculation } = values.info(target.metric)
  const value = values.value(target, verdict.verdictPosition)
  return {
    title: `Verdict on ${lower(wordOf(values, target))}: ${verdict.word}`,
    calculation,
    result: { label: value && proofRank(value.proof) >= 3 ? 'how sure the verdict is' : 'chance that the plan makes it', value: verdict.chance, kind: 'share' },
    lines: [
      { label: `goal, ${senseWords[target.sense]}`, value: target.value, kind, typed: target.typed },
      ...(target.highValue === null ? [] : [{ label: 'to', value: target.highValue, kind }]),
      ...goalLines(values, target, verdict.verdictPosition),
    ],
    remarks: [
      `Judged at ${stageName(values.car, verdict.verdictPosition)}; due by ${stageName(values.car, verdict.duePosition)}.`,
      'A target is met only when it is measured. Open: on course from 8 in 10, unlikely under 2 in 10, doubtful between.',
    ],
  }
}

function limitWorking(values: StageValues, limit: Limit | undefined): Working | undefined {
  if (!limit) return undefined
  if (values.isWaiting(limit)) return waitingWorking(values, limit)
  const verdict = limitVerdict(values, limit)
  if (!verdict) return undefined
  const { kind, calculation } = values.info(limit.metric)
  const value = values.value(limit, verdict.verdictPosition)
  return {
    title: `Limit on ${lower(wordOf(values, limit))}: ${verdict.word}`,
    calculation,
    result: { label: 'chance to keep the limit', value: value ? chanceOf(limit, value.distribution) : null, kind: 'share' },
    lines: [
      { label: `limit, ${senseWords[limit.sense]}`, value: limit.value, kind, typed: limit.typed },
      ...ratingLines(values.car, limit.id),
      ...goalLines(values, limit, verdict.verdictPosition),
    ],
    remarks: [`Holds from ${stageName(values.car, verdict.fromPosition)} on. Broken is a measured value on the wrong side; would break, a predicted one.`],
  }
}
