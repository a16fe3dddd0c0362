import type { MeAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { crewApi } from '../../data/crew/crew-api.ts'
import { sitDown } from '../../data/stored.ts'
import { SecretForm } from '../../ui/forms/secret-form.tsx'
import { Loading } from '../../ui/states.tsx'
import { TakeOver } from './take-over.tsx'

/** Sits down whoever an answer says is at this browser now, and begins the page anew. */
export function sitDownAs({ person }: MeAnswer, options: Parameters<typeof sitDown>[1] = {}): void {
  if (person) sitDown({ personId: person.id, name: person.name }, options)
}

/** What stands in place of a page while nobody is signed in on this browser. */
export function SignInPage() {
  // Who may take over is asked anew: what was known before may be why nobody is signed in.
  const { data: me, isFetching } = crewApi.useMeQuery(undefined, { refetchOnMountOrArgChange: true })
  const [signIn] = crewApi.useSignInMutation()
  const [asNew, setAsNew] = useState(false)
  if (!me || isFetching) return <Loading what="who is here" />
  const { seats } = me
  return (
    <main id="page" tabIndex={-1} className="mx-auto grid w-full max-w-[760px] content-start gap-5 px-5 py-8 outline-none">
      <title>Sign in · Bold Ballast</title>
      <h1>{seats.length > 0 && !asNew ? 'Who takes over?' : 'Sign in'}</h1>
      <p className="text-quiet">What was typed here is kept, and goes out when whoever typed it is back.</p>
      {seats.length > 0 && !asNew ? (
        <>
          <TakeOver seats={seats} />
          <p>
            <button type="button" className="word-link" onClick={() => setAsNew(true)}>
              Somebody else signs in
            </button>
          </p>
        </>
      ) : (
        <SecretForm
          fields={[
            { name: 'login', label: 'Sign-in name', autoComplete: 'username' },
            { name: 'password', label: 'Password', type: 'password', autoComplete: 'current-password' },
          ]}
          submit="Sign in"
          send={async ({ login = '', password = '' }) => sitDownAs(await signIn({ login, password }).unwrap())}
        >
          <p className="text-xs text-quiet">
            Forgotten? An owner makes you a link to a new password. An owner finds one at the machine: npm run people -- reset NAME.
          </p>
        </SecretForm>
      )}
    </main>
  )
}
