import {
  changedLapCar,
  costWorth,
  drawLengths,
  findHelps,
  findSlack,
  type HandHours,
  type Helped,
  HORIZON_DAYS,
  hoursLeft,
  type JobAhead,
  type LapPlan,
  lapOf,
  layRoad,
  lengthsAt,
  lookAhead,
  type Otherwise,
  type ReadyRoad,
  type Road,
  type RoadDeadline,
  readyRoad,
  type Slack,
  type StageReady,
  slipOf,
  type UnmetCrew,
  unmetCrews,
  type WorthItem,
  workLap,
} from '@bold-ballast/core'
import { expose } from 'comlink'
import { orRefused, type Refused } from '../../shared/refused.ts'

/** What is asked of a road: the stage that is looked at, what is late, and by how much. */
export interface RoadQuestion {
  readonly road: Road
  readonly deadlines: readonly RoadDeadline[]
  readonly stage: number
  readonly late: { readonly id: string; readonly days: number } | null
}

/** A road ahead at one stage. */
export interface RoadView {
  readonly jobs: readonly JobAhead[]
  readonly ready: StageReady | null
}

/** The road as it stands, and as it would stand with what is late. */
export interface RoadAnswer {
  readonly view: RoadView
  readonly slack: Slack
  readonly hours: readonly HandHours[]
  /** Jobs whose hands share no session before the deadline. */
  readonly unmet: readonly UnmetCrew[]
  readonly slipped: RoadView | null
}

function viewOf(ready: ReadyRoad, { deadlines, stage }: RoadQuestion, draws: ReturnType<typeof drawLengths>, otherwise: Otherwise = {}): RoadView {
  const { jobs, stages } = lookAhead(ready, draws, { deadlines: deadlines.filter((entry) => entry.stage === stage), otherwise })
  return { jobs, ready: stages.find((entry) => entry.stage === stage) ?? stages.findLast((entry) => entry.stage <= stage) ?? null }
}

const work = {
  /** The middle pass alone: there at once. */
  first(question: RoadQuestion): RoadView | Refused {
    return orRefused(() => {
      const ready = readyRoad(question.road)
      return viewOf(ready, question, [lengthsAt(question.road)], question.late ? slipOf(ready, question.late.id, question.late.days) : {})
    })
  },
  ahead(question: RoadQuestion): RoadAnswer | Refused {
    return orRefused(() => {
      const { road, stage, deadlines, late } = question
      const ready = readyRoad(road)
      const draws = drawLengths(road)
      const day = deadlines.find((entry) => entry.stage === stage)?.day
      return {
        view: viewOf(ready, question, draws),
        slack: findSlack({ ready, stage }),
        hours: day === undefined ? [] : hoursLeft(ready, layRoad(ready, lengthsAt(road)), stage, day),
        unmet: unmetCrews(ready, stage, day ?? HORIZON_DAYS),
        slipped: late ? viewOf(ready, question, draws, slipOf(ready, late.id, late.days)) : null,
      }
    })
  },
  /** What a second a lap costs by each of some changes; null where it buys none. Refused where no lap can be driven. */
  perSecond(plan: LapPlan, items: readonly WorthItem[]): readonly (number | null)[] | Refused {
    return orRefused(() => {
      const car = workLap(plan)?.car
      if (!car) return { refused: 'No lap yet.' }
      const { lapS } = lapOf(plan.track, car)
      return items.map(({ massKg, powerW, worth }) =>
        massKg === 0 && powerW === 0
          ? null
          : costWorth({
              cost: worth.whole,
              hours: 0,
              hourWorth: 0,
              massKg,
              powerW,
              powerToMassWPerKg: 0,
              lapS: lapOf(plan.track, changedLapCar(car, { massKg, powerW })).lapS - lapS,
            }).perSecond,
      )
    })
  },
  /** What helps by the deadline of a stage; `tick` is told the share that is done. */
  helps(road: Road, deadline: RoadDeadline, tick: (share: number) => void): { readonly chance: number; readonly best: readonly Helped[] } | Refused {
    return orRefused(() => findHelps(road, deadline, { tick }))
  },
}
export type JobsWorker = typeof work

expose(work)
