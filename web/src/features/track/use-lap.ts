import type { LogSamples } from '@bold-ballast/contract'
import type { Lap, LapPlan, StageLap } from '@bold-ballast/core'
import type { Remote } from 'comlink'
import { useMemo } from 'react'
import { useWorked } from '../../ui/hooks/use-worked.ts'
import type { TrackWorker } from './track.worker.ts'

/** The thread on which laps are driven. */
export const beginTrackWorker = () => new Worker(new URL('./track.worker.ts', import.meta.url), { type: 'module' })

/** Fetches samples of a log within a time. */
export type FetchSamples = (wish: { channels: readonly number[]; fromS: number; toS: number; most: number }) => Promise<LogSamples>

/** A lap with the model's run of it, and the plan it belongs to. */
export interface DrivenPlan {
  readonly key: string
  readonly stage: StageLap | null
  readonly lap: Lap | null
  readonly refused: string | null
  /** Another stage or track was picked and is on its way. */
  readonly isOld: boolean
}

/** The lap of a plan, driven beside the page; the last one stands until the next is there. */
export function useLap(plan: LapPlan | null): DrivenPlan | null {
  const key = useMemo(() => (plan ? JSON.stringify(plan) : ''), [plan])
  const { answer, failed } = useWorked<TrackWorker, { key: string; found: Awaited<ReturnType<Remote<TrackWorker>['drive']>> }>(
    beginTrackWorker,
    key,
    async (remote) => ({ key, found: await remote.drive(plan as LapPlan) }),
  )
  return useMemo(() => {
    if (key === '' || (!answer && !failed)) return null
    if (!answer) return { key, stage: null, lap: null, refused: failed, isOld: false }
    const { found } = answer
    const isOld = answer.key !== key
    return 'refused' in found ? { key: answer.key, stage: null, lap: null, refused: found.refused, isOld } : { key: answer.key, ...found, refused: null, isOld }
  }, [key, answer, failed])
}
