import type { SharedList, ShelfAddress, ShelfEntry } from '@bold-ballast/contract'
import { useCallback } from 'react'
import { api } from '../data/api.ts'

const ADDRESSES: Readonly<Record<SharedList, ShelfAddress>> = {
  parts: 'parts',
  ruleBooks: 'rule-books',
  lessons: 'lessons',
  tracks: 'tracks',
  courses: 'courses',
}
/** What is of the build a record came from, and not of the record. */
const OF_ITS_BUILD = ['id', 'buildId', 'version', 'createdAt', 'createdBy', 'updatedAt', 'updatedBy', 'deletedAt']

/** What builds of the garage share of one list, and taking a copy of it; a copy names nothing of the other build unless `fields` says it anew. */
export function useShelf<List extends SharedList>(list: List, buildId: string) {
  const { data, error, refetch } = api.useShelfQuery(ADDRESSES[list])
  const [create] = api.useCreateRecordMutation()
  const take = useCallback(
    (record: ShelfEntry<List>['record'], fields: Record<string, unknown> = {}) => {
      const own = Object.fromEntries(Object.entries(record).filter(([field]) => !OF_ITS_BUILD.includes(field)))
      return create({ buildId, resource: ADDRESSES[list], body: { ...own, isShared: false, ...fields, id: crypto.randomUUID() } })
    },
    [create, buildId, list],
  )
  return { shelf: data as readonly ShelfEntry<List>[] | undefined, error, refetch, take }
}
