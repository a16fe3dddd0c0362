import type { RecordsAnswer } from '@bold-ballast/contract'
import { arrivedCell, type Board, HEIGHT_BAND_M, type Moved, outByDay, type WeightRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { MovedFigure } from './moved-figure.tsx'

const BASIS_WORDS = { guess: 'its guess', catalogue: 'catalogue', zone: 'the middle of its zone', ledger: 'the middle of the ledger' } as const
const MOST_DAYS = 7
const MOST_UNWEIGHED = 12

/** The day of an instant as the person's own clock has it. */
const localDay = (instant: string) => {
  const at = new Date(instant)
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}

/** What each evening took out, where the weight went, what is heaviest, and what nobody weighed. */
export function ScoreTab({
  records,
  board,
  room,
  position,
  stageId,
}: {
  records: RecordsAnswer
  board: Board
  room: WeightRoom
  position: number
  stageId: string
}) {
  const { text, format, units } = useQuantities()
  const detail = room.details[position]
  const days = useMemo(() => {
    const kgOf = new Map(room.lines.map((line) => [line.changeId, line.massKg]))
    const done = records.changes.flatMap(({ id, doneAt, state }) => (state === 'done' ? [{ doneAt, massKg: kgOf.get(id) ?? 0 }] : []))
    return outByDay(done, localDay)
  }, [records.changes, room.lines])
  const nameOf = (id: string) => records.changes.find((change) => change.id === id)?.name ?? ''
  const row = board.rows.find((entry) => entry.metric === 'massReady' && entry.goal.kind === 'target')
  const goalKg = row?.goal.kind === 'target' ? row.goal.record.value : null
  const now = arrivedCell(row?.cells[position])
  if (!detail || days.length + detail.byZone.length === 0)
    return <Empty title="Nothing to count yet" why="Type what comes off and goes on; the score adds it up by evening, zone and height." />
  return (
    <div className="grid gap-8">
      {detail.byPlace.length > 0 && (
        <section>
          <h2>Where mass left and came, stages 0 to {position}</h2>
          <p className="mb-1 text-quiet">Filled: what went out; a ring: what goes on; its area is the mass.</p>
          <MovedFigure records={records} stageId={stageId} places={detail.byPlace} />
        </section>
      )}
      <section>
        <div className="mb-1 flex items-baseline gap-4">
          <h2>What each day took out</h2>
          <CsvButton
            name={`${records.build.name}-days`}
            table={() => ({
              head: ['Day', `Out (${units.mass})`, `On (${units.mass})`, 'Lines'],
              rows: days.map((day) => [day.day, day.outKg, day.onKg, day.count]),
            })}
          />
        </div>
        {goalKg !== null && now && (
          <p className="mb-2 text-quiet">
            Stage {position} stands at {text('mass', now.value, { sd: now.sd })};{' '}
            {now.value > goalKg
              ? `${text('mass', now.value - goalKg)} left to the target of ${text('mass', goalKg, { isGoal: true })}.`
              : 'the target is made.'}
          </p>
        )}
        <table className="w-full max-w-[560px] border-collapse">
          <thead>
            <tr className="border-b border-line">
              <th className="p-1.5">Day</th>
              <th className="p-1.5 text-right">Lines</th>
              <th className="p-1.5 text-right">Out, {units.mass}</th>
              <th className="p-1.5 text-right">On, {units.mass}</th>
            </tr>
          </thead>
          <tbody>
            {days.slice(0, MOST_DAYS).map((day) => (
              <tr key={day.day} className="border-b border-line">
                <td className="p-1.5">
                  <time dateTime={day.day}>{dayText(day.day)}</time>
                </td>
                <td className="p-1.5 text-right">{day.count}</td>
                <td className="p-1.5 text-right text-[16px] font-bold">{day.outKg > 0 && <Figure kind="mass" value={day.outKg} showUnit={false} />}</td>
                <td className="p-1.5 text-right">{day.onKg > 0 && <Figure kind="mass" value={day.onKg} showUnit={false} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className="grid gap-8 min-[720px]:grid-cols-2">
        <MovedBars title="Where it went, by zone" moved={detail.byZone} word={(label) => label || 'no zone'} />
        <div>
          <MovedBars
            title="Where it went, by height"
            moved={detail.byHeight.toReversed()}
            word={(label) => `${format('length', Number(label)).number} to ${text('length', Number(label) + HEIGHT_BAND_M)}`}
          />
          {detail.withoutHeightKg > 0 && (
            <p className="mt-1 text-quiet">{text('mass', detail.withoutHeightKg)} of lines have no place. Give their zones one.</p>
          )}
        </div>
        <section>
          <h2 className="mb-1">Heaviest still in the car</h2>
          <ul>
            {detail.stillInCar.map((entry) => (
              <li key={entry.changeId} className="flex items-baseline justify-between gap-4 border-b border-line py-1.5">
                <span>
                  {nameOf(entry.changeId)} <span className="text-quiet">{entry.comesOff ? 'to come off' : 'went on'}</span>
                </span>
                <Figure kind="mass" value={entry.massKg} className="font-semibold" />
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="mb-1">
            {detail.unweighed.length === 0
              ? 'Every line was weighed'
              : `${detail.unweighed.length} ${detail.unweighed.length === 1 ? 'line' : 'lines'} not weighed${detail.unknownCount > 0 ? `, ${detail.unknownCount} not even guessed` : ''}`}
          </h2>
          <ul>
            {detail.unweighed.slice(0, MOST_UNWEIGHED).map((entry) => (
              <li key={entry.changeId} className="flex items-baseline justify-between gap-4 border-b border-line py-1.5">
                <span>
                  {nameOf(entry.changeId)} <span className="text-quiet">by {BASIS_WORDS[entry.basis]}</span>
                </span>
                <span className="whitespace-nowrap">
                  likely <Figure kind="mass" value={entry.likelyKg} className="font-semibold" proof="guess" />
                </span>
              </li>
            ))}
          </ul>
        </section>
      </div>
      {detail.cost + detail.hours > 0 && (
        <p className="text-quiet">
          Stages 0 to {position}: {detail.hours} hours and {detail.cost} in money are noted on lines.
        </p>
      )}
    </div>
  )
}

const BAR = 40

/** Out to the left, on to the right, from one line: solid for out, hatched outline for on. */
function MovedBars({ title, moved, word }: { title: string; moved: readonly Moved[]; word: (label: string) => string }) {
  const { text } = useQuantities()
  const most = Math.max(0.001, ...moved.flatMap(({ outKg, onKg }) => [-outKg, onKg]))
  return (
    <section>
      <h2 className="mb-1">{title}</h2>
      {moved.length === 0 && <p className="text-quiet">No line has a place for this yet.</p>}
      <ul>
        {moved.map(({ label, outKg, onKg }) => (
          <li key={label} className="flex items-center justify-between gap-x-3 border-b border-line py-1.5">
            <span className="min-w-[76px] flex-1">{word(label)}</span>
            <span className="flex items-center gap-2">
              <span className="w-[80px] whitespace-nowrap text-right font-semibold">{outKg < 0 ? text('mass', outKg) : ''}</span>
              <svg width={2 * BAR} height="16" aria-hidden="true" className="hidden sm:block">
                <rect x={BAR + (outKg / most) * BAR} y="2" width={(-outKg / most) * BAR} height="12" fill="var(--pine)" />
                <rect x={BAR} y="2" width={(onKg / most) * BAR} height="12" fill="none" stroke="var(--planned)" strokeWidth="2" />
                <line x1={BAR} x2={BAR} y1="0" y2="16" stroke="var(--ink)" />
              </svg>
              <span className="w-[74px] whitespace-nowrap text-right">{onKg > 0 ? text('mass', onKg, { sign: true }) : ''}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
