import { useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'

const TYPING_MS = 120
type Values = Readonly<Record<string, string>>

function merged(search: URLSearchParams, values: Values): URLSearchParams {
  const next = new URLSearchParams(search)
  for (const [name, value] of Object.entries(values)) {
    if (value === '') next.delete(name)
    else next.set(name, value)
  }
  return next
}

/**
 * Values that stand in the address; an empty one leaves it. What is set holds on the page at once and the address follows, so that no key and no tick
 * waits for the router or is lost to it: after `set` right away, after `type` when the typing rests.
 */
export function useAddress(): { get: (name: string) => string; set: (values: Values) => void; type: (values: Values) => void } {
  const [search, setSearch] = useSearchParams()
  const [ahead, setAhead] = useState<Values>({})
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined)
  const latest = useRef({ search, setSearch, ahead })
  latest.current = { search, setSearch, ahead }
  // What the address has caught up with is its own again.
  useEffect(() => {
    const left = Object.entries(ahead).filter(([name, value]) => (search.get(name) ?? '') !== value)
    if (left.length < Object.keys(ahead).length) setAhead(Object.fromEntries(left))
  }, [search, ahead])
  useEffect(() => () => clearTimeout(waiting.current), [])
  const write = () => {
    const now = latest.current
    now.setSearch(merged(now.search, now.ahead), { replace: true })
  }
  const hold = (values: Values) => {
    clearTimeout(waiting.current)
    latest.current.ahead = { ...latest.current.ahead, ...values }
    setAhead(latest.current.ahead)
  }
  return {
    get: (name) => ahead[name] ?? search.get(name) ?? '',
    set: (values) => {
      hold(values)
      write()
    },
    type: (values) => {
      hold(values)
      waiting.current = setTimeout(write, TYPING_MS)
    },
  }
}
