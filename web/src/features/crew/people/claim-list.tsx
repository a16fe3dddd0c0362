import type { PersonEntry } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { Alert } from '../../../ui/states.tsx'

/** Names that stand in lines from before anybody signed in, and whose they are; the lines themselves never change. */
export function ClaimList({ garageId, people }: { garageId: string; people: readonly PersonEntry[] }) {
  const { data: claims = [] } = crewApi.useClaimsQuery(garageId)
  const [claim] = crewApi.useClaimMutation()
  const [unclaim] = crewApi.useUnclaimMutation()
  const [failure, setFailure] = useState<string | null>(null)
  if (claims.length === 0) return null
  const tried = (work: { unwrap: () => Promise<unknown> }) => {
    setFailure(null)
    work.unwrap().catch((error: unknown) => setFailure(readFailure(error).message))
  }
  return (
    <section aria-labelledby="claims">
      <h2 id="claims" className="mb-1">
        Names in old lines
      </h2>
      <p className="mb-2 max-w-xl text-quiet">
        Typed before anybody signed in. Say whose each is: the log then shows the person; the lines stay as they were written.
      </p>
      {failure && <Alert className="mb-2">{failure}</Alert>}
      <ul className="grid gap-1.5">
        {claims.map(({ name, lineCount, claim: held }) => (
          <li key={name} className="flex flex-wrap items-center gap-x-3">
            <b>{name}</b>
            <span className="text-quiet">{lineCount === 1 ? '1 line' : `${lineCount} lines`}</span>
            {held ? (
              <>
                <span>is {held.personName}</span>
                <button type="button" className="word-link" onClick={() => tried(unclaim({ garageId, id: held.id }))}>
                  take back
                </button>
              </>
            ) : (
              <select aria-label={`Whose name ${name} is`} value="" onChange={({ target }) => tried(claim({ garageId, name, personId: target.value }))}>
                <option value="">nobody’s yet</option>
                {people.map((person) => (
                  <option key={person.id} value={person.id}>
                    {person.name}
                  </option>
                ))}
              </select>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
