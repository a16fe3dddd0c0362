import type { RecordsAnswer } from '@bold-ballast/contract'
import { type Decision, type DecisionView, formatChance } from '@bold-ballast/core'
import { useMemo } from 'react'
import { api } from '../../../data/api.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { JobsTabProps } from '../tab-props.ts'
import { decisionTable } from '../tables.ts'
import { decisionForm, optionForm, SOURCE_UNITS } from './decision-forms.ts'

type StoredDecision = RecordsAnswer['decisions'][number]
type Option = Decision['options'][number]

const NEW = 'new'

/** A number as short as its spread allows. */
const shortNumber = (value: number): string =>
  Math.abs(value) >= 100 ? value.toFixed(0) : Math.abs(value) >= 10 ? value.toFixed(1) : String(Number(value.toFixed(2)))

/** An option, new or as it is; the decision is written as a whole. */
function OptionPanel({ records, decision, option, onClose }: { records: RecordsAnswer; decision: StoredDecision; option: Option | null; onClose: () => void }) {
  const { units } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const form = useMemo(() => optionForm(records, decision), [records, decision])
  const write = (options: readonly unknown[], more: object = {}) =>
    patch({ buildId: records.build.id, resource: 'decisions', id: decision.id, body: { version: decision.version, options, ...more } as never }).unwrap()
  return (
    <Panel title={option ? 'Alter the option' : 'A new option'} onClose={onClose}>
      <RecordForm
        key={decision.version}
        draftKey={`${records.build.id}.option.${decision.id}.${option?.name ?? NEW}`}
        fields={form.specs()}
        defaults={form.defaults(option, units)}
        submitLabel={option ? 'Save the option' : 'Store the option'}
        toBody={(read) => {
          const body = form.body(read)
          return { options: option ? decision.options.map((each) => (each.name === option.name ? body : each)) : [...decision.options, body] }
        }}
        send={(body) => {
          const renamed =
            option && decision.chosen === option.name ? { chosen: ((body.options as readonly Option[])[decision.options.indexOf(option)] as Option).name } : {}
          return write(body.options as readonly unknown[], renamed)
        }}
        onDone={onClose}
      />
      {option && (
        <p className="mt-3">
          <button
            type="button"
            className="word-link"
            onClick={() =>
              void write(
                decision.options.filter((each) => each !== option),
                decision.chosen === option.name ? { chosen: null } : {},
              ).then(onClose)
            }
          >
            Take this option out
          </button>
        </p>
      )}
    </Panel>
  )
}

/** What weighing came to, in words. */
function Verdict({ decision, view, currency }: { decision: StoredDecision; view: DecisionView; currency: string }) {
  if (view.problem) return <Alert>{view.problem}</Alert>
  const { decided } = view
  if (!decided || decision.options.length < 2) return null
  if (!decided.best)
    return (
      <p className="text-quiet">
        {decision.criteria.some(({ price }) => price !== null)
          ? 'No total yet: a priced number is missing, or no option keeps every must.'
          : 'By musts and by who stands behind whom. Give a criterion a price, and totals stand here.'}
      </p>
    )
  return (
    <div>
      <p>
        <b>{decided.best}</b> comes out least
        {decided.beats.map(({ name, chance }) => `; ${formatChance(chance)} that it is really cheaper than ${name}`).join('')}.
      </p>
      {decided.turnsAt.length > 0 && (
        <p className="text-quiet">
          It turns: {decided.turnsAt.map(({ criterion, name, price }) => `${criterion} at ${shortNumber(price)} ${currency} (${name})`).join(', ')}.
        </p>
      )}
    </div>
  )
}

