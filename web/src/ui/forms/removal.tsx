import type { ResourceName } from '@bold-ballast/core'
import { useCallback, useState } from 'react'
import { api, readFailure } from '../../data/api.ts'
import { Alert } from '../states.tsx'

/** Deletes by a mark; the notice that follows every write offers to take it back. A refusal is said where the list is. */
export function useRemoval(buildId: string, resource: ResourceName) {
  const [remove] = api.useRemoveRecordMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const take = useCallback(
    async (record: { id: string; version: number }) => {
      const answer = await remove({ buildId, resource, id: record.id, version: record.version })
      setFailure(answer.error ? readFailure(answer.error).message : null)
    },
    [remove, buildId, resource],
  )
  const notice = failure && <Alert className="my-2">{failure}</Alert>
  return { take, notice }
}
