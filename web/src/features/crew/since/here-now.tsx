import type { RecordsAnswer } from '@bold-ballast/contract'
import { KINDS, recordName } from '@bold-ballast/core'
import { othersAt } from '../../../data/crew/here-slice.ts'
import { useAppSelector } from '../../../data/store.ts'
import { PersonTag } from '../../../ui/person-tag.tsx'

/** What a record of the build is called. */
function nameOf(records: RecordsAnswer, id: string): string | undefined {
  for (const { list } of KINDS) {
    const found = records[list].find((record) => record.id === id)
    if (found) return recordName(list, found)
  }
  return undefined
}

/** Who else looks at the build now, where, and what is open there. */
export function HereNow({ buildId, records }: { buildId: string; records: RecordsAnswer }) {
  const others = useAppSelector(othersAt(buildId))
  if (others.length === 0) return null
  return (
    <section>
      <h2 className="mb-1">Here now</h2>
      <ul>
        {others.map(({ personId, name, room, recordId }) => {
          const open = recordId === null ? undefined : nameOf(records, recordId)
          return (
            <li key={personId} className="flex items-baseline gap-2 border-t border-line py-1.5">
              <PersonTag name={name} isHere />
              <span>
                <b>{name}</b> in {room}
                {open !== undefined && <span className="block text-quiet">has {open} open; what you type there is put beside it</span>}
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
