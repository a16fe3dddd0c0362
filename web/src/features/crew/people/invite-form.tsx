import type { InvitationEntry, MadeLink, PersonEntry, Role } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { endOfDay, ROLE_WORDS, roleOptions } from './role-words.ts'
import { SecretLink } from './secret-link.tsx'

/** What an invitation is for, in one choice. */
type For = Role | `${Exclude<Role, 'owner'>} build` | `password ${string}`

interface Props {
  readonly garageId: string
  readonly buildId: string
  readonly buildName: string
  readonly people: readonly PersonEntry[]
  readonly invitations: readonly InvitationEntry[]
}

function wishOf(what: For, buildId: string, day: string) {
  if (what.startsWith('password ')) return { role: 'viewer' as const, personId: what.slice('password '.length) }
  const [role, place] = what.split(' ') as [Role, string | undefined]
  const until = endOfDay(day)
  return { role, ...(place ? { buildId } : {}), ...(until && role !== 'owner' ? { until } : {}) }
}

/** A link that lets somebody in, or sets a password anew; and those that are still open. */
export function InviteForm({ garageId, buildId, buildName, people, invitations }: Props) {
  const [what, setWhat] = useState<For>('crew')
  const [day, setDay] = useState('')
  const [made, setMade] = useState<MadeLink | null>(null)
  const [invite, inviting] = crewApi.useInviteMutation()
  const [withdraw] = crewApi.useWithdrawMutation()
  const open = invitations.filter(({ usedAt, withdrawnAt, expiresAt }) => !usedAt && !withdrawnAt && Date.parse(expiresAt) > Date.now())
  return (
    <section aria-labelledby="invite">
      <h2 id="invite" className="mb-2">
        Invite
      </h2>
      <form
        className="no-print flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void invite({ garageId, ...wishOf(what, buildId, day) })
            .unwrap()
            .then(setMade)
            .catch(() => setMade(null))
        }}
      >
        <select aria-label="What the link is for" value={what} onChange={({ target }) => setWhat(target.value as For)}>
          <optgroup label="The whole garage">
            {roleOptions(false).map((role) => (
              <option key={role} value={role}>{`to ${ROLE_WORDS[role]}`}</option>
            ))}
          </optgroup>
          <optgroup label={`${buildName} alone`}>
            {roleOptions(true).map((role) => (
              <option key={role} value={`${role} build`}>{`to ${ROLE_WORDS[role]} in ${buildName}`}</option>
            ))}
          </optgroup>
          <optgroup label="A new password">
            {people.map(({ id, name }) => (
              <option key={id} value={`password ${id}`}>{`for ${name}`}</option>
            ))}
          </optgroup>
        </select>
        {what !== 'owner' && !what.startsWith('password ') && (
          <label className="flex items-center gap-2">
            until
            <input type="date" value={day} onChange={({ target }) => setDay(target.value)} />
          </label>
        )}
        <button type="submit" className="button button-strong" disabled={inviting.isLoading}>
          Make the link
        </button>
      </form>
      {inviting.error !== undefined && <Alert className="mt-2">{readFailure(inviting.error).message}</Alert>}
      {made && <SecretLink path="/join" token={made.token} expiresAt={made.expiresAt} what="Whoever has this link comes in, once." />}
      {open.length > 0 && (
        <ul className="mt-3 grid gap-1">
          {open.map(({ id, role, buildName: of, personName, madeAt, expiresAt }) => (
            <li key={id} className="flex flex-wrap gap-x-3">
              <span>{personName ? `a new password for ${personName}` : `to ${ROLE_WORDS[role]}${of ? ` in ${of}` : ''}`}</span>
              <span className="text-quiet">
                made {dayText(madeAt)}, good until {dayText(expiresAt)}
              </span>
              <button type="button" className="word-link" onClick={() => void withdraw({ garageId, id })}>
                withdraw
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
