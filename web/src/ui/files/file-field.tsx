import type { RefObject } from 'react'

/** A field for a file that a button opens: it is not seen, and takes the same file twice. */
export function FileField({
  field,
  accept,
  label,
  take,
}: {
  field: RefObject<HTMLInputElement | null>
  accept: string
  label: string
  take: (file: File) => void
}) {
  return (
    <input
      ref={field}
      type="file"
      accept={accept}
      className="sr-only"
      aria-label={label}
      tabIndex={-1}
      onChange={(event) => {
        const picked = event.target.files?.[0]
        event.target.value = ''
        if (picked) take(picked)
      }}
    />
  )
}
