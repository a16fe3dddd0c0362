import { useEffect, useRef } from 'react'
import { useMatch, useNavigate } from 'react-router'
import { open } from '../data/overlay-slice.ts'
import { useAppDispatch, useAppSelector, usePreferences } from '../data/store.ts'
import { putBackLast, takeBackLast } from '../data/take-back.ts'
import { ROOM_WITHIN_MS } from '../ui/hooks/use-tab-keys.ts'
import { FORMULAS_ROOM, ROOMS } from './rooms.ts'

const isTyping = (target: EventTarget | null) => target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** What a room is told that was opened by its keys: where it has a line to type into, that has the focus. */
const BY_KEY = { byKey: true }

/** g then a letter opens a room, [ and ] move the picked stage, ? lists them; off in fields, and by choice everywhere. */
export function Shortcuts() {
  const { singleKeys } = usePreferences()
  const dispatch = useAppDispatch()
  const hasOverlay = useAppSelector((state) => state.overlay.name !== null)
  const navigate = useNavigate()
  const buildId = useMatch('/builds/:buildId/*')?.params.buildId
  const afterG = useRef(Number.NEGATIVE_INFINITY)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const withControl = event.ctrlKey || event.metaKey
      if (withControl && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        dispatch(open('find'))
        return
      }
      // In fields Ctrl Z stays the browser's own.
      if (withControl && event.key.toLowerCase() === 'z' && !isTyping(event.target)) {
        event.preventDefault()
        void (event.shiftKey ? putBackLast : takeBackLast)(dispatch)
        return
      }
      if (!singleKeys || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (hasOverlay || document.querySelector('[role="dialog"]')) return
      if (event.key === '?') dispatch(open('keys'))
      else if (event.key === '[' || event.key === ']') document.dispatchEvent(new CustomEvent('move-stage', { detail: event.key === ']' ? 1 : -1 }))
      else if (event.key === 'g') afterG.current = event.timeStamp
      else if (event.timeStamp - afterG.current < ROOM_WITHIN_MS) {
        afterG.current = Number.NEGATIVE_INFINITY
        const room = ROOMS.find((entry) => entry.key === event.key)
        // The address itself: what is drawn may still be behind a stage that was picked a key ago.
        const stage = new URLSearchParams(window.location.search).get('stage')
        if (event.key === 'a') void navigate('/')
        else if (event.key === FORMULAS_ROOM.key) void navigate(FORMULAS_ROOM.path)
        else if (room && buildId) void navigate(`/builds/${buildId}/${room.path}${stage ? `?stage=${stage}` : ''}`, { state: BY_KEY })
      }
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [singleKeys, buildId, navigate, dispatch, hasOverlay])
  return null
}
