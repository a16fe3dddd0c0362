import { damageSeen } from '@bold-ballast/core'
import { useMemo } from 'react'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { dayText } from '../../../ui/words.ts'
import type { ChecksTabProps } from '../tab-props.ts'
import { damageTable } from '../tables.ts'

const number = (value: number) => String(Number(value.toFixed(2)))

/** What breaks at events: how often, what it took, what only makes do, spares that do. */
export function Broken({ records, today }: Pick<ChecksTabProps, 'records' | 'today'>) {
  const seen = useMemo(() => damageSeen(records as never, today), [records, today])
  if (seen.length === 0) return null
  return (
    <section className="max-w-3xl">
      <h2 className="mb-1">What breaks</h2>
      <ScrollBox label="What breaks">
        <table className="w-full border-collapse">
          <thead>
            <tr>
              <th className="text-left">What</th>
              <th className="pl-3 text-right">Broke</th>
              <th className="pl-3 text-right">An event</th>
              <th className="pl-3 text-right">Spares</th>
              <th className="pl-3 text-right">Took, h</th>
              <th className="pl-3 text-right">Cost</th>
              <th className="pl-3 text-left">Last</th>
            </tr>
          </thead>
          <tbody>
            {seen.map(({ check, count, perEvent, spares, hours, cost, last, isMakeDo }) => (
              <tr key={check.id} className="border-t border-line align-baseline">
                <td className="py-1 font-semibold">{check.name}</td>
                <td className="py-1 pl-3 text-right tabular-nums">{count}</td>
                <td className="py-1 pl-3 text-right tabular-nums">{perEvent === null ? '–' : number(perEvent)}</td>
                <td className="py-1 pl-3 text-right font-semibold tabular-nums">{perEvent === null ? '–' : spares}</td>
                <td className="py-1 pl-3 text-right tabular-nums">{number(hours)}</td>
                <td className="py-1 pl-3 text-right tabular-nums">{number(cost)}</td>
                <td className="py-1 pl-3">
                  {dayText(last.at.slice(0, 10))}
                  {last.note ? `: ${last.note}` : ''}
                  {isMakeDo && <b className="block text-wait">mended for now, stays due</b>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
      <p className="mt-1 text-[13px] text-quiet">
        <CsvButton name={`${records.build.name} what breaks`} table={() => damageTable(seen)} /> Over the events that were run; spares do for one event in nine
        of ten, one breakage not leading to another.
      </p>
    </section>
  )
}
