import { prefer } from '../data/preferences.ts'
import { useAppDispatch, usePreferences } from '../data/store.ts'
import { Panel } from '../ui/dialog.tsx'
import { FORMULAS_ROOM, ROOMS } from './rooms.ts'

const ROWS = [
  ['Ctrl K', 'find or do anything'],
  ...ROOMS.map((room) => [`g ${room.key}`, `open ${room.name}`]),
  ['g a', 'open the Garage'],
  [`g ${FORMULAS_ROOM.key}`, `open ${FORMULAS_ROOM.name}`],
  ['[  ]', 'pick the stage before or after'],
  ['Ctrl Z', 'take back what you stored last, outside a field'],
  ['Ctrl Shift Z', 'put back what you took back last'],
  ['?', 'this list'],
  ...ROOMS.flatMap((room) => room.keys.map(([key, does]) => [key, `in ${room.name}: ${does}`] as const)),
] as const

export function KeysPanel({ onClose }: { onClose: () => void }) {
  const { singleKeys } = usePreferences()
  const dispatch = useAppDispatch()
  return (
    <Panel title="Keys" onClose={onClose}>
      <dl className="mb-4 grid grid-cols-[80px_1fr] gap-y-2">
        {ROWS.map(([keys, what]) => (
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
