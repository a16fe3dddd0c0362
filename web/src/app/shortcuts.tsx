import { useEffect, useRef, useState } from 'react'
import { useMatch, useNavigate, useSearchParams } from 'react-router'
import { Panel } from '../ui/dialog.tsx'
import { prefer } from './preferences.ts'
import { ROOMS } from './rooms.ts'
import { useAppDispatch, usePreferences } from './store.ts'

const isTyping = (target: EventTarget | null) => target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** g then a letter opens a room, [ and ] move the picked stage, ? lists them; off in fields, and by choice everywhere. */
export function Shortcuts() {
  const [isOpen, setIsOpen] = useState(false)
  const { singleKeys } = usePreferences()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const [search] = useSearchParams()
  const buildId = useMatch('/builds/:buildId/*')?.params.buildId
  const afterG = useRef(0)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!singleKeys || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
      if (document.querySelector('[role="dialog"]')) return
      if (event.key === '?') setIsOpen(true)
      else if (event.key === '[' || event.key === ']') document.dispatchEvent(new CustomEvent('move-stage', { detail: event.key === ']' ? 1 : -1 }))
      else if (event.key === 'g') afterG.current = event.timeStamp
      else if (event.timeStamp - afterG.current < 1500) {
        afterG.current = 0
        const room = ROOMS.find((entry) => entry.key === event.key)
        const stage = search.get('stage')
        if (event.key === 'a') void navigate('/')
        else if (room && buildId) void navigate(`/builds/${buildId}/${room.path}${stage ? `?stage=${stage}` : ''}`)
      }
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [singleKeys, buildId, navigate, search])
  if (!isOpen) return null
  const rows = [
    ...ROOMS.map((room) => [`g ${room.key}`, `open ${room.name}`]),
    ['g a', 'open the Garage'],
    ['[  ]', 'pick the stage before or after'],
    ['?', 'this list'],
  ]
  return (
    <Panel title="Keys" onClose={() => setIsOpen(false)}>
      <dl className="mb-4 grid grid-cols-[80px_1fr] gap-y-2">
        {rows.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt>
              <kbd className="font-mono">{keys}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={singleKeys} onChange={(event) => dispatch(prefer({ singleKeys: event.target.checked }))} />
        Single keys are on
      </label>
    </Panel>
  )
}
