import { useSearchParams } from 'react-router'

/** The jobs of one room; which one is open stands in the address. */
export function useTab<Name extends string>(names: readonly Name[]): [Name, (name: Name) => void] {
  const [search, setSearch] = useSearchParams()
  const asked = search.get('tab') as Name
  const tab = names.includes(asked) ? asked : (names[0] as Name)
  const open = (name: Name) => {
    const next = new URLSearchParams(search)
    next.set('tab', name)
    setSearch(next, { replace: true })
  }
  return [tab, open]
}

export function Tabs<Name extends string>({
  names,
  words,
  tab,
  open,
}: {
  names: readonly Name[]
  words: Record<Name, string>
  tab: Name
  open: (name: Name) => void
}) {
  return (
    <div className="no-print mb-4 flex flex-wrap gap-1">
      {names.map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={tab === name}
          onClick={() => open(name)}
          className={`min-h-8 rounded px-3 font-semibold ${tab === name ? 'bg-wash text-ink' : 'text-quiet hover:text-ink'}`}
        >
          {words[name]}
        </button>
      ))}
    </div>
  )
}
