import { useEffect, useRef, useState } from 'react'

/** The width of an element as it stands on the page, px, so that a drawing keeps its type at one size. */
export function useWidth<Of extends HTMLElement>(begin: number): [React.RefObject<Of | null>, number] {
  const element = useRef<Of>(null)
  const [width, setWidth] = useState(begin)
  useEffect(() => {
    if (!element.current) return
    const watcher = new ResizeObserver(([entry]) => entry && setWidth(Math.round(entry.contentRect.width)))
    watcher.observe(element.current)
    return () => watcher.disconnect()
  }, [])
  return [element, width]
}
