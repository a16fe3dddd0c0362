import type { SharedSheet } from '@bold-ballast/contract'
import { METRIC_INFO } from '@bold-ballast/core'
import { useState } from 'react'
import { crewApi } from '../../data/crew-api.ts'
import { Plates } from '../../ui/plates.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { ScrollBox } from '../../ui/scroll-box.tsx'
import { LoadError, Loading } from '../../ui/states.tsx'
import { dayText, SENSE_WORDS, timeText } from '../../ui/words.ts'

type Row = SharedSheet['rows'][number]

/** What a share link shows to whoever holds it; the secret stands behind the # of the address. */
export function SharedPage() {
  const [token] = useState(() => window.location.hash.slice(1))
  const { data, error, refetch } = crewApi.useSharedQuery(token)
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[1100px] px-5 py-6 outline-none print:p-0">
      <title>{`${data?.buildName ?? 'Shared'} · Bold Ballast`}</title>
      {data ? <Sheet sheet={data} /> : error ? <LoadError error={error} retry={() => void refetch()} /> : <Loading what="what is shared" />}
    </main>
  )
}

function Sheet({ sheet }: { sheet: SharedSheet }) {
  const { buildName, className, position, stages, rows, at } = sheet
  const shown = position === null ? stages : stages.filter((stage) => stage.position === position)
  const stage = position === null ? undefined : shown[0]
  return (
    <article className="grid gap-4">
      <div>
        <h1>{stage ? `${buildName}, stage ${stage.position}: ${stage.name}` : buildName}</h1>
        <p className="text-quiet">
          {[className, stage?.state, stage?.date ? dayText(stage.date) : null, `as it stood ${timeText(at)}`].filter(Boolean).join(', ')}
        </p>
      </div>
      <ScrollBox label="Numbers by stage">
        <table className="lined w-full">
          <thead>
            <tr>
              <th>Number</th>
              <th>Goal</th>
              {shown.map((each) => (
                <th key={each.position} className="text-right">
                  {each.position} {each.name}
                  {each.date && position === null && <span className="block text-xs font-normal text-quiet">{dayText(each.date)}</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <SheetRow key={`${row.metric}${String(i)}`} row={row} shown={shown.map((each) => each.position)} />
            ))}
          </tbody>
        </table>
      </ScrollBox>
      <p className="text-xs text-quiet">
        ± is one standard deviation. Plates: 1 guess, 2 catalogue or calculated, 3 measured, 4 confirmed. Read only; it shows what stands now.
      </p>
      <p className="no-print">
        <button type="button" className="button" onClick={() => window.print()}>
          Print, or save as PDF
        </button>
      </p>
    </article>
  )
}

function SheetRow({ row: { metric, goal, cells }, shown }: { row: Row; shown: readonly number[] }) {
  const { text } = useQuantities()
  const { kind, word } = METRIC_INFO[metric]
  const bound =
    goal &&
    (goal.sense === 'between'
      ? `${text(kind, goal.value)} to ${text(kind, goal.highValue ?? goal.value)}`
      : `${text(kind, goal.value)} ${SENSE_WORDS[goal.sense]}`)
  return (
    <tr>
      <th scope="row" className="text-left">
        {word}
      </th>
      <td>
        {goal && (
          <>
            {bound}
            <span className="block text-xs font-bold">
              {goal.word ?? 'being worked out'}
              {goal.chance === null ? '' : `, ${Math.round(goal.chance * 100)} in 100`}
            </span>
          </>
        )}
      </td>
      {shown.map((position) => {
        const cell = cells[position]
        return (
          <td key={position} className="text-right whitespace-nowrap">
            {cell ? (
              <>
                {text(kind, cell.value)} <span className="text-xs text-quiet">± {text(kind, cell.sd)}</span> <Plates proof={cell.proof} />
              </>
            ) : (
              <span className="text-quiet">–</span>
            )}
          </td>
        )
      })}
    </tr>
  )
}
