import { useEffect } from 'react'
import { Toaster, toast } from 'sonner'
import { useAppDispatch, useAppSelector, usePreferences } from '../../app/store.ts'
import { takeBack } from './take-back.ts'

/** Says what was stored or taken back, and offers to take it back; one notice at a time, and the log keeps the rest. */
export function UndoNotices() {
  const notice = useAppSelector((state) => state.undo.notice)
  const { theme } = usePreferences()
  const dispatch = useAppDispatch()
  useEffect(() => {
    if (!notice) return
    const { words, entry } = notice
    const action = entry ? { label: 'Undo', onClick: () => void takeBack(dispatch, entry) } : undefined
    toast(words, { id: 'undo', duration: 12_000, ...(action ? { action } : { action: undefined }) })
  }, [notice, dispatch])
  return <Toaster position="bottom-left" theme={theme} offset={12} mobileOffset={8} containerAriaLabel="Stored and taken back" />
}
