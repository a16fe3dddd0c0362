import { useEffect, useRef } from 'react'
import { usePreferences } from '../../data/store.ts'

/** Rows whose own buttons leave the keys of the tab alone. */
export const KEY_ROWS = 'data-key-rows'

/** What keeps the keys for itself while it has the focus; the page itself, clicked anywhere, does not. */
const TAKES_KEYS = 'input, textarea, select, button, a, summary, [contenteditable], [tabindex="0"]'

/** How soon behind a g a letter opens a room. */
export const ROOM_WITHIN_MS = 1500

/**
 * The keys of a tab: `act` is handed the key (a letter, a mark, an arrow; Alt with an arrow is "Alt+ArrowUp") and says whether it was one of them. They act
 * with the focus in no field and in no button but those of the rows.
 */
export function useTabKeys(act: (key: string) => boolean): void {
  const { singleKeys } = usePreferences()
  const latest = useRef(act)
  const afterG = useRef(Number.NEGATIVE_INFINITY)
  latest.current = act
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      // The letter behind a g opens a room.
      const isOfRoom = event.timeStamp - afterG.current < ROOM_WITHIN_MS
      afterG.current = event.key === 'g' ? event.timeStamp : Number.NEGATIVE_INFINITY
      if (isOfRoom) return
      const at = document.activeElement
      const isInRows = at?.closest(`[${KEY_ROWS}]`) != null
      const isFree = at === null || isInRows || !at.matches(TAKES_KEYS)
      if (!isFree || event.defaultPrevented || event.ctrlKey || event.metaKey || document.querySelector('[role="dialog"]')) return
      // A button of a row keeps its own Enter.
      if ((event.key.length === 1 && !singleKeys) || (event.key === 'Enter' && isInRows)) return
      if (latest.current(`${event.altKey ? 'Alt+' : ''}${event.key}`)) event.preventDefault()
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [singleKeys])
}
