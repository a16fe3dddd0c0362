import { Suspense, useEffect } from 'react'
import { close } from '../data/overlay-slice.ts'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { lazyPart } from '../ui/lazy-part.ts'

const loadFind = () => import('./find/find-panel.tsx')
const PANELS = {
  find: lazyPart(async () => (await loadFind()).FindPanel),
  units: lazyPart(async () => (await import('../features/units/units-panel.tsx')).UnitsPanel),
  name: lazyPart(async () => (await import('./name-panel.tsx')).NamePanel),
  hands: lazyPart(async () => (await import('../features/sign-in/hands-panel.tsx')).HandsPanel),
  keys: lazyPart(async () => (await import('./keys-panel.tsx')).KeysPanel),
} as const
const READ_AHEAD_MS = 1500
const loadNotices = () => import('../features/log/undo-notices.tsx')
const UndoNotices = lazyPart(async () => (await loadNotices()).UndoNotices)

/** Whatever lies over the page; loaded when it is first asked for. */
export function Overlays() {
  const name = useAppSelector((state) => state.overlay.name)
  const hasNotice = useAppSelector((state) => state.undo.notice !== null)
  const dispatch = useAppDispatch()
  // Read ahead once the page stands, so that the first key typed after Ctrl K is not lost; one that does not come is asked for when it is needed.
  useEffect(() => {
    const waiting = setTimeout(() => {
      loadFind().catch(() => {})
      loadNotices().catch(() => {})
    }, READ_AHEAD_MS)
    return () => clearTimeout(waiting)
  }, [])
  const Open = name === null ? null : PANELS[name]
  return (
    <>
      <Suspense fallback={null}>{Open && <Open onClose={() => dispatch(close())} />}</Suspense>
      <Suspense fallback={null}>{hasNotice && <UndoNotices />}</Suspense>
    </>
  )
}
