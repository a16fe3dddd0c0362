import { Toast } from 'radix-ui'
import { useState } from 'react'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { takeBack } from '../../data/take-back.ts'

const SHOWN_MS = 12_000

/** Says what was stored or taken back, and offers to take it back; one notice at a time, and the log keeps the rest. */
export function UndoNotices() {
  const notice = useAppSelector((state) => state.undo.notice)
  const dispatch = useAppDispatch()
  const [closed, setClosed] = useState<number | null>(null)
  if (!notice) return null
  const { id, words, entry, isRedo } = notice
  return (
    <Toast.Provider duration={SHOWN_MS} label="Stored and taken back" swipeDirection="left">
      <Toast.Root
        key={id}
        data-notice
        open={closed !== id}
        onOpenChange={(isOpen) => !isOpen && setClosed(id)}
        className="flex items-center gap-4 rounded border border-edge bg-sheet px-4 py-2.5 text-ink"
      >
        <Toast.Description className="max-w-[300px]">{words}</Toast.Description>
        {entry && (
          <Toast.Action asChild altText={isRedo ? 'Redo in the log' : 'Undo in the log'}>
            <button type="button" className="button" onClick={() => void takeBack(dispatch, entry, isRedo)}>
              {isRedo ? 'Redo' : 'Undo'}
            </button>
          </Toast.Action>
        )}
      </Toast.Root>
      <Toast.Viewport className="no-print fixed bottom-3 left-3 z-40 outline-none" />
    </Toast.Provider>
  )
}
