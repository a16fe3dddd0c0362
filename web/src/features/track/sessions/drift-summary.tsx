import { type DriftDays, driftDaysOf, driftSeason, type RoomRun, type RoomTrackSession } from '@bold-ballast/core'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'

/** The runs of a session: entry and angle as marks in their order, those that straightened hollow. */
function RunsFigure({ runs }: { runs: readonly RoomRun[] }) {
  const { format, units } = useQuantities()
  const entries = runs.flatMap(({ entryMps }) => (entryMps === null ? [] : [entryMps]))
  if (entries.length < 2) return null
  const width = 560
  const height = 150
  const [low, high] = [Math.min(...entries) * 0.985, Math.max(...entries) * 1.01]
  const x = (i: number) => 46 + ((i + 0.5) * (width - 56)) / runs.length
  const y = (mps: number) => 12 + (1 - (mps - low) / (high - low)) * (height - 40)
  const middle = [...entries].sort((a, b) => a - b)[Math.floor(entries.length / 2)] as number
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className="block text-[12px] tabular-nums"
      role="img"
      aria-label={`Entry speed of ${runs.length} runs, in ${units.speed}`}
    >
      <line x1={46} x2={width - 10} y1={y(middle)} y2={y(middle)} stroke="var(--edge)" strokeDasharray="2 4" />
      <text x={40} y={y(middle) + 4} textAnchor="end" fill="var(--quiet)">
        {format('speed', middle, { decimals: 0 }).number}
      </text>
      {runs.map((run, i) =>
        run.entryMps === null ? null : (
          <g key={run.id} transform={`translate(${x(i)} ${y(run.entryMps)}) rotate(${run.angleRad === null ? 0 : (-run.angleRad * 180) / Math.PI})`}>
            <rect
              x={-7}
              y={-2.5}
              width={14}
              height={5}
              fill={run.straightened > 0 ? 'none' : 'var(--pine)'}
              stroke={run.straightened > 0 ? 'var(--wait)' : 'var(--pine)'}
            />
          </g>
        ),
      )}
      {runs.map((run, i) =>
        (i + 1) % 5 === 0 || i === 0 ? (
          <text key={`n ${run.id}`} x={x(i)} y={height - 6} textAnchor="middle" fill="var(--quiet)">
            {i + 1}
          </text>
        ) : null,
      )}
    </svg>
  )
}

/** Drift runs of a session, and what a season of them needs. */
export function DriftSummary({ buildId, session, whole }: { buildId: string; session: RoomTrackSession; whole: DriftDays | null }) {
  const { text, format } = useQuantities()
  const address = useAddress()
  const { take, notice } = useRemoval(buildId, 'drift-runs')
  const { runs, record } = session
  const drift = driftDaysOf([session])
  const pairs = record.rearPairsUsed ?? 0
  const planned = Number(address.get('runs') || '90')
  const stock = Number(address.get('stock') || '0')
  // What pairs last is told by all runs of the build, not by one day.
  const season =
    whole && whole.pairsUsed > 0 && whole.runs > 0 && planned >= 0 && stock >= 0
      ? driftSeason({ runsDriven: whole.runs, pairsUsed: whole.pairsUsed, runsPlanned: planned, tyresInStock: stock })
      : null
  return (
    <section aria-label="Drift runs" className="mt-3">
      {notice}
      <ScrollBox label="Entry speeds in their order">
        <RunsFigure runs={runs} />
      </ScrollBox>
      <p className="text-xs text-quiet">Each mark leans by its angle; hollow ones straightened.</p>
      <dl className="mt-2 flex flex-wrap gap-x-7 gap-y-1">
        {drift?.entryMps && (
          <div>
            <dt className="text-xs text-quiet">Entry, the middle run</dt>
            <dd className="text-[18px] font-semibold">{text('speed', drift.entryMps.value, { decimals: 0 })}</dd>
          </div>
        )}
        {drift?.angleRad && (
          <div>
            <dt className="text-xs text-quiet">Angle</dt>
            <dd className="text-[18px] font-semibold">{text('angle', drift.angleRad.value, { decimals: 0 })}</dd>
          </div>
        )}
        <div>
          <dt className="text-xs text-quiet">Runs, rear pairs</dt>
          <dd className="text-[18px] font-semibold tabular-nums">
            {runs.length}, {pairs}
          </dd>
        </div>
        <div>
          <dt className="text-xs text-quiet">Straightened</dt>
          <dd className="text-[18px] font-semibold tabular-nums">{drift?.straightened ?? 0}</dd>
        </div>
      </dl>
      <div className="mt-3 flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <label className="flex items-baseline gap-2">
          Runs planned
          <input inputMode="numeric" className="w-16" value={address.get('runs') || '90'} onChange={(event) => address.type({ runs: event.target.value })} />
        </label>
        <label className="flex items-baseline gap-2">
          rear tyres in stock
          <input inputMode="numeric" className="w-16" value={address.get('stock') || '0'} onChange={(event) => address.type({ stock: event.target.value })} />
        </label>
        {season ? (
          <span>
            at {season.runsPerPair.toFixed(1)} runs a pair over {whole?.runs} runs, a tenth to spare: <strong>{season.tyresNeeded} rear tyres</strong>
            {season.tyresShort > 0 ? <span className="text-wait">, {season.tyresShort} short</span> : ', all in stock'}
          </span>
        ) : (
          <span className="text-quiet">Count a used pair: what a season needs follows from it.</span>
        )}
      </div>
      <ScrollBox label="Runs" className="mt-3">
        <table className="w-full max-w-[560px]">
          <thead>
            <tr className="text-xs text-quiet">
              <th className="text-right font-normal">run</th>
              <th className="text-right font-normal">entry</th>
              <th className="text-right font-normal">angle</th>
              <th className="text-right font-normal">gear</th>
              <th className="pl-4 text-left font-normal">straightened</th>
              <th className="no-print" />
            </tr>
          </thead>
          <tbody>
            {runs.map((run) => (
              <tr key={run.id} className="border-t border-line">
                <td className="py-1 text-right tabular-nums">{run.position + 1}</td>
                <td className="py-1 text-right tabular-nums">{run.entryMps === null ? '' : format('speed', run.entryMps, { decimals: 0 }).number}</td>
                <td className="py-1 text-right tabular-nums">{run.angleRad === null ? '' : text('angle', run.angleRad, { decimals: 0 })}</td>
                <td className="py-1 text-right tabular-nums">{run.gear ?? ''}</td>
                <td className="py-1 pl-4 text-wait">{run.straightened > 0 ? (run.straightened === 1 ? 'once' : `${run.straightened} times`) : ''}</td>
                <td className="no-print py-1 pl-3">
                  <button type="button" className="word-link" onClick={() => void take(run)}>
                    Delete<span className="sr-only"> run {run.position + 1}</span>
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
    </section>
  )
}
