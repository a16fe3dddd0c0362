import type { RecordsAnswer } from '@bold-ballast/contract'
import { type BookChange, type BookRule, isMeasured, type RuleChange, type RulesAtStage } from '@bold-ballast/core'
import { needText } from '../../../shared/rule-words.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'

type Book = RecordsAnswer['ruleBooks'][number]

const CHANGE_WORDS: Readonly<Record<RuleChange, string>> = {
  freed: 'freed',
  gone: 'gone',
  new: 'new',
  tighter: 'tighter',
  looser: 'looser',
  same: 'the same',
  other: 'put otherwise',
}
const TONE: Readonly<Record<RuleChange, string>> = {
  freed: 'font-bold text-pine',
  looser: 'font-semibold text-pine',
  gone: 'font-semibold',
  new: 'font-bold text-wait',
  tighter: 'font-bold text-wait',
  other: 'font-semibold',
  same: 'text-quiet',
}

/** What some lines and parts come to: kilograms with their sign, money and hours. */
function sumOf(ids: readonly string[], { changes, parts }: RecordsAnswer): { names: string[]; kg: number; cost: number; hours: number } {
  let [kg, cost, hours] = [0, 0, 0]
  const names: string[] = []
  for (const id of ids) {
    const line = changes.find((each) => each.id === id)
    const part = parts.find((each) => each.id === id)
    if (line) {
      const value = line.values.findLast(({ proof }) => isMeasured(proof)) ?? line.values.at(-1)
      kg += (line.kind === 'off' ? -1 : 1) * (value?.massKg ?? 0) * line.count
      cost += line.cost ?? 0
      hours += line.hours ?? 0
      names.push(line.name)
    } else if (part) {
      kg += (part.mass?.massKg ?? 0) * part.count
      cost += part.cost ?? 0
      names.push(part.name)
    }
  }
  return { names, kg, cost, hours }
}

function Sum({ head, ids, records }: { head: string; ids: readonly string[]; records: RecordsAnswer }) {
  const { text, format } = useQuantities()
  if (ids.length === 0) return null
  const { names, kg, cost, hours } = sumOf(ids, records)
  const parts = [
    kg === 0 ? '' : text('mass', kg, { sign: true }),
    cost === 0 ? '' : `${format('money', cost).number} ${records.build.money?.currency ?? ''}`.trim(),
    hours === 0 ? '' : `${Number(hours.toFixed(1))} h`,
  ].filter((part) => part !== '')
  return (
    <p>
      <b>{head}:</b> {names.join(', ')}
      {parts.length > 0 && <span className="text-quiet"> ({parts.join(', ')})</span>}
    </p>
  )
}

/** The book that is shown against the one the stage races by: rule by rule, and which lines and parts become free or are lost. */
export function ClassChangeView({ records, from, to, change, made }: { records: RecordsAnswer; from: Book; to: Book; change: BookChange; made: RulesAtStage }) {
  const { text } = useQuantities()
  const ruleOf = (book: Book, key: string): BookRule | undefined => book.rules.find((rule) => rule.key.toLowerCase() === key.toLowerCase())
  const standing = (book: Book, key: string) =>
    made.books.find(({ bookId }) => bookId === book.id)?.readings.find((reading) => reading.key.toLowerCase() === key.toLowerCase())
  return (
    <section>
      <h2 className="mb-1">
        From {from.name} to {to.name}
      </h2>
      <Sum head="Becomes free" ids={change.freed} records={records} />
      <Sum head="Is forbidden" ids={change.lost} records={records} />
      <ScrollBox label={`From ${from.name} to ${to.name}`}>
        <table className="mt-1 w-full min-w-[560px] border-collapse tabular-nums">
          <thead>
            <tr className="border-b border-line text-left text-[13px]">
              <th className="p-1">Rule</th>
              <th className="p-1">Becomes</th>
              <th className="p-1">{from.name}</th>
              <th className="p-1">{to.name}</th>
            </tr>
          </thead>
          <tbody>
            {change.rules.map(({ key, change: word }) => {
              const [before, after] = [ruleOf(from, key), ruleOf(to, key)]
              const cell = (book: Book, rule: BookRule | undefined) => {
                const word = standing(book, key)?.word
                return rule ? `${needText(rule, text)}${word && word !== 'to be kept' ? `, ${word}` : ''}` : ''
              }
              return (
                <tr key={key} className="border-b border-line align-baseline">
                  <td className="p-1">{(after ?? before)?.text}</td>
                  <td className={`p-1 whitespace-nowrap ${TONE[word]}`}>{CHANGE_WORDS[word]}</td>
                  <td className="p-1">{cell(from, before)}</td>
                  <td className="p-1">{cell(to, after)}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </ScrollBox>
    </section>
  )
}
