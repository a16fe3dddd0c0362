import { type CostItem, formatChance, type StageMoney } from '@bold-ballast/core'
import { useMemo } from 'react'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import type { JobsTabProps } from '../tab-props.ts'
import { moneyForm } from './money-form.ts'
import { WorthTable } from './worth-table.tsx'

const PROOF_OF = { paid: 'measured', catalogue: 'catalogue', guess: 'guess' } as const
const LIST_WORDS = { parts: 'part', changes: 'ledger line', tasks: 'job', events: 'event' } as const

/** Paid, planned and what it will come to at each stage, along one scale with the budget as a wall. */
function MoneyBars({
  money,
  budget,
  position,
  text,
}: {
  money: readonly StageMoney[]
  budget: number | null
  position: number
  text: (value: number) => string
}) {
  const most = Math.max(1, budget ?? 0, ...money.map(({ highValue }) => highValue)) * 1.04
  const share = (value: number) => `${(100 * Math.max(0, value)) / most}%`
  return (
    <svg
      width="100%"
      height={money.length * 30 + 22}
      role="img"
      aria-label="Money to each stage: paid, planned, and the doubt; the table tells the numbers."
      className="block"
    >
      <defs>
        <pattern id="money-doubt" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="5" stroke="var(--planned)" strokeWidth="2" />
        </pattern>
      </defs>
      {money.map(({ position: at, paid, lowValue, highValue, mean }) => {
        const y = at * 30 + 6
        return (
          <g key={at}>
            {at === position && <rect x="0" y={y - 5} width="100%" height="28" fill="var(--picked)" />}
            <rect x="0" y={y} width={share(paid)} height="18" fill="var(--pine)" />
            {lowValue > paid && (
              <rect x={share(paid)} y={y} width={share(lowValue - paid)} height="18" fill="var(--wash)" stroke="var(--edge)" strokeWidth="0.5" />
            )}
            {highValue > lowValue && (
              <rect
                x={share(lowValue)}
                y={y}
                width={share(highValue - lowValue)}
                height="18"
                fill="url(#money-doubt)"
                stroke="var(--planned)"
                strokeWidth="0.5"
              />
            )}
            <line x1={share(mean)} x2={share(mean)} y1={y - 2} y2={y + 20} stroke="var(--ink)" strokeWidth="2" />
          </g>
        )
      })}
      {budget !== null && (
        <>
          <line x1={share(budget)} x2={share(budget)} y1="0" y2={money.length * 30} stroke="var(--ink)" strokeWidth="3" />
          <text x={share(budget)} y={money.length * 30 + 16} textAnchor="end" fontSize="12" fill="var(--ink)">
            budget {text(budget)}
          </text>
        </>
      )}
    </svg>
  )
}

