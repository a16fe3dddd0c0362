import type { RecordsAnswer } from '@bold-ballast/contract'
import { type BookRule, formatChance, METRIC_INFO, type RuleStanding, type RulesAtStage, ruleBookKind, techSheet } from '@bold-ballast/core'
import { useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useBuild } from '../../../data/use-build.ts'
import { plainText } from '../../../shared/fields/own-fields.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { basisText, marginText, needText } from '../../../shared/rules/rule-words.ts'
import { rulesTable } from '../../../shared/rules/rules-table.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { FileField } from '../../../ui/files/file-field.tsx'
import { saveFile } from '../../../ui/files/save-file.ts'
import { field, makeForm } from '../../../ui/forms/form-fields.ts'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Caution, Empty, LoadError, Loading } from '../../../ui/states.tsx'
import { bookFile, readBookFile } from './book-file.ts'
import { ClassChangeView } from './class-change.tsx'
import { ruleForm } from './rule-form.ts'
import { SharedBooks } from './shared-books.tsx'

type Book = RecordsAnswer['ruleBooks'][number]

const bookForm = makeForm(ruleBookKind.fields, [
  field('name', 'text', { label: 'Class' }),
  field('edition', plainText('edition'), { label: 'Edition', hint: 'Such as 2027.' }),
  field('isShared', 'checkbox', { label: 'Other builds of the garage may take a copy' }),
])

/** How a verdict is marked: what breaks or would break stands out. */
const toneOf = (word: RuleStanding['word']): string =>
  word === 'breaks' ? 'font-bold text-danger' : word === 'would break' ? 'font-bold text-wait' : word === 'holds' ? 'font-semibold' : 'text-quiet'

