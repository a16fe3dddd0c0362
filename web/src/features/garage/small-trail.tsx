import type { TrailPoint } from '@bold-ballast/core'

const SIZE = { width: 132, height: 44, edge: 5 }

/** A build's way at a glance: power up, lighter to the right, a square for each stage, filled where it is proven. */
export function SmallTrail({ points, name }: { points: readonly TrailPoint[]; name: string }) {
  if (points.length === 0) return <span className="text-xs text-faint">no trail yet</span>
  const span = (values: readonly number[]) => {
    const [low, high] = [Math.min(...values), Math.max(...values)]
    return (value: number) => (high > low ? (value - low) / (high - low) : 0.5)
  }
  const [mass, power] = [span(points.map(({ massKg }) => massKg)), span(points.map(({ powerW }) => powerW))]
  const { width, height, edge } = SIZE
  const at = points.map(({ massKg, powerW, isProven }) => ({
    x: edge + (1 - mass(massKg)) * (width - 2 * edge),
    y: height - edge - power(powerW) * (height - 2 * edge),
    isProven,
  }))
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} role="img" aria-label={`Trail of ${name}: ${points.length} stages`}>
      {at.slice(1).map((to, i) => {
        const from = at[i] as (typeof at)[number]
        return (
          <line
            key={`${to.x} ${to.y}`}
            x1={from.x}
            y1={from.y}
            x2={to.x}
            y2={to.y}
            stroke={to.isProven ? 'var(--pine)' : 'var(--planned)'}
            strokeWidth={to.isProven ? 2.5 : 1.5}
            strokeDasharray={to.isProven ? undefined : '4 3'}
          />
        )
      })}
      {at.map(({ x, y, isProven }, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: the place in the trail is the identity here
          key={i}
          x={x - 3.5}
          y={y - 3.5}
          width="7"
          height="7"
          fill={isProven ? 'var(--pine)' : 'var(--sheet)'}
          stroke="var(--ink)"
        />
      ))}
    </svg>
  )
}
