import { lazy, Suspense, useEffect } from 'react'
import { close } from './overlay-slice.ts'
import { useAppDispatch, useAppSelector } from './store.ts'

const loadFind = () => import('../features/find/find-panel.tsx')
const PANELS = {
  find: lazy(async () => ({ default: (await loadFind()).FindPanel })),
  units: lazy(async () => ({ default: (await import('../features/units/units-panel.tsx')).UnitsPanel })),
  name: lazy(async () => ({ default: (await import('./name-panel.tsx')).NamePanel })),
  keys: lazy(async () => ({ default: (await import('./keys-panel.tsx')).KeysPanel })),
} as const
const READ_AHEAD_MS = 1500
const UndoNotices = lazy(async () => ({ default: (await import('../features/log/undo-notices.tsx')).UndoNotices }))

/** Whatever lies over the page; loaded when it is first asked for. */
export function Overlays() {
  const name = useAppSelector((state) => state.overlay.name)
  const hasNotice = useAppSelector((state) => state.undo.notice !== null)
  const dispatch = useAppDispatch()
  // Read ahead once the page stands, so that the first key typed after Ctrl K is not lost.
  useEffect(() => {
    const waiting = setTimeout(() => void loadFind(), READ_AHEAD_MS)
    return () => clearTimeout(waiting)
  }, [])
  const Open = name === null ? null : PANELS[name]
  return (
    <Suspense fallback={null}>
      {Open && <Open onClose={() => dispatch(close())} />}
      {hasNotice && <UndoNotices />}
    </Suspense>
  )
}
