import { dayText } from '../../../ui/words.ts'

/** A link with its secret, shown this once; it is made from the address this page has. */
export function SecretLink({ path, token, expiresAt, what }: { path: string; token: string; expiresAt: string | null; what: string }) {
  const link = `${window.location.origin}${path}#${token}`
  return (
    <div role="status" className="mt-3 grid gap-2 border-l-4 border-pine pl-3">
      <p>
        {what} Copy it now: it is not shown again{expiresAt ? `, and is good until ${dayText(expiresAt)}` : ''}.
      </p>
      <p className="flex flex-wrap items-center gap-3">
        <input aria-label="The link" readOnly value={link} onFocus={({ target }) => target.select()} className="w-full max-w-xl font-mono text-xs" />
        <button type="button" className="button" onClick={() => void navigator.clipboard.writeText(link)}>
          Copy the link
        </button>
      </p>
    </div>
  )
}
