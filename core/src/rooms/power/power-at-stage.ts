import { type GridCurve, meanCurve, scaleCurve } from '../../dyno/curve.ts'
import { itemAt } from '../../item-at.ts'
import { type CombinedMeasurements, combineMeasurements } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Expectation } from '../../records/plan-kinds.ts'
import type { DynoSession } from '../../records/power-kinds.ts'
import type { Car, Line } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { type Distribution, normalDistribution } from '../../stats/distribution.ts'
import { sessionPower } from './session-power.ts'

export type PowerSession = {
  readonly session: DynoSession
  readonly value: number
  readonly sd: number
  readonly factor: number
  readonly pullIds: readonly string[]
}

export type PowerStep =
  | {
      readonly kind: 'measured'
      readonly position: number
      readonly sessions: readonly PowerSession[]
      readonly combined: CombinedMeasurements
      readonly value: number
      readonly sd: number
    }
  | { readonly kind: 'start'; readonly position: number; readonly session: PowerSession; readonly value: number; readonly sd: number }
  | { readonly kind: 'expectation'; readonly position: number; readonly expectation: Expectation; readonly value: number; readonly sd: number }
  | { readonly kind: 'unasked'; readonly position: number; readonly value: number; readonly sd: number }

export interface PowerAtStage {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
  readonly distribution: Distribution
  /** The stage whose session the value starts from; equal to the stage asked for when it was measured there. */
  readonly fromPosition: number | null
  readonly isMeasuredHere: boolean
  /** The stage lists nothing and no session was entered at it: the power of the stage before stands, at most calculated. */
  readonly isEmptyStage: boolean
  readonly steps: readonly PowerStep[]
}

/** Spread of power carried through a change that touches it with no expectation (common practice, no source). */
const UNASKED_RELATIVE_SD = 0.05
const EXPECTATION_RELATIVE_SD = 0.05
const largestUsefulPowerSd = (powerW: number) => 0.03 * powerW

const powerLinesAt = rememberByIndex((car: Car, position: number) => car.linesByStage[position]?.filter((line) => line.change.touchesPower) ?? [])

/** Whether a session's engine was that of stage `position`: all its power changes done before, none of a later stage. */
export function sessionStands(car: Car, session: DynoSession, position: number): boolean {
  const at = Date.parse(session.at)
  const doneBefore = (line: Line) => line.doneAtMs !== null && line.doneAtMs <= at
  return car.stages.every((_, n) => (n <= position ? powerLinesAt(car, n).every(doneBefore) : !powerLinesAt(car, n).some(doneBefore)))
}

/** Sessions entered at a stage that count on the build's basis, the standing one first, then latest first. */
export const countingSessions = rememberByIndex((car: Car, position: number): PowerSession[] => {
  const { records } = car
  const stage = car.stages[position]
  const standing = records.standings.find((entry) => entry.stageId === stage?.id)
  return records.sessions
    .filter((session) => session.stageId === stage?.id)
    .sort((a, b) => Number(b.id === standing?.sessionId) - Number(a.id === standing?.sessionId) || Date.parse(b.at) - Date.parse(a.at))
    .flatMap((session): PowerSession[] => {
      const power = sessionPower(records, session, standing?.sessionId === session.id ? standing : undefined)
      if (!power.ok) return []
      return [{ session, value: power.value, sd: power.sd, factor: power.factor, pullIds: power.pulls.map((pull) => pull.id) }]
    })
})

/**
 * Wheel power of the car at a stage on the build's basis. The latest stage with a session that stands is the start; expectations of later
 * stages are applied in order (to replaces, by adds, times scales; spreads in quadrature). A change that touches power with no expectation
 * carries the value with 5 % spread as a guess; a stage that lists nothing carries it at most calculated. Undefined when there is neither a session nor a "to" expectation.
 */
export const powerAtStage = rememberByIndex((car: Car, position: number): PowerAtStage | undefined => {
  let now: Carried | undefined
  for (let at = 0; at <= position; at++) {
    const sessions = countingSessions(car, at)
    const measured = sessions.filter((entry) => sessionStands(car, entry.session, at))
    const [head, ...rest] = measured
    if (head) {
      const asMeasurement = (entry: PowerSession) => ({ value: entry.value, sd: entry.sd, instrument: entry.session.dynoName })
      const combined = combineMeasurements([asMeasurement(head), ...rest.map(asMeasurement)], largestUsefulPowerSd)
      const { value, sd, proof } = combined
      now = { value, sd, proof, fromPosition: at, steps: [{ kind: 'measured', position: at, sessions: measured, combined, value, sd }] }
      continue
    }
    const start = sessions[0]
    if (start) {
      const step: PowerStep = { kind: 'start', position: at, session: start, value: start.value, sd: start.sd }
      now = { value: start.value, sd: start.sd, proof: 'measured', fromPosition: at, steps: [step] }
    } else if (now && !car.lists[at]) now = { ...now, proof: leastProof(now.proof, 'calculated') }
    now = planStage(car, at, now, start !== undefined)
  }
  if (!now) return undefined
  const isMeasuredHere = now.steps.at(-1)?.kind === 'measured' && now.fromPosition === position
  return { ...now, distribution: normalDistribution(now.value, now.sd), isMeasuredHere, isEmptyStage: !car.lists[position] && now.fromPosition !== position }
})

