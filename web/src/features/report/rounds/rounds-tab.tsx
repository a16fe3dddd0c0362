import { comingEvents, dueAt, leadDaysOf, tickList } from '@bold-ballast/core'
import { useMemo } from 'react'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { SheetHead, TickBox } from '../sheet-head.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { ticksTable } from '../tables.ts'

const hoursOf = ({ kind, guessH, guessDays }: { kind: 'work' | 'wait'; guessH: number | null; guessDays: number | null }): string =>
  kind === 'work' ? `${guessH} h guessed` : `${guessDays} days guessed`

function Ticks({ head, items }: { head: string; items: readonly { readonly id: string; readonly text: string; readonly more: string }[] }) {
  if (items.length === 0) return null
  return (
    <section className="mb-4">
      <h2 className="border-b border-ink">{head}</h2>
      <ul>
        {items.map(({ id, text, more }) => (
          <li key={id} className="flex items-baseline border-b border-line py-1.5">
            <TickBox />
            <span className="flex-1">{text}</span>
            <span className="pl-3 text-right text-quiet">{more}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What is still open before the car of the stage goes out, to be ticked by hand. */
export function RoundsTab({ records, board, rules, jobs, position }: SheetProps) {
  const list = useMemo(() => tickList(records, rules, position), [records, rules, position])
  const checks = useMemo(() => {
    const event = comingEvents(records.events, jobs.today).find(({ stageId }) => stageId === records.stages.find((stage) => stage.position === position)?.id)
    return dueAt(records as never, { event: event ?? null, position, today: jobs.today, round: 'event' })
  }, [records, jobs.today, position])
  const deadline = jobs.deadlines.find(({ stage }) => stage === position)
  const names = new Map(records.tasks.map(({ id, name }) => [id, name]))
  const isEmpty = list.jobsByHand.length + list.parts.length + list.rules.length + checks.length === 0
  if (isEmpty)
    return (
      <Empty
        title="Nothing to tick"
        why="Open jobs, checks that are due, parts on their way and rules in words up to this stage stand here as a list for the wall of the workshop."
      />
    )
  return (
    <>
      <SheetHead records={records} stage={board.stages[position]} title="Rounds to tick">
        {deadline && (
          <p>
            {deadline.name ? `${deadline.name}, ` : 'by '}
            {dayText(deadline.on)}
          </p>
        )}
      </SheetHead>
      <p className="no-print mb-2">
        <CsvButton name={`${records.build.name}-rounds`} table={() => ticksTable(list)} />
      </p>
      {list.jobsByHand.map(({ name, jobs: own }) => (
        <Ticks
          key={name}
          head={`${name}, ${own.length} ${own.length === 1 ? 'job' : 'jobs'}`}
          items={own.map((job) => {
            const after = job.afterIds.flatMap((id) => names.get(id) ?? [])
            return { id: job.id, text: job.name, more: [hoursOf(job), after.length > 0 ? `after ${after.join(', ')}` : ''].filter(Boolean).join(', ') }
          })}
        />
      ))}
      <Ticks
        head="Parts to come"
        items={list.parts.map((part) => ({
          id: part.id,
          text: `${part.name}${part.count > 1 ? `, ${part.count} pieces` : ''}`,
          more: part.promisedOn
            ? `promised for ${dayText(part.promisedOn)}`
            : part.orderedOn
              ? `ordered ${dayText(part.orderedOn)}`
              : `to order, ${leadDaysOf(part)} days`,
        }))}
      />
      <Ticks
        head={`Checks, about ${Math.ceil(checks.reduce((sum, { minutes }) => sum + minutes, 0))} min for one`}
        items={checks.map(({ check, stops, minutes }) => ({
          id: check.id,
          text: `${check.name}${check.bolt?.torqueNm && check.bolt.from ? `, ${check.bolt.torqueNm} N·m by ${check.bolt.from}` : ''}`,
          more: `${stops ? 'stops the event, ' : ''}${Number(minutes.toFixed(1))} min`,
        }))}
      />
      <Ticks head="Rules to look at, with the book" items={list.rules.map(({ key, text, from }) => ({ id: key, text, more: from }))} />
    </>
  )
}
