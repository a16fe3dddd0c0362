import { useEffect, useRef } from 'react'
import { api } from './api.ts'
import { store, useAppDispatch, useAppSelector } from './store.ts'
import { touchesBuild } from './tags.ts'

/** How often a page that is looked at asks whether somebody else wrote. */
const LOOK_EVERY_MS = 4000

/** Reads a build again soon after somebody else wrote to it, and at once when the page is looked at again. */
export function useFresh(buildId: string): void {
  const dispatch = useAppDispatch()
  // Where a stream tells it, nobody need ask.
  const isLive = useAppSelector((state) => state.here.isLive)
  const { data } = api.useRevisionQuery(buildId, { pollingInterval: isLive ? 0 : LOOK_EVERY_MS, skipPollingIfUnfocused: true, refetchOnFocus: true })
  const seen = useRef<{ readonly buildId: string; readonly revision: number } | null>(null)
  useEffect(() => {
    if (!data) return
    const before = seen.current
    seen.current = { buildId, revision: data.revision }
    // What this browser wrote itself was read again when it was written.
    const { own, undone } = store.getState().undo
    const isOwn = [...own, ...undone].some(({ entryId }) => entryId === data.revision)
    if (before?.buildId === buildId && before.revision !== data.revision && !isOwn) dispatch(api.util.invalidateTags(touchesBuild(buildId)))
  }, [data, buildId, dispatch])
}
