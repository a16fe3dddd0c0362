import { type Remote, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'

/** A search on a thread of its own, begun when it is first asked for; giving up ends the thread. `failed` is what it answers where the thread falls over. */
export function useSearchThread<Work, Question, Reply>(begin: () => Worker, ask: (remote: Remote<Work>, question: Question) => Promise<Reply>, failed: Reply) {
  const worker = useRef<{ readonly thread: Worker; readonly remote: Remote<Work> } | null>(null)
  const [isRunning, setIsRunning] = useState(false)
  const [reply, setReply] = useState<Reply | null>(null)
  const cancel = () => {
    worker.current?.thread.terminate()
    worker.current = null
    setIsRunning(false)
  }
  useEffect(() => () => worker.current?.thread.terminate(), [])
  const search = async (question: Question) => {
    if (!worker.current) {
      const thread = begin()
      worker.current = { thread, remote: wrap<Work>(thread) }
    }
    setIsRunning(true)
    setReply(null)
    const answer = await ask(worker.current.remote, question).catch(() => failed)
    setIsRunning(false)
    setReply(answer)
  }
  return { search, reply, isRunning, cancel, forget: () => setReply(null) }
}
