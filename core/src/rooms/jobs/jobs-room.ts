import { dayAfter } from '../../jobs/days.ts'
import { OPTIMISM_KINDS, type OptimismKind, optimismFactors } from '../../jobs/optimism.ts'
import type { Hand, WorkshopEvent } from '../../records/workshop-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { type DecisionView, decisionView, paidPerKg } from './decisions.ts'
import { type CostItem, costItems, moneyToStage, type StageMoney } from './money.ts'
import { ASSUMED_HAND, openTasks, optimismOf, type RoadOfCar, roadOf } from './road-of-car.ts'
import { type WorthItem, worthItems } from './worth.ts'

/** How guesses of one kind run, to be shown. */
export interface OptimismShown extends ReturnType<typeof optimismFactors> {
  readonly pairCount: number
  readonly isDefault: boolean
}

export interface JobsRoom extends RoadOfCar {
  readonly today: string
  readonly stages: readonly { readonly id: string; readonly name: string; readonly position: number }[]
  readonly hands: readonly Hand[]
  /** Nobody is listed: the hand is assumed. */
  readonly isHandAssumed: boolean
  readonly optimism: Readonly<Record<OptimismKind, OptimismShown>>
  /** Events that are not over, the next first. */
  readonly events: readonly WorkshopEvent[]
  /** Hours that stand on open lines which no job does, by stage: told, and laid nowhere. */
  readonly hoursOnLines: readonly number[]
  readonly money: readonly StageMoney[]
  readonly costs: readonly CostItem[]
  readonly decisions: readonly DecisionView[]
  readonly paidPerKg: number | null
  /** What priced changes that are not in the car yet buy. */
  readonly worth: readonly WorthItem[]
}

/** Hours on lines that are not done and that no open job does. */
function hoursOnLines({ records, stages }: Car): number[] {
  const done = new Set(openTasks(records).flatMap(({ changeIds }) => changeIds))
  return stages.map(({ id }) =>
    records.changes
      .filter(({ stageId, state, id: line }) => stageId === id && state === 'planned' && !done.has(line))
      .reduce((sum, { hours }) => sum + (hours ?? 0), 0),
  )
}

/**
 * What the Jobs room shows of a car on a day: the road with the days it is wanted by, who works on it and when, how guesses run, events and money.
 * @example makeJobsRoom(CAR, '2027-03-01').isHandAssumed // true
 */
export function makeJobsRoom(car: Car, today: string): JobsRoom {
  const { hands, events } = car.records
  const optimism = optimismOf(car)
  const shown = (kind: OptimismKind): OptimismShown => {
    const { pairCount, isDefault } = optimism[kind]
    return { ...optimismFactors(optimism[kind]), pairCount, isDefault }
  }
  return {
    ...roadOf(car, today),
    today,
    stages: car.stages.map(({ id, name }, position) => ({ id, name, position })),
    hands: hands.length > 0 ? hands : [ASSUMED_HAND],
    isHandAssumed: hands.length === 0,
    optimism: Object.fromEntries(OPTIMISM_KINDS.map((kind) => [kind, shown(kind)])) as unknown as JobsRoom['optimism'],
    events: comingEvents(events, today),
    hoursOnLines: hoursOnLines(car),
    money: car.stages.map((_, position) => moneyToStage(car, position)),
    costs: costItems(car),
    decisions: car.records.decisions.map((decision) => decisionView(car, decision, today)),
    paidPerKg: paidPerKg(car),
    worth: worthItems(car),
  }
}

/** A stage's road in days of the calendar; a day that never comes is null. */
export interface StageRoad {
  readonly readyOn: string | null
  readonly eightOn: string | null
  readonly chance: number | null
  /** The day it is wanted on, and the event; null: nobody said. */
  readonly wantedOn: string | null
  readonly eventName: string | null
}

/** The road in short, by the place of each stage that has open jobs before it; undefined for others, and where it is being worked out. */
export function stageRoads(car: Car, today: string): readonly (StageRoad | undefined)[] | 'waiting' {
  const asked = roadOf(car, today)
  if (asked.road.jobs.length === 0) return []
  const summary = car.laterRoad(asked)
  if (summary === 'waiting') return 'waiting'
  const first = Math.min(...asked.road.jobs.map(({ stage }) => stage))
  const day = (days: number | null) => (days === null ? null : dayAfter(today, days))
  return car.stages.map((_, position) => {
    const own = summary?.stages.find(({ stage }) => stage === position)
    if (!own || position < first) return undefined
    const deadline = asked.deadlines.find(({ stage }) => stage === position)
    return { readyOn: day(own.halfDay), eightOn: day(own.eightDay), chance: own.chance, wantedOn: deadline?.on ?? null, eventName: deadline?.name ?? null }
  })
}
