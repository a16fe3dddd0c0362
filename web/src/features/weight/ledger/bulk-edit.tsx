import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Alert } from '../../../ui/states.tsx'
import type { StoredChange } from './ledger-rows.ts'

type What = 'zone' | 'done' | 'planned' | 'dropped' | 'stage' | 'delete'
const WORDS: Record<What, string> = {
  zone: 'put into zone',
  done: 'mark done now',
  planned: 'mark planned',
  dropped: 'drop',
  stage: 'move to stage',
  delete: 'delete',
}

/** One change to many lines: all of them or none, one entry in the log that can be taken back. */
export function BulkEdit({ records, picked, close }: { records: RecordsAnswer; picked: readonly StoredChange[]; close: () => void }) {
  const [what, setWhat] = useState<What>('zone')
  const [zone, setZone] = useState('')
  const [stageId, setStageId] = useState(records.stages[1]?.id ?? '')
  const [failure, setFailure] = useState<string | null>(null)
  const [write, { isLoading }] = api.useBatchMutation()
  const fields = (): Record<string, unknown> => {
    if (what === 'zone') return { zone: zone.trim() || null }
    if (what === 'stage') return { stageId }
    return what === 'done' ? { state: 'done', doneAt: new Date().toISOString() } : { state: what, doneAt: null }
  }
  // Pieces that go back move along with the part they come from; what replaces it stays, and is told.
  const ids = new Set(picked.map(({ id }) => id))
  const pieces =
    what === 'stage' ? records.changes.filter(({ id, kind, fromChangeId }) => kind === 'transfer' && !ids.has(id) && ids.has(fromChangeId ?? '')) : []
  const staying = what === 'stage' ? records.changes.filter(({ id, replacesChangeId }) => !ids.has(id) && ids.has(replacesChangeId ?? '')) : []
  const apply = async () => {
    const writes = [...picked, ...pieces].map(
      ({ id, version }): BatchWrite =>
        what === 'delete' ? { kind: 'remove', resource: 'changes', id, version } : { kind: 'update', resource: 'changes', id, body: { version, ...fields() } },
    )
    const answer = await write({ buildId: records.build.id, batchId: crypto.randomUUID(), writes })
    if (answer.error) setFailure(readFailure(answer.error).message)
    else close()
  }
  return (
    <form
      className="no-print mb-3 flex flex-wrap items-center gap-2 border-y border-line bg-page px-2 py-2"
      onSubmit={(event) => {
        event.preventDefault()
        void apply()
      }}
    >
      <strong>
        {picked.length} {picked.length === 1 ? 'line' : 'lines'} picked:
      </strong>
      <select value={what} onChange={(event) => setWhat(event.target.value as What)} aria-label="What to do with them">
        {Object.entries(WORDS).map(([value, word]) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
      </select>
      {what === 'zone' && (
        <>
          <input value={zone} onChange={(event) => setZone(event.target.value)} list="bulk-zones" aria-label="Zone" className="w-[130px]" />
          <datalist id="bulk-zones">
            {records.zones.map(({ id, name }) => (
              <option key={id} value={name} />
            ))}
          </datalist>
        </>
      )}
      {what === 'stage' && (
        <select value={stageId} onChange={(event) => setStageId(event.target.value)} aria-label="Stage">
          {records.stages.slice(1).map((stage) => (
            <option key={stage.id} value={stage.id}>
              {stage.position} {stage.name}
            </option>
          ))}
        </select>
      )}
      <button type="submit" className="button button-strong" disabled={picked.length === 0 || isLoading}>
        {isLoading ? 'Storing …' : 'Do it'}
      </button>
      <button type="button" className="word-link" onClick={close}>
        stop picking
      </button>
      {pieces.length > 0 && <span className="w-full text-quiet">Pieces that go back move along: {pieces.map(({ name }) => name).join(', ')}.</span>}
      {staying.length > 0 && <span className="w-full text-wait">What replaces them stays where it is: {staying.map(({ name }) => name).join(', ')}.</span>}
      {failure && <Alert className="w-full">{failure} Nothing was changed.</Alert>}
    </form>
  )
}
