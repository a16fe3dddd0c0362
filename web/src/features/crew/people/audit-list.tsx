import { useState } from 'react'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { timeText } from '../../../ui/words.ts'

/** What was done about who may do what: signed in, refused, invited, lowered; kept for 400 days. */
export function AuditList({ garageId }: { garageId: string }) {
  const [before, setBefore] = useState<number | undefined>(undefined)
  const { data } = crewApi.useAuditQuery({ garageId, ...(before === undefined ? {} : { before }) })
  if (!data) return null
  const table = () => ({
    head: ['At', 'Who', 'What', 'About', 'Build', 'From', 'Outcome'],
    rows: data.entries.map(({ at, person, action, subject, build, address, outcome }) => [at, person, action, subject, build, address, outcome]),
  })
  return (
    <section aria-labelledby="audit">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h2 id="audit">What was done about it</h2>
        <CsvButton name="audit" table={table} />
      </div>
      <ScrollBox label="What was done about who may do what">
        <table className="lined w-full">
          <thead>
            <tr>
              <th>At</th>
              <th>Who</th>
              <th>What</th>
              <th>From</th>
            </tr>
          </thead>
          <tbody>
            {data.entries.map(({ id, at, person, action, subject, build, address, outcome }) => (
              <tr key={id}>
                <td className="whitespace-nowrap">{timeText(at)}</td>
                <td>{person}</td>
                <td className={outcome === 'refused' ? 'text-wait' : ''}>
                  {action}
                  {subject === person ? '' : `: ${subject}`}
                  {build && !subject.includes(build) ? ` (${build})` : ''}
                </td>
                <td className="text-quiet">{address ?? 'terminal'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
      <p className="no-print mt-2 flex gap-3">
        {before !== undefined && (
          <button type="button" className="button" onClick={() => setBefore(undefined)}>
            Latest
          </button>
        )}
        {data.nextBefore !== null && (
          <button type="button" className="button" onClick={() => setBefore(data.nextBefore ?? undefined)}>
            Earlier
          </button>
        )}
      </p>
    </section>
  )
}
