import { isMeasured } from '../proof/quantity.ts'
import { type AERO_ADVICE, AERO_SAYINGS } from '../rooms/aero/advice.ts'
import { type CHECKS_ADVICE, CHECKS_SAYINGS } from '../rooms/checks/advice.ts'
import { type DRIVETRAIN_ADVICE, DRIVETRAIN_SAYINGS } from '../rooms/drivetrain/advice.ts'
import { type JOBS_ADVICE, JOBS_SAYINGS } from '../rooms/jobs/advice.ts'
import { type PARTS_ADVICE, PARTS_SAYINGS } from '../rooms/parts/advice.ts'
import { type POWER_ADVICE, POWER_SAYINGS } from '../rooms/power/advice.ts'
import { type SYSTEMS_ADVICE, SYSTEMS_SAYINGS } from '../rooms/systems/advice.ts'
import { type TRACK_ADVICE, TRACK_SAYINGS } from '../rooms/track/advice.ts'
import { type WEIGHT_ADVICE, WEIGHT_SAYINGS } from '../rooms/weight/advice.ts'
import { type AdviceWords, defineAdvice, type ItemOf, type Said, type Sayings } from '../stages/define-advice.ts'
import { MEASUREMENTS } from './metrics.ts'
import { stageState } from './stage-state.ts'
import type { StageValues } from './stage-values.ts'
import { limitVerdict, targetVerdict } from './verdict.ts'

/** Limits whose verdict is a word, with what stands against them. */
const limitsThat = (values: StageValues, word: 'broken' | 'would break', code: 'limit-broken' | 'limit-would-break') =>
  values.limits.flatMap((limit) => {
    const verdict = limitVerdict(values, limit)
    if (verdict?.word !== word) return []
    const value = values.value(limit, verdict.verdictPosition)?.value ?? limit.value
    return [
      {
        code,
        limitId: limit.id,
        metric: limit.metric,
        place: values.place(limit),
        position: verdict.verdictPosition,
        value,
        limit: limit.value,
        sense: limit.sense,
      },
    ]
  })

const brokenLimits = defineAdvice({ rank: 10, find: (values: StageValues) => limitsThat(values, 'broken', 'limit-broken') })

const limitsThatWouldBreak = defineAdvice({ rank: 11, find: (values: StageValues) => limitsThat(values, 'would break', 'limit-would-break') })

const lateTargets = defineAdvice({
  rank: 50,
  find: (values: StageValues, today) =>
    values.targets.flatMap((target) => {
      const verdict = targetVerdict(values, target, today)
      return verdict?.isLate
        ? [{ code: 'target-late', targetId: target.id, metric: target.metric, place: values.place(target), position: verdict.duePosition } as const]
        : []
    }),
})

/** A target whose metric was never measured, or whose latest built stage was not; one action for each kind of measurement. */
const unmeasuredTargets = defineAdvice({
  rank: 70,
  find: (values: StageValues, today) => {
    const built = values.car.stages.findLastIndex((_, position) => ['built', 'proven'].includes(stageState(values, position, today).state))
    const seen = new Set<string>()
    return values.targets.flatMap((target) =>
      values.info(target.metric).provedBy.flatMap((base) => {
        const metric = MEASUREMENTS.find(({ key }) => key === base)?.metric
        if (!metric || seen.has(base)) return []
        const value = built < 0 ? undefined : values.value(metric, built)
        const isNeeded = values.latestMeasured(metric, 0) === undefined || (built >= 0 && !(value && isMeasured(value.proof)))
        if (!isNeeded || values.isWaiting(metric)) return []
        seen.add(base)
        return [{ code: 'measure-target', targetId: target.id, metric: target.metric, position: Math.max(built, 0), base, isBuilt: built >= 0 } as const]
      }),
    )
  },
})

const unsureTargets = defineAdvice({
  rank: 74,
  find: (values: StageValues, today) =>
    values.targets.flatMap((target) => {
      const verdict = targetVerdict(values, target, today)
      return verdict?.withinDoubt && verdict.chance !== null
        ? [
            {
              code: 'confirm-target',
              targetId: target.id,
              metric: target.metric,
              place: values.place(target),
              position: verdict.verdictPosition,
              chance: verdict.chance,
            } as const,
          ]
        : []
    }),
})

/** Rules about verdicts; those about one room's records stand in the room. */
export const GOAL_ADVICE = [brokenLimits, limitsThatWouldBreak, lateTargets, unmeasuredTargets, unsureTargets] as const

/** One thing to do next; numbers in SI, words are put to them where units are known. */
export type NextAction =
  | ItemOf<typeof GOAL_ADVICE>
  | ItemOf<typeof WEIGHT_ADVICE>
  | ItemOf<typeof POWER_ADVICE>
  | ItemOf<typeof PARTS_ADVICE>
  | ItemOf<typeof DRIVETRAIN_ADVICE>
  | ItemOf<typeof AERO_ADVICE>
  | ItemOf<typeof TRACK_ADVICE>
  | ItemOf<typeof JOBS_ADVICE>
  | ItemOf<typeof CHECKS_ADVICE>
  | ItemOf<typeof SYSTEMS_ADVICE>
type LimitItem = Extract<NextAction, { code: 'limit-broken' | 'limit-would-break' }>

/** What a goal is of, with its place: "Lap at Skarvholm". */
const named = (word: string, place: string | null) => (place === null ? word : `${word} at ${place}`)

const sayLimit = ({ code, metric, place, position, value, limit, sense }: LimitItem, { text, stage, at, metric: facts }: AdviceWords): Said => {
  const { word, kind, room } = facts(metric)
  return {
    head: `${named(word, place)} ${code === 'limit-broken' ? 'breaks' : 'would break'} its limit at ${stage(position)}`,
    text: `${text(kind, value)} against ${text(kind, limit)}${sense === 'atMost' ? ' at most' : ' at least'}.`,
    to: at(room, position),
    isDanger: true,
  }
}

const SAYINGS: Sayings<NextAction> = {
  ...WEIGHT_SAYINGS,
  ...POWER_SAYINGS,
  ...PARTS_SAYINGS,
  ...DRIVETRAIN_SAYINGS,
  ...AERO_SAYINGS,
  ...TRACK_SAYINGS,
  ...JOBS_SAYINGS,
  ...CHECKS_SAYINGS,
  ...SYSTEMS_SAYINGS,
  'limit-broken': sayLimit,
  'limit-would-break': sayLimit,
  'target-late': ({ metric, place, position }, { stage, at, metric: facts }) => ({
    head: `${named(facts(metric).word, place)} is late`,
    text: `Its due date, ${stage(position)}, has passed and nothing measured says yes or no.`,
    to: at('plan', position, '&tab=goals'),
  }),
  'measure-target': (item, words) => (MEASUREMENTS.find(({ key }) => key === item.base) as (typeof MEASUREMENTS)[number]).cure(item, words),
  'confirm-target': ({ metric, place, position, chance: sure }, { chance, at, metric: facts }) => ({
    head: `Measure ${named(facts(metric).word.toLowerCase(), place)} once more`,
    text: `The verdict is ${chance(sure)} sure; a second visit that agrees settles it.`,
    to: at(facts(metric).room, position),
  }),
}

/**
 * One thing to do next, in the words of a page.
 * @example sayNext({ code: 'no-mass' }, { at: (room, position, more) => `/${room}${more}` }).to // '/weight&tab=scales'
 */
export const sayNext = (action: NextAction, words: AdviceWords): Said => (SAYINGS[action.code] as (item: NextAction, words: AdviceWords) => Said)(action, words)
