import type { RoomTrackSession } from '@bold-ballast/core'
import { axisStep, ticksWithin } from '../../../ui/drawing/axis-step.ts'
import { FigureFrame, LevelLines } from '../../../ui/drawing/figure-frame.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

const LEFT = 58
const TOP = 14
const BOTTOM = 24
const HEIGHT = 210

/** The laps of a session in their order: clean ones full, others hollow with what they were; the best named. Quicker is up. */
export function LapsFigure({ session, width }: { session: RoomTrackSession; width: number }) {
  const { format } = useQuantities()
  const { laps } = session
  const clean = laps.filter(({ isClean }) => isClean)
  const of = clean.length > 0 ? clean : laps
  const times = of.map(({ lapS }) => lapS)
  const [fast, slow] = [Math.min(...times), Math.max(...times)]
  const span = Math.max(slow - fast, 0.4)
  const [low, high] = [fast - 0.12 * span, slow + 0.3 * span]
  const x = (i: number) => LEFT + ((i + 0.5) * (width - LEFT - 10)) / Math.max(laps.length, 1)
  const y = (lapS: number) => TOP + ((Math.min(lapS, high) - low) / (high - low)) * (HEIGHT - TOP - BOTTOM)
  const step = axisStep(high - low, 5)
  const decimals = step < 0.1 ? 2 : step < 1 ? 1 : 0
  const ticks = ticksWithin(low, high, step)
  return (
    <FigureFrame width={width} height={HEIGHT} label={`${laps.length} laps, ${clean.length} clean, quicker above`}>
      <LevelLines ticks={ticks} y={y} left={LEFT} right={width - 10} words={(tick) => format('lapTime', tick, { decimals }).number} />
      {laps.map((lap, i) => {
        const isBest = lap.isClean && lap.lapS === fast
        const isOff = lap.lapS > high
        return (
          <g key={lap.id}>
            {lap.isClean ? (
              <rect x={x(i) - 5} y={y(lap.lapS) - 5} width={10} height={10} fill="var(--pine)" />
            ) : (
              <rect x={x(i) - 4} y={y(lap.lapS) - 4} width={8} height={8} fill="none" stroke="var(--edge)" strokeWidth={1.5} />
            )}
            {(isBest || !lap.isClean) && (
              <text x={x(i)} y={y(lap.lapS) - 9} textAnchor="middle" fill={isBest ? 'var(--ink)' : 'var(--quiet)'} fontWeight={isBest ? 700 : 400}>
                {isBest ? format('lapTime', lap.lapS, { decimals: 2 }).number : lap.setAside ? 'aside' : lap.kind}
                {isOff ? ' ↓' : ''}
              </text>
            )}
            <text x={x(i)} y={HEIGHT - 7} textAnchor="middle" fill="var(--quiet)">
              {i + 1}
            </text>
          </g>
        )
      })}
    </FigureFrame>
  )
}
