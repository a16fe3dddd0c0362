import { useEffect, useRef, useState } from 'react'
import { type Failure, readFailure } from './api.ts'

const PAUSES_MS = [700, 1500, 3000, 5000, 8000]

export type SendState = { status: 'idle' } | { status: 'sending' } | { status: 'waiting'; message: string } | { status: 'failed'; failure: Failure }

/**
 * Sends a write, and again with the same id while the server or its database is away; what was typed stays with the caller.
 * `send` resolves to the answer, or to null when it failed for good (the state says why), or when the caller keeps it itself in `onAway`.
 */
export function useSender() {
  const [state, setState] = useState<SendState>({ status: 'idle' })
  const isMounted = useRef(true)
  useEffect(() => {
    isMounted.current = true
    return () => {
      isMounted.current = false
    }
  }, [])
  const send = async <Answer>(write: () => Promise<Answer>, onAway?: () => void): Promise<Answer | null> => {
    setState({ status: 'sending' })
    for (let attempt = 0; ; attempt++) {
      try {
        const answer = await write()
        if (isMounted.current) setState({ status: 'idle' })
        return answer
      } catch (error) {
        const failure = readFailure(error)
        const pause = PAUSES_MS[attempt]
        if (failure.isAway && onAway) {
          if (isMounted.current) setState({ status: 'idle' })
          onAway()
          return null
        }
        if (!failure.isAway || pause === undefined || !isMounted.current) {
          if (isMounted.current) setState({ status: 'failed', failure })
          return null
        }
        setState({ status: 'waiting', message: `${failure.message} Kept here and sent again by itself; it is stored once.` })
        await new Promise((resolve) => setTimeout(resolve, pause))
      }
    }
  }
  return { state, send, clear: () => setState({ status: 'idle' }) }
}
