import { type ComponentType, Suspense, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { lazyPart } from './lazy-part.ts'
import { Loading } from './states.tsx'

interface Tab {
  readonly path: string
  readonly word: string
}

/** Which job of a room is open; it stands in the address, and the first is open where it names none. */
export function useTab<Each extends Tab>(tabs: readonly Each[]): [Each, (path: string) => void] {
  const [search, setSearch] = useSearchParams()
  const tab = tabs.find(({ path }) => path === search.get('tab')) ?? (tabs[0] as Each)
  const open = (path: string) => {
    const next = new URLSearchParams(search)
    next.set('tab', path)
    setSearch(next, { replace: true })
  }
  return [tab, open]
}

export function Tabs({ tabs, tab, open }: { tabs: readonly Tab[]; tab: Tab; open: (path: string) => void }) {
  return (
    <div className="no-print mb-4 flex flex-wrap gap-1">
      {tabs.map(({ path, word }) => (
        <button
          key={path}
          type="button"
          aria-pressed={tab.path === path}
          onClick={() => open(path)}
          className={`min-h-8 rounded px-3 font-semibold ${tab.path === path ? 'bg-wash text-ink' : 'text-quiet hover:text-ink'}`}
        >
          {word}
        </button>
      ))}
    </div>
  )
}

const loaded = new Map<unknown, ComponentType<never>>()

/** The job that is open, fetched when it is first needed. */
export function OpenTab<Props extends object>({ tab, props }: { tab: Tab & { readonly load: () => Promise<ComponentType<Props>> }; props: Props }) {
  const Job = useMemo(() => {
    const known = (loaded.get(tab.load) ?? lazyPart(tab.load)) as ComponentType<Props>
    loaded.set(tab.load, known as ComponentType<never>)
    return known
  }, [tab.load])
  return (
    <Suspense fallback={<Loading what={tab.word.toLowerCase()} />}>
      <Job {...props} />
    </Suspense>
  )
}
