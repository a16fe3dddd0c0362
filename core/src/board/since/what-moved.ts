import { orElse } from '../../attempt.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { Metric } from '../../records/metric-keys.ts'
import type { Limit, Target } from '../../records/plan-kinds.ts'
import { readBuildRecords } from '../../records/read-records.ts'
import { type CarOptions, openCar } from '../../stages/car.ts'
import { quantileOf } from '../../stats/distribution.ts'
import { StageValues } from '../stage-values.ts'
import { type LimitVerdict, limitVerdict, type TargetVerdict, targetVerdict } from '../verdict.ts'
import { type LiveLists, type MovedLine, putBack } from './put-back.ts'
import { itemsOf, type Spell, type SpellItem, type SpellKind, spellsOf } from './spells.ts'

/** A goal as it stood, in what it is held by. */
export interface GoalThen {
  readonly kind: 'target' | 'limit'
  readonly id: string
  readonly sense: Target['sense']
  readonly value: number
  readonly highValue: number | null
}

export interface VerdictThen {
  readonly word: TargetVerdict['word'] | LimitVerdict['word']
  readonly chance: number | null
}

/** The picked number as it stood behind a line of the log. */
export interface Standing {
  /** Null: not known then. */
  readonly value: number | null
  readonly sd: number | null
  readonly proof: Proof | null
  /** 8 times in 10 between these. */
  readonly lowValue: number | null
  readonly highValue: number | null
  readonly goal: GoalThen | null
  readonly verdict: VerdictThen | null
}

export interface MovedSpell {
  readonly kind: SpellKind
  readonly by: string
  readonly firstId: number
  readonly lastId: number
  readonly from: string
  readonly to: string
  readonly lineCount: number
  /** The lines themselves, so that one can be taken back. */
  readonly lineIds: readonly number[]
  readonly items: readonly SpellItem[]
  readonly after: Standing
  /** By how much the number moved; null where it was not known before or behind. */
  readonly step: number | null
  readonly movesGoal: boolean
  /** The verdict behind it with the goal as it was before; null where the goal did not move. */
  readonly verdictWithOldGoal: VerdictThen | null
  /** It moved neither the number nor its verdict. */
  readonly isFolded: boolean
}

/** One goal of the build at both ends. */
export interface GoalMoved {
  readonly id: string
  readonly metric: Metric
  readonly before: VerdictThen | null
  readonly now: VerdictThen | null
  /** Now, against the goal as it was; null where it did not move. */
  readonly withOldGoal: VerdictThen | null
}

export interface WhatMoved {
  readonly metric: Metric
  readonly position: number
  readonly before: Standing
  readonly now: Standing
  readonly spells: readonly MovedSpell[]
  readonly goals: readonly GoalMoved[]
  /** Now, against the goal as it was then; null where it did not move. */
  readonly nowWithOldGoal: VerdictThen | null
}

/** Steps under this are rounding. */
const LEAST_STEP = 1e-9
const NOT_KNOWN: Standing = { value: null, sd: null, proof: null, lowValue: null, highValue: null, goal: null, verdict: null }

type GoalRecord = { readonly kind: 'target'; readonly record: Target } | { readonly kind: 'limit'; readonly record: Limit }

/** The goal that a number is held against: the target due at the stage, else any target of it, else a limit; of laps, those of the build's own track. */
function goalOf(values: StageValues, metric: Metric, stageId: string): GoalRecord | null {
  const isOfIt = (each: Target | Limit) => each.metric === metric && values.place(each) === values.place(metric)
  const targets = values.targets.filter(isOfIt)
  const target = targets.find(({ dueStageId }) => dueStageId === stageId) ?? targets[0]
  if (target) return { kind: 'target', record: target }
  const limit = values.limits.find(isOfIt)
  return limit ? { kind: 'limit', record: limit } : null
}

function verdictOf(values: StageValues, goal: GoalRecord | null, today: string): VerdictThen | null {
  if (!goal) return null
  const verdict = goal.kind === 'target' ? targetVerdict(values, goal.record, today) : limitVerdict(values, goal.record)
  return verdict && { word: verdict.word, chance: verdict.chance }
}

const goalThen = (goal: GoalRecord | null): GoalThen | null =>
  goal && {
    kind: goal.kind,
    id: goal.record.id,
    sense: goal.record.sense,
    value: goal.record.value,
    highValue: goal.kind === 'target' ? goal.record.highValue : null,
  }

const isSameGoal = (a: GoalThen | null, b: GoalThen | null) => JSON.stringify(a) === JSON.stringify(b)

/** The build as it stood behind a line, opened once for all that is asked of it. */
interface Then {
  readonly values: StageValues | null
  readonly goal: GoalRecord | null
  readonly standing: Standing
}

interface Asked {
  readonly metric: Metric
  readonly stageId: string
  /** ISO date, for what is late. */
  readonly today: string
  /** What other builds teach its guesses, where it learns from them. */
  readonly learns?: CarOptions
}

