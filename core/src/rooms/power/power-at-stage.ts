import { type GridCurve, meanCurve, scaleCurve } from '../../dyno/curve.ts'
import { itemAt } from '../../item-at.ts'
import { type CombinedMeasurements, combineMeasurements } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Expectation } from '../../records/plan-kinds.ts'
import type { DynoSession, DynoSetting } from '../../records/power-kinds.ts'
import type { Car, Line } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { type Distribution, normalDistribution } from '../../stats/distribution.ts'
import { isSameSetting, type PowerRun, pickedRun, powerRuns } from './visits.ts'

export type PowerStep =
  | {
      readonly kind: 'measured'
      readonly position: number
      readonly runs: readonly PowerRun[]
      readonly combined: CombinedMeasurements
      readonly value: number
      readonly sd: number
    }
  | { readonly kind: 'start'; readonly position: number; readonly run: PowerRun; readonly value: number; readonly sd: number }
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

/** What the sessions entered at a stage say of it. */
export interface StageRuns {
  /** Visits of the standing setting: the one that stands, then the others, the latest first. */
  readonly measured: readonly PowerRun[]
  /** What ran on another setting there: another engine, kept in sight. */
  readonly otherSettings: readonly PowerRun[]
  /** The latest of sessions whose engine was not that of the stage, where none stands. */
  readonly start: PowerRun | undefined
  /** Whether somebody picked what stands; else the last setting run does. */
  readonly isPicked: boolean
}

export const runsAtStage = rememberByIndex((car: Car, position: number): StageRuns => {
  const { records } = car
  const stageId = car.stages[position]?.id
  const standing = records.standings.find((entry) => entry.stageId === stageId)
  const sessions = records.sessions.filter((session) => session.stageId === stageId)
  const fitting = sessions.filter((session) => sessionStands(car, session, position))
  const pickedSession = sessions.find(({ id }) => id === standing?.sessionId)
  const picked = standing && pickedSession && pickedRun(records, pickedSession, standing.settingId, standing.pullIds)
  const isPickedFitting = picked !== undefined && fitting.some(({ id }) => id === pickedSession?.id)
  const runs = powerRuns(records, fitting)
  const head = isPickedFitting ? picked : runs.at(-1)
  if (!head) {
    const others = powerRuns(
      records,
      sessions.filter((session) => !fitting.includes(session)),
    )
    return { measured: [], otherSettings: [], start: picked ?? others.at(-1), isPicked: picked !== undefined }
  }
  const printsAlike = (run: PowerRun) => records.build.powerBasis.standard !== 'asPrinted' || run.session.printedStandard === head.session.printedStandard
  const isSame = (run: PowerRun) => isSameSetting(run.setting, head.setting)
  const others = runs.filter((run) => run.visit !== head.visit && isSame(run) && printsAlike(run)).toReversed()
  return { measured: [head, ...others], otherSettings: runs.filter((run) => !isSame(run)), start: undefined, isPicked: isPickedFitting }
})

/**
 * Wheel power of the car at a stage on the build's basis. The latest stage with a session that stands is the start: the setting that was picked, else the last
 * one run; visits of one setting confirm each other, and other settings are other engines; expectations of later
 * stages are applied in order (to replaces, by adds, times scales; spreads in quadrature). A change that touches power with no expectation
 * carries the value with 5 % spread as a guess; a stage that lists nothing carries it at most calculated. Undefined when there is neither a session nor a "to" expectation.
 */
export const powerAtStage = rememberByIndex((car: Car, position: number): PowerAtStage | undefined => {
  let now: Carried | undefined
  for (let at = 0; at <= position; at++) {
    const { measured, start } = runsAtStage(car, at)
    const [head, ...rest] = measured
    if (head) {
      const asMeasurement = (run: PowerRun) => ({ value: run.value, sd: run.sd, instrument: run.session.dynoName })
      const combined = combineMeasurements([asMeasurement(head), ...rest.map(asMeasurement)], largestUsefulPowerSd)
      const { value, sd, proof } = combined
      now = { value, sd, proof, fromPosition: at, steps: [{ kind: 'measured', position: at, runs: measured, combined, value, sd }] }
      continue
    }
    if (start) {
      const step: PowerStep = { kind: 'start', position: at, run: start, value: start.value, sd: start.sd }
      now = { value: start.value, sd: start.sd, proof: 'measured', fromPosition: at, steps: [step] }
    } else if (now && !car.lists[at]) now = { ...now, proof: leastProof(now.proof, 'calculated') }
    now = planStage(car, at, now, start !== undefined)
  }
  if (!now) return undefined
  const isMeasuredHere = now.steps.at(-1)?.kind === 'measured' && now.fromPosition === position
  return { ...now, distribution: normalDistribution(now.value, now.sd), isMeasuredHere, isEmptyStage: !car.lists[position] && now.fromPosition !== position }
})

/** The setting that the power of a stage rests on; undefined where it rests on no session. */
export function standingSetting(car: Car, position: number): DynoSetting | undefined {
  const [first] = powerAtStage(car, position)?.steps ?? []
  if (first?.kind === 'measured') return first.runs[0]?.setting
  return first?.kind === 'start' ? first.run.setting : undefined
}

/** What a stage should give in power; those of other metrics and of wished parts are not read here. */
const powerExpectations = ({ records }: Car, stageId: string | undefined) =>
  records.expectations.filter((entry) => entry.stageId === stageId && entry.metric === 'wheelPower' && entry.partId === null)

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

/** The curves of the pulls that a stage's power rests on, on the build's basis: of its own, or scaled from the stage it starts from. Empty where none has a curve. */
export function pullCurvesAtStage(car: Car, position: number): { curves: GridCurve[]; scaledFromPosition: number | null } {
  const power = powerAtStage(car, position)
  const [first] = power?.steps ?? []
  if (!power || !first || (first.kind !== 'measured' && first.kind !== 'start')) return { curves: [], scaledFromPosition: null }
  const head = first.kind === 'measured' ? itemAt(first.runs, 0) : first.run
  const scale = power.isMeasuredHere ? 1 : power.value / first.value
  const curves = head.pulls.flatMap(({ pull, factor }) => (pull.curve ? [scaleCurve(pull.curve, factor * scale)] : []))
  return { curves, scaledFromPosition: power.isMeasuredHere ? null : first.position }
}

/** Curve of a stage on the build's basis: the mean of its pulls, measured there, or scaled from the stage it starts from and said to be so. */
export function curveAtStage(car: Car, position: number): { curve: GridCurve; scaledFromPosition: number | null } | undefined {
  const { curves, scaledFromPosition } = pullCurvesAtStage(car, position)
  const curve = meanCurve(curves)
  return curve && { curve, scaledFromPosition }
}

/** Whether somebody said what a stage should give in power. */
export const hasPowerExpectation = (car: Car, position: number): boolean => powerExpectations(car, car.stages[position]?.id).length > 0

/** Whether a stage touches power: it has an expectation, or a change that touches power. */
export function stageTouchesPower(car: Car, position: number): boolean {
  return powerLinesAt(car, position).length > 0 || hasPowerExpectation(car, position)
}
