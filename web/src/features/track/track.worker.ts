import {
  changedLapCar,
  gradeUnder,
  type Lap,
  type LapCar,
  type LapChange,
  type LapLever,
  type LapPlan,
  type LapTrace,
  type LapWorth,
  type LeverAnswer,
  type LogCarInputs,
  lapOf,
  lapWorth,
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
  levers(
    track: TrackLine,
    car: LapCar,
    wantedS: number,
    levers: readonly { lever: LapLever; bound: { value: number; by: string } }[],
  ): LeverAnswer[] | Refused {
    return orRefused(() => levers.map((each) => pullLever({ track, car, wantedS, ...each, options: { stepM: 2 } })))
  },
  worth(track: TrackLine, car: LapCar, lapSdS: number): readonly LapWorth[] | Refused {
    return orRefused(() => lapWorth(track, car, lapSdS))
  },
  sets(track: TrackLine, car: LapCar, wantedS: number, parts: readonly WishedPart[]): readonly WishedSet[] | Refused {
    return orRefused(() => wishedSets({ track, car, wantedS, parts }))
  },
  /** Full throttle in one gear, in samples of a log; with the slope of the road where the lap lies on a track. */
  windows(samples: PullingSamples, inputs: LogCarInputs, road: { track: TrackLine; trace: LapTrace; fromS: number } | null): readonly PowerWindow[] | Refused {
    return orRefused(() => powerWindows({ samples, ...inputs, ...(road ? { gradeAt: gradeUnder(road.track, road.trace, road.fromS) } : {}) }))
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
