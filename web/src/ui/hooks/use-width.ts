import { useLayoutEffect, useRef, useState } from 'react'

/** The width of an element as it stands on the page, px, so that a drawing keeps its type at one size. Measured before the first picture: a page is never wider than its window, not for one frame. */
export function useWidth<Of extends HTMLElement>(begin: number): [React.RefObject<Of | null>, number] {
  const element = useRef<Of>(null)
  const [width, setWidth] = useState(begin)
  useLayoutEffect(() => {
    const held = element.current
    if (!held) return
    const { paddingLeft, paddingRight } = getComputedStyle(held)
    setWidth(Math.round(held.clientWidth - Number.parseFloat(paddingLeft) - Number.parseFloat(paddingRight)))
    const watcher = new ResizeObserver(([entry]) => entry && setWidth(Math.round(entry.contentRect.width)))
    watcher.observe(held)
    return () => watcher.disconnect()
  }, [])
  return [element, width]
}
