import type { GarageMembership } from '@bold-ballast/contract'
import type { ReactNode } from 'react'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { useAppSelector, usePreferences } from '../../../data/store.ts'
import { sitDown } from '../../../data/stored.ts'
import { NEW_PERSON, SecretForm } from '../../../ui/forms/secret-form.tsx'
import { Loading } from '../../../ui/states.tsx'
import type { CrewTabProps } from '../crew-tab.ts'
import { AuditList } from './audit-list.tsx'
import { ClaimList } from './claim-list.tsx'
import { InviteForm } from './invite-form.tsx'
import { PeopleTable } from './people-table.tsx'

/** Who may do what here; as long as nobody signs in, the one form that begins it. */
export function PeopleTab({ buildId, records, tabs }: CrewTabProps) {
  const isClosed = useAppSelector((state) => state.seat.isClosed)
  return isClosed ? <Garage buildId={buildId} buildName={records.build.name} tabs={tabs} /> : <FirstOwner tabs={tabs} />
}

function FirstOwner({ tabs }: { tabs: ReactNode }) {
  const [makeOwner] = crewApi.useMakeOwnerMutation()
  const { person } = usePreferences()
  return (
    <div className="grid gap-4">
      <h1>Anyone at this machine may write</h1>
      {tabs}
      <p className="max-w-xl text-quiet">
        Make an owner to ask for sign-in. From then on everybody signs in, also on this machine; what was written stays, and lines that bear your name
        {person ? ` (${person})` : ''} become yours. The way back stands at the terminal: npm run people -- open.
      </p>
      <SecretForm
        fields={NEW_PERSON}
        submit="Make me the owner"
        send={async ({ name = '', login = '', password = '' }) => {
          const { person: made } = await makeOwner({ name, login, password }).unwrap()
          if (made) sitDown({ personId: made.id, name: made.name }, { adopts: true })
        }}
      />
    </div>
  )
}

interface GarageProps {
  readonly buildId: string
  readonly buildName: string
  readonly tabs: ReactNode
}

function Garage({ buildId, buildName, tabs }: GarageProps) {
  const { data: me } = crewApi.useMeQuery()
  if (!me) return <Loading what="the people" />
  const garage = me.garages.find(({ role }) => role === 'owner')
  if (!garage) return <Own garages={me.garages} tabs={tabs} />
  return <Owned garage={garage} buildId={buildId} buildName={buildName} tabs={tabs} />
}

/** What one who owns nothing here sees: what he is, and whom to ask. */
function Own({ garages, tabs }: { garages: readonly GarageMembership[]; tabs: ReactNode }) {
  const [first] = garages
  const role = first ? (first.role === 'crew' ? 'You are one of the crew' : 'You may look') : 'You are a guest of this build'
  return (
    <div className="grid gap-3">
      <h1>{role}</h1>
      {tabs}
      <p className="max-w-xl text-quiet">
        People, invitations and links are for the owners of the garage. Code, password and signing out stand behind your name, at the top.
      </p>
    </div>
  )
}

const GOALS_WORDS = { crew: 'everybody who writes', owners: 'owners alone' } as const

function Owned({ garage, buildId, buildName, tabs }: GarageProps & { readonly garage: GarageMembership }) {
  const { garageId, goalsBy } = garage
  const people = crewApi.usePeopleQuery(garageId)
  const invitations = crewApi.useInvitationsQuery(garageId)
  const [change] = crewApi.useChangeGarageMutation()
  if (!people.data || !invitations.data) return <Loading what="the people" />
  const active = people.data.filter(({ state, memberships }) => state === 'active' && memberships.length > 0)
  const owners = active.filter(({ memberships }) => memberships.some(({ role }) => role === 'owner'))
  const others = active.length - owners.length
  const title = `${owners.length === 1 ? 'One owner' : `${owners.length} owners`}${others === 0 ? ' and nobody else' : `, ${others} more`}`
  return (
    <div className="grid gap-6">
      <div className="grid gap-2">
        <h1>{title}</h1>
        {tabs}
        {owners.length === 1 && (
          <p className="text-wait">One owner alone: a forgotten password or a lost laptop leaves nobody to let others in. Make a second one.</p>
        )}
        <label className="flex flex-wrap items-center gap-2">
          goals and limits are moved by
          <select value={goalsBy} onChange={({ target }) => void change({ garageId, goalsBy: target.value as typeof goalsBy })}>
            {Object.entries(GOALS_WORDS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
      <PeopleTable garageId={garageId} people={people.data} />
      <InviteForm garageId={garageId} buildId={buildId} buildName={buildName} people={people.data} invitations={invitations.data} />
      <ClaimList garageId={garageId} people={people.data} />
      <AuditList garageId={garageId} />
    </div>
  )
}
