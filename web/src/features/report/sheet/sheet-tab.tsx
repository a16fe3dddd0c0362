import { comingEvents, METRIC_INFO, type TechSheetRow, techSheet } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { basisText, marginText, needText } from '../../../shared/rules/rule-words.ts'
import { rulesTable } from '../../../shared/rules/rules-table.ts'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { SheetHead, TickBox, WriteLine } from '../sheet-head.tsx'
import type { SheetProps } from '../sheet-props.ts'

const SHOWS_WORDS: Readonly<Record<TechSheetRow['shows'], string>> = { reading: '', plan: 'planned, not read', nothing: 'not shown', look: 'looked at' }

function Row({ row: { rule, standing, shows, readOn } }: { row: TechSheetRow }) {
  const { text } = useQuantities()
  const basis = basisText(rule, text)
  const margin = standing ? marginText(standing, text) : ''
  const isBad = standing?.word === 'breaks' || standing?.word === 'would break'
  return (
    <tr className="border-b border-line align-baseline">
      <td className="py-1.5 pr-2">
        <span className="font-semibold">{rule.text}</span>
        {rule.from && <span className="text-quiet"> ({rule.from})</span>}
        {basis && <div className="text-[13px] text-quiet">{basis}</div>}
      </td>
      <td className="py-1.5 pr-2">{needText(rule, text)}</td>
      <td className="py-1.5 pr-2">
        {standing?.value != null && rule.metric && (
          <Figure
            kind={METRIC_INFO[rule.metric].kind}
            value={standing.value}
            sd={standing.sd ?? undefined}
            proof={standing.proof ?? undefined}
            showSpread={shows === 'reading'}
          />
        )}
        {standing?.word && standing.word !== 'to be kept' && (
          <div className={`text-[13px] ${isBad ? 'font-bold text-danger' : 'text-quiet'}`}>
            {standing.problem ?? [standing.word, margin].filter(Boolean).join(', ')}
          </div>
        )}
      </td>
      <td className="py-1.5 pr-2 text-[13px]">{readOn.length > 0 ? readOn.map(dayText).join(', ') : SHOWS_WORDS[shows]}</td>
      <td className="w-[92px] border-l border-line py-1.5 pl-2">
        <TickBox />
      </td>
    </tr>
  )
}

/** The car as it is named to a scrutineer, and who it is for. */
function CarLine({ records, jobs, position }: Pick<SheetProps, 'records' | 'jobs' | 'position'>) {
  const { text } = useQuantities()
  const { build, stages, events } = records
  const event = comingEvents(events, jobs.today).find(({ stageId }) => stageId === stages[position]?.id)
  const drivers = build.drivers?.map(({ name }) => name).join(', ')
  return (
    <p className="mb-3">
      {event && (
        <>
          For <b>{event.name}</b>, {dayText(event.startsOn)}.{' '}
        </>
      )}
      Wheelbase {text('length', build.wheelbaseM)}, tracks {text('length', build.trackFrontM)} and {text('length', build.trackRearM)}
      {drivers ? `, driven by ${drivers}` : ''}.
    </p>
  )
}

/** Every rule of a class with what the car says to it, how that is known, from which day, and room to sign. */
export function SheetTab({ records, board, rules, jobs, position }: SheetProps) {
  const { get, set } = useAddress()
  const { units } = useQuantities()
  const ownId = rules.stages[position]?.bookId ?? null
  const bookId = records.ruleBooks.find(({ id }) => id === get('book'))?.id ?? ownId ?? records.ruleBooks[0]?.id ?? ''
  const sheet = useMemo(() => techSheet(records, rules, bookId, position), [records, rules, bookId, position])
  if (!sheet || sheet.rows.length === 0)
    return (
      <Empty title="No rule to show" why="A tech sheet holds the car against the rules of its class. Type the class’s numbers with their page.">
        <Link className="button" to="../plan?tab=rules">
          To the rules
        </Link>
      </Empty>
    )
  const { book, rows, readCount, notShown } = sheet
  return (
    <>
      <SheetHead records={records} stage={board.stages[position]} title="Tech sheet">
        <p>
          {book.name} {book.edition}
        </p>
      </SheetHead>
      <div className="no-print mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        {records.ruleBooks.length > 1 && (
          <label className="flex items-center gap-2">
            Against
            <select value={bookId} onChange={(event) => set({ book: event.target.value })}>
              {records.ruleBooks.map(({ id, name, edition }) => (
                <option key={id} value={id}>
                  {name} {edition}
                </option>
              ))}
            </select>
          </label>
        )}
        {ownId !== bookId && <span className="text-wait">The stage does not race by this book.</span>}
        <CsvButton name={`${records.build.name}-tech-sheet`} table={() => rulesTable(sheet, units)} />
      </div>
      <CarLine records={records} jobs={jobs} position={position} />
      <div className="overflow-x-auto print:overflow-visible">
        <table className="w-full border-collapse tabular-nums max-[639px]:min-w-[560px]">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1 pr-2">Rule</th>
              <th className="py-1 pr-2">Asks</th>
              <th className="py-1 pr-2">The car</th>
              <th className="py-1 pr-2">Read on</th>
              <th className="border-l border-line py-1 pl-2">Seen, signed</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Row key={row.rule.key} row={row} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3">
        Shown by a reading: {readCount} of {rows.filter(({ rule }) => rule.metric !== null).length} rules with a number.
        {notShown.length > 0 && ` Not shown: ${notShown.map(({ rule }) => rule.text).join('; ')}.`}
      </p>
      <Caution className="mt-3 break-inside-avoid">
        A full sheet is no pass. These are the crew’s notes of the book and its own readings; the organiser’s book counts, and the scrutineer decides.
      </Caution>
      <div className="mt-2 grid break-inside-avoid gap-x-8 @min-[480px]:grid-cols-2 print:grid-cols-2">
        <WriteLine label="For the crew, day" />
        <WriteLine label="Scrutineer, day" />
      </div>
    </>
  )
}
