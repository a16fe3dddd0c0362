import type { MountState } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'

const WIDTH = 300
const HEIGHT = 190
const MARGIN = 46

/** From the side and to scale: where the force acts, the feet under it, and what each takes at the fastest speed with the factor. */
export function MountFigure({ state }: { state: MountState }) {
  const { text } = useQuantities()
  const { load, mount, feet } = state
  if (!load || !mount || feet.length < 2) return null
  const points = [{ xM: load.xM, zM: load.zM }, ...mount.feet]
  const [left, right] = [Math.min(...points.map(({ xM }) => xM)), Math.max(...points.map(({ xM }) => xM))]
  const [low, high] = [Math.min(...points.map(({ zM }) => zM)), Math.max(...points.map(({ zM }) => zM))]
  const scale = Math.min((WIDTH - 2 * MARGIN) / Math.max(0.15, right - left), (HEIGHT - 2 * MARGIN) / Math.max(0.15, high - low))
  const x = (xM: number) => WIDTH / 2 + (xM - (left + right) / 2) * scale
  const y = (zM: number) => HEIGHT / 2 - (zM - (low + high) / 2) * scale
  const most = Math.max(...feet.map(({ downN }) => Math.abs(downN)), Math.abs(load.downN))
  const arrow = (from: number, at: number, newton: number, key: string) => {
    const length = 10 + (26 * Math.abs(newton)) / most
    const tip = newton >= 0 ? at : at - length
    const tail = newton >= 0 ? at - length : at
    const head = newton >= 0 ? -6 : 6
    return (
      <g key={key} stroke="var(--pine)" strokeWidth={2.2} fill="none">
        <line x1={from} x2={from} y1={tail} y2={tip} />
        <path d={`M${from - 4} ${tip + head} L${from} ${tip} L${from + 4} ${tip + head}`} />
      </g>
    )
  }
  const [first, second] = [mount.feet[0], mount.feet[1]] as const
  if (!first || !second) return null
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block max-w-full text-[12px]"
      role="img"
      aria-label={`Feet of ${state.name} from the side`}
    >
      <path d={`M${x(first.xM)} ${y(first.zM)} L${x(load.xM)} ${y(load.zM)} L${x(second.xM)} ${y(second.zM)}`} fill="var(--wash)" stroke="var(--edge)" />
      <g stroke="var(--planned)" strokeWidth={2.2} fill="none">
        <line x1={x(load.xM) + 6} x2={x(load.xM) + 34} y1={y(load.zM)} y2={y(load.zM)} />
        <path d={`M${x(load.xM) + 28} ${y(load.zM) - 4} L${x(load.xM) + 34} ${y(load.zM)} L${x(load.xM) + 28} ${y(load.zM) + 4}`} />
      </g>
      <text x={x(load.xM) + 40} y={y(load.zM) + 4} fill="var(--quiet)">
        {text('force', load.dragN, { decimals: 0 })}
      </text>
      <circle cx={x(load.xM)} cy={y(load.zM)} r={4} fill="var(--ink)" />
      {arrow(x(load.xM), y(load.zM) - 6, load.downN, 'load')}
      <text x={x(load.xM) + 10} y={y(load.zM) - 12} fill="var(--ink)" fontWeight={600}>
        {text('force', load.downN, { decimals: 0 })}
      </text>
      {feet.map(({ downN }, i) => {
        const foot = mount.feet[i]
        if (!foot) return null
        return (
          <g key={`${foot.xM} ${foot.zM}`}>
            <line x1={x(foot.xM) - 12} x2={x(foot.xM) + 12} y1={y(foot.zM)} y2={y(foot.zM)} stroke="var(--ink)" strokeWidth={3} />
            <text x={x(foot.xM)} y={y(foot.zM) + 18} textAnchor={i === 0 ? 'end' : 'start'} fill="var(--ink)" fontWeight={600}>
              {text('force', downN, { decimals: 0 })}
            </text>
            <text x={x(foot.xM)} y={y(foot.zM) + 33} textAnchor={i === 0 ? 'end' : 'start'} fill="var(--quiet)">
              {downN < 0 ? 'pulls out' : i === 0 ? 'front foot' : 'rear foot'}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