function RuleTable({ book, standings, stageId, alter }: { book: Book; standings: readonly RuleStanding[]; stageId: string; alter: (key: string) => void }) {
  const { text } = useQuantities()
  return (
    <ScrollBox label={`Rules of ${book.name}`}>
      <table className="w-full min-w-[680px] border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line text-left text-[13px]">
            <th className="p-1">Rule</th>
            <th className="p-1">Where</th>
            <th className="p-1">Asks</th>
            <th className="p-1 text-right">The car</th>
            <th className="p-1 pl-4">Verdict</th>
            <th className="p-1">In hand</th>
          </tr>
        </thead>
        <tbody>
          {book.rules.map((rule) => {
            const own = standings.find(({ key }) => key === rule.key)
            const basis = basisText(rule, text)
            return (
              <tr key={rule.key} className="border-b border-line align-baseline">
                <td className="max-w-[260px] p-1">
                  <button type="button" className="word-link text-left font-semibold" onClick={() => alter(rule.key)}>
                    {rule.text}
                  </button>
                  {basis && <div className="text-[13px] text-quiet">{basis}</div>}
                  {rule.unread && <div className="text-[13px] text-wait">Not known here; kept as it was, judged by nobody.</div>}
                </td>
                <td className="p-1 text-[13px] text-quiet">{rule.from}</td>
                <td className="p-1 whitespace-nowrap">
                  {needText(rule, text)}
                  {own?.typedLimit != null && rule.metric && (
                    <div className="text-[13px] whitespace-normal text-wait">
                      typed as {text(METRIC_INFO[rule.metric].kind, own.typedLimit, { isGoal: true })} among the goals: the stricter holds
                    </div>
                  )}
                </td>
                <td className="p-1 text-right">
                  {own?.value !== null && own?.value !== undefined && rule.metric && (
                    <Figure
                      kind={METRIC_INFO[rule.metric].kind}
                      value={own.value}
                      sd={own.sd ?? undefined}
                      proof={own.proof ?? undefined}
                      {...(rule.metric === 'ruleRatio' ? { working: { of: 'ruleRatio' as const, id: stageId } } : {})}
                    />
                  )}
                </td>
                <td className={`p-1 pl-4 whitespace-nowrap ${own ? toneOf(own.word) : ''}`}>
                  {own?.word}
                  {own?.chance !== null && own?.chance !== undefined && own.word.startsWith('would') ? `, ${formatChance(own.chance)}` : ''}
                </td>
                <td className="p-1 text-[13px]">{own?.problem ?? (own ? marginText(own, text) : '')}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}

/** A rule, new or as it is; the book is written as a whole. */
function RulePanel({ records, book, rule, onClose }: { records: RecordsAnswer; book: Book; rule: BookRule | null; onClose: () => void }) {
  const { units } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const form = useMemo(() => ruleForm(records), [records])
  const write = (rules: readonly unknown[]) =>
    patch({ buildId: records.build.id, resource: 'rule-books', id: book.id, body: { version: book.version, rules } as never }).unwrap()
  const begins: FormValues = rule ? {} : { sense: 'atLeast', metric: 'massReady' }
  return (
    <Panel title={rule ? 'Alter the rule' : 'A new rule'} onClose={onClose}>
      <RecordForm
        key={`${book.version} ${rule?.key ?? ''}`}
        draftKey={`${records.build.id}.rule.${book.id}.${rule?.key ?? 'new'}`}
        fields={form.specs()}
        defaults={{ ...form.defaults(rule, units), ...begins }}
        submitLabel={rule ? 'Save the rule' : 'Store the rule'}
        toBody={(read) => {
          const body = form.body(read) as unknown as BookRule
          const next = { ...body, unread: rule?.unread ?? null }
          return { rules: rule ? book.rules.map((each) => (each.key === rule.key ? next : each)) : [...book.rules, next] }
        }}
        send={(body) => write(body.rules as readonly unknown[])}
        onDone={onClose}
      />
      {rule && (
        <p className="mt-3">
          <button type="button" className="word-link" onClick={() => void write(book.rules.filter(({ key }) => key !== rule.key)).then(onClose)}>
            Take this rule out
          </button>
        </p>
      )}
    </Panel>
  )
}

/** A book out of a file of our own format. */
function useBookImport(buildId: string, open: (id: string) => void) {
  const [create] = api.useCreateRecordMutation()
  const [said, setSaid] = useState<string | null>(null)
  const take = async (file: File) => {
    try {
      const { name, edition, rules, unknown } = readBookFile(await file.text())
      const id = crypto.randomUUID()
      const answer = await create({ buildId, resource: 'rule-books', body: { id, name, edition, rules } })
      if (answer.error) return setSaid(readFailure(answer.error).message)
      open(id)
      setSaid(
        `${name} has ${rules.length} rules.${unknown > 0 ? ` ${unknown} of them ${unknown === 1 ? 'is' : 'are'} of a kind that is not known here: kept in words, judged by nobody.` : ''}`,
      )
    } catch {
      setSaid(`${file.name} is no rule book of this program. Save one from its Rules tab, or type the rules.`)
    }
  }
  return { take, said }
}

/** The class's numbers with their page, held against the car of the picked stage; and what another class would change. */
export function RulesTab({ records, buildId }: { records: RecordsAnswer; buildId: string }) {
  const { get, set } = useAddress()
  const { position, stage } = useBuild()
  const { units } = useQuantities()
  const answer = api.useRulesQuery(buildId)
  const [patch] = api.usePatchRecordMutation()
  const file = useRef<HTMLInputElement>(null)
  const { take, said } = useBookImport(buildId, (id) => set({ book: id }))
  const made: RulesAtStage | undefined = answer.data?.stages[position]
  const book = records.ruleBooks.find(({ id }) => id === get('book')) ?? records.ruleBooks.find(({ id }) => id === made?.bookId) ?? records.ruleBooks[0] ?? null
  const own = records.stages.find(({ id }) => id === stage?.id)
  if (answer.error && !answer.data) return <LoadError error={answer.error} retry={() => void answer.refetch()} />
  if (!made || !own || !stage) return <Loading what="the rules" />
  const standings = made.books.find(({ bookId }) => bookId === book?.id)?.readings ?? []
  const sheet = book && answer.data ? techSheet(records, answer.data, book.id, position) : undefined
  const asked = get('do')
  const close = () => set({ do: '', rule: '' })
  const rule = book?.rules.find(({ key }) => key === get('rule')) ?? null
  const change = made.changes.find(({ bookId }) => bookId === book?.id) ?? null
  const racesBy = records.ruleBooks.find(({ id }) => id === made.bookId) ?? null
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      {said && <Alert>{said}</Alert>}
      <FileField field={file} accept=".json,application/json" label="A rule book as a file" take={(picked) => void take(picked)} />
      {records.ruleBooks.length === 0 ? (
        <Empty title="No rule book yet" why="Type the class’s numbers with their page.">
          <span className="flex flex-wrap gap-3">
            <button type="button" className="button" onClick={() => set({ do: 'book' })}>
              Begin a rule book
            </button>
            <button type="button" className="word-link" onClick={() => file.current?.click()}>
              Read one from a file
            </button>
            <SharedBooks records={records} open={(id) => set({ book: id })} />
          </span>
        </Empty>
      ) : (
        <>
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
            <label className="flex items-center gap-2">
              Stage {position} races by
              <select
                value={own.ruleBookId ?? ''}
                onChange={(event) =>
                  void patch({ buildId, resource: 'stages', id: own.id, body: { version: own.version, ruleBookId: event.target.value || null } as never })
                }
              >
                <option value="">{position === 0 || !made.bookId || own.ruleBookId ? 'no book of its own' : `${racesBy?.name}, as the stage before`}</option>
                {records.ruleBooks.map(({ id, name, edition }) => (
                  <option key={id} value={id}>
                    {name} {edition}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2">
              Show
              <select value={book?.id ?? ''} onChange={(event) => set({ book: event.target.value })}>
                {records.ruleBooks.map(({ id, name, edition }) => (
                  <option key={id} value={id}>
                    {name} {edition}
                  </option>
                ))}
              </select>
            </label>
            <span className="no-print flex flex-wrap gap-3">
              <button type="button" className="button" onClick={() => set({ do: 'rule' })}>
                A new rule
              </button>
              <button type="button" className="word-link" onClick={() => set({ do: 'alter-book' })}>
                Alter the book
              </button>
              <button type="button" className="word-link" onClick={() => set({ do: 'book' })}>
                A new book
              </button>
              <button type="button" className="word-link" onClick={() => book && saveFile(book.name, 'json', 'application/json', bookFile(book))}>
                As a file
              </button>
              {sheet && <CsvButton name={`${sheet.book.name} rules`} table={() => rulesTable(sheet, units)} />}
              <button type="button" className="word-link" onClick={() => file.current?.click()}>
                From a file
              </button>
            </span>
          </div>
          {book && book.rules.length > 0 && <RuleTable book={book} standings={standings} stageId={own.id} alter={(key) => set({ rule: key })} />}
          {book && book.rules.length === 0 && <p className="text-quiet">This book has no rule yet: type the class’s numbers with their page.</p>}
          {book && change && racesBy && <ClassChangeView records={records} from={racesBy} to={book} change={change} made={made} />}
          <SharedBooks records={records} open={(id) => set({ book: id })} />
          <Caution>These are your notes of a book. What the organiser’s book says counts, and the scrutineer decides.</Caution>
        </>
      )}
      {asked === 'book' && <KindPanel buildId={buildId} resource="rule-books" word="rule book" form={bookForm} record={null} onClose={close} />}
      {asked === 'alter-book' && book && <KindPanel buildId={buildId} resource="rule-books" word="rule book" form={bookForm} record={book} onClose={close} />}
      {book && (asked === 'rule' || rule) && <RulePanel records={records} book={book} rule={rule} onClose={close} />}
    </div>
  )
}
