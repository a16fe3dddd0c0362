import type { RecordsAnswer } from '@bold-ballast/contract'
import { type BallastPlacement, buildAtStage, PAD_WORDS, type PerCorner } from '@bold-ballast/core'
import { CarFigure, type CarScale, Corners, Words } from '../../../ui/drawing/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** Plates at their places on the car, its corners without them, and places that carry nothing. */
export function PlatesFigure({
  records,
  stageId,
  cornersKg,
  placement,
}: {
  records: RecordsAnswer
  stageId: string
  cornersKg: PerCorner<number>
  placement: BallastPlacement | null
}) {
  const { text, format } = useQuantities()
  const geometry = buildAtStage(records, stageId)
  const massOf = (id: string) => placement?.sites.find((site) => site.id === id)?.massKg ?? 0
  const most = Math.max(1, ...records.sites.map(({ id }) => massOf(id)))
  /** Places in their order along the car; the name of one that would cover its neighbour's stands a line lower. */
  const lowered = (scale: CarScale) => {
    const sorted = [...records.sites].sort((a, b) => a.place.xM - b.place.xM)
    return sorted.map((site, i) => {
      const before = sorted[i - 1]?.place
      const isNear = before && Math.abs(scale.x(before.xM) - scale.x(site.place.xM)) < 110 && Math.abs(scale.y(before.yM) - scale.y(site.place.yM)) < 24
      return { ...site, isLower: isNear === true }
    })
  }
  return (
    <CarFigure
      geometry={geometry}
      label={`Places for ballast: ${records.sites.map(({ id, name }) => `${name} ${text('mass', massOf(id))}`).join(', ')}`}
      plan={(scale) => (
        <>
          <Corners scale={scale} geometry={geometry} of={(pad) => ({ head: format('mass', cornersKg[pad], { decimals: 1 }).number, under: PAD_WORDS[pad] })} />
          {lowered(scale).map(({ id, name, place, isLower }) => {
            const kg = massOf(id)
            const half = kg > 0 ? 6 + 9 * Math.sqrt(kg / most) : 5
            const [x, y] = [scale.x(place.xM), scale.y(place.yM)]
            return (
              <g key={id}>
                <rect
                  x={x - half}
                  y={y - half * 0.7}
                  width={2 * half}
                  height={half * 1.4}
                  fill={kg > 0 ? 'var(--pine)' : 'var(--sheet)'}
                  stroke="var(--ink)"
                  strokeDasharray={kg > 0 ? undefined : '3 2'}
                />
                <Words x={x} y={y - half * 0.7 - 4} text={kg > 0 ? text('mass', kg) : 'free'} weight={kg > 0 ? 700 : 400} />
                <Words x={x} y={y + half * 0.7 + (isLower ? 26 : 12)} text={name} size={11} fill="var(--quiet)" />
              </g>
            )
          })}
        </>
      )}
    />
  )
}