/** What the build has cost, what it will have cost at each stage, and the chance of staying within the budget. */
export function MoneyTab({ records, room, position }: JobsTabProps) {
  const buildId = records.build.id
  const { get, set } = useAddress()
  const { units, format } = useQuantities()
  const [patch] = api.usePatchBuildMutation()
  const settings = records.build.money ?? null
  const currency = settings?.currency ?? ''
  const text = (value: number) => `${format('money', value).number}${currency ? ` ${currency}` : ''}`
  const budget = settings?.budget ?? null
  const items = useMemo(
    () => room.costs.filter((item) => item.position <= position).sort((a, b) => b.position - a.position || b.amount - a.amount),
    [room.costs, position],
  )
  const stage = room.money[position]
  if (!stage) return null
  const isEditing = get('do') === 'budget'
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5">
      {room.costs.length === 0 ? (
        <Empty title="Nothing has a price yet" why="Give parts, ledger lines, jobs and events what they cost or what was paid; guesses will do.">
          <button type="button" className="button" onClick={() => set({ do: 'budget' })}>
            Set money and budget
          </button>
        </Empty>
      ) : (
        <>
          <p className="text-lg">
            {room.stages[position]?.name}:{' '}
            <Figure
              kind="money"
              value={stage.mean}
              sd={stage.sd}
              showSpread
              proof={stage.sd === 0 ? 'measured' : stage.guessShare >= 0.5 ? 'guess' : 'calculated'}
              working={{ of: 'moneyToStage', id: room.stages[position]?.id ?? '' }}
            />{' '}
            {currency} in all, {text(stage.paid)} of it paid
            {stage.chance !== null && budget !== null && (
              <>
                ; <b>{formatChance(stage.chance)}</b> within {text(budget)}
              </>
            )}
          </p>
          <div className="grid grid-cols-[minmax(90px,160px)_minmax(0,1fr)_auto] gap-x-3">
            <ol className="pt-1">
              {room.stages.map(({ id, name }, at) => (
                <li key={id} className={`h-[30px] truncate ${at === position ? 'font-bold' : ''}`}>
                  {at} {name}
                </li>
              ))}
            </ol>
            <MoneyBars money={room.money} budget={budget} position={position} text={text} />
            <ol className="pt-1 text-right tabular-nums">
              {room.money.map(({ mean, position: at, chance }) => (
                <li key={at} className="h-[30px] whitespace-nowrap">
                  {text(mean)}
                  {chance !== null && <span className="ml-2 text-quiet">{formatChance(chance)}</span>}
                </li>
              ))}
            </ol>
          </div>
          <p className="text-[13px] text-quiet">
            Solid: paid. Light: sure to come. Hatched: the doubt, 8 in 10. Guessed prices count {room.optimism.money.mean.toFixed(2)} times
            {room.optimism.money.isDefault ? ' (assumed until five are paid)' : ` (so ${room.optimism.money.pairCount} paid ones came out)`}; a catalogue’s
            moves by 5 % (assumed).
            {stage.extrasNobodyEntered > 0 &&
              ` Not in it: about ${text(stage.extrasNobodyEntered)} for what comes with parts on the way, as it did with those that are here.`}
          </p>
          <div className="flex flex-wrap gap-3">
            <button type="button" className="button" onClick={() => set({ do: 'budget' })}>
              {settings ? 'Alter money and budget' : 'Set money and budget'}
            </button>
            <CsvButton
              name={`${records.build.name} money`}
              table={() => ({
                head: ['stage', 'what', 'is a', `money${currency ? ` (${currency})` : ''}`, 'known'],
                rows: items.map(({ position: at, name, list, amount, known }) => [at, name, LIST_WORDS[list], amount, known]),
              })}
            />
          </div>
          <WorthTable records={records} room={room} position={position} currency={currency} />
          <CostTable items={items} text={text} />
        </>
      )}
      {isEditing && (
        <Panel title="Money and budget" onClose={() => set({ do: '' })}>
          <RecordForm
            key={records.build.version}
            draftKey={`${buildId}.money`}
            fields={moneyForm.specs()}
            defaults={moneyForm.defaults(records.build, units)}
            submitLabel="Save"
            toBody={(read) => ({ ...moneyForm.body(read), version: records.build.version })}
            send={(body) => patch({ buildId, body: body as never }).unwrap()}
            onDone={() => set({ do: '' })}
          />
        </Panel>
      )}
    </div>
  )
}

function CostTable({ items, text }: { items: readonly CostItem[]; text: (value: number) => string }) {
  return (
    <ScrollBox label="What costs something">
      <table className="w-full border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line text-left text-[13px]">
            <th className="p-1">Stage</th>
            <th className="p-1">What</th>
            <th className="p-1">Is a</th>
            <th className="p-1 text-right">Money</th>
            <th className="p-1">How known</th>
          </tr>
        </thead>
        <tbody>
          {items.map(({ id, list, name, position, amount, known }) => (
            <tr key={`${list} ${id} ${name}`} className="border-b border-line">
              <td className="p-1">{position}</td>
              <td className="p-1 font-semibold">{name}</td>
              <td className="p-1 text-quiet">{LIST_WORDS[list]}</td>
              <td className="p-1 text-right">{text(amount)}</td>
              <td className="p-1">
                <Plates proof={PROOF_OF[known]} /> {known === 'paid' ? 'paid' : known}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  )
}
