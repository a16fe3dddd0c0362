import { type LapCar, type LapChange, lapsNeeded, type PlannedLapLine, type TrackRoom, undoneLapChange } from '@bold-ballast/core'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker } from '../use-lap.ts'

/** A line or a wanted part, as one piece that is thought about. */
export interface Piece {
  readonly id: string
  readonly name: string
  /** Of its stage; null: at none yet. */
  readonly position: number | null
  /** As the car is moved to see it; null: nothing of it is on record. */
  readonly driven: LapChange | null
  /** It is in the picked car: what it gives is what the car would lose without it. */
  readonly isIn: boolean
  readonly isOff: boolean
  readonly unsaid: PlannedLapLine['unsaid']
  readonly cost: number | null
  readonly hours: number | null
}

/** What is thought about, of the picked stage: lines in its car are taken out of it to see what they give, the others put in. */
export const piecesOf = ({ planned, wished }: Pick<TrackRoom, 'planned' | 'wished'>, position: number): Piece[] => [
  ...planned.map(({ change, ...line }: PlannedLapLine): Piece => {
    const isIn = line.position <= position
    return { ...line, isIn, driven: change && (isIn ? undoneLapChange(change) : change) }
  }),
  ...wished.map(({ change, ...part }): Piece => ({ ...part, position: null, isIn: false, isOff: false, driven: change })),
]

/** For a tenth of a second that it gains; null where it gains nothing. */
export const forATenth = (amount: number | null, seconds: number | undefined): number | null =>
  amount === null || seconds === undefined || seconds > -1e-4 ? null : amount / (-10 * seconds)

/** What a piece touches and its seconds leave out, in one sentence. */
export function leftOut(unsaid: Piece['unsaid']): string {
  const nobodySaid = unsaid.filter((each) => each !== 'gears')
  return [
    ...(nobodySaid.length > 0 ? [`its ${nobodySaid.join(' and ')} is not in it: nobody said what it gives`] : []),
    ...(unsaid.includes('gears') ? ['its gears are not in it: try them in Drivetrain, Gears'] : []),
  ].join('; ')
}

const WHY_NOTHING = 'no effect on record: its mass, a tyre’s grip, a final drive’s ratio, or what is expected of it'

/** What each planned line and each wanted part is worth in seconds, for its money and its hours, with the laps on each side that show it. */
export function Pieces({
  room,
  track,
  car,
  position,
  lapSdS,
}: {
  room: TrackRoom
  track: TrackRoom['tracks'][number]
  car: LapCar
  position: number
  lapSdS: number
}) {
  const { text, format } = useQuantities()
  const pieces = piecesOf(room, position)
  const moving = pieces.flatMap(({ id, driven }) => (driven ? [{ id, driven }] : []))
  const { answer } = useWorked<TrackWorker, Awaited<ReturnType<TrackWorker['changed']>> | null>(
    beginTrackWorker,
    moving.length > 0 ? JSON.stringify([track.id, track.version, car, moving]) : '',
    async (remote) =>
      remote.changed(
        track,
        car,
        moving.map(({ driven }) => driven),
      ),
  )
  if (pieces.length === 0) return null
  const refused = answer && 'refused' in answer ? answer.refused : null
  const secondsOf = ({ id, isIn }: Piece) => {
    const found = answer && !('refused' in answer) ? answer[moving.findIndex((each) => each.id === id)] : undefined
    return found === undefined ? undefined : isIn ? -found : found
  }
  const rows = pieces.map((piece) => ({ piece, seconds: secondsOf(piece) })).sort((a, b) => (a.seconds ?? 9) - (b.seconds ?? 9))
  return (
    <section className="mt-5 max-w-[860px]">
      <h2 className="mb-1">Planned lines and wanted parts</h2>
      {refused && <p className="text-wait">{refused}</p>}
      <ScrollBox label="What planned lines and wanted parts are worth">
        <table className="w-full">
          <thead>
            <tr className="text-xs text-quiet">
              <th className="text-left font-normal">What</th>
              <th className="text-left font-normal">stage</th>
              <th className="text-right font-normal">seconds a lap</th>
              <th className="pl-3 text-right font-normal">laps a side</th>
              <th className="pl-3 text-right font-normal">money for a tenth</th>
              <th className="pl-3 text-right font-normal">hours for a tenth</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ piece, seconds }) => {
              const laps =
                seconds === undefined || Math.abs(seconds) < 1e-4 ? null : lapsNeeded({ sdS: lapSdS, differenceS: seconds, school: 'ranks' }).lapsASide
              const [money, hours] = [forATenth(piece.cost, seconds), forATenth(piece.hours, seconds)]
              return (
                <tr key={piece.id} className="border-t border-line align-baseline">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {piece.name}
                    {piece.isOff && ', off'}
                    {piece.unsaid.length > 0 && <span className="block text-xs text-wait">{leftOut(piece.unsaid)}</span>}
                  </th>
                  <td className="py-1.5 pr-3 text-quiet tabular-nums">
                    {piece.position === null ? 'none yet' : piece.isIn ? `in ${piece.position}` : piece.position}
                  </td>
                  {piece.driven ? (
                    <>
                      <td className="py-1.5 text-right font-semibold tabular-nums">
                        {seconds === undefined ? '' : format('lapTime', seconds, { sign: true, decimals: 3 }).number}
                      </td>
                      <td className="py-1.5 pl-3 text-right tabular-nums">{laps === null ? '' : laps > 200 ? 'over 200' : laps}</td>
                      <td className="py-1.5 pl-3 text-right tabular-nums">{money === null ? (piece.cost === null ? 'no cost' : '') : text('money', money)}</td>
                      <td className="py-1.5 pl-3 text-right tabular-nums">
                        {hours === null ? (piece.hours === null ? 'no hours' : '') : `${hours.toFixed(1)} h`}
                      </td>
                    </>
                  ) : (
                    <td colSpan={4} className="py-1.5 text-right text-quiet">
                      {WHY_NOTHING}
                    </td>
                  )}
                </tr>
              )
            })}
          </tbody>
        </table>
      </ScrollBox>
    </section>
  )
}
