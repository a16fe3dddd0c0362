import type { RecordsAnswer } from '@bold-ballast/contract'
import { workedHours } from '@bold-ballast/core'
import { dayText } from '../../../ui/words.ts'
import { hoursText } from '../road-words.ts'

/** Jobs that are done or dropped, the last first: what was guessed, what it took. */
export function DoneJobs({ records, alter }: { records: RecordsAnswer; alter: (id: string) => void }) {
  const done = records.tasks.filter(({ state }) => state === 'done' || state === 'dropped').sort((a, b) => ((a.doneAt ?? '') < (b.doneAt ?? '') ? 1 : -1))
  if (done.length === 0) return null
  return (
    <details className="no-print">
      <summary className="cursor-pointer font-semibold">
        {done.length} {done.length === 1 ? 'job' : 'jobs'} done
      </summary>
      <table className="mt-1 w-full border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line text-left text-[13px]">
            <th className="p-1">Job</th>
            <th className="p-1 text-right">Guessed</th>
            <th className="p-1 text-right">Took</th>
            <th className="p-1 text-right">Times</th>
            <th className="p-1 text-right">Done</th>
          </tr>
        </thead>
        <tbody>
          {done.map((task) => {
            const isWork = task.kind === 'work'
            const [guess, real] = isWork ? [task.guessH, workedHours(task)] : [task.guessDays, task.realDays]
            const unit = (amount: number | null) => (amount === null || amount === 0 ? '' : isWork ? hoursText(amount) : `${Number(amount.toFixed(1))} d`)
            return (
              <tr key={task.id} className="border-b border-line">
                <td className="p-1">
                  <button type="button" className="word-link text-left" onClick={() => alter(task.id)}>
                    {task.name}
                  </button>
                  {task.state === 'dropped' && <span className="ml-2 text-quiet">dropped</span>}
                </td>
                <td className="p-1 text-right">{unit(guess)}</td>
                <td className="p-1 text-right">{unit(real)}</td>
                <td className="p-1 text-right">{guess && real && task.teaches ? (real / guess).toFixed(2) : ''}</td>
                <td className="p-1 text-right whitespace-nowrap">{task.doneAt ? dayText(task.doneAt) : ''}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </details>
  )
}
