import type { RecordsAnswer } from '@bold-ballast/contract'
import { marksByCheck, minutesOf } from '@bold-ballast/core'
import { useMemo } from 'react'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { dayText } from '../../../ui/words.ts'
import { aboutWords, KIND_WORDS, RESULT_WORDS, ROUND_WORDS } from '../check-words.ts'
import { ChecksPaste } from './checks-paste.tsx'

/** Every check of the build, with its last mark. */
export function AllChecks({ records, alter }: { records: RecordsAnswer; alter: (id: string) => void }) {
  const marks = useMemo(() => marksByCheck(records.marks as never), [records.marks])
  return (
    <details className="no-print mt-2">
      <summary className="cursor-pointer font-semibold">All {records.checks.length} checks</summary>
      <ScrollBox label="All checks">
        <table className="mt-2 w-full border-collapse">
          <thead>
            <tr>
              <th className="text-left">Check</th>
              <th className="pl-3 text-left">Kind</th>
              <th className="pl-3 text-left">Rounds</th>
              <th className="pl-3 text-right">Takes</th>
              <th className="pl-3 text-left">Last</th>
            </tr>
          </thead>
          <tbody>
            {records.checks.map((check) => {
              const last = marks.get(check.id)?.[0]
              const about = aboutWords(check)
              return (
                <tr key={check.id} className="border-t border-line align-baseline">
                  <td className="py-1">
                    <button type="button" className="word-link text-left" onClick={() => alter(check.id)}>
                      {check.name}
                    </button>
                    {about && <span className="text-quiet">, {about}</span>}
                  </td>
                  <td className="py-1 pl-3">{KIND_WORDS[check.kind]}</td>
                  <td className="py-1 pl-3 text-quiet">{check.rounds.map((round) => ROUND_WORDS[round].toLowerCase()).join(', ')}</td>
                  <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">{Number(minutesOf(check).toFixed(1))} min</td>
                  <td className="py-1 pl-3 whitespace-nowrap">{last ? `${RESULT_WORDS[last.result]}, ${dayText(last.at)}` : 'never'}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </ScrollBox>
      <ChecksPaste records={records} />
    </details>
  )
}
