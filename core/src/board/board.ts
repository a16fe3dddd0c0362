import { CalculationError } from '../errors.ts'
import { isMeasured, type Proof } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import { isRead } from '../rooms/drivetrain/stage-yardsticks.ts'
import { type StageRoad, stageRoads } from '../rooms/jobs/jobs-room.ts'
import { powerAtStage } from '../rooms/power/power-at-stage.ts'
import { lapMisses } from '../rooms/track/advice.ts'
import { massOf, massOrProblem } from '../rooms/weight/mass-at-stage.ts'
import type { Car } from '../stages/car.ts'
import { WAITING, type Waiting } from '../stages/stage-value.ts'
import { quantileOf } from '../stats/distribution.ts'
import type { NextAction } from './advice.ts'
import { basisWords } from './metrics.ts'
import { type StageState, stageState } from './stage-state.ts'
import { ALL_METRICS, type Asked, type Goal, type MetricSet, StageValues, satisfies } from './stage-values.ts'
import { type LimitVerdict, limitVerdict, type TargetVerdict, targetVerdict } from './verdict.ts'
import { whatNext } from './what-next.ts'

export interface BoardStage extends StageState {
  readonly id: string
  readonly position: number
  readonly name: string
  readonly date: string | null
  /** When it is ready, where jobs are listed and the road was worked out. */
  readonly road?: StageRoad
}

export interface BoardCell {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
  /** 8 times in 10 between these. */
  readonly lowValue: number
  readonly highValue: number
  readonly fromPosition: number | null
  /** What ledger and expectations said, where the value is measured; null where they said nothing. */
  readonly plannedValue: number | null
}

/**
 * A cell that is there; null for one that is empty or still being worked out.
 * @example arrivedCell('waiting') // null
 */
export const arrivedCell = (cell: BoardCell | Waiting | null | undefined): BoardCell | null => (cell === WAITING || cell === undefined ? null : cell)

export interface BoardRow {
  readonly id: string
  readonly metric: Metric
  /** Of laps: the track that the goal names; null: the build's control track, or no lap. */
  readonly trackId: string | null
  /** What tells it from the same metric elsewhere: the name of the track that a lap is of. */
  readonly place: string | null
  readonly basis: ReturnType<typeof basisWords>
  /** What it is held against; no verdict while a value that it rests on is being worked out. */
  readonly goal:
    | { kind: 'target'; record: Target; verdict: TargetVerdict | null }
    | { kind: 'limit'; record: Limit; verdict: LimitVerdict | null }
    | { kind: 'none' }
  readonly cells: readonly (BoardCell | Waiting | null)[]
  readonly beam: Beam | null
  /** The part whose rating is the limit, where it is one of the register. */
  readonly ratedPart: string | null
}

/** Ends of a beam as shares of the way from the first value (0) to the goal (1); past 1 the goal is made, whichever way the number runs. */
export interface Beam {
  readonly provenShare: number | null
  readonly plannedShare: number | null
  /** The values at 0 and at 1, for another mark on the same beam. */
  readonly start: number
  readonly mark: number
}

export interface TrailPoint {
  readonly position: number
  readonly massKg: number
  readonly massSdKg: number
  readonly powerW: number
  readonly powerSdW: number
  readonly isProven: boolean
}

export interface Board {
  readonly stages: readonly BoardStage[]
  readonly rows: readonly BoardRow[]
  readonly trail: readonly TrailPoint[]
  readonly next: readonly NextAction[]
  readonly problems: readonly string[]
  /** Whether a cell is being worked out: the same question has a fuller answer later. */
  readonly isWaiting?: true
}

/**
 * Works out the whole Board of a car. `today` is an ISO date, for what is late.
 * @example makeBoard(CAR, '2026-11-01').rows.map((row) => row.metric) // ['massReady', 'wheelPower', 'powerToMass']
 */
export function makeBoard(car: Car, today: string, metrics: MetricSet = ALL_METRICS): Board {
  const values = new StageValues(car, metrics)
  const roads = stageRoads(car, today)
  const stages = car.stages.map((stage, position): BoardStage => {
    const road = roads === WAITING ? undefined : roads[position]
    return { id: stage.id, name: stage.name, date: stage.date, ...stageState(values, position, today), position, ...(road ? { road } : {}) }
  })
  const problems = car.stages.flatMap((stage, position) => {
    const mass = massOrProblem(car, position)
    return mass instanceof CalculationError ? [`Stage ${position} ${stage.name}: ${mass.message}`] : []
  })
  const rows = boardRows(values, today)
  const isWaiting = roads === WAITING || rows.some(({ cells }) => cells.includes(WAITING)) || lapMisses(car).some(({ miss }) => miss === WAITING)
  return { stages, rows, trail: trail(car), next: whatNext(values, today), problems, ...(isWaiting ? { isWaiting } : {}) }
}

type Of = Exclude<Asked, Metric>

