import type { BoxProblem } from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { PlacingReply, PlacingWorker } from './placing.worker.ts'

/** Places circuits on a thread of their own; giving up ends the thread. */
export function usePlacing() {
  const worker = useRef<{ readonly thread: Worker; readonly remote: Remote<PlacingWorker> } | null>(null)
  const [isRunning, setIsRunning] = useState(false)
  const [reply, setReply] = useState<PlacingReply | null>(null)
  const end = () => {
    worker.current?.thread.terminate()
    worker.current = null
    setIsRunning(false)
  }
  useEffect(() => () => worker.current?.thread.terminate(), [])
  const place = async (problem: BoxProblem) => {
    if (!worker.current) {
      const thread = new Worker(new URL('./placing.worker.ts', import.meta.url), { type: 'module' })
      worker.current = { thread, remote: wrap<PlacingWorker>(thread) }
    }
    setIsRunning(true)
    setReply(null)
    const answer = await worker.current.remote.place(problem).catch((): PlacingReply => ({ ok: false, message: 'The placing stopped. Try again.' }))
    setIsRunning(false)
    setReply(answer)
  }
  return { place, reply, isRunning, cancel: end, forget: () => setReply(null) }
}
