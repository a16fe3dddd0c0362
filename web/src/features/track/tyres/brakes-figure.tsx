import { attempt, CalculationError, firstToLock, idealBrakeShare, type LapStage } from '@bold-ballast/core'
import { ticksWithin } from '../../../ui/drawing/axis-step.ts'
import { FigureFrame, LevelLines } from '../../../ui/drawing/figure-frame.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

const LEFT = 52
const TOP = 12
const BOTTOM = 34
const HEIGHT = 260
const SPEEDS = [20, 50] as const

/** The share of the front that both axles would use alike, against how hard it brakes, at two speeds; the car's own as a line; where an axle locks. */
export function BrakesFigure({ car, share, width }: { car: NonNullable<LapStage['braking']>; share: number | null; width: number }) {
  const { text } = useQuantities()
  const mostG = 1.6
  const steps = Array.from({ length: 33 }, (_, i) => 0.2 + ((mostG - 0.2) * i) / 32)
  const curves = SPEEDS.map((speedMps) => ({
    speedMps,
    points: steps.flatMap((decelerationG) => {
      const found = attempt(() => idealBrakeShare(car, { decelerationG, speedMps }))
      return found instanceof CalculationError ? [] : [{ decelerationG, share: found }]
    }),
    lock: share === null ? null : attempt(() => firstToLock(car, { frontShare: share, friction: car.friction * car.gripFactor, speedMps })),
  }))
  const values = [...curves.flatMap(({ points }) => points.map((point) => point.share)), ...(share === null ? [] : [share])]
  const [low, high] = [Math.floor(Math.min(...values) * 20) / 20 - 0.02, Math.ceil(Math.max(...values) * 20) / 20 + 0.02]
  const x = (g: number) => LEFT + ((g - 0.2) / (mostG - 0.2)) * (width - LEFT - 12)
  const y = (value: number) => TOP + (1 - (value - low) / (high - low)) * (HEIGHT - TOP - BOTTOM)
  const ticks = ticksWithin(low, high, 0.05)
  return (
    <FigureFrame width={width} height={HEIGHT} label="Ideal front share of the brakes against deceleration, and the car’s own">
      <LevelLines ticks={ticks} y={y} left={LEFT} right={width - 12} words={(tick) => text('share', tick, { decimals: 0 })} />
      {[0.4, 0.8, 1.2, 1.6].map((g) => (
        <text key={g} x={x(g)} y={HEIGHT - 14} textAnchor={g === 1.6 ? 'end' : 'middle'} fill="var(--quiet)">
          {g.toFixed(1)} g
        </text>
      ))}
      {curves.map(({ speedMps, points }, i) => {
        const labelled = points[Math.floor(points.length * (i === 0 ? 0.75 : 0.62))]
        return (
          <g key={speedMps}>
            <polyline
              points={points.map((point) => `${x(point.decelerationG)},${y(point.share)}`).join(' ')}
              fill="none"
              stroke="var(--pine)"
              strokeWidth={i === 0 ? 3 : 1.6}
              strokeDasharray={i === 0 ? '' : '7 4'}
            />
            {labelled && (
              <text
                x={x(labelled.decelerationG) + (i === 0 ? -8 : 8)}
                y={y(labelled.share) + (i === 0 ? -6 : 14)}
                textAnchor={i === 0 ? 'end' : 'start'}
                fill="var(--pine)"
                fontWeight={600}
              >
                alike at {text('speed', speedMps, { decimals: 0 })}
              </text>
            )}
          </g>
        )
      })}
      {share !== null && (
        <>
          <line x1={LEFT} x2={width - 12} y1={y(share)} y2={y(share)} stroke="var(--ink)" strokeWidth={2} />
          <text x={LEFT + 6} y={y(share) - 6} fill="var(--ink)" fontWeight={600}>
            this car, {text('share', share, { decimals: 1 })}
          </text>
          {curves.map(({ speedMps, lock }) =>
            lock && !(lock instanceof CalculationError) && lock.decelerationG < mostG ? (
              <g key={speedMps}>
                <path d={`M${x(lock.decelerationG)} ${y(share) - 9}v18`} stroke={lock.axle === 'rear' ? 'var(--danger)' : 'var(--ink)'} strokeWidth={4} />
              </g>
            ) : null,
          )}
        </>
      )}
    </FigureFrame>
  )
}
