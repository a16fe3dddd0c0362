import type { HereEntry } from '@bold-ballast/contract'
import { PersonTag } from './person-tag.tsx'

const MOST_SHOWN = 3

/** Tallies of those who are here now: three, and how many more. */
export function AlsoHere({ people, label }: { people: readonly HereEntry[]; label: string }) {
  if (people.length === 0) return null
  const names = people.map(({ name }) => name).join(', ')
  return (
    <span role="img" aria-label={`${label} ${names}`} title={names} className="inline-flex items-center gap-1">
      {people.slice(0, MOST_SHOWN).map(({ personId, name }) => (
        <PersonTag key={personId} name={name} isHere />
      ))}
      {people.length > MOST_SHOWN && <span className="text-xs">+{people.length - MOST_SHOWN}</span>}
    </span>
  )
}
