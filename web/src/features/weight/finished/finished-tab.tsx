import type { RecordsAnswer } from '@bold-ballast/contract'
import { arrivedCell, type Board, type WeightRoom } from '@bold-ballast/core'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { verdictText } from '../../../ui/words.ts'
import { doubtName, guessSentence } from './guess-words.ts'

const MOST_LISTED = 12

/** The car at each stage: what the scales know, what is still to come, the range, and what weighing a part next would do to it. */
export function FinishedTab({ records, board, room, position }: { records: RecordsAnswer; board: Board; room: WeightRoom; position: number }) {
  const { text, format, units } = useQuantities()
  const row = board.rows.find((entry) => entry.metric === 'massReady')
  const forecast = room.forecasts[position]
  const fromGarage = records.build.guessPairsFrom === 'garage'
  if (!forecast)
    return (
      <Empty
        title="There is nothing to start from"
        why="Put the car on the scales, or give what it weighs in its papers; then the ledger says where it is going."
      />
    )
  const drivers = room.drivers[position] ?? []
  const bottleKg = records.build.reference.nitrousKg ?? 0
  const goals = board.rows.flatMap((entry) => (entry.metric === 'massReady' && entry.goal.kind !== 'none' ? [entry.goal] : []))
  return (
    <div className="grid gap-8">
      <section>
        <div className="mb-1 flex items-baseline gap-4">
          <h2>The car at each stage</h2>
          <CsvButton
            name={`${records.build.name}-forecast`}
            table={() => ({
              head: ['Stage', `Mass (${units.mass})`, `Spread (${units.mass})`, `1 in 10 under (${units.mass})`, `9 in 10 under (${units.mass})`],
              rows: room.forecasts.map((entry, at) => [
                `${at} ${board.stages[at]?.name}`,
                entry?.meanKg ?? null,
                entry?.sdKg ?? null,
                entry?.p10Kg ?? null,
                entry?.p90Kg ?? null,
              ]),
            })}
          />
        </div>
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach */}
        <section className="relative overflow-x-auto" aria-label="Forecast by stage" tabIndex={0}>
          <table className="w-full border-collapse">
            <thead>
              <tr className="border-b border-line">
                <th className="p-1.5">Stage</th>
                <th className="p-1.5 text-right">Mass, {units.mass}</th>
                <th className="p-1.5 text-right">Spread</th>
                <th className="p-1.5 text-right">8 times in 10 between, {units.mass}</th>
                <th className="p-1.5 text-right">To come, lines</th>
              </tr>
            </thead>
            <tbody>
              {room.forecasts.map((entry, at) => (
                <tr key={board.stages[at]?.id} className={`border-b border-line ${at === position ? 'bg-picked' : ''}`}>
                  <td className="p-1.5">
                    {at} {board.stages[at]?.name}
                  </td>
                  <td className="p-1.5 text-right text-[16px]">
                    {entry ? (
                      <Figure
                        kind="mass"
                        value={entry.meanKg}
                        sd={entry.sdKg}
                        showUnit={false}
                        align={2}
                        proof={arrivedCell(row?.cells[at])?.proof}
                        className="font-bold"
                        working={{ of: 'forecast', id: board.stages[at]?.id ?? '' }}
                      />
                    ) : (
                      'no mass'
                    )}
                  </td>
                  <td className="p-1.5 text-right text-quiet">{entry && format('mass', entry.meanKg, { sd: entry.sdKg }).spread}</td>
                  <td className="p-1.5 text-right">
                    {entry && `${format('mass', entry.p10Kg, { decimals: 1 }).number} and ${format('mass', entry.p90Kg, { decimals: 1 }).number}`}
                  </td>
                  <td className="p-1.5 text-right">{entry?.doubt.length ?? ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        {goals.length > 0 && (
          <p className="mt-2">
            {goals.map((goal) => (
              <span key={goal.record.id} className="mr-4">
                {goal.kind === 'target' ? 'Target' : 'Limit'} {text('mass', goal.record.value, { isGoal: true })}: <strong>{verdictText(goal.verdict)}</strong>.
              </span>
            ))}
          </p>
        )}
      </section>
      <section>
        <h2 className="mb-1">What weighing next would do, stage {position}</h2>
        {forecast.doubt.length === 0 ? (
          <p className="text-quiet">Nothing is to come between the scales and this stage: no line carries doubt.</p>
        ) : (
          <table className="w-full max-w-[680px] border-collapse">
            <thead>
              <tr className="border-b border-line">
                <th className="p-1.5">Part</th>
                <th className="p-1.5 text-right">As it counts, {units.mass}</th>
                <th className="p-1.5 text-right">Share of the doubt</th>
                <th className="p-1.5 text-right">Spread once weighed</th>
              </tr>
            </thead>
            <tbody>
              {forecast.doubt.slice(0, MOST_LISTED).map((entry) => (
                <tr key={entry.id} className="border-b border-line">
                  <td className="p-1.5">{doubtName(records, entry.id)}</td>
                  <td className="p-1.5 text-right">
                    <Figure kind="mass" value={entry.meanKg} sign showUnit={false} />
                  </td>
                  <td className="p-1.5 text-right">{Math.min(100, entry.varianceShare * 100).toFixed(0)} %</td>
                  <td className="p-1.5 text-right font-semibold">± {text('mass', entry.sdAfterWeighingKg, { decimals: 2 })}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <p className="mt-1 text-quiet">
          Now it is ± {text('mass', forecast.sdKg, { decimals: 2 })}. Shares need not add up: guesses share the doubt in how they run.
        </p>
      </section>
      {bottleKg > 0 && (
        <p>
          With the nitrous bottle empty: <strong>{text('mass', forecast.meanKg - bottleKg)}</strong>, {text('mass', -bottleKg, { sign: true, decimals: 1 })} to
          the reference.
        </p>
      )}
      {drivers.length > 0 && (
        <section>
          <h2 className="mb-1">Who drives, at stage {position}</h2>
          <ul className="grid gap-1">
            {drivers.map((driver) => (
              <li key={driver.name} className="flex flex-wrap gap-x-4">
                <strong className="w-[140px]">{driver.name} in</strong>
                <span>{text('mass', driver.massKg)}</span>
                <span className="text-quiet">
                  {text('mass', driver.differenceKg, { sign: true, decimals: 1 })} to the reference driver
                  {driver.frontShareDifference === null
                    ? ''
                    : `, front ${driver.frontShareDifference < 0 ? '−' : '+'}${Math.abs(100 * driver.frontShareDifference).toFixed(1)} points`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h2 className="mb-1">How your guesses run</h2>
        <p>
          {guessSentence(room.guesses, fromGarage)} Each runs with a spread of its own: {(room.guesses.off.s * 100).toFixed(0)} % off,{' '}
          {(room.guesses.on.s * 100).toFixed(0)} % on (defaults are common practice, no source).
        </p>
        <p className="mt-1 text-quiet">
          Learned from {fromGarage ? 'every build in the garage' : 'this build alone'}; the choice is in the plan, under The car. Type a guess before reading
          the scale, as in “off bench 20 guess 18.6 kg”, and the pair is kept.
        </p>
      </section>
    </div>
  )
}
