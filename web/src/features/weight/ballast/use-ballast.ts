import type { BallastInput } from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { BallastReply, BallastWorker } from './ballast.worker.ts'

/** Plans ballast in a worker; a running plan can be given up, which ends the worker. */
export function useBallast() {
  const worker = useRef<{ readonly thread: Worker; readonly remote: Remote<BallastWorker> } | null>(null)
  const [isRunning, setIsRunning] = useState(false)
  const [reply, setReply] = useState<BallastReply | null>(null)
  const end = () => {
    worker.current?.thread.terminate()
    worker.current = null
    setIsRunning(false)
  }
  useEffect(
    () => () => {
      worker.current?.thread.terminate()
    },
    [],
  )
  const plan = async (input: BallastInput) => {
    if (!worker.current) {
      const thread = new Worker(new URL('./ballast.worker.ts', import.meta.url), { type: 'module' })
      worker.current = { thread, remote: wrap<BallastWorker>(thread) }
    }
    setIsRunning(true)
    setReply(null)
    const { remote } = worker.current
    const answer = await remote.plan(input).catch((): BallastReply => ({ ok: false, message: 'The planner stopped. Try again.' }))
    setIsRunning(false)
    setReply(answer)
  }
  return { plan, reply, isRunning, cancel: end }
}