/** What a stage should give in power; expectations of other metrics are not read here. */
const powerExpectations = ({ records }: Car, stageId: string | undefined) =>
  records.expectations.filter((entry) => entry.stageId === stageId && entry.metric === 'wheelPower')

type Carried = Omit<PowerAtStage, 'distribution' | 'isMeasuredHere' | 'isEmptyStage'>

function planStage(car: Car, at: number, before: Carried | undefined, fromOtherSession: boolean): Carried | undefined {
  const stageId = car.stages[at]?.id
  const expectations = powerExpectations(car, stageId)
  let now = before
  for (const expectation of expectations) now = applyExpectation(expectation, at, now) ?? now
  if (expectations.length > 0 || !now) return now
  if (!fromOtherSession && powerLinesAt(car, at).length === 0) return now
  const sd = Math.max(now.sd, UNASKED_RELATIVE_SD * now.value)
  return { ...now, sd, proof: 'guess', steps: [...now.steps, { kind: 'unasked', position: at, value: now.value, sd }] }
}

function applyExpectation(expectation: Expectation, position: number, before: Carried | undefined): Carried | undefined {
  const { mode, proof } = expectation
  if (mode !== 'to' && !before) return undefined
  const base = before ?? { value: 0, sd: 0, proof: 'confirmed' as Proof, fromPosition: null, steps: [] }
  const own = expectation.sd ?? Math.abs(expectation.value) * EXPECTATION_RELATIVE_SD
  const { value, sd } = {
    to: () => ({ value: expectation.value, sd: own }),
    by: () => ({ value: base.value + expectation.value, sd: Math.hypot(base.sd, own) }),
    times: () => ({ value: base.value * expectation.value, sd: Math.hypot(base.sd * expectation.value, base.value * own) }),
  }[mode]()
  if (value <= 0) return undefined
  const least = mode === 'to' ? proof : leastProof(base.proof, proof)
  return { ...base, value, sd, proof: least, steps: [...base.steps, { kind: 'expectation', position, expectation, value, sd }] }
}

/** What the expectations of a stage make of the power before it, whether or not it was measured since; undefined without any. */
export function plannedPowerW(car: Car, position: number): number | undefined {
  const stageId = car.stages[position]?.id
  const expectations = powerExpectations(car, stageId)
  let now: Carried | undefined = position > 0 ? powerAtStage(car, position - 1) : undefined
  for (const expectation of expectations) now = applyExpectation(expectation, position, now) ?? now
  return expectations.length > 0 ? now?.value : undefined
}

/** Curve of a stage on the build's basis: measured there, or scaled from the stage it starts from and said to be so. */
export function curveAtStage(car: Car, position: number): { curve: GridCurve; scaledFromPosition: number | null } | undefined {
  const power = powerAtStage(car, position)
  const [first] = power?.steps ?? []
  if (!power || !first || (first.kind !== 'measured' && first.kind !== 'start')) return undefined
  const head = first.kind === 'measured' ? itemAt(first.sessions, 0) : first.session
  const pulls = car.records.pulls.filter((pull) => head.pullIds.includes(pull.id))
  const curve = meanCurve(pulls.map((pull) => scaleCurve(pull.curve, head.factor)))
  if (!curve) return undefined
  if (power.isMeasuredHere) return { curve, scaledFromPosition: null }
  return { curve: scaleCurve(curve, power.value / first.value), scaledFromPosition: first.position }
}

/** Whether somebody said what a stage should give in power. */
export const hasPowerExpectation = (car: Car, position: number): boolean => powerExpectations(car, car.stages[position]?.id).length > 0

/** Whether a stage touches power: it has an expectation, or a change that touches power. */
export function stageTouchesPower(car: Car, position: number): boolean {
  return powerLinesAt(car, position).length > 0 || hasPowerExpectation(car, position)
}
