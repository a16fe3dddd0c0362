import {
  type CoastingSamples,
  type CoastPair,
  changedLapCar,
  coastPairs,
  coastWindows,
  gradeUnder,
  keepFit,
  type Lap,
  type LapCar,
  type LapChange,
  type LapLever,
  type LapPlan,
  type LapTrace,
  type LapWorth,
  type LeverAnswer,
  type LoadPoint,
  type LoadSamples,
  type LogCarInputs,
  lapOf,
  lapWorth,
  loadPoints,
  type PowerWindow,
  type PullingSamples,
  powerWindows,
  pullLever,
  type StageLap,
  type StageLedger,
  secondsLedger,
  type TrackLine,
  type WishedPart,
  type WishedSet,
  wishedSets,
  workLap,
} from '@bold-ballast/core'
import { expose } from 'comlink'
import { orRefused, type Refused } from '../../shared/refused.ts'

/** A lap that is wanted of a car whose carried lap is known. */
interface Wanted {
  readonly car: LapCar
  readonly lapS: number
  readonly wantedS: number
}

const work = {
  /** The lap of a plan, and the model's own run of it. */
  drive(plan: LapPlan): { stage: StageLap | null; lap: Lap | null } | Refused {
    return orRefused(() => {
      const stage = workLap(plan) ?? null
      return { stage, lap: stage?.car ? lapOf(plan.track, stage.car) : null }
    })
  },
  ledger(track: TrackLine, stages: readonly { position: number; car: LapCar | null }[]): readonly StageLedger[] | Refused {
    return orRefused(() => secondsLedger(track, stages))
  },
  /** What is wanted is wanted of the carried lap `lapS`: the model's own lap may lie beside it, and the levers move the model. */
  levers(
    track: TrackLine,
    { car, lapS, wantedS }: Wanted,
    levers: readonly { lever: LapLever; bound: { value: number; by: string } }[],
  ): LeverAnswer[] | Refused {
    return orRefused(() => {
      const asideS = lapS - lapOf(track, car).lapS
      const pulled = levers.map((each) => pullLever({ track, car, wantedS: wantedS - asideS, ...each, options: { stepM: 2 } }))
      return pulled.map((answer) => ({ ...answer, atBoundS: answer.atBoundS + asideS }))
    })
  },
  worth(track: TrackLine, car: LapCar, lapSdS: number): readonly LapWorth[] | Refused {
    return orRefused(() => lapWorth(track, car, lapSdS))
  },
  sets(track: TrackLine, { car, lapS, wantedS }: Wanted, parts: readonly WishedPart[]): readonly WishedSet[] | Refused {
    return orRefused(() => {
      const asideS = lapS - lapOf(track, car).lapS
      return wishedSets({ track, car, wantedS: wantedS - asideS, parts }).map((set) => ({ ...set, lapS: set.lapS + asideS }))
    })
  },
  /** Full throttle in one gear, in samples of a log; with the slope of the road where the lap lies on a track. */
  windows(samples: PullingSamples, inputs: LogCarInputs, road: { track: TrackLine; trace: LapTrace; fromS: number } | null): readonly PowerWindow[] | Refused {
    return orRefused(() => powerWindows({ samples, ...inputs, ...(road ? { gradeAt: gradeUnder(road.track, road.trace, road.fromS) } : {}) }))
  },
  /** Coasting in samples of a log, in pairs of out and back with their fits, and how many stretches found no partner. */
  coasting(samples: CoastingSamples): { pairs: (CoastPair & { fit: ReturnType<typeof keepFit> })[]; left: number } | Refused {
    return orRefused(() => {
      const { pairs, left } = coastPairs(coastWindows(samples))
      return { pairs: pairs.map((pair) => ({ ...pair, fit: keepFit(pair) })), left }
    })
  },
  /** What the axles carried by speed, on straights of a log. */
  loads(samples: LoadSamples): readonly LoadPoint[] | Refused {
    return orRefused(() => loadPoints(samples))
  },
  /** What a change does to a lap, s, and each of some changes alone. */
  changed(track: TrackLine, car: LapCar, changes: readonly LapChange[]): number[] | Refused {
    return orRefused(() => {
      const base = lapOf(track, car).lapS
      return changes.map((change) => lapOf(track, changedLapCar(car, change)).lapS - base)
    })
  },
}
export type TrackWorker = typeof work

expose(work)