function standingOf(lists: LiveLists | null, { metric, stageId, today, learns = {} }: Asked): Then {
  if (lists === null) return { values: null, goal: null, standing: NOT_KNOWN }
  const values = orElse(
    () => new StageValues(openCar(readBuildRecords(lists as never).records, learns)),
    () => null,
  )
  if (!values || typeof values === 'string') return { values: null, goal: null, standing: NOT_KNOWN }
  const position = values.car.stages.findIndex(({ id }) => id === stageId)
  const value = position < 0 ? undefined : values.value(metric, position)
  const goal = goalOf(values, metric, stageId)
  const verdict = orElse(
    () => verdictOf(values, goal, today),
    () => null,
  )
  return {
    values,
    goal,
    standing: {
      value: value?.value ?? null,
      sd: value?.sd ?? null,
      proof: value?.proof ?? null,
      lowValue: value ? quantileOf(value.distribution, 0.1) : null,
      highValue: value ? quantileOf(value.distribution, 0.9) : null,
      goal: goalThen(goal),
      verdict,
    },
  }
}

function movedSpell({ kind, by, lines }: Spell, before: Then, after: Then, today: string): MovedSpell {
  const [first, last] = [lines[0] as MovedLine, lines.at(-1) as MovedLine]
  const step = before.standing.value === null || after.standing.value === null ? null : after.standing.value - before.standing.value
  const movesGoal = !isSameGoal(before.standing.goal, after.standing.goal)
  const isSameWord = before.standing.verdict?.word === after.standing.verdict?.word
  const isKnownAlike = (before.standing.value === null) === (after.standing.value === null)
  return {
    kind,
    by,
    firstId: first.id,
    lastId: last.id,
    from: first.at,
    to: last.at,
    lineCount: lines.length,
    lineIds: lines.map(({ id }) => id),
    items: itemsOf({ lines }),
    after: after.standing,
    step,
    movesGoal,
    verdictWithOldGoal: movesGoal && before.goal && after.values ? verdictOf(after.values, before.goal, today) : null,
    isFolded: isKnownAlike && Math.abs(step ?? 0) < LEAST_STEP && isSameWord && !movesGoal,
  }
}

/** Every goal at both ends; one that is new or gone has no verdict at the other. */
function goalsMoved(then: Then, now: Then, today: string): GoalMoved[] {
  const all = (at: Then): GoalRecord[] =>
    at.values === null
      ? []
      : [
          ...at.values.targets.map((record) => ({ kind: 'target', record }) as const),
          ...at.values.car.records.limits.map((record) => ({ kind: 'limit', record }) as const),
        ]
  const before = new Map(all(then).map((goal) => [goal.record.id, goal]))
  return all(now).map((goal): GoalMoved => {
    const old = before.get(goal.record.id) ?? null
    const isMoved = old !== null && !isSameGoal(goalThen(old), goalThen(goal))
    return {
      id: goal.record.id,
      metric: goal.record.metric,
      before: then.values && verdictOf(then.values, old, today),
      now: now.values && verdictOf(now.values, goal, today),
      withOldGoal: isMoved && now.values ? verdictOf(now.values, old, today) : null,
    }
  })
}

/**
 * What moved a number since a line of the log: its standing then and now, and behind each spell of work, with the step that each made; steps sum to now less then.
 * `lists` are the live records of a build now, `lines` those of its log since, oldest first. With `isWhole` false the spells are left out and only both ends are worked
 * out. A step has no spread: both sides rest on the same records. A number that nobody could know then is null, and so are the steps at it.
 * Source: the log's own images; spells and folding are common practice, no source.
 * @example whatMoved(EXAMPLE, [], { metric: 'massReady', stageId: 'strip', today: '2026-11-01' }).spells // []
 */
export function whatMoved(lists: LiveLists, lines: readonly MovedLine[], asked: Asked, isWhole = true): WhatMoved {
  const { metric, stageId, today } = asked
  const now = standingOf(lists, asked)
  let later = now
  let at: LiveLists | null = lists
  const spells: MovedSpell[] = []
  for (const spell of spellsOf(lines).reverse()) {
    for (const line of [...spell.lines].reverse()) at = at && putBack(at, line)
    if (!isWhole) continue
    const before = standingOf(at, asked)
    spells.push(movedSpell(spell, before, later, today))
    later = before
  }
  const then = isWhole ? later : standingOf(at, asked)
  const isMoved = then.goal !== null && !isSameGoal(then.standing.goal, now.standing.goal)
  return {
    metric,
    position: now.values?.car.stages.findIndex(({ id }) => id === stageId) ?? -1,
    before: then.standing,
    now: now.standing,
    spells: spells.reverse(),
    goals: goalsMoved(then, now, today),
    nowWithOldGoal: isMoved && now.values ? verdictOf(now.values, then.goal, today) : null,
  }
}
