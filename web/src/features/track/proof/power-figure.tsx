import type { PowerCurve, RoomWindow } from '@bold-ballast/core'
import { axisStep } from '../../../ui/drawing/axis-step.ts'
import { useQuantities } from '../../../ui/quantity.ts'

const LEFT = 48
const RIGHT = 16
const TOP = 20
const HIGH = 280
const BOTTOM = 30

/** Power on the road, window by window, over the curve of the dyno: the same engine speeds, one standard deviation as a bar. */
export function PowerFigure({ curve, windows, width }: { curve: PowerCurve; windows: readonly RoomWindow[]; width: number }) {
  const { format, units } = useQuantities()
  const points = windows.flatMap(({ id, points: own, gear }) => (own ?? []).map((point) => ({ ...point, id, gear })))
  const speeds = [...curve.speedRpm, ...points.map(({ speedRpm }) => speedRpm)]
  const [low, high] = [Math.min(...speeds), Math.max(...speeds)]
  const most = 1.08 * Math.max(...curve.powerW, ...points.map(({ powerW, sdW }) => powerW + sdW))
  const x = (rpm: number) => LEFT + ((rpm - low) / (high - low)) * (width - LEFT - RIGHT)
  const y = (powerW: number) => TOP + HIGH - TOP - BOTTOM - (powerW / most) * (HIGH - TOP - BOTTOM) + 0
  const shownMost = Number(format('power', most, { decimals: 6 }).number.replaceAll(/[^\d.]/g, ''))
  const per = shownMost / most
  const step = axisStep(shownMost, 5)
  const ticks = Array.from({ length: Math.floor(shownMost / step) + 1 }, (_, i) => i * step)
  const rpmStep = axisStep(high - low, 6)
  const rpmTicks = Array.from({ length: 12 }, (_, i) => Math.ceil(low / rpmStep) * rpmStep + i * rpmStep).filter((tick) => tick <= high)
  return (
    <svg
      width={width}
      height={HIGH}
      viewBox={`0 0 ${width} ${HIGH}`}
      className="block text-[12px] tabular-nums"
      role="img"
      aria-label={`Power at the hubs by engine speed: ${windows.length} windows of the road over the curve of the dyno`}
    >
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={width - RIGHT} y1={y(tick / per)} y2={y(tick / per)} stroke="var(--line)" />
          <text x={LEFT - 6} y={y(tick / per) + 4} textAnchor="end" fill="var(--quiet)">
            {tick}
          </text>
        </g>
      ))}
      <text x={LEFT - 6} y={12} textAnchor="end" fill="var(--quiet)">
        {units.power}
      </text>
      {rpmTicks.map((tick) => (
        <text key={tick} x={x(tick)} y={HIGH - 10} textAnchor="middle" fill="var(--quiet)">
          {tick}
        </text>
      ))}
      <text x={width - RIGHT} y={HIGH - 24} textAnchor="end" fill="var(--quiet)">
        rpm
      </text>
      <path
        d={curve.speedRpm.map((rpm, i) => `${i === 0 ? 'M' : 'L'}${x(rpm).toFixed(1)} ${y(curve.powerW[i] as number).toFixed(1)}`).join('')}
        fill="none"
        stroke="var(--planned)"
        strokeWidth={2}
        strokeDasharray="5 3"
      />
      {points.map(({ id, speedRpm, powerW, sdW }) => (
        <g key={`${id} ${speedRpm}`}>
          <line x1={x(speedRpm)} x2={x(speedRpm)} y1={y(powerW - sdW)} y2={y(powerW + sdW)} stroke="var(--edge)" />
          <circle cx={x(speedRpm)} cy={y(powerW)} r={3} fill="var(--pine)" />
        </g>
      ))}
    </svg>
  )
}
