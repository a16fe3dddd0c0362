import type { StoredRecords } from '@bold-ballast/contract'
import { type TyresForEvents, tyresForEvents } from '@bold-ballast/core'
import { useMemo } from 'react'
import { localDay } from '../../../data/local-day.ts'
import { moneyText } from '../../../shared/part-words.ts'
import { dayText } from '../../../ui/words.ts'

const count = (value: number): string => (value >= 10 ? value.toFixed(0) : value.toFixed(1))

/** "2.6 runs a set, by the pairs that were counted; typed: 22 runs". */
function lifeWords({ life, part, perDay }: TyresForEvents): string {
  if (!life) return ''
  const by = { pairsUsed: 'by the pairs that were counted', wornOut: 'by those that wore out', given: 'as typed' }[life.from]
  const typed = life.from !== 'given' && part.life ? `; typed: ${count(part.life.amount)} ${part.life.unit}` : ''
  return `${count(life.amount)} ${life.unit} a set ${by}${typed}${perDay === null ? '' : `; ${count(perDay)} ${life.unit} on a day as driven`}`
}

/** What the coming events take of the tyres that are on the car, and what that costs. */
export function EventTyres({ records, position }: { records: StoredRecords; position: number }) {
  const today = localDay()
  const tyres = useMemo(() => tyresForEvents(records, position, today), [records, position, today])
  if (tyres.length === 0) return null
  return (
    <section className="mt-4 border-t border-line pt-3">
      <h2>Tyres for the events ahead</h2>
      {tyres.map((each) => (
        <div key={each.part.id} className="mt-2">
          <p>
            <b>{each.part.name}</b> <span className="text-quiet">{each.reason ?? lifeWords(each)}</span>
          </p>
          {each.events.length > 0 && (
            <div className="overflow-x-auto">
              <table className="w-full max-w-xl tabular-nums">
                <thead>
                  <tr className="text-[13px] text-quiet">
                    <th className="text-left">Event</th>
                    <th className="pl-4 text-right">{each.life?.unit}</th>
                    <th className="pl-4 text-right">Sets, mean</th>
                    <th className="pl-4 text-right">Take, 9 in 10</th>
                    <th className="pl-4 text-right">Cost, mean</th>
                  </tr>
                </thead>
                <tbody>
                  {each.events.map(({ event, takes, mean, sets, cost }) => (
                    <tr key={event.id} className="border-t border-line">
                      <th scope="row" className="py-0.5 text-left font-normal">
                        {event.name} <span className="text-quiet">{dayText(event.startsOn)}</span>
                      </th>
                      <td className="text-right">{count(takes)}</td>
                      <td className="text-right">{count(mean)}</td>
                      <td className="text-right font-semibold">{sets}</td>
                      <td className="text-right">{cost === null ? <span className="text-quiet">no price</span> : moneyText(cost)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </div>
      ))}
      <p className="mt-1 text-[13px] text-quiet">Lives differ by 30 % where nobody knows better (common practice, no source).</p>
    </section>
  )
}
