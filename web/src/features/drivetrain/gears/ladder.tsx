import { fromSi, type GearFacts, type Motion, powerBandOf } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'

/** A corner on the ladder: where the car goes, how fast its wheels turn, and what each gear makes of it. */
export interface LadderMark {
  readonly name: string
  readonly carMps: number
  /** Of a slide; that of the car where nothing slides. */
  readonly wheelMps: number
  readonly dots: readonly { readonly gear: number; readonly rpm: number; readonly state: 'holds' | 'less' | 'short' }[]
  readonly isPicked: boolean
}

const EDGE = { left: 52, right: 14, bottom: 26 }
const ROW = 17
const ORDINALS = ['1st', '2nd', '3rd', '4th', '5th', '6th', '7th', '8th', '9th', '10th'] as const

/** Half of a dot says that a gear holds with less than is wanted: form, not colour. */
function Dot({ x, y, state, isPicked }: { x: number; y: number; state: 'holds' | 'less' | 'short'; isPicked: boolean }) {
  const r = isPicked ? 6 : 4.5
  return (
    <g>
      <circle
        cx={x}
        cy={y}
        r={r}
        fill={state === 'holds' ? 'var(--pine)' : 'var(--sheet)'}
        stroke={state === 'short' ? 'var(--planned)' : 'var(--pine)'}
        strokeWidth="1.6"
      />
      {state === 'less' && <path d={`M${x} ${y - r} A${r} ${r} 0 0 0 ${x} ${y + r} Z`} fill="var(--pine)" />}
    </g>
  )
}

/** Engine speed over road speed in each gear, with the power band as ground; corners as arrows from the car's speed to that of its wheels. */
export function Ladder({
  motion,
  other,
  marks,
  width,
  height,
  topMps,
  label,
}: {
  motion: Motion
  other?: Motion | undefined
  marks: readonly LadderMark[]
  width: number
  height: number
  topMps: number
  label: string
}) {
  const { units, format } = useQuantities()
  const first = Math.min(...motion.car.curve.speedRpm)
  const [lowRpm, highRpm] = [Math.max(0, Math.floor((first - 500) / 1000) * 1000), Math.ceil((motion.car.topRpm + 300) / 1000) * 1000]
  const top = 10 + ROW * Math.max(1, marks.length)
  const x = (mps: number) => EDGE.left + ((width - EDGE.left - EDGE.right) * mps) / topMps
  const y = (rpm: number) => top + ((height - top - EDGE.bottom) * (highRpm - rpm)) / (highRpm - lowRpm)
  const shownTop = fromSi('speed', topMps, units.speed)
  const step = shownTop > 160 ? 50 : 20
  const speeds = Array.from({ length: Math.floor(shownTop / step) + 1 }, (_, i) => i * step)
  const rungs = Array.from({ length: (highRpm - lowRpm) / 1000 + 1 }, (_, i) => lowRpm + 1000 * i)
  const line = (of: Motion, gear: GearFacts) => {
    const from = of.car.curve.speedRpm[0] as number
    return { x1: x(of.speedMps(gear, from)), y1: y(from), x2: x(Math.min(gear.topMps, topMps)), y2: y(Math.min(of.car.topRpm, of.speedRpm(gear, topMps))) }
  }
  const at = (mps: number) => format('speed', mps, { decimals: 0 }).number
  return (
    <svg width={width} height={height} role="img" aria-label={label} className="block text-[11.5px]">
      {powerBandOf(motion).map(({ fromRpm, toRpm }) => (
        <rect
          key={fromRpm}
          x={EDGE.left}
          width={width - EDGE.left - EDGE.right}
          y={y(toRpm)}
          height={y(fromRpm) - y(toRpm)}
          fill="var(--wash)"
          fillOpacity="0.75"
        />
      ))}
      {rungs.map((rpm) => (
        <g key={rpm}>
          <line x1={EDGE.left} x2={width - EDGE.right} y1={y(rpm)} y2={y(rpm)} stroke="var(--line)" />
          <text x={EDGE.left - 6} y={y(rpm) + 4} textAnchor="end" fill="var(--quiet)">
            {format('engineSpeed', rpm, { decimals: 0 }).number}
          </text>
        </g>
      ))}
      {speeds.map((shown) => {
        const place = EDGE.left + ((width - EDGE.left - EDGE.right) * shown) / shownTop
        return (
          <text key={shown} x={place} y={height - 8} textAnchor="middle" fill="var(--quiet)">
            {shown}
          </text>
        )
      })}
      <text x={EDGE.left - 6} y={top - 8} textAnchor="end" fill="var(--quiet)">
        rpm
      </text>
      <text x={EDGE.left - 6} y={height - 8} textAnchor="end" fill="var(--quiet)">
        {units.speed}
      </text>
      {other?.gears.map((gear) => {
        const { x1, y1, x2, y2 } = line(other, gear)
        return <line key={gear.number} x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--planned)" strokeWidth="1" strokeDasharray="4 3" />
      })}
      {motion.gears.map((gear) => {
        const { x1, y1, x2, y2 } = line(motion, gear)
        return (
          <g key={gear.number}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--pine)" strokeWidth="2.4" />
            <text x={x2 - 5} y={y2 - 5} textAnchor="end" fontWeight="650" fill="var(--ink)">
              {ORDINALS[gear.number - 1]}
            </text>
          </g>
        )
      })}
      {marks.map((mark, row) => {
        const level = 12 + ROW * row
        const [from, to] = [x(mark.carMps), x(mark.wheelMps)]
        const isSliding = mark.wheelMps > mark.carMps * 1.001
        return (
          <g key={mark.name}>
            <line x1={to} x2={to} y1={level} y2={height - EDGE.bottom} stroke="var(--ink)" strokeDasharray="2 3" />
            <circle cx={from} cy={level} r="3.5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.5" />
            {isSliding && (
              <>
                <line x1={from + 4} x2={to - 7} y1={level} y2={level} stroke="var(--ink)" strokeWidth="1.6" />
                <path d={`M${to} ${level} l-9 -4.5 v9 z`} fill="var(--ink)" />
              </>
            )}
            <text
              x={from - 8}
              y={level + 4}
              textAnchor="end"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="4"
              paintOrder="stroke"
              fontWeight={mark.isPicked ? 750 : 500}
            >
              {mark.name} <tspan fill="var(--quiet)">{at(mark.carMps)}</tspan>
            </text>
            {isSliding && (
              <text x={to + 5} y={level + 4} fill="var(--ink)" fontWeight="650">
                {at(mark.wheelMps)}
              </text>
            )}
            {mark.dots.map(({ gear, rpm, state }) => (
              <Dot key={gear} x={to} y={y(rpm)} state={state} isPicked={mark.isPicked} />
            ))}
          </g>
        )
      })}
    </svg>
  )
}
