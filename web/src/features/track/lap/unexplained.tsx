import { lapMiss, planOfRoom, type TrackRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'
import { useLap } from '../use-lap.ts'

/** Driven less what was forecast from the stage before it: what nobody can explain, or that it came as forecast. */
export function Unexplained({ room, position, trackId }: { room: TrackRoom; position: number; trackId: string }) {
  const { text, format } = useQuantities()
  const driven = room.stages[position]?.driven[trackId]
  const plan = useMemo(() => planOfRoom(room, position, trackId, true), [room, position, trackId])
  const forecast = useLap(plan)?.stage
  if (!driven || !plan || !forecast || forecast.how !== 'fitted') return null
  const { missS, isTold } = lapMiss(driven, forecast)
  return (
    <section className="mb-4">
      <h2 className="mb-1">What was driven, against what was forecast</h2>
      <p className={isTold ? 'border-l-4 border-wait pl-3' : ''}>
        From stage {plan.anchor?.driven.position} {text('lapTime', forecast.lapS, { decimals: 2 })} ± {forecast.sdS.toFixed(2)} was forecast; driven{' '}
        {text('lapTime', driven.lapS, { decimals: 2 })}: <strong>{format('lapTime', missS, { sign: true, decimals: 2 }).number} s</strong>{' '}
        {isTold ? 'unexplained. Driver, tyres, the day, or a change that is not on record.' : 'within the doubt of both.'}
      </p>
    </section>
  )
}
