import { useId, useState } from 'react'
import { readFailure } from '../../data/api.ts'
import { Alert } from '../states.tsx'

export interface SecretField {
  readonly name: string
  readonly label: string
  readonly type?: 'text' | 'password' | 'code'
  /** What a browser that fills in fields takes it for. */
  readonly autoComplete?: string
  readonly help?: string
}

/** A few fields of which nothing is kept in the browser: what is secret stands in no draft. A refusal names its field. */
export function SecretForm({
  fields,
  submit,
  send,
  children,
}: {
  fields: readonly SecretField[]
  submit: string
  /** Sends what was typed; resolves once it is done. */
  send: (values: Readonly<Record<string, string>>) => Promise<unknown>
  children?: React.ReactNode
}) {
  const id = useId()
  const [problem, setProblem] = useState<{ readonly message: string; readonly field: string | null } | null>(null)
  const [isSending, setSending] = useState(false)
  const submitted = async (form: HTMLFormElement) => {
    setSending(true)
    setProblem(null)
    try {
      await send(Object.fromEntries([...new FormData(form)].map(([key, value]) => [key, String(value)])))
    } catch (error) {
      const { message, problem: told } = readFailure(error)
      setProblem({ message, field: told?.errors?.[0]?.path ?? null })
    } finally {
      setSending(false)
    }
  }
  return (
    <form
      className="grid max-w-sm gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        void submitted(event.currentTarget)
      }}
    >
      {fields.map(({ name, label, type = 'text', autoComplete = 'off', help }) => (
        <div key={name}>
          <label htmlFor={`${id}${name}`} className="mb-1 block font-semibold">
            {label}
          </label>
          <input
            id={`${id}${name}`}
            name={name}
            type={type === 'text' ? 'text' : 'password'}
            inputMode={type === 'code' ? 'numeric' : undefined}
            autoComplete={autoComplete}
            autoCapitalize="none"
            spellCheck={false}
            required
            aria-invalid={problem?.field === name || undefined}
            aria-describedby={help ? `${id}${name}-help` : undefined}
            className="w-full"
          />
          {help && (
            <p id={`${id}${name}-help`} className="mt-1 text-xs text-quiet">
              {help}
            </p>
          )}
        </div>
      ))}
      {children}
      {problem && <Alert>{problem.message}</Alert>}
      <p>
        <button type="submit" className="button button-strong" disabled={isSending}>
          {submit}
        </button>
      </p>
    </form>
  )
}

export const PASSWORD_HELP = '12 characters or more; four words do.'

/** Who a new person is: his name beside what he writes, and how he signs in. */
export const NEW_PERSON: readonly SecretField[] = [
  { name: 'name', label: 'Your name', autoComplete: 'name', help: 'It stands beside what you write.' },
  { name: 'login', label: 'Sign-in name', autoComplete: 'username' },
  { name: 'password', label: 'Password', type: 'password', autoComplete: 'new-password', help: PASSWORD_HELP },
]
