import type { Gate, ReadingAhead } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { ChecksTabProps } from '../tab-props.ts'

type Plan = ChecksTabProps['records']['trackPlans'][number]

const SO: Readonly<Record<ReadingAhead['word'], { readonly word: string; readonly tone: string }>> = {
  go: { word: 'goes', tone: 'text-pine' },
  watch: { word: 'watch', tone: 'text-wait' },
  again: { word: 'again', tone: 'text-wait' },
  no: { word: 'stop', tone: 'text-danger' },
  missing: { word: 'not read', tone: 'text-wait' },
}

/** Readings against their limits: each step, what comes next, and so. */
export function Readings({ plan, gate }: { plan: Plan; gate: Gate }) {
  const { format, text } = useQuantities()
  const shown = plan.steps.flatMap((step, index) => (gate.readings.some(({ values }) => values[index] !== null) ? [{ step, index }] : []))
  return (
    <ScrollBox label="Readings against their limits">
      <table className="w-full border-collapse">
        <thead>
          <tr>
            <th className="text-left">Reading, highest of the step</th>
            <th className="pl-2 text-left" />
            {shown.map(({ step, index }) => (
              <th key={index} className="pl-3 text-right">
                {step.kind === 'bed' ? 'Bed' : `${Math.round(100 * (step.share ?? 1))} %`}
              </th>
            ))}
            {gate.nextPace !== null && <th className="pl-3 text-right">{gate.nextPace === 1 ? 'Full' : `${Math.round(100 * gate.nextPace)} %`}, expected</th>}
            <th className="pl-3 text-right">Warns</th>
            <th className="pl-3 text-right">Stops</th>
            <th className="pl-3 text-left">So</th>
          </tr>
        </thead>
        <tbody>
          {gate.readings.map(({ check, values, next, nextSd, word }) => {
            const { quantity, warnHigh, warnLow, stopHigh, stopLow } = check.reading
            const limit = (high: number | null, low: number | null) =>
              high !== null ? `over ${format(quantity, high).number}` : low !== null ? `under ${format(quantity, low).number}` : '–'
            const ahead = next === null ? null : format(quantity, next, { sd: nextSd ?? undefined })
            return (
              <tr key={check.id} className={`border-t border-line align-baseline ${word === 'again' || word === 'no' ? 'bg-picked' : ''}`}>
                <td className="py-1.5 font-semibold">{check.name}</td>
                <td className="py-1.5 pl-2 text-quiet">{text(quantity, 0).replace(/^[^\s\u00a0]*[\s\u00a0]?/, '')}</td>
                {shown.map(({ index }) => {
                  const value = values[index]
                  return (
                    <td key={index} className={`py-1.5 pl-3 text-right tabular-nums ${index === gate.step ? 'font-bold' : ''}`}>
                      {value === null || value === undefined ? '–' : format(quantity, value).number}
                    </td>
                  )
                })}
                {gate.nextPace !== null && (
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums text-planned-text">{ahead ? `${ahead.number} ${ahead.spread}` : '–'}</td>
                )}
                <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums text-quiet">{limit(warnHigh, warnLow)}</td>
                <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{limit(stopHigh, stopLow).replace(/^(over|under) /, '')}</td>
                <td className={`py-1.5 pl-3 font-semibold ${SO[word].tone}`}>{SO[word].word}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}
