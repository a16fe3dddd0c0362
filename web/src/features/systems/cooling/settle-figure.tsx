import type { CoolingView } from '@bold-ballast/core'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'

const HEIGHT = 300
const EDGE = { left: 44, right: 92, top: 16, bottom: 34 }
const STEP_K = 20

/** Where it settles over road speed: a band as wide as its doubt, between warm and the limit. */
export function SettleFigure({ view }: { view: CoolingView }) {
  const [holder, width] = useWidth<HTMLDivElement>(680)
  const { text, format } = useQuantities()
  const { curve, coldCurve, setup } = view
  const { stopK, warmK, hot, thermostatK } = setup.plan
  const lowK = Math.min(warmK - 15, ...coldCurve.map(({ settledK }) => settledK)) - 3
  const highK = Math.max(stopK + 15, Math.min(stopK + 45, ...[Math.max(...curve.map(({ settledK, sdK }) => settledK + sdK))]))
  const [slow, fast] = [curve[0]?.speedMps ?? 0, curve.at(-1)?.speedMps ?? 1]
  const x = (mps: number) => EDGE.left + ((width - EDGE.left - EDGE.right) * (mps - slow)) / (fast - slow)
  const y = (kelvin: number) => EDGE.top + ((HEIGHT - EDGE.top - EDGE.bottom) * (highK - Math.max(lowK, Math.min(highK, kelvin)))) / (highK - lowK)
  const path = (points: readonly (readonly [number, number])[]) => points.map(([a, b]) => `${a.toFixed(1)},${b.toFixed(1)}`).join(' ')
  const band = path([
    ...curve.map(({ speedMps, settledK, sdK }) => [x(speedMps), y(settledK + sdK)] as const),
    ...curve.toReversed().map(({ speedMps, settledK, sdK }) => [x(speedMps), y(settledK - sdK)] as const),
  ])
  const ticks = Array.from({ length: 8 }, (_, i) => Math.ceil((lowK - 273.15) / STEP_K) * STEP_K + i * STEP_K + 273.15).filter((kelvin) => kelvin < highK)
  const speeds = [0.15, 0.5, 0.85].map((share) => slow + share * (fast - slow))
  const line = (kelvin: number, words: string, tone: string, isDashed = false) => (
    <g>
      <line x1={EDGE.left} x2={width - EDGE.right} y1={y(kelvin)} y2={y(kelvin)} stroke={tone} strokeWidth="2" strokeDasharray={isDashed ? '5 4' : undefined} />
      <text x={width - EDGE.right + 6} y={y(kelvin) + 4} fontSize="12" fontWeight="700" fill={tone}>
        {words} {format('temperature', kelvin, { decimals: 0 }).number}
      </text>
    </g>
  )
  return (
    <div
      ref={holder}
      className="w-full [contain:inline-size]"
      role="img"
      aria-label={`Settled over speed on a hot day: ${[curve[0], curve.at(-1)].map((point) => (point ? `${text('temperature', point.settledK, { decimals: 0 })} at ${text('speed', point.speedMps, { decimals: 0 })}` : '')).join(', ')}`}
    >
      <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
        {ticks.map((kelvin) => (
          <g key={kelvin}>
            <line x1={EDGE.left} x2={width - EDGE.right} y1={y(kelvin)} y2={y(kelvin)} stroke="var(--line)" />
            <text x={EDGE.left - 6} y={y(kelvin) + 4} fontSize="11.5" textAnchor="end" fill="var(--quiet)">
              {format('temperature', kelvin, { decimals: 0 }).number}
            </text>
          </g>
        ))}
        <polygon points={band} fill="var(--wash)" />
        <polyline points={path(curve.map(({ speedMps, settledK }) => [x(speedMps), y(settledK)]))} fill="none" stroke="var(--pine)" strokeWidth="2.6" />
        {coldCurve.length > 0 && (
          <polyline
            points={path(coldCurve.map(({ speedMps, settledK }) => [x(speedMps), y(settledK)]))}
            fill="none"
            stroke="var(--planned)"
            strokeWidth="2"
            strokeDasharray="5 4"
          />
        )}
        {line(stopK, 'stop', 'var(--danger)')}
        {line(warmK, 'warm', 'var(--ink)', true)}
        {thermostatK !== null && thermostatK !== warmK && line(thermostatK, 'thermostat', 'var(--quiet)', true)}
        <circle cx={x(hot.speedMps)} cy={y(view.hot.settledK)} r="5" fill="var(--picked)" stroke="var(--ink)" strokeWidth="2" />
        <text
          x={x(hot.speedMps) + 9}
          y={y(view.hot.settledK) - 8}
          fontSize="13"
          fontWeight="800"
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth="3.5"
          paintOrder="stroke"
        >
          {text('temperature', view.hot.settledK, { decimals: 0 })} hot
        </text>
        {speeds.map((mps) => (
          <text key={mps} x={x(mps)} y={HEIGHT - 14} fontSize="11.5" textAnchor="middle" fill="var(--quiet)">
            {text('speed', mps, { decimals: 0 })}
          </text>
        ))}
        {coldCurve.length > 0 && (
          <text
            x={x(slow + 0.06 * (fast - slow))}
            y={y(coldCurve[2]?.settledK ?? lowK) - 7}
            fontSize="12"
            fill="var(--planned-text)"
            stroke="var(--sheet)"
            strokeWidth="3.5"
            paintOrder="stroke"
          >
            cold day, no thermostat
          </text>
        )}
      </svg>
    </div>
  )
}
