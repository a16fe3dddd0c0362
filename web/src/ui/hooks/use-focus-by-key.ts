import { type RefObject, useEffect, useRef } from 'react'
import { useLocation } from 'react-router'

/** A handle that takes the focus when its page was opened by a key, so that the next key is meant for it. */
export function useFocusByKey<Element extends HTMLElement>(isWanted = true): RefObject<Element | null> {
  const handle = useRef<Element>(null)
  const isByKey = (useLocation().state as { readonly byKey?: boolean } | null)?.byKey === true
  useEffect(() => {
    if (isByKey && isWanted) handle.current?.focus()
  }, [isByKey, isWanted])
  return handle
}
