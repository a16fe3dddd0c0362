import { isMeasured, type Proof } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import { withRatingLimit } from '../rooms/parts/rating-limits.ts'
import { plannedPowerW } from '../rooms/power/power-at-stage.ts'
import { unexplainedAt } from '../rooms/weight/unexplained.ts'
import { makeCar } from '../stages/car.ts'
import { quantileOf } from '../stats/distribution.ts'
import { type StageState, stageState } from './stage-state.ts'
import { basisWords, METRIC_INFO, StageValues } from './stage-values.ts'
import { type LimitVerdict, limitVerdict, type TargetVerdict, targetVerdict } from './verdict.ts'
import { type NextAction, whatNext } from './what-next.ts'

export interface BoardStage extends StageState {
  readonly id: string
  readonly position: number
  readonly name: string
  readonly date: string | null
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

export interface BoardRow {
  readonly id: string
  readonly metric: Metric
  readonly basis: ReturnType<typeof basisWords>
  readonly goal: { kind: 'target'; record: Target; verdict: TargetVerdict } | { kind: 'limit'; record: Limit; verdict: LimitVerdict } | { kind: 'none' }
  readonly cells: readonly (BoardCell | null)[]
  readonly beam: Beam | null
  /** The part whose rating is the limit, where it is one of the register. */
  readonly ratedPart: string | null
}

/** Ends of a beam as shares of the way from the first value (0) to the goal (1); past 1 the goal is made, whichever way the number runs. */
export interface Beam {
  readonly provenShare: number | null
  readonly plannedShare: number | null
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
}

/** Works out the whole Board of a build. `today` is an ISO date, for what is late. */
export function makeBoard(records: BuildRecords, today: string): Board {
  const values = new StageValues(makeCar(withRatingLimit(records)))
  const { car } = values
  const stages = car.stages.map(
    (stage, position): BoardStage => ({ id: stage.id, name: stage.name, date: stage.date, ...stageState(values, position, today), position }),
  )
  const problems = car.stages.flatMap((stage, position) => {
    const mass = values.massOrProblem(position)
    return mass instanceof Error ? [`Stage ${position} ${stage.name}: ${mass.message}`] : []
  })
  return { stages, rows: boardRows(values, today), trail: trail(values), next: whatNext(values, today), problems }
}

function boardRows(values: StageValues, today: string): BoardRow[] {
  const { records } = values.car
  const cellsOf = new Map<Metric, (BoardCell | null)[]>()
  const cells = (metric: Metric) => {
    if (!cellsOf.has(metric))
      cellsOf.set(
        metric,
        values.car.stages.map((_, position) => boardCell(values, metric, position)),
      )
    return cellsOf.get(metric) as (BoardCell | null)[]
  }
  const row = (id: string, metric: Metric, goal: BoardRow['goal']): BoardRow => ({
    id,
    metric,
    basis: basisWords(records.build, metric),
    goal,
    cells: cells(metric),
    ratedPart: goal.kind === 'limit' ? (records.parts.find((part) => part.id === goal.record.id)?.name ?? null) : null,
    beam: goal.kind === 'none' ? null : beam(values, metric, goal.record, goal.verdict.verdictPosition),
  })
  const goals = [
    ...records.targets.map((record) => row(record.id, record.metric, { kind: 'target', record, verdict: targetVerdict(values, record, today) })),
    ...records.limits.map((record) => row(record.id, record.metric, { kind: 'limit', record, verdict: limitVerdict(values, record) })),
  ]
  const always = (['massReady', 'wheelPower', 'powerToMass'] as const).filter((metric) => !goals.some((entry) => entry.metric === metric))
  const order = Object.keys(METRIC_INFO)
  const plain = always.map((metric) => row(metric, metric, { kind: 'none' }))
  return [...goals, ...plain].sort((a, b) => order.indexOf(a.metric) - order.indexOf(b.metric))
}

function boardCell(values: StageValues, metric: Metric, position: number): BoardCell | null {
  const value = values.value(metric, position)
  if (!value) return null
  return {
    value: value.value,
    sd: value.sd,
    proof: value.proof,
    lowValue: quantileOf(value.distribution, 0.1),
    highValue: quantileOf(value.distribution, 0.9),
    fromPosition: value.fromPosition,
    plannedValue: isMeasured(value.proof) ? plannedValue(values, metric, position) : null,
  }
}

/** What the plan said of a value that is measured by now. */
function plannedValue(values: StageValues, metric: Metric, position: number): number | null {
  const anchor = values.mass(position)?.anchor
  const weighing = anchor?.kind === 'equal' ? anchor.weighings[0] : undefined
  const mass = weighing ? (unexplainedAt(values.car, weighing.weighing.id)?.ledgerSaidKg ?? null) : null
  const power = values.power(position)?.isMeasuredHere ? (plannedPowerW(values.car, position) ?? null) : null
  if (metric === 'massReady') return mass
  if (metric === 'wheelPower') return power
  return null
}

/** How far the proven value and the plan have come from the first value to the goal. */
function beam(values: StageValues, metric: Metric, goal: { sense: string; value: number; highValue?: number | null }, verdictPosition: number): Beam | null {
  const all = values.car.stages.map((_, position) => values.value(metric, position))
  const first = all.find((value) => value !== undefined)
  if (!first) return null
  const planned = all[verdictPosition] ?? all.findLast((value) => value !== undefined)
  const proven = all.findLast((value) => value !== undefined && isMeasured(value.proof) && value.fromPosition === null)
  const nearest = goal.sense === 'between' && first.value > goal.value ? (goal.highValue ?? goal.value) : goal.value
  const far = first.value - nearest
  // A car that starts on the goal has no way to go: measure from a tenth of the goal away, on the side that fails.
  const side = goal.sense === 'atLeast' ? -1 : 1
  const start =
    Math.abs(far) > 0.005 * nearest && Math.sign(far) === (goal.sense === 'between' ? Math.sign(far) : side) ? first.value : nearest * (1 + 0.1 * side)
  const share = (value: number) => (start - value) / (start - nearest)
  return { provenShare: proven ? share(proven.value) : null, plannedShare: planned ? share(planned.value) : null }
}

function trail(values: StageValues): TrailPoint[] {
  return values.car.stages.flatMap((_, position): TrailPoint[] => {
    const [mass, power] = [values.mass(position), values.power(position)]
    if (!mass || !power) return []
    const isProven = isMeasured(mass.proof) && isMeasured(power.proof)
    return [{ position, massKg: mass.value, massSdKg: mass.sd, powerW: power.value, powerSdW: power.sd, isProven }]
  })
}
