import { orElse } from '../../attempt.ts'
import { combineMeasurements, type Measurement } from '../../proof/combine-measurements.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { Mark } from '../../records/check-kinds.ts'
import type { Limit } from '../../records/plan-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, type MetricWork } from '../../stages/define-metric.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { planHeatAtStage } from '../power/plan-heat.ts'
import { type CoolingView, coolingPlanAt, coolingSetup, coolingView } from './cooling.ts'
import { circuitsAtStage, supplyOf } from './electrics.ts'
import { type GapView, gapsAtStage } from './gaps.ts'

/** What the systems rest on beside the car's own lists. */
export const SYSTEMS_READS = ['checks', 'marks', 'circuits', 'coolingPlans', 'enginePlans', 'trackSessions', 'trackPlans'] as const

export const SYSTEMS_METRICS = [
  defineMetric({
    key: 'coolantHot',
    word: 'Coolant, hot day',
    kind: 'temperature',
    sense: 'atMost',
    calculation: 'cooling.settle',
    provedBy: ['mark'],
    basis: [],
    room: 'systems',
    reads: SYSTEMS_READS,
    working: 'coolantHot',
    range: 20,
  }),
  defineMetric({
    key: 'supplyMargin',
    word: 'Alternator left, hot',
    kind: 'current',
    sense: 'atLeast',
    calculation: 'electrics.supply',
    provedBy: ['mark'],
    basis: [],
    room: 'systems',
    reads: SYSTEMS_READS,
    working: 'supplyMargin',
    range: 20,
  }),
  defineMetric({
    key: 'leastGap',
    word: 'Least gap, hot',
    kind: 'length',
    sense: 'atLeast',
    calculation: 'clearance.hot-gap',
    provedBy: ['mark'],
    basis: [],
    room: 'systems',
    reads: SYSTEMS_READS,
    working: 'leastGap',
    range: 0.1,
  }),
] as const

/** How far the air of a reading may lie from the hot day that is planned, K (common practice, no source). */
const AIR_WITHIN_K = 5
/** How well a gauge and a clamp are read where nobody said. */
const GAUGE_SD_K = 1
const CLAMP_SHARE = 0.03
/** From this share of its variance on a number is called a guess. */
const MOSTLY_GUESSED = 0.5

/** A cooler at a stage, or why there is none; undefined where nobody planned it. */
export const coolantAtStage = rememberByIndex((car: Car, position: number): CoolingView | { readonly refused: string } | undefined =>
  coolerAtStage(car, position, 'coolant'),
)

/** One kind of cooler at a stage. */
export function coolerAtStage(car: Car, position: number, kind: 'coolant' | 'oil' | 'charge'): CoolingView | { readonly refused: string } | undefined {
  const found = coolingPlanAt({ stages: car.stages as never, coolingPlans: car.records.coolingPlans }, position, kind)
  if (!found) return undefined
  return orElse(
    () =>
      coolingView(
        coolingSetup(found.plan, { discipline: car.records.build.discipline, planHeatW: planHeatAtStage(car, position)?.heatW ?? null }),
        found.position,
      ),
    (refused) => ({ refused }),
  )
}

export const gapsOf = rememberByIndex((car: Car, position: number): readonly GapView[] => gapsAtStage(car.records, position))

/** What was read of one channel at the stage itself, one a day, the highest of it; the latest day first. */
function readDays(car: Car, position: number, role: string, isTaken: (mark: Mark) => boolean, sdOf: (mark: Mark) => number): Measurement[] {
  const stageId = car.stages[position]?.id
  const checks = new Set(car.records.checks.filter(({ reading }) => reading?.role === role).map(({ id }) => id))
  const byDay = new Map<string, Measurement>()
  for (const mark of car.records.marks) {
    if (mark.stageId !== stageId || mark.value === null || !checks.has(mark.checkId) || !isTaken(mark)) continue
    const day = mark.at.slice(0, 10)
    const known = byDay.get(day)
    if (!known || mark.value > known.value) byDay.set(day, { value: mark.value, sd: sdOf(mark), instrument: day })
  }
  return [...byDay].sort(([a], [b]) => b.localeCompare(a)).map(([, reading]) => reading)
}

