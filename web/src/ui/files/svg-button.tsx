import type { RefObject } from 'react'
import { saveFile } from './save-file.ts'

/** A drawing that stands by itself: the page's colours as they are, its type named, on paper of its own. */
export function standaloneSvg(markup: string, { width, height }: { width: number; height: number }, colour: (name: string) => string): string {
  const filled = markup.replace(/var\((--[\w-]+)\)/g, (_, name: string) => colour(name))
  const named = filled.includes('xmlns=') ? filled : filled.replace('<svg', '<svg xmlns="http://www.w3.org/2000/svg"')
  return named.replace(
    /(<svg[^>]*>)/,
    `$1<rect width="${width}" height="${height}" fill="${colour('--sheet')}"/><style>text{font-family:Archivo,Helvetica,Arial,sans-serif}</style>`,
  )
}

/** Saves the first drawing within an element as an SVG file. */
export function SvgButton({ name, holder, what }: { name: string; holder: RefObject<HTMLElement | null>; what: string }) {
  const save = () => {
    const svg = holder.current?.querySelector('svg')
    if (!svg) return
    const style = getComputedStyle(document.documentElement)
    const size = { width: svg.width.baseVal.value, height: svg.height.baseVal.value }
    saveFile(
      name,
      'svg',
      'image/svg+xml',
      standaloneSvg(svg.outerHTML, size, (key) => style.getPropertyValue(key).trim()),
    )
  }
  return (
    <button type="button" className="word-link no-print" onClick={save}>
      SVG<span className="sr-only"> of {what}</span>
    </button>
  )
}
