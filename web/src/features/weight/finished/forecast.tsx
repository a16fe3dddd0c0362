import type { StoredRecords } from '@bold-ballast/contract'
import { arrivedCell, type Board, type WeightRoom } from '@bold-ballast/core'
import { useId } from 'react'
import { Figure, WorkingLink } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { verdictText } from '../../../ui/words.ts'
import { doubtName, guessSentence } from './guess-words.ts'

const WIDTH = 320

/** The finished car: its likely mass, the range it falls in 8 times in 10, and what carries the doubt. */
export function Forecast({ records, board, room }: { records: StoredRecords; board: Board; room: WeightRoom }) {
  const { text, format } = useQuantities()
  const hatch = useId()
  const last = board.stages.length - 1
  const forecast = room.forecasts[last]
  const stage = board.stages[last]
  if (!forecast || !stage) return null
  const row = board.rows.find((entry) => entry.metric === 'massReady' && entry.goal.kind === 'target')
  const goalKg = row?.goal.kind === 'target' ? row.goal.record.value : undefined
  const ends = [forecast.p10Kg, forecast.p90Kg, forecast.meanKg - 3 * forecast.sdKg, forecast.meanKg + 3 * forecast.sdKg, ...(goalKg ? [goalKg] : [])]
  const [low, high] = [Math.min(...ends), Math.max(...ends)]
  const x = (kg: number) => 24 + ((kg - low) / (high - low || 1)) * (WIDTH - 48)
  const anchorOf = (at: number) => (at < 60 ? 'start' : at > WIDTH - 60 ? 'end' : 'middle')
  const doubt = forecast.doubt.filter((entry) => entry.varianceShare > 0.05).slice(0, 3)
  const { guesses } = room
  return (
    <section>
      <h2>
        Finished car, stage {last} {stage.name}
      </h2>
      <p className="my-1 text-[24px] font-bold">
        <Figure
          kind="mass"
          value={forecast.meanKg}
          sd={forecast.sdKg}
          showSpread
          proof={arrivedCell(row?.cells[last])?.proof}
          working={{ of: 'forecast', id: stage.id }}
        />
      </p>
      <svg
        viewBox={`0 0 ${WIDTH} 62`}
        className="w-full max-w-[330px]"
        role="img"
        aria-label={`8 times in 10 between ${text('mass', forecast.p10Kg)} and ${text('mass', forecast.p90Kg)}${goalKg ? `, goal ${text('mass', goalKg)}` : ''}`}
      >
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.4" height="5" fill="var(--planned)" />
        </pattern>
        <rect
          x={x(forecast.p10Kg)}
          y="20"
          width={Math.max(3, x(forecast.p90Kg) - x(forecast.p10Kg))}
          height="12"
          fill={`url(#${hatch})`}
          stroke="var(--planned)"
        />
        <rect x={x(forecast.p50Kg) - 1.5} y="18" width="3" height="14" fill="var(--ink)" />
        <line x1="0" x2={WIDTH} y1="33" y2="33" stroke="var(--ink)" strokeWidth="1.6" />
        {goalKg && (
          <>
            <line x1={x(goalKg)} x2={x(goalKg)} y1="14" y2="33" stroke="var(--ink)" strokeWidth="2" />
            <text x={x(goalKg)} y="10" fontSize="11.5" fontWeight="700" textAnchor={anchorOf(x(goalKg))} fill="var(--ink)">
              goal {text('mass', goalKg)}
            </text>
          </>
        )}
        <text
          x={(x(forecast.p10Kg) + x(forecast.p90Kg)) / 2}
          y="50"
          fontSize="11.5"
          textAnchor={anchorOf((x(forecast.p10Kg) + x(forecast.p90Kg)) / 2)}
          fill="var(--quiet)"
        >
          8 in 10 between {format('mass', forecast.p10Kg, { sd: forecast.sdKg }).number} and {text('mass', forecast.p90Kg, { sd: forecast.sdKg })}
        </text>
      </svg>
      {row?.goal.kind === 'target' && (
        <p className="mb-1 font-bold">
          <WorkingLink of="target" id={row.goal.record.id}>
            {verdictText(row.goal.verdict)}
          </WorkingLink>
        </p>
      )}
      {doubt.length > 0 && (
        <p className="text-quiet">
          Most of the doubt is in{' '}
          {doubt
            .map((entry) => doubtName(records, entry.id))
            .filter(Boolean)
            .join('; ')}
          : weigh before cutting metal elsewhere.
        </p>
      )}
      <p className="mt-1 text-xs text-quiet">{guessSentence(guesses)}</p>
    </section>
  )
}
