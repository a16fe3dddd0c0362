/** Two letters for a person. */
export const initials = (name: string): string => {
  const [first = '', second = ''] = name.trim().split(/\s+/)
  return (second === '' ? first.slice(0, 2) : `${first.charAt(0)}${second.charAt(0)}`).toUpperCase()
}

/** A tally with a hole and two letters: who it was. */
export function PersonTag({ name }: { name: string }) {
  return (
    <span
      aria-hidden="true"
      className="inline-flex h-[18px] shrink-0 items-center gap-1 rounded-[3px] rounded-r-[7px] border border-edge bg-sheet pr-1.5 pl-1 text-[11px] leading-none font-bold"
    >
      <span className="h-1.5 w-1.5 rounded-full border border-edge" />
      {initials(name)}
    </span>
  )
}
