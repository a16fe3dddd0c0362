import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { BoxVerdict } from '../verdicts.ts'

/** What the rules allow, what stands, what is left; and the other notches that would break it or cure it. */
export function RuleTable({ verdicts }: { verdicts: readonly BoxVerdict[] }) {
  const { format, text } = useQuantities()
  const number = ({ limit: { metric } }: BoxVerdict, value: number): string => {
    if (metric === 'wingElements') return String(value)
    return metric === 'noise' ? text('sound', value) : format('length', value).number
  }
  return (
    <ScrollBox label="The rule box">
      <table className="w-full">
        <thead>
          <tr className="text-xs text-quiet">
            <th className="text-left font-normal">The rules, {format('length', 1).unit}</th>
            <th className="text-right font-normal">allowed</th>
            <th className="text-right font-normal">stands</th>
            <th className="text-right font-normal">left</th>
            <th className="pl-4 text-left font-normal">by</th>
            <th className="pl-4 text-left font-normal">other notches</th>
          </tr>
        </thead>
        <tbody>
          {verdicts.map((verdict) => (
            <tr key={verdict.limit.id} className="border-t border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {verdict.word}
              </th>
              <td className="py-1 text-right tabular-nums">
                {verdict.limit.sense === 'atMost' ? '≤' : '≥'} {number(verdict, verdict.limit.value)}
              </td>
              <td className="py-1 text-right tabular-nums">
                {number(verdict, verdict.value)} <Plates proof={verdict.isTaped ? 'measured' : 'calculated'} />
              </td>
              <td className={`py-1 text-right font-semibold tabular-nums ${verdict.margin < 0 ? 'text-danger' : ''}`}>{number(verdict, verdict.margin)}</td>
              <td className="py-1 pl-4 text-quiet">{verdict.name ?? ''}</td>
              <td className="py-1 pl-4 text-quiet">
                {verdict.others.length === 0
                  ? ''
                  : `${verdict.others[0]?.breaks ? 'would break it' : 'would hold'}: ${verdict.others.map(({ device, notch }) => `${device}, ${notch}`).join('; ')}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  )
}
