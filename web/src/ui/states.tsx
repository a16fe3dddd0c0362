import { readFailure } from '../data/api.ts'

export function Loading({ what }: { what: string }) {
  return (
    <p role="status" aria-busy="true" className="p-6 text-quiet">
      Reading {what} …
    </p>
  )
}

export function LoadError({ error, retry }: { error: unknown; retry: () => void }) {
  const failure = readFailure(error)
  return (
    <div role="alert" className="p-6">
      <h1>{failure.problem?.status === 404 ? 'It is not here' : 'It could not be read'}</h1>
      <p className="my-2">{failure.message}</p>
      <button type="button" className="button" onClick={retry}>
        Try again
      </button>
    </div>
  )
}

/** What belongs here, why, and one way to start. */
export function Empty({ title, why, children }: { title: string; why: string; children?: React.ReactNode }) {
  return (
    <div className="max-w-xl border-l-4 border-line py-2 pl-4">
      <h2>{title}</h2>
      <p className="mt-1 mb-3 text-quiet">{why}</p>
      {children}
    </div>
  )
}

/** What was refused or failed, and what cures it: said at once to those who listen. */
export function Alert({ children, className = '' }: { children: React.ReactNode; className?: string }) {
  return (
    <div role="alert" className={`border-l-4 border-danger py-1 pl-3 ${className}`}>
      {children}
    </div>
  )
}

/** The usual caution where work can hurt someone. */
export function Caution({ children, className = '' }: { children: React.ReactNode; className?: string }) {
  return <p className={`border-l-4 border-wait pl-3 ${className}`}>{children}</p>
}
