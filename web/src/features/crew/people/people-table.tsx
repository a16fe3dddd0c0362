import type { MemberEntry, PersonEntry, Role } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { PersonTag } from '../../../ui/person-tag.tsx'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert } from '../../../ui/states.tsx'
import { dayText, timeText } from '../../../ui/words.ts'
import { ROLE_WORDS, roleOptions } from './role-words.ts'

const STATE_WORDS: Record<PersonEntry['state'], string> = { invited: 'invited', active: '', off: 'switched off' }

/** Everybody of the garage: what each is, in the garage or in one build, until when, and when last here. */
export function PeopleTable({ garageId, people }: { garageId: string; people: readonly PersonEntry[] }) {
  const [failure, setFailure] = useState<string | null>(null)
  const [change] = crewApi.useChangeMembershipMutation()
  const [end] = crewApi.useEndMembershipMutation()
  const [changePerson] = crewApi.useChangePersonMutation()
  const tried = (work: { unwrap: () => Promise<unknown> }) => {
    setFailure(null)
    work.unwrap().catch((error: unknown) => setFailure(readFailure(error).message))
  }
  return (
    <div>
      {failure && <Alert className="mb-2">{failure}</Alert>}
      <ScrollBox label="People of the garage">
        <table className="lined w-full">
          <thead>
            <tr>
              <th>Who</th>
              <th>May</th>
              <th>Where</th>
              <th>Until</th>
              <th>Last here</th>
              <th>
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {people.flatMap((person) => {
              const rows: readonly (MemberEntry | null)[] = person.memberships.length > 0 ? person.memberships : [null]
              return rows.map((member, i) => (
                <tr key={`${person.id}${member?.membershipId ?? ''}`}>
                  <td>
                    {i === 0 && (
                      <span className="inline-flex items-center gap-2">
                        <PersonTag name={person.name} />
                        <span>
                          <b>{person.name}</b> <span className="text-quiet">{[person.login, STATE_WORDS[person.state]].filter(Boolean).join(', ')}</span>
                        </span>
                      </span>
                    )}
                  </td>
                  <td>
                    {member ? (
                      <select
                        aria-label={`What ${person.name} may do`}
                        value={member.role}
                        onChange={({ target }) => tried(change({ garageId, id: member.membershipId, role: target.value as Role }))}
                      >
                        {roleOptions(member.buildId !== null).map((role) => (
                          <option key={role} value={role}>
                            {ROLE_WORDS[role]}
                          </option>
                        ))}
                      </select>
                    ) : (
                      <span className="text-quiet">nothing</span>
                    )}
                  </td>
                  <td>{member ? (member.buildName ?? 'whole garage') : ''}</td>
                  <td>{member?.until ? dayText(member.until) : ''}</td>
                  <td className="text-quiet">{i === 0 && person.hereAt ? timeText(person.hereAt) : ''}</td>
                  <td className="no-print whitespace-nowrap">
                    {member && (
                      <button type="button" className="word-link mr-3" onClick={() => tried(end({ garageId, id: member.membershipId }))}>
                        end <span className="sr-only">what {person.name} may do</span>
                      </button>
                    )}
                    {i === 0 && (
                      <button
                        type="button"
                        className="word-link"
                        onClick={() => tried(changePerson({ garageId, personId: person.id, state: person.state === 'off' ? 'active' : 'off' }))}
                      >
                        {person.state === 'off' ? 'switch on' : 'switch off'} <span className="sr-only">{person.name}</span>
                      </button>
                    )}
                  </td>
                </tr>
              ))
            })}
          </tbody>
        </table>
      </ScrollBox>
    </div>
  )
}
