import type { Helped, JobsRoom } from '@bold-ballast/core'
import { proxy, type Remote, wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import type { Refused } from '../../shared/refused.ts'
import { useWorked } from '../../ui/hooks/use-worked.ts'
import type { JobsWorker, RoadAnswer, RoadQuestion, RoadView } from './jobs.worker.ts'

/** The thread on which roads are drawn. */
export const beginJobsWorker = () => new Worker(new URL('./jobs.worker.ts', import.meta.url), { type: 'module' })

export interface RoadState {
  /** The middle pass of what is asked now, there first. */
  readonly first: RoadView | null
  /** All of it; of what was asked before while the next is being worked out. */
  readonly answer: RoadAnswer | null
  readonly isOld: boolean
  /** Why there is no road. */
  readonly refused: string | null
}

type Found<Answer> = { readonly key: string; readonly found: Answer | Refused }
const isRefused = (found: object): found is Refused => 'refused' in found

/** The road of a room at a stage, with something late where that is asked; worked out beside the page, the middle of it first. */
export function useRoad({ road, deadlines }: JobsRoom, stage: number, late: RoadQuestion['late']): RoadState {
  const question = useMemo((): RoadQuestion => ({ road, deadlines, stage, late }), [road, deadlines, stage, late])
  const key = useMemo(() => (road.jobs.length > 0 ? JSON.stringify(question) : ''), [question, road])
  const middle = useWorked<JobsWorker, Found<RoadView>>(beginJobsWorker, key, async (remote) => ({ key, found: await remote.first(question) }))
  const whole = useWorked<JobsWorker, Found<RoadAnswer>>(beginJobsWorker, key, async (remote) => ({ key, found: await remote.ahead(question) }))
  const [first, all] = [middle.answer?.found ?? null, whole.answer?.found ?? null]
  return {
    first: first && !isRefused(first) && middle.answer?.key === key ? first : null,
    answer: all && !isRefused(all) ? all : null,
    isOld: whole.answer?.key !== key,
    refused: key === '' ? null : (whole.failed ?? (all && isRefused(all) && whole.answer?.key === key ? all.refused : null)),
  }
}

export interface HelpsState {
  readonly share: number
  readonly chance: number | null
  readonly best: readonly Helped[] | null
}

/** What helps by a deadline, on a thread of its own that ends with the question. */
export function useHelps({ road }: JobsRoom, deadline: JobsRoom['deadlines'][number] | null): HelpsState {
  const [state, setState] = useState<HelpsState>({ share: 0, chance: null, best: null })
  const key = useMemo(() => (deadline && road.jobs.length > 0 ? JSON.stringify({ road, deadline }) : ''), [road, deadline])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says when the question is another
  useEffect(() => {
    setState({ share: 0, chance: null, best: null })
    if (key === '' || !deadline) return
    const thread = beginJobsWorker()
    let isOver = false
    const remote: Remote<JobsWorker> = wrap<JobsWorker>(thread)
    const tick = proxy((share: number) => {
      if (!isOver) setState((before) => (before.best ? before : { ...before, share }))
    })
    remote.helps(road, deadline, tick).then(
      (found) => !isOver && setState('refused' in found ? { share: 1, chance: null, best: [] } : { share: 1, ...found }),
      () => undefined,
    )
    return () => {
      isOver = true
      thread.terminate()
    }
  }, [key])
  return state
}
