import type { RecordsAnswer } from '@bold-ballast/contract'
import { type JobsRoom, planOfRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { api } from '../../../data/api.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { JobsWorker } from '../jobs.worker.ts'
import { beginJobsWorker } from '../use-road.ts'

type Item = JobsRoom['worth'][number]

/** What a second costs by each item, from the control track; words where there is none. */
function usePerSecond(buildId: string, items: readonly Item[], position: number) {
  const { data: track } = api.useTrackQuery(buildId)
  const plan = useMemo(() => (track?.controlTrackId ? planOfRoom(track, position, track.controlTrackId) : null), [track, position])
  const key = plan && items.length > 0 ? JSON.stringify([plan, items]) : ''
  const { answer, failed } = useWorked<JobsWorker, Awaited<ReturnType<JobsWorker['perSecond']>> | null>(beginJobsWorker, key, async (remote) =>
    plan ? remote.perSecond(plan, items) : null,
  )
  if (!track || (plan && !answer && !failed)) return { values: null, words: '…' }
  return answer && !('refused' in answer) ? { values: answer, words: 'none' } : { values: null, words: 'no lap yet' }
}

/** What a kilogram, a kilowatt that would do as much, and a second cost by each change that is priced and not in the car yet. */
export function WorthTable({ records, room, position, currency }: { records: RecordsAnswer; room: JobsRoom; position: number; currency: string }) {
  const { format, text, units } = useQuantities()
  const items = useMemo(
    () => [...room.worth].sort((a, b) => (a.worth.perKw ?? Number.POSITIVE_INFINITY) - (b.worth.perKw ?? Number.POSITIVE_INFINITY)),
    [room.worth],
  )
  const { values, words } = usePerSecond(records.build.id, items, position)
  if (items.length === 0) return null
  const money = (value: number | null, none = 'none') => (value === null ? none : format('money', value).number)
  /** Of a change that nobody said what it does nothing is worked out. */
  const worthOf = ({ massKg, powerW }: Item, value: string) => (massKg === 0 && powerW === 0 ? '' : value)
  const hourWorth = records.build.money?.hourWorth ?? 0
  return (
    <section>
      <h2 className="mb-1 flex items-baseline justify-between gap-4">
        What it buys
        <CsvButton
          name={`${records.build.name} worth`}
          table={() => ({
            head: [
              'what',
              'stage',
              `whole cost (${currency})`,
              'hours',
              `mass (${units.mass})`,
              `power (${units.power})`,
              'a kg',
              'a kW of equal worth',
              'a second',
            ],
            rows: items.map(({ name, position: at, hours, massKg, powerW, worth }, i) => [
              name,
              at,
              worth.whole,
              hours,
              massKg,
              powerW / 1000,
              worth.perKg,
              worth.perKw,
              values?.[i] ?? null,
            ]),
          })}
        />
      </h2>
      <ScrollBox label="What each change buys for its price">
        <table className="w-full min-w-[620px] border-collapse tabular-nums">
          <thead>
            <tr className="border-b border-line">
              <th className="p-1">Not in the car yet</th>
              <th className="p-1 text-right">Stage</th>
              <th className="p-1 text-right">Whole cost{currency ? `, ${currency}` : ''}</th>
              <th className="p-1 text-right">It does</th>
              <th className="p-1 text-right">a kg</th>
              <th className="p-1 text-right">a kW of equal worth</th>
              <th className="p-1 text-right">a second</th>
            </tr>
          </thead>
          <tbody>
            {items.map((item, i) => {
              const { id, name, position: at, hours, massKg, powerW, worth } = item
              return (
                <tr key={id} className="border-b border-line">
                  <td className="p-1 font-semibold">{name}</td>
                  <td className="p-1 text-right">{at ?? ''}</td>
                  <td className="p-1 text-right">
                    {money(worth.whole)}
                    {hours > 0 && <span className="text-quiet">, {Number(hours.toFixed(1))} h</span>}
                  </td>
                  <td className="p-1 text-right">
                    {[massKg === 0 ? '' : text('mass', massKg, { sign: true }), powerW === 0 ? '' : text('power', powerW, { sign: true })]
                      .filter(Boolean)
                      .join(', ') || <span className="text-quiet">nobody said</span>}
                  </td>
                  <td className="p-1 text-right">{worthOf(item, money(worth.perKg))}</td>
                  <td className="p-1 text-right">{worthOf(item, money(worth.perKw))}</td>
                  <td className="p-1 text-right">{worthOf(item, values ? money(values[i] ?? null) : words)}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </ScrollBox>
      <p className="mt-1 text-[13px] text-quiet">
        Guessed prices and hours as they run.{' '}
        {hourWorth > 0 ? `An hour counts ${money(hourWorth)}.` : 'Hours count nothing; say what one is worth under money and budget.'} A kW of equal worth would
        do as much for power to weight. Seconds by the lap of the control track at the picked stage. “none”: it buys none of it.
      </p>
    </section>
  )
}