/** From this share of full pace on a reading is one of full pace. */
const FULL_PACE = 0.95

const isFull = (car: Car, mark: Mark): boolean => {
  const session = car.records.trackSessions.find(({ id }) => id === mark.trackSessionId)
  if (!session || session.setAside !== null) return false
  if (session.step === null) return session.kind !== 'shakedown'
  const plan = car.records.trackPlans.find(({ stageId }) => stageId === session.stageId)
  return (plan?.steps[session.step]?.share ?? 0) >= FULL_PACE
}

/** Readings of the coolant at full pace with air near the hot day's. */
function coolantRead(car: Car, position: number, hotAirK: number): Measurement[] {
  return readDays(
    car,
    position,
    'coolant',
    (mark) => {
      const airK = car.records.trackSessions.find(({ id }) => id === mark.trackSessionId)?.ambient?.temperatureK
      return isFull(car, mark) && airK !== undefined && Math.abs(airK - hotAirK) <= AIR_WITHIN_K
    },
    (mark) => mark.sd ?? GAUGE_SD_K,
  )
}

const stageValue = (value: number, sd: number, proof: Proof, fromPosition: number | null = null): StageValue => ({
  value,
  sd,
  proof,
  distribution: normalDistribution(value, sd),
  fromPosition,
})

const combined = (found: readonly Measurement[]): StageValue | undefined => {
  const [first, ...more] = found
  if (!first) return undefined
  const { value, sd, proof } = combineMeasurements([first, ...more], () => Number.POSITIVE_INFINITY)
  return stageValue(value, sd, proof)
}

/** What the coolant settles at on a hot day at full pace; measured where it was read so at this stage. */
export function coolantHotValue(car: Car, position: number): StageValue | undefined {
  const view = coolantAtStage(car, position)
  if (!view || 'refused' in view) return undefined
  const measured = combined(coolantRead(car, position, view.setup.plan.hot.airK))
  if (measured) return measured
  const { setup, hot } = view
  const guessed =
    (setup.isFaceUsual && setup.loggedShare === null ? hot.byFaceK ** 2 : 0) +
    (setup.isLoadUsual && setup.heatFrom === 'enginePlan' ? hot.byHeatK ** 2 : 0) +
    (setup.plan.rating?.known === 'guess' ? hot.byRatingK ** 2 : 0)
  return stageValue(view.hotK, hot.sdK, hot.sdK > 0 && guessed / hot.sdK ** 2 >= MOSTLY_GUESSED ? 'guess' : 'calculated')
}

/** What the alternator has left when hot; measured where a clamp read the draw at this stage. */
export function supplyMarginValue(car: Car, position: number): StageValue | undefined {
  const { build } = car.records
  const found = supplyOf(build, circuitsAtStage(car.records, position))
  const read = build.supply
    ? combined(
        readDays(
          car,
          position,
          'current',
          () => true,
          (mark) => mark.sd ?? CLAMP_SHARE * (mark.value ?? 0),
        ),
      )
    : undefined
  if (read && build.supply) {
    const value = build.supply.alternatorA * build.supply.hotShare - read.value
    return { ...read, value, distribution: normalDistribution(value, read.sd) }
  }
  return found ? stageValue(found.hotA, found.sdA, found.guessShare >= MOSTLY_GUESSED ? 'guess' : 'calculated') : undefined
}

/** The least gap of the car once it is hot; measured where nothing beside it grows or rocks. */
export function leastGapValue(car: Car, position: number): StageValue | undefined {
  const known = gapsOf(car, position).filter(({ hotM }) => hotM !== null)
  const [least] = [...known].sort((a, b) => (a.hotM as number) - (b.hotM as number))
  if (!least || least.hotM === null) return undefined
  const mark = car.records.marks.find(({ at, checkId }) => at === least.at && checkId === least.check.id)
  const isOwn = stageIndex(car, mark?.stageId ?? '') === position
  return stageValue(least.hotM, least.sdM ?? 0, least.isPlain && isOwn ? 'measured' : 'calculated', isOwn ? null : stageIndex(car, mark?.stageId ?? ''))
}

