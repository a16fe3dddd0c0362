import { useState } from 'react'
import { Link } from 'react-router'
import { readFailure } from '../../data/api.ts'
import { crewApi } from '../../data/crew/crew-api.ts'
import { sitDown } from '../../data/stored.ts'
import { NEW_PERSON, SecretForm } from '../../ui/forms/secret-form.tsx'
import { Alert } from '../../ui/states.tsx'

/** Where an invitation leads: as oneself where one is signed in, as a new person, or to a new password. Its secret stands behind the # of the address. */
export function JoinPage() {
  const [token] = useState(() => window.location.hash.slice(1))
  const [way, setWay] = useState<'new' | 'password'>('new')
  const { data: me } = crewApi.useMeQuery()
  const [join, joining] = crewApi.useJoinMutation()
  const enter = async (fields: { name?: string; login?: string; password?: string }) => {
    const { person } = await join({ token, ...fields }).unwrap()
    if (person) sitDown({ personId: person.id, name: person.name }, { at: '/' })
  }
  return (
    <main id="page" tabIndex={-1} className="mx-auto grid w-full max-w-[760px] content-start gap-4 px-5 py-8 outline-none">
      <title>Join · Bold Ballast</title>
      {token === '' ? (
        <>
          <h1>This link is not whole</h1>
          <p>
            Copy it anew, with everything behind its #, or <Link to="/">go to the Garage</Link>.
          </p>
        </>
      ) : me?.person ? (
        <>
          <h1>Join as {me.person.name}?</h1>
          <p className="text-quiet">The invitation is used up by it. If it is for somebody else, hand the browser over first.</p>
          {joining.error !== undefined && <Alert>{readFailure(joining.error).message}</Alert>}
          <p>
            <button type="button" className="button button-strong" disabled={joining.isLoading} onClick={() => void enter({}).catch(() => undefined)}>
              Join as {me.person.name}
            </button>
          </p>
        </>
      ) : way === 'new' ? (
        <>
          <h1>You are invited</h1>
          <SecretForm fields={NEW_PERSON} submit="Join" send={({ name = '', login = '', password = '' }) => enter({ name, login, password })} />
          <p>
            <button type="button" className="word-link" onClick={() => setWay('password')}>
              The link is for a new password
            </button>
          </p>
        </>
      ) : (
        <>
          <h1>A new password</h1>
          <SecretForm fields={NEW_PERSON.filter(({ name }) => name === 'password')} submit="Set it" send={({ password = '' }) => enter({ password })} />
          <p>
            <button type="button" className="word-link" onClick={() => setWay('new')}>
              I am new here
            </button>
          </p>
        </>
      )}
    </main>
  )
}
