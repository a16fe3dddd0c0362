import type { DynoSample } from '@bold-ballast/contract'
import { formatNumber, fromSi, type GridCurve, gridSpeedRpm, torqueFromPowerNm } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'
import { niceTicks, thinned } from './live-file.ts'

/** On a phone the drawing is as narrow as the page, so that its letters stay as large. */
const WIDTHS = { wide: 700, narrow: 370 } as const
const NARROW_PAGE = 640
const PLOT = { left: 52, right: 12, height: 156, gap: 26 } as const
const POWER_TOP = 14
const TORQUE_TOP = POWER_TOP + PLOT.height + PLOT.gap
const HEIGHT = TORQUE_TOP + PLOT.height + 36

interface Curve {
  readonly speedRpm: readonly number[]
  readonly power: readonly number[]
  readonly torque: readonly number[]
}

/**
 * Power over torque as the pull runs, over the curve of the stage. Our own drawing: it is made anew ten times a second, and only its lines change; the
 * axes stand still until the pull leaves them.
 */
export function LiveChart({ samples, reference, referenceName }: { samples: readonly DynoSample[]; reference: GridCurve | null; referenceName: string }) {
  const { units } = useQuantities()
  const width = window.innerWidth < NARROW_PAGE ? WIDTHS.narrow : WIDTHS.wide
  const behind = useMemo<Curve | null>(() => {
    if (!reference) return null
    const speedRpm = reference.powerW.map((_, i) => gridSpeedRpm(reference, i))
    return {
      speedRpm,
      power: reference.powerW.map((watts) => fromSi('power', watts, units.power)),
      torque: reference.powerW.map((watts, i) => fromSi('torque', torqueFromPowerNm(watts, speedRpm[i] as number), units.torque)),
    }
  }, [reference, units])
  const drawn = thinned(samples)
  const now: Curve = {
    speedRpm: drawn.map(({ speedRpm }) => speedRpm),
    power: drawn.map(({ powerW }) => fromSi('power', powerW, units.power)),
    torque: drawn.map(({ torqueNm }) => fromSi('torque', torqueNm, units.torque)),
  }
  const ends = (pick: (curve: Curve) => readonly number[]) =>
    [now, ...(behind ? [behind] : [])].flatMap((curve) => [pick(curve)[0] ?? 0, pick(curve).at(-1) ?? 0]).filter((value) => value > 0)
  const speeds = ends(({ speedRpm }) => speedRpm)
  const [from, to] = speeds.length > 0 ? [Math.floor(Math.min(...speeds) / 500) * 500, Math.ceil(Math.max(...speeds, 6000) / 500) * 500] : [2000, 7500]
  const thousands = Array.from({ length: Math.floor(to / 1000) + 1 }, (_, i) => 1000 * i).filter((speed) => speed >= from)
  const xOf = (speed: number) => PLOT.left + ((speed - from) / (to - from)) * (width - PLOT.left - PLOT.right)
  const plot = (top: number, title: string, pick: (curve: Curve) => readonly number[], least: number) => {
    const ticks = niceTicks(Math.max(least, ...(behind ? pick(behind) : []), ...pick(now)) * 1.05)
    const most = ticks.at(-1) as number
    const yOf = (value: number) => top + PLOT.height * (1 - Math.max(0, value) / most)
    const line = (curve: Curve) => curve.speedRpm.map((speed, i) => `${xOf(speed).toFixed(1)},${yOf(pick(curve)[i] as number).toFixed(1)}`).join(' ')
    return (
      <g key={title}>
        {ticks.map((tick) => (
          <g key={tick}>
            <line x1={PLOT.left} x2={width - PLOT.right} y1={yOf(tick)} y2={yOf(tick)} stroke={tick === 0 ? 'var(--edge)' : 'var(--line)'} />
            <text x={PLOT.left - 6} y={yOf(tick) + 4} textAnchor="end">
              {tick}
            </text>
          </g>
        ))}
        <text x={PLOT.left} y={top - 4} fontWeight="600" fill="var(--ink)">
          {title}
        </text>
        {behind && <polyline points={line(behind)} fill="none" stroke="var(--planned)" strokeWidth="1.3" />}
        {behind && top === POWER_TOP && (
          <text x={xOf(behind.speedRpm.at(-1) as number) - 4} y={yOf(pick(behind).at(-1) as number) - 5} textAnchor="end">
            {referenceName}
          </text>
        )}
        <polyline points={line(now)} fill="none" stroke="var(--pine)" strokeWidth="2.6" />
      </g>
    )
  }
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="w-full max-w-[900px] text-[11px] [&_text]:fill-[var(--quiet)]"
      role="img"
      aria-label="Power and torque of the pull as it runs"
      data-drawn={samples.length}
    >
      {thousands.map((speed) => (
        <g key={speed}>
          <line x1={xOf(speed)} x2={xOf(speed)} y1={POWER_TOP} y2={TORQUE_TOP + PLOT.height} stroke="var(--line)" />
          <text x={xOf(speed)} y={HEIGHT - 20} textAnchor="middle">
            {formatNumber(speed, 0)}
          </text>
        </g>
      ))}
      <text x={(PLOT.left + width) / 2} y={HEIGHT - 4} textAnchor="middle">
        engine speed, rpm
      </text>
      {plot(POWER_TOP, `Power, ${units.power}`, ({ power }) => power, 50)}
      {plot(TORQUE_TOP, `Torque, ${units.torque}`, ({ torque }) => torque, 100)}
    </svg>
  )
}