export const SYSTEMS_VALUES: Readonly<Record<'coolantHot' | 'supplyMargin' | 'leastGap', MetricWork>> = {
  coolantHot: { at: coolantHotValue },
  supplyMargin: { at: supplyMarginValue },
  leastGap: { at: leastGapValue },
}

/** Limits that the systems bring along: the coolant's stop, an alternator that carries the car, gaps that stay open. */
export function systemsLimits(car: Car): Limit[] {
  const own = (metric: Limit['metric'], sense: Limit['sense'], value: number, stageId: string | null): Limit => ({
    id: `systems ${metric} ${stageId ?? ''}`,
    metric,
    sense,
    value,
    source: 'own',
    fromStageId: stageId,
    untilStageId: null,
    driverName: null,
    typed: null,
  })
  const plans = car.stages.flatMap((stage) => car.records.coolingPlans.filter((plan) => plan.stageId === stage.id && plan.kind === 'coolant'))
  const stops = plans.map((plan, i) => {
    const next = plans[i + 1]
    const until = next ? car.stages[stageIndex(car, next.stageId) - 1]?.id : undefined
    return { ...own('coolantHot', 'atMost', plan.stopK, plan.stageId), untilStageId: until ?? null }
  })
  const last = car.stages.length - 1
  const first = car.stages[0]?.id ?? null
  return [
    ...stops,
    ...(last >= 0 && supplyMarginValue(car, last) ? [own('supplyMargin', 'atLeast', 0, first)] : []),
    ...(last >= 0 && leastGapValue(car, last) ? [own('leastGap', 'atLeast', 0, first)] : []),
  ]
}

export const SYSTEMS_MEASUREMENTS = [
  defineMeasurement({
    key: 'mark',
    metric: 'coolantHot',
    cure: ({ metric, position, isBuilt }, { stage, at, metric: facts }) => ({
      head: metric === 'leastGap' ? 'Measure the gaps' : `Read ${facts(metric).word.toLowerCase()}`,
      text: isBuilt ? `${stage(position)} is built and it was not read there.` : 'It was not read yet: until then it is reckoned.',
      to: at('systems', position, metric === 'leastGap' ? '&tab=gaps' : metric === 'supplyMargin' ? '&tab=electrics' : '&tab=cooling'),
    }),
  }),
]

/** Stages at which a coolant, a current or a gap was read. */
const stagesRead = rememberByIndex((car: Car, _all: number): ReadonlySet<string | null> => {
  const read = new Set(
    car.records.checks.filter(({ reading, gap }) => gap !== null || reading?.role === 'coolant' || reading?.role === 'current').map(({ id }) => id),
  )
  return new Set(car.records.marks.flatMap(({ stageId, value, checkId }) => (value !== null && read.has(checkId) ? [stageId] : [])))
})
const isRead = (car: Car, stageId: string | undefined) => stageId !== undefined && stagesRead(car, 0).has(stageId)

/** Systems are asked for only where somebody set a goal of them. */
export const SYSTEMS_PROOFS: Readonly<Record<string, MeasurementWork>> = {
  mark: {
    asksAsBought: false,
    touches: (car, position) =>
      car.records.targets.some(({ metric }) => metric in SYSTEMS_VALUES) &&
      (car.records.coolingPlans.some(({ stageId }) => stageId === car.stages[position]?.id) ||
        car.records.circuits.some(({ stageId }) => stageId === car.stages[position]?.id)),
    isMeasuredAt: (car, position) => isRead(car, car.stages[position]?.id),
    isEnteredAt: (car, stageId) => isRead(car, stageId),
  },
}
