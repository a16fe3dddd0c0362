import type { SharedSheet } from '@bold-ballast/contract'
import { METRIC_INFO } from '@bold-ballast/core'
import { useState } from 'react'
import { crewApi } from '../../data/crew/crew-api.ts'
import { rowWord } from '../../shared/board/row-word.ts'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { ScrollBox } from '../../ui/scroll-box.tsx'
import { LoadError, Loading } from '../../ui/states.tsx'
import { dayText, SENSE_WORDS, timeText, wordWithChance } from '../../ui/words.ts'

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
            {byMetric(rows).map((same) => (
              <SheetRow key={same[0].metric} rows={same} shown={shown.map((each) => each.position)} />
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

/** Rows of one number together: its values stand once, beside all its goals. */
function byMetric(rows: readonly Row[]): (readonly [Row, ...Row[]])[] {
  const words = [...new Set(rows.map(rowWord))]
  return words.flatMap((word) => {
    const [first, ...more] = rows.filter((row) => rowWord(row) === word)
    return first ? [[first, ...more] as const] : []
  })
}

function SheetRow({ rows, shown }: { rows: readonly [Row, ...Row[]]; shown: readonly number[] }) {
  const { text } = useQuantities()
  const { metric, cells } = rows[0]
  const { kind } = METRIC_INFO[metric]
  return (
    <tr className="align-baseline">
      <th scope="row" className="pr-4 text-left">
        {rowWord(rows[0])}
      </th>
      <td className="pr-4">
        {rows.flatMap(({ goal }) =>
          goal ? [<Goal key={`${goal.kind}${goal.sense}${goal.value}${goal.position ?? ''}`} goal={goal} text={(value) => text(kind, value)} />] : [],
        )}
      </td>
      {shown.map((position) => {
        const cell = cells[position]
        return (
          <td key={position} className="pl-4 text-right whitespace-nowrap">
            {cell ? <Figure kind={kind} value={cell.value} sd={cell.sd} proof={cell.proof} showSpread /> : <span className="text-quiet">–</span>}
          </td>
        )
      })}
    </tr>
  )
}

function Goal({ goal, text }: { goal: NonNullable<Row['goal']>; text: (value: number) => string }) {
  const { kind, sense, value, highValue, position, word, chance } = goal
  const bound = sense === 'between' ? `${text(value)} to ${text(highValue ?? value)}` : `${text(value)} ${SENSE_WORDS[sense]}`
  return (
    <p>
      {bound}
      <span className="text-quiet">{position === null ? '' : kind === 'target' ? `, by stage ${position}` : ', limit'}</span>
      <span className="block text-xs font-bold">{word === null ? 'being worked out' : wordWithChance(word, chance)}</span>
    </p>
  )
}
