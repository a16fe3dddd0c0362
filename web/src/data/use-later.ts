import { useEffect, useRef } from 'react'
import { api } from './api.ts'

/** How long the page waits before it asks again for what is being worked out. */
export const PAUSES_MS = [500, 1000, 2000, 4000] as const

/** Asks again for an answer that still waits: after half a second, one, two, and then every four. */
export function useAskAgain(isWaiting: boolean, refetch: () => unknown, answeredAt: number | undefined): void {
  const asked = useRef(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: every answer that still waits starts the next pause
  useEffect(() => {
    if (!isWaiting) {
      asked.current = 0
      return
    }
    const pause = PAUSES_MS[Math.min(asked.current, PAUSES_MS.length - 1)]
    asked.current++
    const timer = setTimeout(() => void refetch(), pause)
    return () => clearTimeout(timer)
  }, [isWaiting, refetch, answeredAt])
}

/** Asks for the Board again while a cell of it is being worked out. */
export function useLater(buildId: string): void {
  const { data, refetch, fulfilledTimeStamp } = api.useBoardQuery(buildId)
  useAskAgain(data?.isWaiting === true, refetch, fulfilledTimeStamp)
}
