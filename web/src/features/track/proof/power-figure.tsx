import { fromSi, type PowerCurve, type PowerPoint } from '@bold-ballast/core'
import { axisStep, ticksWithin } from '../../../ui/drawing/axis-step.ts'
import { FigureFrame, LevelLines } from '../../../ui/drawing/figure-frame.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

const LEFT = 48
const RIGHT = 16
const TOP = 22
const HIGH = 280
const BOTTOM = 30
const AROUND_RPM = 300

/** Power on the road by engine speed over the curve of the dyno, close up where the road was driven; one standard deviation as a bar. */
export function PowerFigure({ curve, points, width }: { curve: PowerCurve; points: readonly PowerPoint[]; width: number }) {
  const { units } = useQuantities()
  const speeds = points.map(({ speedRpm }) => speedRpm)
  const [low, high] = [Math.min(...speeds) - AROUND_RPM, Math.max(...speeds) + AROUND_RPM]
  const dyno = curve.speedRpm.flatMap((rpm, i) => (rpm >= low && rpm <= high ? [{ rpm, powerW: curve.powerW[i] as number }] : []))
  const powers = [...dyno.map(({ powerW }) => powerW), ...points.flatMap(({ powerW, sdW }) => [powerW - sdW, powerW + sdW])]
  const [least, most] = [0.96 * Math.min(...powers), 1.03 * Math.max(...powers)]
  const x = (rpm: number) => LEFT + ((rpm - low) / (high - low)) * (width - LEFT - RIGHT)
  const y = (powerW: number) => HIGH - BOTTOM - ((powerW - least) / (most - least)) * (HIGH - TOP - BOTTOM)
  const per = fromSi('power', 1, units.power)
  const step = axisStep((most - least) * per, 5)
  const ticks = ticksWithin(least * per, most * per, step)
  const rpmStep = axisStep(high - low, 6)
  const rpmTicks = ticksWithin(low, high, rpmStep)
  return (
    <FigureFrame width={width} height={HIGH} label={`Power at the hubs by engine speed: ${points.length} speeds of the road over the curve of the dyno`}>
      <LevelLines ticks={ticks} y={(tick) => y(tick / per)} left={LEFT} right={width - RIGHT} words={(tick) => tick} />
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
        d={dyno.map(({ rpm, powerW }, i) => `${i === 0 ? 'M' : 'L'}${x(rpm).toFixed(1)} ${y(powerW).toFixed(1)}`).join('')}
        fill="none"
        stroke="var(--planned)"
        strokeWidth={2}
        strokeDasharray="5 3"
      />
      {points.map(({ speedRpm, powerW, sdW }) => (
        <g key={speedRpm}>
          <line x1={x(speedRpm)} x2={x(speedRpm)} y1={y(powerW - sdW)} y2={y(powerW + sdW)} stroke="var(--edge)" />
          <circle cx={x(speedRpm)} cy={y(powerW)} r={4} fill="var(--pine)" />
        </g>
      ))}
    </FigureFrame>
  )
}
