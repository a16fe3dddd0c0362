import type { PicturePoint } from '@bold-ballast/core'
import { useState } from 'react'

interface Props {
  readonly url: string
  readonly alt: string
  readonly label: string
  readonly places: readonly PicturePoint[]
  readonly setPlaces: (places: readonly PicturePoint[]) => void
  readonly zoom: number
  /** So many of the first places are marks of their own, drawn as squares; the rest is a line. */
  readonly markCount: number
  /** The line runs back to where it began. */
  readonly isClosed?: boolean
}

/** Places on a picture, by clicks or by a cross that arrow keys move and Enter sets; Backspace takes the last one back. */
export function PicturePlaces({ url, alt, label, places, setPlaces, zoom, markCount, isClosed = false }: Props) {
  const [size, setSize] = useState<{ width: number; height: number } | null>(null)
  const [cross, setCross] = useState<PicturePoint>({ right: 40, down: 40 })
  const marks = places.slice(0, markCount)
  const line = places.slice(markCount)
  const place = (at: PicturePoint) => setPlaces([...places, at])
  const move = (right: number, down: number) =>
    setCross((now) => ({ right: Math.min(size?.width ?? 0, Math.max(0, now.right + right)), down: Math.min(size?.height ?? 0, Math.max(0, now.down + down)) }))
  const onKey = (event: React.KeyboardEvent) => {
    const step = event.shiftKey ? 25 : 2
    const moves: Record<string, [number, number]> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }
    const found = moves[event.key]
    if (found) move(...found)
    else if (event.key === 'Enter') place(cross)
    else if (event.key === 'Backspace') setPlaces(places.slice(0, -1))
    else return
    event.preventDefault()
  }
  return (
    <div
      role="application"
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: the cross is moved by keys
      tabIndex={0}
      onKeyDown={onKey}
      className="relative max-h-[420px] overflow-auto border border-line"
    >
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the keys are taken by the frame */}
      <img
        src={url}
        alt={alt}
        className="max-w-none cursor-crosshair"
        style={size ? { width: size.width * zoom } : undefined}
        onLoad={(event) => {
          const { naturalWidth: width, naturalHeight: height } = event.currentTarget
          setSize({ width, height })
          setCross({ right: width / 2, down: height / 2 })
        }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect()
          const at = { right: (event.clientX - box.left) / zoom, down: (event.clientY - box.top) / zoom }
          setCross(at)
          place(at)
        }}
      />
      {size && (
        <svg
          className="pointer-events-none absolute top-0 left-0"
          width={size.width * zoom}
          height={size.height * zoom}
          viewBox={`0 0 ${size.width} ${size.height}`}
          aria-hidden="true"
        >
          <path
            d={`M${cross.right - 12 / zoom} ${cross.down}h${24 / zoom}M${cross.right} ${cross.down - 12 / zoom}v${24 / zoom}`}
            stroke="var(--danger)"
            strokeWidth={1.5 / zoom}
          />
          {marks.map((at, i) => (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: a mark is its number
              key={i}
              x={at.right - 5 / zoom}
              y={at.down - 5 / zoom}
              width={10 / zoom}
              height={10 / zoom}
              fill="none"
              stroke="var(--pine)"
              strokeWidth={2 / zoom}
            />
          ))}
          {line.length > 1 && (
            <polyline
              points={[...line, ...(isClosed ? line.slice(0, 1) : [])].map(({ right, down }) => `${right},${down}`).join(' ')}
              fill="none"
              stroke="var(--pine)"
              strokeWidth={1.5 / zoom}
            />
          )}
          {line.map((at) => (
            <circle key={`${at.right} ${at.down}`} cx={at.right} cy={at.down} r={3.5 / zoom} fill="var(--pine)" />
          ))}
        </svg>
      )}
    </div>
  )
}
