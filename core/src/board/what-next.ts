import { forecastMass } from '../mass/forecast.ts'
import { isMeasured } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import { stageTouchesPower } from '../rooms/power/power-at-stage.ts'
import { knownParts } from '../rooms/weight/mass-at-stage.ts'
import { unexplainedAt } from '../rooms/weight/unexplained.ts'
import { unknownLines } from '../stages/car.ts'
import { stageState } from './stage-state.ts'
import { METRIC_INFO, type StageValues } from './stage-values.ts'
import { limitVerdict, targetVerdict } from './verdict.ts'

/** One thing to do next; numbers in SI, words are put to them where units are known. Most pressing first. */
export type NextAction =
  | { code: 'limit-broken' | 'limit-would-break'; limitId: string; metric: Metric; position: number; value: number; limit: number; sense: string }
  | { code: 'no-mass' }
  | { code: 'target-late'; targetId: string; metric: Metric; position: number }
  | { code: 'scales-and-ledger-disagree'; weighingId: string; massKg: number; sdKg: number }
  | { code: 'weighings-disagree'; weighingId: string; otherId: string; position: number; massKg: number; otherKg: number }
  | { code: 'part-weighings-disagree'; changeId: string; name: string; position: number; massKg: number; otherKg: number }
  | { code: 'sessions-disagree'; sessionId: string; otherId: string; position: number; powerW: number; otherW: number }
  | { code: 'power-without-expectation'; position: number; changeName: string }
  | { code: 'measure-target'; targetId: string; metric: Metric; position: number; base: 'mass' | 'power'; isBuilt: boolean }
  | { code: 'weigh-part'; changeId: string; name: string; position: number; massKg: number; varianceShare: number }
  | { code: 'unknown-lines'; position: number; count: number; name: string }
  | { code: 'confirm-target'; targetId: string; metric: Metric; position: number; chance: number }

const WORTH_WEIGHING = 0.05

/** Ranks what to do next: limits, disagreements, gaps in the plan, then the measurement that removes most doubt. */
export function whatNext(values: StageValues, today: string): NextAction[] {
  return [
    ...limits(values),
    ...noMass(values),
    ...disagreements(values),
    ...lateTargets(values, today),
    ...unaskedPower(values),
    ...unmeasuredTargets(values, today),
    ...doubtfulParts(values),
    ...neverWeighed(values),
    ...unsureTargets(values, today),
  ]
}

function limits(values: StageValues): NextAction[] {
  return values.car.records.limits
    .flatMap((limit): NextAction[] => {
      const verdict = limitVerdict(values, limit)
      if (verdict.word !== 'broken' && verdict.word !== 'would break') return []
      const value = values.value(limit.metric, verdict.verdictPosition)?.value ?? limit.value
      const code = verdict.word === 'broken' ? 'limit-broken' : 'limit-would-break'
      return [{ code, limitId: limit.id, metric: limit.metric, position: verdict.verdictPosition, value, limit: limit.value, sense: limit.sense }]
    })
    .sort((a, b) => Number(b.code === 'limit-broken') - Number(a.code === 'limit-broken'))
}

const noMass = (values: StageValues): NextAction[] => (values.massOrProblem(0) === undefined ? [{ code: 'no-mass' }] : [])

function disagreements(values: StageValues): NextAction[] {
  const { car } = values
  const flagged = car.weighings.flatMap(({ weighing }): NextAction[] => {
    const found = unexplainedAt(car, weighing.id)
    return found?.isFlagged ? [{ code: 'scales-and-ledger-disagree', weighingId: weighing.id, massKg: found.massKg, sdKg: found.sdKg }] : []
  })
  const pairs = car.stages.flatMap((_, position): NextAction[] => [...weighingPair(values, position), ...sessionPair(values, position)])
  const parts = car.lines.flatMap(({ change, mass, stagePosition }): NextAction[] =>
    mass.disagreesWith
      ? [
          {
            code: 'part-weighings-disagree',
            changeId: change.id,
            name: change.name,
            position: stagePosition,
            massKg: mass.standing?.massKg ?? 0,
            otherKg: mass.disagreesWith.massKg,
          },
        ]
      : [],
  )
  return [...flagged.toReversed(), ...pairs, ...parts]
}

