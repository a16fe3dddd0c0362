import { fromSi, type Held, heldAlong, type Motion } from '@bold-ballast/core'
import { useId, useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'

const EDGE = { left: 52, right: 14, top: 20, bottom: 44 }
const HELD_WORDS: Readonly<Record<Held['by'], string>> = { tyres: 'tyres', engine: 'engine', shift: 'shift', revs: 'revs' }
const POINTS = 90

/** Force in each gear over road speed, what the tyres hold hatched above it, what resists, and a strip that says what holds the car at each speed. */
export function Forces({
  motion,
  leaveRpm,
  width,
  height,
  topMps,
}: {
  motion: Motion
  leaveRpm: readonly number[]
  width: number
  height: number
  topMps: number
}) {
  const { units, text } = useQuantities()
  const hatch = useId()
  const drawn = useMemo(() => {
    const speeds = Array.from({ length: POINTS + 1 }, (_, i) => (topMps * i) / POINTS)
    const gears = motion.gears.map((gear) => {
      const [from, to] = [gear.firstMps, Math.min(gear.topMps, topMps)]
      const points = to > from ? Array.from({ length: 41 }, (_, i) => from + ((to - from) * i) / 40) : []
      return points.map((mps) => [mps, motion.driveForceN(gear, mps)] as const)
    })
    return {
      gears,
      grip: speeds.map((mps) => [mps, motion.gripN(mps)] as const),
      resistance: speeds.map((mps) => [mps, motion.resistanceN(mps)] as const),
      held: heldAlong(motion, leaveRpm, topMps),
    }
  }, [motion, leaveRpm, topMps])
  const most = 1.08 * Math.max(...drawn.gears.flat().map(([, force]) => force), motion.gripN(0))
  const x = (mps: number) => EDGE.left + ((width - EDGE.left - EDGE.right) * mps) / topMps
  const y = (force: number) => EDGE.top + ((height - EDGE.top - EDGE.bottom) * (most - Math.min(force, most))) / most
  const path = (points: readonly (readonly [number, number])[]) =>
    points.map(([mps, force], i) => `${i === 0 ? 'M' : 'L'}${x(mps).toFixed(1)} ${y(force).toFixed(1)}`).join(' ')
  const floor = height - EDGE.bottom
  const step = most > 12_000 ? 4000 : 2000
  const rungs = Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step)
  return (
    <svg width={width} height={height} role="img" aria-label="Drive force in each gear, grip and resistance over road speed" className="block text-[11.5px]">
      <defs>
        <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" x2="0" y1="0" y2="6" stroke="var(--edge)" strokeWidth="1.2" strokeOpacity="0.55" />
        </pattern>
      </defs>
      {rungs.map((force) => (
        <g key={force}>
          <line x1={EDGE.left} x2={width - EDGE.right} y1={y(force)} y2={y(force)} stroke="var(--line)" />
          <text x={EDGE.left - 6} y={y(force) + 4} textAnchor="end" fill="var(--quiet)">
            {Number(fromSi('force', force, units.force).toPrecision(3))
              .toLocaleString('en')
              .replaceAll(',', '\u202f')}
          </text>
        </g>
      ))}
      <path d={`${path(drawn.grip)} L${x(topMps)} ${EDGE.top} L${x(0)} ${EDGE.top} Z`} fill={`url(#${hatch})`} />
      <path d={path(drawn.grip)} fill="none" stroke="var(--ink)" strokeWidth="1.4" />
      <text x={x(topMps) - 4} y={y(motion.gripN(topMps)) - 5} textAnchor="end" fill="var(--ink)" fontWeight="650">
        more than the tyres hold
      </text>
      {drawn.gears.map((points, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a gear is its place
        <path key={i} d={path(points)} fill="none" stroke="var(--pine)" strokeWidth="2.4" />
      ))}
      <path d={path(drawn.resistance)} fill="none" stroke="var(--planned)" strokeWidth="1.4" strokeDasharray="5 3" />
      <text x={x(topMps) - 4} y={y(motion.resistanceN(topMps)) - 6} textAnchor="end" fill="var(--planned-text)">
        resistance
      </text>
      <text x={EDGE.left - 6} y={EDGE.top - 6} textAnchor="end" fill="var(--quiet)">
        {units.force}
      </text>
      {drawn.held.map(({ fromMps, toMps, by, gear }) => {
        const wide = x(toMps) - x(fromMps)
        return (
          <g key={`${fromMps}`}>
            <title>{`${HELD_WORDS[by]}, gear ${gear}: ${text('speed', fromMps, { decimals: 0 })} to ${text('speed', toMps, { decimals: 0 })}`}</title>
            <rect
              x={x(fromMps)}
              width={Math.max(1, wide - 1)}
              y={floor + 6}
              height="14"
              fill={by === 'tyres' ? `url(#${hatch})` : by === 'engine' ? 'var(--wash)' : by === 'shift' ? 'var(--ink)' : 'var(--danger)'}
              stroke="var(--line)"
            />
            {wide > 46 && (by === 'tyres' || by === 'engine' || by === 'revs') && (
              <text x={x(fromMps) + wide / 2} y={floor + 17} textAnchor="middle" fill={by === 'revs' ? 'var(--sheet)' : 'var(--ink)'}>
                {HELD_WORDS[by]}
              </text>
            )}
          </g>
        )
      })}
      <text x={EDGE.left} y={height - 6} fill="var(--quiet)">
        what holds the car at each speed; black: a shift. Road speed as above.
      </text>
    </svg>
  )
}
