import { useSearchParams } from 'react-router'

/** A form that is open or not; the address says so, so that a link can open it and Back closes it. */
export function useAsked(name: string): [boolean, (isOpen: boolean) => void] {
  const [search, setSearch] = useSearchParams()
  const set = (isOpen: boolean) => {
    const next = new URLSearchParams(search)
    if (isOpen) next.set('do', name)
    else next.delete('do')
    setSearch(next)
  }
  return [search.get('do') === name, set]
}
