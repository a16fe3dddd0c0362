import type { ResourceName } from '@bold-ballast/contract'
import { useState } from 'react'
import { api, readFailure } from '../api/api.ts'

/** Deletes by a mark and offers to put it back; one place for every list. */
export function useRemoval(buildId: string, resource: ResourceName) {
  const [remove] = api.useRemoveRecordMutation()
  const [restore] = api.useRestoreRecordMutation()
  const [last, setLast] = useState<{ id: string; version: number; name: string } | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const attempt = async (work: () => Promise<void>) => {
    try {
      setFailure(null)
      await work()
    } catch (error) {
      setFailure(readFailure(error).message)
    }
  }
  const take = (record: { id: string; version: number }, name: string) =>
    attempt(async () => {
      await remove({ buildId, resource, id: record.id, version: record.version }).unwrap()
      setLast({ id: record.id, version: record.version + 1, name })
    })
  const putBack = () =>
    attempt(async () => {
      if (last) await restore({ buildId, resource, id: last.id, version: last.version }).unwrap()
      setLast(null)
    })
  const notice = (
    <div aria-live="polite">
      {failure && <p className="my-2 border-l-4 border-danger py-1 pl-3">{failure}</p>}
      {last && (
        <p className="my-2 border-l-4 border-line py-1 pl-3">
          Deleted {last.name}.{' '}
          <button type="button" className="word-link" onClick={() => void putBack()}>
            Put it back
          </button>
        </p>
      )}
    </div>
  )
  return { take, notice }
}
