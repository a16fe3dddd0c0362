import type { ReactNode } from 'react'

/** A drawing of a figure with its words for those who do not see it; numbers in it stand below each other. */
export function FigureFrame({ width, height, label, children }: { width: number; height: number; label: string; children: ReactNode }) {
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} className="block text-[12px] tabular-nums" role="img" aria-label={label}>
      {children}
    </svg>
  )
}

/** Level lines of a figure, each with its number to the left. */
export function LevelLines({
  ticks,
  y,
  left,
  right,
  words,
}: {
  ticks: readonly number[]
  y: (tick: number) => number
  left: number
  right: number
  words: (tick: number) => ReactNode
}) {
  return ticks.map((tick) => (
    <g key={tick}>
      <line x1={left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
      <text x={left - 6} y={y(tick) + 4} textAnchor="end" fill="var(--quiet)">
        {words(tick)}
      </text>
    </g>
  ))
}
