import type { SharedList, ShelfEntry } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../data/api.ts'
import { useShelf } from './use-shelf.ts'

/** So many stand open; the others wait behind a button. */
const MOST_OPEN = 12

/** What other builds of the garage share of one list and this one has not, each to be copied into it. */
export function TakenFromOthers<List extends SharedList>({
  list,
  buildId,
  nameOf,
  has = () => false,
  fieldsOf,
  taken,
}: {
  list: List
  buildId: string
  nameOf: (record: ShelfEntry<List>['record']) => string
  /** Whether the build has it already. */
  has?: (record: ShelfEntry<List>['record']) => boolean
  /** What is said anew of a copy, as the other build’s own ids mean nothing here. */
  fieldsOf?: (record: ShelfEntry<List>['record']) => Record<string, unknown>
  /** Told the copy’s id; the sentence that it is there. */
  taken: (id: string, name: string) => string
}) {
  const { shelf, take } = useShelf(list, buildId)
  const [said, setSaid] = useState<string | null>(null)
  const [isWhole, setIsWhole] = useState(false)
  const others = shelf?.filter(({ record }) => record.buildId !== buildId && !has(record)) ?? []
  if (others.length === 0) return null
  const copy = async (record: ShelfEntry<List>['record']) => {
    const answer = await take(record, fieldsOf?.(record))
    setSaid(answer.error ? readFailure(answer.error).message : taken(String(answer.data?.id), nameOf(record)))
  }
  return (
    <section className="no-print">
      <p role="status">{said}</p>
      <ul className="flex flex-wrap gap-x-5">
        {(isWhole ? others : others.slice(0, MOST_OPEN)).map(({ record, buildName }) => (
          <li key={record.id}>
            <button type="button" className="word-link" onClick={() => void copy(record)}>
              Take {nameOf(record)} from {buildName}
            </button>
          </li>
        ))}
        {!isWhole && others.length > MOST_OPEN && (
          <li>
            <button type="button" className="word-link" onClick={() => setIsWhole(true)}>
              {others.length - MOST_OPEN} more
            </button>
          </li>
        )}
      </ul>
    </section>
  )
}