function weighingPair(values: StageValues, position: number): NextAction[] {
  const anchor = values.mass(position)?.anchor
  if (anchor?.kind !== 'equal' || anchor.combined.disagreesWith === undefined) return []
  const [first, other] = [anchor.weighings[0], anchor.weighings[anchor.combined.disagreesWith]]
  if (!first || !other) return []
  return [
    {
      code: 'weighings-disagree',
      weighingId: first.weighing.id,
      otherId: other.weighing.id,
      position,
      massKg: first.reference.massKg,
      otherKg: other.reference.massKg,
    },
  ]
}

function sessionPair(values: StageValues, position: number): NextAction[] {
  const step = values.power(position)?.steps[0]
  if (step?.kind !== 'measured' || step.position !== position || step.combined.disagreesWith === undefined) return []
  const [first, other] = [step.sessions[0], step.sessions[step.combined.disagreesWith]]
  if (!first || !other) return []
  return [{ code: 'sessions-disagree', sessionId: first.session.id, otherId: other.session.id, position, powerW: first.value, otherW: other.value }]
}

function lateTargets(values: StageValues, today: string): NextAction[] {
  return values.car.records.targets.flatMap((target): NextAction[] => {
    const verdict = targetVerdict(values, target, today)
    return verdict.isLate ? [{ code: 'target-late', targetId: target.id, metric: target.metric, position: verdict.duePosition }] : []
  })
}

function unaskedPower(values: StageValues): NextAction[] {
  const { car } = values
  return car.stages.flatMap((stage, position): NextAction[] => {
    if (!stageTouchesPower(car, position) || values.power(position)?.isMeasuredHere) return []
    if (car.records.expectations.some((entry) => entry.stageId === stage.id)) return []
    const line = car.lines.find((entry) => entry.stagePosition === position && entry.change.touchesPower)
    return line ? [{ code: 'power-without-expectation', position, changeName: line.change.name }] : []
  })
}

/** A target whose metric was never measured, or whose latest built stage was not; one action for each kind of measurement. */
function unmeasuredTargets(values: StageValues, today: string): NextAction[] {
  const { car } = values
  const seen = new Set<string>()
  return car.records.targets.flatMap((target): NextAction[] =>
    METRIC_INFO[target.metric].provedBy.flatMap((base): NextAction[] => {
      const metric = base === 'mass' ? 'massReady' : 'wheelPower'
      const built = car.stages.findLastIndex((_, position) => ['built', 'proven'].includes(stageState(values, position, today).state))
      const value = built < 0 ? undefined : values.value(metric, built)
      const needed = values.latestMeasured(metric, 0) === undefined || (built >= 0 && !(value && isMeasured(value.proof)))
      if (!needed || seen.has(base)) return []
      seen.add(base)
      return [{ code: 'measure-target', targetId: target.id, metric: target.metric, position: Math.max(built, 0), base, isBuilt: built >= 0 }]
    }),
  )
}

/** Lines that nobody weighed or guessed: the total tells on them later. */
function neverWeighed(values: StageValues): NextAction[] {
  const lines = unknownLines(values.car, values.car.stages.length - 1)
  const [first] = lines
  return first ? [{ code: 'unknown-lines', position: first.stagePosition, count: lines.length, name: first.change.name }] : []
}

/** The two open lines of the finished car whose weighing would remove most of its doubt. */
function doubtfulParts(values: StageValues): NextAction[] {
  const last = values.car.stages.length - 1
  const mass = values.mass(last)
  if (!mass || mass.openLines.length === 0) return []
  const forecast = forecastMass({
    knownKg: mass.anchorMassKg,
    knownSdKg: mass.anchorSdKg,
    parts: knownParts(mass.openLines),
    bias: values.car.bias,
  })
  return forecast.doubt
    .filter((entry) => entry.varianceShare >= WORTH_WEIGHING)
    .flatMap((entry): NextAction[] => {
      const open = mass.openLines.find((candidate) => candidate.part.id === entry.id)
      if (!open || isMeasured(open.line.mass.proof)) return []
      return [
        {
          code: 'weigh-part',
          changeId: entry.id,
          name: open.line.change.name,
          position: open.line.stagePosition,
          massKg: open.line.mass.massKg,
          varianceShare: Math.min(1, entry.varianceShare),
        },
      ]
    })
    .slice(0, 2)
}

function unsureTargets(values: StageValues, today: string): NextAction[] {
  return values.car.records.targets.flatMap((target): NextAction[] => {
    const verdict = targetVerdict(values, target, today)
    return verdict.withinDoubt && verdict.chance !== null
      ? [{ code: 'confirm-target', targetId: target.id, metric: target.metric, position: verdict.verdictPosition, chance: verdict.chance }]
      : []
  })
}
