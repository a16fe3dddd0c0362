import type { RecordsAnswer } from '@bold-ballast/contract'
import type { BookRule, ChangedSum, ClassChange, RuleChange, RulesAtStage } from '@bold-ballast/core'
import { needText } from '../../../shared/rules/rule-words.ts'
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

function Sum({ head, sum: { names, massKg, cost, hours }, currency }: { head: string; sum: ChangedSum; currency: string }) {
  const { text, format } = useQuantities()
  if (names.length === 0) return null
  const parts = [
    massKg ? text('mass', massKg, { sign: true }) : '',
    cost ? `${format('money', cost).number} ${currency}`.trim() : '',
    hours ? `${Number(hours.toFixed(1))} h` : '',
  ].filter((part) => part !== '')
  return (
    <p>
      <b>{head}:</b> {names.join(', ')}
      {parts.length > 0 && <span className="text-quiet"> ({parts.join(', ')})</span>}
    </p>
  )
}

/** What a book's rule on mass over power asks of the car: the least mass at its power, the most power at its mass. */
function Allowed({ book, made }: { book: Book; made: RulesAtStage }) {
  const { text } = useQuantities()
  const found = made.books.find(({ bookId }) => bookId === book.id)?.readings.find(({ leastMassKg }) => leastMassKg !== null)
  if (!found || found.leastMassKg === null || found.mostPowerW === null) return null
  return (
    <p>
      {book.name}: {text('mass', found.leastMassKg)} at least with the car’s power, {text('power', found.mostPowerW)} at most with its mass, as the rule counts.
    </p>
  )
}

/** The book that is shown against the one the stage races by: rule by rule, and which lines and parts become free or are lost. */
export function ClassChangeView({
  records,
  from,
  to,
  change,
  made,
}: {
  records: RecordsAnswer
  from: Book
  to: Book
  change: ClassChange
  made: RulesAtStage
}) {
  const { text } = useQuantities()
  const currency = records.build.money?.currency ?? ''
  const ruleOf = (book: Book, key: string): BookRule | undefined => book.rules.find((rule) => rule.key.toLowerCase() === key.toLowerCase())
  const standing = (book: Book, key: string) =>
    made.books.find(({ bookId }) => bookId === book.id)?.readings.find((reading) => reading.key.toLowerCase() === key.toLowerCase())
  return (
    <section>
      <h2 className="mb-1">
        From {from.name} to {to.name}
      </h2>
      <Sum head="Becomes free" sum={change.freedSum} currency={currency} />
      <Sum head="Is forbidden" sum={change.lostSum} currency={currency} />
      {[from, to].map((book) => (
        <Allowed key={book.id} book={book} made={made} />
      ))}
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
