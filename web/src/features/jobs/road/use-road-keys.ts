import { useEffect, useRef } from 'react'
import { usePreferences } from '../../../data/store.ts'

/** Rows whose own buttons leave the keys of the tab alone. */
export const KEY_ROWS = 'data-key-rows'

/**
 * The keys of the tab: `act` is handed the key (n h x , . and the arrows; Alt with an arrow is "Alt+ArrowUp") and says whether it was one of them. They act
 * with the focus in no field and in no button but those of the rows.
 */
export function useRoadKeys(act: (key: string) => boolean): void {
  const { singleKeys } = usePreferences()
  const latest = useRef(act)
  latest.current = act
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const at = document.activeElement
      const isInRows = at?.closest(`[${KEY_ROWS}]`) != null
      const isFree = at === null || at === document.body || isInRows
      if (!isFree || event.defaultPrevented || event.ctrlKey || event.metaKey || document.querySelector('[role="dialog"]')) return
      // A button of a row keeps its own Enter.
      if ((event.key.length === 1 && !singleKeys) || (event.key === 'Enter' && isInRows)) return
      if (latest.current(`${event.altKey ? 'Alt+' : ''}${event.key}`)) event.preventDefault()
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [singleKeys])
}
