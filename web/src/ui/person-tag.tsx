/** Two letters for a person. */
export const initials = (name: string): string => {
  const [first = '', second = ''] = name.trim().split(/\s+/)
  return (second === '' ? first.slice(0, 2) : `${first.charAt(0)}${second.charAt(0)}`).toUpperCase()
}

/** A tally with a hole and two letters: who it was; filled, who is here now. */
export function PersonTag({ name, isHere = false }: { name: string; isHere?: boolean }) {
  const look = isHere ? 'border-pine bg-pine text-sheet' : 'border-edge bg-sheet'
  return (
    <span
      aria-hidden="true"
      className={`inline-flex h-[18px] shrink-0 items-center gap-1 rounded-[3px] rounded-r-[7px] border pr-1.5 pl-1 text-[11px] leading-none font-bold ${look}`}
    >
      <span className={`h-1.5 w-1.5 rounded-full border ${isHere ? 'border-sheet' : 'border-edge'}`} />
      {initials(name)}
    </span>
  )
}
