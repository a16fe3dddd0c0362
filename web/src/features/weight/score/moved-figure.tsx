import type { RecordsAnswer } from '@bold-ballast/contract'
import { buildAtStage, type MovedPlace } from '@bold-ballast/core'
import { CarFigure, type CarScale, Words } from '../../../ui/drawing/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** Area for mass: the heaviest place is drawn with this radius on the car, m. */
const LARGEST_M = 0.27
const NAMED = 5

/** Where mass left the car and where it came, on the car itself: filled what went, a ring what came, its area the mass. */
export function MovedFigure({ records, stageId, places }: { records: RecordsAnswer; stageId: string; places: readonly MovedPlace[] }) {
  const { text } = useQuantities()
  const most = Math.max(0.001, ...places.flatMap(({ outKg, onKg }) => [-outKg, onKg]))
  const radius = (scale: CarScale, kg: number) => scale.px(LARGEST_M) * Math.sqrt(Math.abs(kg) / most)
  const heaviest = [...places].sort((a, b) => b.onKg - b.outKg - (a.onKg - a.outKg)).slice(0, NAMED)
  const dots = (scale: CarScale, y: (place: MovedPlace) => number) =>
    places.map((place) => (
      <g key={`${place.xM} ${place.yM} ${place.zM}`}>
        {place.outKg < 0 && <circle cx={scale.x(place.xM)} cy={y(place)} r={radius(scale, place.outKg)} fill="var(--pine)" opacity="0.72" />}
        {place.onKg > 0 && (
          <circle cx={scale.x(place.xM)} cy={y(place)} r={radius(scale, place.onKg)} fill="none" stroke="var(--ink)" strokeWidth="2" strokeDasharray="5 3" />
        )}
      </g>
    ))
  const names = (scale: CarScale, y: (place: MovedPlace) => number) => {
    const placed: { x: number; y: number }[] = []
    return heaviest.flatMap((place) => {
      const at = { x: Math.min(scale.x(place.xM), scale.width - 30), y: y(place) + 4 }
      // One that would cover a heavier one is read in the other view, or in the table.
      if (placed.some((other) => Math.abs(other.x - at.x) < 92 && Math.abs(other.y - at.y) < 14)) return []
      placed.push(at)
      return [<Words key={`${place.xM} ${place.yM} ${place.zM}`} x={at.x} y={at.y} text={bothWays(place)} weight={700} />]
    })
  }
  const bothWays = ({ outKg, onKg }: MovedPlace) =>
    [outKg < 0 ? text('mass', outKg, { decimals: 0 }) : '', onKg > 0 ? text('mass', onKg, { sign: true, decimals: 0 }) : ''].filter(Boolean).join(' ')
  return (
    <CarFigure
      geometry={buildAtStage(records, stageId)}
      label={`Where mass left and came: ${heaviest.map(({ xM, outKg, onKg }) => `${text('length', xM)} back ${text('mass', outKg)} out, ${text('mass', onKg)} on`).join('; ')}`}
      side={(scale) => (
        <>
          {dots(scale, ({ zM }) => scale.z(zM))}
          {names(scale, ({ zM }) => scale.z(zM))}
        </>
      )}
      plan={(scale) => (
        <>
          {dots(scale, ({ yM }) => scale.y(yM))}
          {names(scale, ({ yM }) => scale.y(yM))}
        </>
      )}
    />
  )
}