function boardRows(values: StageValues, today: string): BoardRow[] {
  const { records } = values.car
  const cellsOf = new Map<string, BoardRow['cells']>()
  const cells = (asked: Of) => {
    const key = `${asked.metric} ${asked.trackId ?? ''}`
    const known = cellsOf.get(key) ?? values.car.stages.map((_, position) => boardCell(values, asked, position))
    cellsOf.set(key, known)
    return known
  }
  const row = (id: string, metric: Metric, goal: BoardRow['goal'], of: Of = goal.kind === 'none' ? { metric } : goal.record): BoardRow => ({
    id,
    metric,
    trackId: of.trackId ?? null,
    place: values.place(of),
    basis: basisWords(records.build, values.info(metric)),
    goal,
    cells: cells(of),
    ratedPart: goal.kind === 'limit' ? (records.parts.find((part) => part.id === goal.record.id)?.name ?? null) : null,
    beam: goal.kind === 'none' || goal.verdict === null ? null : beam(values, goal.record, goal.verdict.verdictPosition, goal.kind === 'limit'),
  })
  const goals = [
    ...values.targets.map((record) => row(record.id, record.metric, { kind: 'target', record, verdict: targetVerdict(values, record, today) })),
    ...values.limits.map((record) => row(record.id, record.metric, { kind: 'limit', record, verdict: limitVerdict(values, record) })),
  ]
  const order = Object.keys(values.metrics.info) as Metric[]
  const always = order.filter((metric) => (values.info(metric).isAlwaysShown || isRead(values.car, metric)) && !goals.some((entry) => entry.metric === metric))
  const plain = always.map((metric) => row(metric, metric, { kind: 'none' }))
  return [...goals, ...plain].sort((a, b) => order.indexOf(a.metric) - order.indexOf(b.metric))
}

function boardCell(values: StageValues, asked: Of, position: number): BoardCell | Waiting | null {
  const value = values.found(asked, position)
  if (!value) return null
  if (value === WAITING) return WAITING
  return {
    value: value.value,
    sd: value.sd,
    proof: value.proof,
    lowValue: quantileOf(value.distribution, 0.1),
    highValue: quantileOf(value.distribution, 0.9),
    fromPosition: value.fromPosition,
    plannedValue: isMeasured(value.proof) ? values.planned(asked.metric, position) : null,
  }
}

/** How far the proven value and the plan have come from the first value to the goal. */
function beam(values: StageValues, goal: Goal & Of, verdictPosition: number, isLimit: boolean): Beam | null {
  if (values.isWaiting(goal)) return null
  const all = values.car.stages.map((_, position) => values.value(goal, position))
  const first = all.find((value) => value !== undefined)
  if (!first) return null
  const planned = all[verdictPosition] ?? all.findLast((value) => value !== undefined)
  const proven = all.findLast((value) => value !== undefined && isMeasured(value.proof) && value.fromPosition === null)
  const nearest = goal.sense === 'between' && first.value > goal.value ? (goal.highValue ?? goal.value) : goal.value
  const isRoomToWall = isLimit && satisfies(goal, first.value) && Math.abs(first.value - nearest) > 0.005 * Math.abs(nearest)
  // A limit is a wall: a car that keeps it runs from its first value towards it.
  const start = isRoomToWall ? first.value : beamStart(first.value, nearest, goal.sense, values.info(goal.metric).range)
  const share = (value: number) => (start - value) / (start - nearest)
  return { provenShare: proven ? share(proven.value) : null, plannedShare: planned ? share(planned.value) : null, start, mark: nearest }
}

/**
 * Where a beam begins: at the first value, as long as that has a way to go on the side that fails. A car that starts on the goal has none: then it runs
 * over the metric's own range, on the side that fails; over a tenth of the goal where it states none.
 */
function beamStart(first: number, nearest: number, sense: Goal['sense'], range: number | undefined): number {
  const ownRange = range !== undefined && Math.abs(nearest) <= range ? range : undefined
  const least = ownRange === undefined ? 0.005 * Math.abs(nearest) : 0.05 * ownRange
  const far = first - nearest
  const side = sense === 'atLeast' ? -1 : 1
  const hasWayToGo = Math.abs(far) > least && (sense === 'between' || Math.sign(far) === side)
  if (hasWayToGo) return first
  return ownRange === undefined ? nearest * (1 + 0.1 * side * Math.sign(nearest)) : nearest + ownRange * side
}

function trail(car: Car): TrailPoint[] {
  return car.stages.flatMap((_, position): TrailPoint[] => {
    const [mass, power] = [massOf(car, position), powerAtStage(car, position)]
    if (!mass || !power) return []
    const isProven = isMeasured(mass.proof) && isMeasured(power.proof)
    return [{ position, massKg: mass.value, massSdKg: mass.sd, powerW: power.value, powerSdW: power.sd, isProven }]
  })
}
