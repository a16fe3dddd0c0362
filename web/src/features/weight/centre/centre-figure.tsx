import type { RecordsAnswer } from '@bold-ballast/contract'
import { buildAtStage, type CentreHeight } from '@bold-ballast/core'
import { CarFigure, Span, Words } from '../../../ui/drawing/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import type { TrailCentre } from './centre-trail.tsx'

const PICKED = '#f5c518'

/** The centre of a weighing on the car itself, to scale: how far back, how far to a side, and how high where an axle was lifted. */
export function CentreFigure({
  records,
  stageId,
  centre,
  height,
}: {
  records: RecordsAnswer
  stageId: string
  centre: TrailCentre
  height: { readonly of: CentreHeight; readonly words: string } | null
}) {
  const { text, format } = useQuantities()
  const build = buildAtStage(records, stageId)
  const { wheelbaseM, trackFrontM, trackRearM } = build
  const heightM = height?.of.heightM ?? null
  return (
    <CarFigure
      geometry={build}
      label={`The centre of mass on the car, ${centre.words}: ${text('length', centre.xM)} behind the front axle, ${text('length', centre.yM, { sign: true })} left of the middle${heightM === null ? '' : `, ${text('length', heightM)} high`}`}
      side={(scale) => {
        const x = scale.x(centre.xM)
        const top = heightM === null ? scale.z(0) - 40 : scale.z(heightM)
        return (
          <g>
            <line x1={x} x2={x} y1={top} y2={scale.sideHeight} stroke="var(--ink)" strokeDasharray="6 3 2 3" />
            {height && heightM !== null && (
              <>
                <rect
                  x={scale.x(-0.4)}
                  y={scale.z(heightM + height.of.sdM)}
                  width={scale.px(wheelbaseM + 0.8)}
                  height={Math.max(3, scale.px(2 * height.of.sdM))}
                  fill="var(--pine)"
                  opacity="0.3"
                />
                <line x1={scale.x(-0.7)} x2={scale.x(-0.7)} y1={scale.z(0)} y2={scale.z(heightM)} stroke="var(--ink)" />
                <Words x={4} y={scale.z(heightM) - 4} text={format('length', heightM).number} anchor="start" weight={800} size={17} />
                <Words
                  x={4}
                  y={scale.z(heightM) + 12}
                  text={`± ${format('length', height.of.sdM).number} high`}
                  anchor="start"
                  size={11.5}
                  fill="var(--quiet)"
                />
                <Words x={4} y={scale.z(heightM) + 27} text={height.words} anchor="start" size={11.5} fill="var(--quiet)" />
              </>
            )}
            <circle cx={x} cy={top} r="7" fill={PICKED} stroke="var(--ink)" strokeWidth="1.4" />
            <circle cx={x} cy={top} r="2" fill="var(--ink)" />
          </g>
        )
      }}
      plan={(scale) => {
        const [x, y] = [scale.x(centre.xM), scale.y(centre.yM)]
        const track = (xPx: number, trackM: number, anchor: 'start' | 'end') => (
          <g stroke="var(--ink)">
            <line x1={xPx} x2={xPx} y1={scale.y(-trackM / 2)} y2={scale.y(trackM / 2)} />
            {[-1, 1].map((sign) => (
              <line key={sign} x1={xPx - 4} x2={xPx + 4} y1={scale.y((sign * trackM) / 2)} y2={scale.y((sign * trackM) / 2)} />
            ))}
            <Words x={anchor === 'end' ? xPx - 7 : xPx + 7} y={scale.y(0) - 6} text={format('length', trackM).number} anchor={anchor} weight={700} />
            <Words x={anchor === 'end' ? xPx - 7 : xPx + 7} y={scale.y(0) + 10} text="track" anchor={anchor} size={11.5} fill="var(--quiet)" />
          </g>
        )
        return (
          <g>
            {track(scale.x(-0.94), trackFrontM, 'end')}
            {track(scale.x(wheelbaseM + 0.88), trackRearM, 'start')}
            <Span scale={scale} fromM={0} toM={centre.xM} y={scale.y(-0.42)} text={format('length', centre.xM).number} />
            <Span scale={scale} fromM={centre.xM} toM={wheelbaseM} y={scale.y(-0.42)} text={format('length', wheelbaseM - centre.xM).number} />
            <line x1={x} x2={x} y1={0} y2={y} stroke="var(--ink)" strokeDasharray="6 3 2 3" />
            <circle cx={x} cy={y} r="7" fill={PICKED} stroke="var(--ink)" strokeWidth="1.4" />
            <circle cx={x} cy={y} r="2" fill="var(--ink)" />
            <Words x={scale.x(wheelbaseM / 2)} y={scale.y(-0.62)} text="right" size={11.5} fill="var(--quiet)" />
            <Words x={scale.x(wheelbaseM / 2)} y={scale.y(0.68)} text="left" size={11.5} fill="var(--quiet)" />
            <Words x={x} y={y + 24} text={text('length', centre.yM, { sign: true })} weight={700} />
          </g>
        )
      }}
    />
  )
}
