import { type Ref, useId } from 'react'

/** One line that is read while it is typed; Enter stores it. What it is read as, why not, or what was saved stands below it. */
export function OneLine({
  label,
  placeholder,
  text,
  type,
  said,
  store,
  isBusy,
  input,
  leave,
}: {
  label: string
  placeholder: string
  text: string
  type: (text: string) => void
  said: string
  store: () => Promise<void>
  isBusy: boolean
  input?: Ref<HTMLInputElement>
  /** What Esc does. */
  leave?: () => void
}) {
  const id = useId()
  return (
    <form
      className="no-print mb-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!isBusy) void store()
      }}
    >
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        ref={input}
        value={text}
        onChange={(event) => type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape' || !leave) return
          event.preventDefault()
          leave()
        }}
        autoComplete="off"
        spellCheck={false}
        placeholder={placeholder}
        aria-describedby={`${id}-reading`}
        className="w-full !border-2 !border-ink !px-3 !py-2 font-semibold placeholder:font-normal placeholder:text-faint"
      />
      <p id={`${id}-reading`} role="status" className="mt-1 min-h-5 text-quiet">
        {said}
      </p>
    </form>
  )
}
