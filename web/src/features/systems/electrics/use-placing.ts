import type { BoxProblem } from '@bold-ballast/core'
import { useSearchThread } from '../../../ui/hooks/use-search-thread.ts'
import type { PlacingReply, PlacingWorker } from './placing.worker.ts'

/** Places circuits; a running search can be given up. */
export const usePlacing = () =>
  useSearchThread<PlacingWorker, BoxProblem, PlacingReply>(
    () => new Worker(new URL('./placing.worker.ts', import.meta.url), { type: 'module' }),
    (remote, problem) => remote.place(problem) as Promise<PlacingReply>,
    { ok: false, message: 'The placing stopped. Try again.' },
  )