/** Options as columns, criteria as rows; what misses a must or is behind another everywhere is said in its head. */
function DecisionTable({
  decision,
  view,
  currency,
  alter,
  choose,
}: {
  decision: StoredDecision
  view: DecisionView
  currency: string
  alter: (name: string) => void
  choose: (name: string) => void
}) {
  const verdictOf = (name: string) => view.decided?.options.find((verdict) => verdict.name === name)
  const hasTotals = view.decided?.options.some(({ total }) => total !== null)
  return (
    <ScrollBox label={decision.question}>
      <table className="w-full border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line align-bottom">
            <th className="w-40 p-1.5" aria-label="Weighed by" />
            {decision.options.map(({ name }) => {
              const verdict = verdictOf(name)
              const isChosen = decision.chosen === name
              return (
                <th key={name} className={`min-w-36 p-1.5 text-left ${isChosen ? 'bg-picked' : ''}`}>
                  <button type="button" className="word-link text-left font-bold" onClick={() => alter(name)}>
                    {name}
                  </button>
                  <div className="text-xs font-normal">
                    {isChosen && <span className="font-bold">chosen </span>}
                    {verdict?.missesMust && <span className="text-wait">misses the must of {verdict.missesMust}</span>}
                    {!verdict?.missesMust && verdict?.dominatedBy && <span className="text-quiet">no better than {verdict.dominatedBy} anywhere</span>}
                  </div>
                </th>
              )
            })}
          </tr>
        </thead>
        <tbody>
          {decision.criteria.map(({ name, from, better, price, must }, i) => (
            <tr key={name} className="border-b border-line align-baseline">
              <td className="p-1.5">
                {name}
                <div className="text-xs text-quiet">
                  {better} is better{price === null ? '' : `, ${shortNumber(price)} ${currency} each`}
                  {must === null ? '' : `, must be ${better === 'less' ? 'at most' : 'at least'} ${shortNumber(must)}`}
                </div>
              </td>
              {decision.options.map((option, o) => {
                const cell = view.values[o]?.[i]
                const unit = from === 'cost' ? currency : SOURCE_UNITS[from]
                return (
                  <td key={option.name} className={`p-1.5 ${decision.chosen === option.name ? 'bg-picked' : ''}`}>
                    {cell?.number ? (
                      <>
                        {shortNumber(cell.number.value)} <span className="text-xs">{unit}</span>
                        {cell.number.sd > 0 && <span className="ml-1 text-xs text-quiet">± {shortNumber(cell.number.sd)}</span>}
                        {cell.isTyped && from !== 'typed' && <span className="ml-1 text-xs text-quiet">typed</span>}
                      </>
                    ) : (
                      <span className="text-quiet">nobody said</span>
                    )}
                  </td>
                )
              })}
            </tr>
          ))}
          {hasTotals && (
            <tr className="border-b border-line font-bold">
              <td className="p-1.5">In all</td>
              {decision.options.map(({ name }) => {
                const verdict = verdictOf(name)
                return (
                  <td
                    key={name}
                    className={`p-1.5 ${decision.chosen === name ? 'bg-picked' : ''} ${verdict?.missesMust || verdict?.dominatedBy ? 'font-normal text-quiet' : ''}`}
                  >
                    {verdict?.total === null || verdict?.total === undefined ? '' : `${verdict.total.toFixed(0)} ${currency}`}
                    {verdict?.sd ? <span className="ml-1 text-xs font-normal text-quiet">± {verdict.sd.toFixed(0)}</span> : null}
                  </td>
                )
              })}
            </tr>
          )}
          <tr className="no-print">
            <td />
            {decision.options.map(({ name }) => (
              <td key={name} className="p-1.5">
                <button type="button" className="word-link" onClick={() => choose(name)}>
                  {decision.chosen === name ? 'Not this one after all' : 'Choose it'}
                </button>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </ScrollBox>
  )
}

/** Questions that are weighed: musts, prices where somebody types them, what was chosen and why. */
export function DecisionsTab({ records, room, stageId }: JobsTabProps) {
  const buildId = records.build.id
  const { get, set } = useAddress()
  const [patch] = api.usePatchRecordMutation()
  const form = useMemo(() => decisionForm(records), [records])
  const currency = records.build.money?.currency ?? ''
  const picked =
    records.decisions.find(({ id }) => id === get('decision')) ?? records.decisions.find(({ chosen }) => chosen === null) ?? records.decisions[0] ?? null
  const view = room.decisions.find(({ id }) => id === picked?.id) ?? null
  const asked = get('do')
  const close = () => set({ do: '', option: '' })
  const option = picked?.options.find(({ name }) => name === get('option')) ?? null
  const choose = (name: string) => {
    if (!picked) return
    const isOff = picked.chosen === name
    const body = { version: picked.version, chosen: isOff ? null : name, decidedOn: isOff ? null : room.today }
    void patch({ buildId, resource: 'decisions', id: picked.id, body: body as never })
  }
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      {records.decisions.length === 0 ? (
        <Empty
          title="Nothing is being weighed"
          why="Where to put the cooler, which gearbox, half a cage or a full one: what it is weighed by, what was chosen and why stays here."
        >
          <button type="button" className="button" onClick={() => set({ do: 'decision' })}>
            Ask a question
          </button>
        </Empty>
      ) : (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <select aria-label="Question" value={picked?.id ?? ''} onChange={(event) => set({ decision: event.target.value })}>
            {records.decisions.map(({ id, question, chosen }) => (
              <option key={id} value={id}>
                {question}
                {chosen === null ? '' : ` (${chosen})`}
              </option>
            ))}
          </select>
          <button type="button" className="word-link no-print" onClick={() => set({ do: 'decision' })}>
            Ask another question
          </button>
        </div>
      )}
      {picked && view && (
        <section className="grid grid-cols-[minmax(0,1fr)] gap-3">
          <div>
            <h2>{picked.question}</h2>
            <p className="text-quiet">
              For stage {room.stages.find(({ id }) => id === picked.stageId)?.position}
              {picked.dueOn ? `, to be decided by ${dayText(picked.dueOn)}` : ''}
              {picked.decidedOn ? `, decided ${dayText(picked.decidedOn)}` : ''}.
              {room.paidPerKg !== null && ` A kilogram has cost this build ${shortNumber(room.paidPerKg)} ${currency} so far.`}
            </p>
          </div>
          <Verdict decision={picked} view={view} currency={currency} />
          {picked.options.length > 0 && (
            <DecisionTable decision={picked} view={view} currency={currency} alter={(name) => set({ option: name })} choose={choose} />
          )}
          {picked.chosen && (
            <p>
              <b>{picked.chosen}</b>: {picked.reason ?? 'nobody wrote down why yet.'}{' '}
              {picked.revisit && <span className="text-quiet">To be opened again: {picked.revisit}</span>}
            </p>
          )}
          <div className="no-print flex flex-wrap gap-3">
            <button type="button" className="button" onClick={() => set({ do: 'option' })}>
              A new option
            </button>
            <button type="button" className="word-link" onClick={() => set({ do: 'alter' })}>
              Alter the question
            </button>
            <CsvButton name={`${records.build.name} decision`} table={() => decisionTable(picked, view)} />
          </div>
        </section>
      )}
      {asked === 'decision' && (
        <KindPanel buildId={buildId} resource="decisions" word="decision" form={form} begins={{ stageId }} record={null} onClose={close} />
      )}
      {asked === 'alter' && picked && <KindPanel buildId={buildId} resource="decisions" word="decision" form={form} record={picked} onClose={close} />}
      {picked && (asked === 'option' || option) && <OptionPanel records={records} decision={picked} option={option} onClose={close} />}
    </div>
  )
}
