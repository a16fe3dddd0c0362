import type { BallastInput } from '@bold-ballast/core'
import { useSearchThread } from '../../../ui/hooks/use-search-thread.ts'
import type { BallastReply, BallastWorker } from './ballast.worker.ts'

/** Plans ballast; a running plan can be given up. */
export const useBallast = () =>
  useSearchThread<BallastWorker, BallastInput, BallastReply>(
    () => new Worker(new URL('./ballast.worker.ts', import.meta.url), { type: 'module' }),
    (remote, input) => remote.plan(input) as Promise<BallastReply>,
    { ok: false, message: 'The planner stopped. Try again.' },
  )
