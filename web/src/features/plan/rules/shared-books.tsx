import type { RecordsAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { useShelf } from '../../../shared/use-shelf.ts'

/** Rule books that other builds of the garage share, each to be copied; which lines and parts they forbid is said anew here. */
export function SharedBooks({ records, open }: { records: RecordsAnswer; open: (id: string) => void }) {
  const buildId = records.build.id
  const { shelf, take } = useShelf('ruleBooks', buildId)
  const [said, setSaid] = useState<string | null>(null)
  const others = shelf?.filter(({ record }) => record.buildId !== buildId) ?? []
  if (others.length === 0) return null
  const copy = async (book: (typeof others)[number]['record']) => {
    const answer = await take(book, { rules: book.rules.map((rule) => ({ ...rule, blocks: [] })) })
    if (answer.error) return setSaid(readFailure(answer.error).message)
    open(String(answer.data?.id))
    setSaid(`${book.name} is copied. Say which lines and parts of this build its rules forbid.`)
  }
  return (
    <section className="no-print">
      <p role="status">{said}</p>
      <ul className="flex flex-wrap gap-x-5">
        {others.map(({ record, buildName }) => (
          <li key={record.id}>
            <button type="button" className="word-link" onClick={() => void copy(record)}>
              Take {record.name} {record.edition} from {buildName}
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
