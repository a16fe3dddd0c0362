import { type Remote, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'

/** What a worker answers to a question, worked out anew when the question's key changes; the last answer stands until the next is there. */
export function useWorked<Work, Answer>(
  begin: () => Worker,
  key: string,
  ask: (remote: Remote<Work>) => Promise<Answer>,
): { readonly answer: Answer | null; readonly failed: string | null } {
  const worker = useRef<{ readonly thread: Worker; readonly remote: Remote<Work> } | null>(null)
  const [state, setState] = useState<{ readonly answer: Answer | null; readonly failed: string | null }>({ answer: null, failed: null })
  useEffect(() => () => worker.current?.thread.terminate(), [])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says when the question is another
  useEffect(() => {
    if (key === '') return
    let isOld = false
    if (!worker.current) {
      const thread = begin()
      worker.current = { thread, remote: wrap<Work>(thread) }
    }
    ask(worker.current.remote).then(
      (answer) => !isOld && setState({ answer, failed: null }),
      () => !isOld && setState((before) => ({ ...before, failed: 'This could not be worked out. Check the numbers it rests on.' })),
    )
    return () => {
      isOld = true
    }
  }, [key])
  return state
}
