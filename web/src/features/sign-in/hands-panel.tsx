import { useState } from 'react'
import { crewApi } from '../../data/crew/crew-api.ts'
import { discard, flush } from '../../data/outbox-sender.ts'
import { useAppSelector } from '../../data/store.ts'
import { sitDown } from '../../data/stored.ts'
import { Panel } from '../../ui/dialog.tsx'
import { PASSWORD_HELP, SecretForm } from '../../ui/forms/secret-form.tsx'
import { Loading } from '../../ui/states.tsx'
import { TakeOver } from './take-over.tsx'

type Part = 'hands' | 'sign-in' | 'code' | 'password' | 'out'

/** How many entries of whoever sits here have not gone out. */
const waitingHere = (count: number) => (count === 1 ? 'One entry of yours waits' : `${count} entries of yours wait`)

/** Change hands: who takes over this browser; beside it what one changes about one's own sign-in. */
export function HandsPanel({ onClose }: { onClose: () => void }) {
  const { data: me } = crewApi.useMeQuery()
  const [part, setPart] = useState<Part>('hands')
  const [signIn] = crewApi.useSignInMutation()
  const [changeCode] = crewApi.useChangeCodeMutation()
  const [changePassword] = crewApi.useChangePasswordMutation()
  if (!me) return <Loading what="who is here" />
  const others = me.seats.filter(({ personId }) => personId !== me.person?.id)
  return (
    <Panel title={part === 'hands' ? 'Change hands' : (PART_TITLES[part] ?? '')} onClose={onClose}>
      {part === 'hands' && (
        <>
          <TakeOver seats={others} />
          <p className="mt-5 flex flex-wrap gap-x-5 gap-y-2 border-t border-line pt-4">
            {(['sign-in', 'code', 'password', 'out'] as const).map((each) => (
              <button key={each} type="button" className="word-link" onClick={() => setPart(each)}>
                {PART_TITLES[each]}
              </button>
            ))}
          </p>
        </>
      )}
      {part === 'sign-in' && (
        <SecretForm
          fields={[
            { name: 'login', label: 'Sign-in name', autoComplete: 'username' },
            { name: 'password', label: 'Password', type: 'password', autoComplete: 'current-password' },
          ]}
          submit="Sign in beside"
          send={async ({ login = '', password = '' }) => {
            const { person } = await signIn({ login, password }).unwrap()
            if (person) sitDown({ personId: person.id, name: person.name })
          }}
        />
      )}
      {part === 'code' && (
        <SecretForm
          fields={[
            {
              name: 'code',
              label: 'Code',
              type: 'code',
              help: '4 to 8 digits, for taking over on a browser that you are signed in on. Five wrong tries end that.',
            },
            { name: 'password', label: 'Your password', type: 'password', autoComplete: 'current-password' },
          ]}
          submit="Set my code"
          send={async ({ code = '', password = '' }) => {
            await changeCode({ code, password }).unwrap()
            setPart('hands')
          }}
        />
      )}
      {part === 'password' && (
        <SecretForm
          fields={[
            { name: 'old', label: 'Password of now', type: 'password', autoComplete: 'current-password' },
            { name: 'new', label: 'New password', type: 'password', autoComplete: 'new-password', help: `${PASSWORD_HELP} All other sign-ins of yours end.` },
          ]}
          submit="Change it"
          send={async (values) => {
            await changePassword({ old: values.old ?? '', new: values.new ?? '' }).unwrap()
            setPart('hands')
          }}
        />
      )}
      {part === 'out' && <SignOut />}
    </Panel>
  )
}

const PART_TITLES: Record<Exclude<Part, 'hands'>, string> = {
  'sign-in': 'Somebody else signs in',
  code: 'My code',
  password: 'My password',
  out: 'Sign out',
}

/** What has not gone out is sent first, kept in this browser until its writer is back, or given up. */
function SignOut() {
  const items = useAppSelector((state) => state.outbox.items)
  const [signOut] = crewApi.useSignOutMutation()
  const [everywhere] = crewApi.useSignOutEverywhereMutation()
  const leave = async (work: () => Promise<unknown>) => {
    await work()
    sitDown(null)
  }
  return (
    <div className="grid gap-3">
      {items.length > 0 && (
        <div className="grid gap-1">
          <p role="status">{waitingHere(items.length)} for the server. Signed out, they stay in this browser and go out when you are back on it.</p>
          <p className="flex gap-4">
            <button type="button" className="word-link" onClick={() => void flush()}>
              Send them now
            </button>
            <button
              type="button"
              className="word-link"
              onClick={() => {
                for (const { id } of items) discard(id)
              }}
            >
              Give them up
            </button>
          </p>
        </div>
      )}
      <p className="flex flex-wrap gap-3">
        <button type="button" className="button button-strong" onClick={() => void leave(() => signOut().unwrap())}>
          Sign out here
        </button>
        <button type="button" className="button" onClick={() => void leave(() => everywhere().unwrap())}>
          Sign out everywhere
        </button>
      </p>
    </div>
  )
}
