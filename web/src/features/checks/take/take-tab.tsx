import { type TakeItem, takeAlong } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { KEY_ROWS, useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { Alert, Empty } from '../../../ui/states.tsx'
import { EventPicker } from '../event-picker.tsx'
import type { ChecksTabProps, StoredCheck } from '../tab-props.ts'
import { takeTable } from '../tables.ts'
import { markCheck } from '../use-marks.ts'

function whyWords({ why, neededBy, life, damage }: TakeItem): string {
  if (why === 'tool') return `${neededBy.length} ${neededBy.length === 1 ? 'check needs' : 'checks need'} it, nobody packs one`
  if (damage) return `broke ${damage.count} ${damage.count === 1 ? 'time' : 'times'}, ${Number((damage.perEvent ?? 0).toFixed(2))} an event`
  if (why === 'spare') return `${life?.part.kind ?? ''}, ${life?.mayEnd ? `may not last ${life.mayEnd.name}` : 'past its life'}`
  if (why === 'fluid') return 'to fill up'
  return neededBy.length > 0 ? `for ${neededBy.slice(0, 2).join(', ')}${neededBy.length > 2 ? ` and ${neededBy.length - 2} more` : ''}` : ''
}

/** What goes into the van: what was missing last time first. */
export function TakeTab({ records, today, event, position, stageId }: ChecksTabProps) {
  const { get, set } = useAddress()
  const list = useMemo(() => takeAlong(records as never, { event, position, today, round: null }), [records, event, position, today])
  const [create] = api.useCreateRecordMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const picked = list.items.find(({ key }) => key === get('take')) ?? null
  /** What no check packs yet becomes one, and is packed. */
  const pack = async (item: TakeItem, result: 'ok' | 'bad') => {
    let check = item.check as StoredCheck | null
    if (!check) {
      const body = { id: crypto.randomUUID(), kind: 'take', name: item.name, rounds: ['event'], take: { count: item.count } }
      const answer = await create({ buildId: records.build.id, resource: 'checks', body })
      if (answer.error) return setFailure(readFailure(answer.error).message)
      check = answer.data as unknown as StoredCheck
    }
    setFailure(null)
    markCheck(records.build.id, stageId, check, { result, eventId: event?.id ?? null, round: 'event', note: result === 'bad' ? 'missing' : null })
  }
  const step = (by: 1 | -1) => {
    const at = list.items.findIndex(({ key }) => key === picked?.key)
    const next = list.items[at < 0 ? (by === 1 ? 0 : list.items.length - 1) : at + by]
    if (next) set({ take: next.key })
  }
  useTabKeys((key) => {
    if (key === 'ArrowDown' || key === 'ArrowUp') step(key === 'ArrowDown' ? 1 : -1)
    else if (picked && (key === 't' || key === ' ')) void pack(picked, 'ok')
    else if (picked && key === 'b') void pack(picked, 'bad')
    else return false
    return true
  })
  const packed = list.items.filter(({ isPacked }) => isPacked).length
  return (
    <div className="grid max-w-4xl content-start gap-3">
      <div className="no-print flex flex-wrap items-center gap-4">
        <EventPicker records={records} event={event} />
        <span className="text-quiet">
          {packed} of {list.items.length} packed
        </span>
      </div>
      {failure && <Alert>{failure}</Alert>}
      {list.items.length === 0 ? (
        <Empty title="Nothing to take yet" why="Tools that checks name, spares of what may end, fluids, and what you type under Ready: take hub socket." />
      ) : (
        <ul {...{ [KEY_ROWS]: '' }}>
          {list.items.map((item) => (
            <li
              key={item.key}
              aria-current={item.key === picked?.key ? 'true' : undefined}
              className={`flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5 ${item.key === picked?.key ? 'bg-picked' : ''}`}
            >
              <button
                type="button"
                aria-pressed={item.isPacked}
                aria-label={`${item.name} is packed`}
                onClick={() => void pack(item, 'ok')}
                className={`h-6 w-6 shrink-0 self-center border border-edge font-bold ${item.isPacked ? 'bg-pine text-sheet' : 'bg-sheet'}`}
              >
                {item.isPacked ? '✓' : ''}
              </button>
              <span className={`min-w-40 flex-1 font-semibold ${item.isPacked ? 'text-quiet line-through' : ''}`}>
                {item.name}
                {item.count > 1 ? `, ${item.count}` : ''}
              </span>
              <span className={item.wasMissing || item.why === 'tool' ? 'text-wait' : 'text-quiet'}>
                {[item.wasMissing ? 'missing last time' : '', whyWords(item)].filter((words) => words !== '').join('; ')}
              </span>
              <button type="button" className="word-link no-print" onClick={() => void pack(item, 'bad')} aria-label={`${item.name} is missing`}>
                missing
              </button>
            </li>
          ))}
        </ul>
      )}
      <p className="text-[13px] text-quiet">
        <CsvButton name={`${records.build.name} take along`} table={() => takeTable(list)} /> Keys: ↓ ↑ pick, t packed, b missing.
      </p>
    </div>
  )
}
