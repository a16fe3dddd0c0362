import type { RecordsAnswer } from '@bold-ballast/contract'
import { openTasks, workOrder } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { ratingText } from '../../../shared/part-words.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { SheetHead, TickBox, WriteLine } from '../sheet-head.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { orderTable } from '../tables.ts'

/** The job that is picked; else the first wait, which is what others do, else the first. */
function pickedTask(records: RecordsAnswer, picked: string) {
  const open = openTasks(records)
  return open.find(({ id }) => id === picked) ?? open.find(({ kind }) => kind === 'wait') ?? open[0]
}

/** A job for somebody else: what is wanted, what it has to take, what goes along, by when. */
export function OrderTab({ records, board, jobs }: SheetProps) {
  const { get, set } = useAddress()
  const { text, units } = useQuantities()
  const task = pickedTask(records, get('task'))
  const order = useMemo(() => (task ? workOrder(records, task.id, jobs.deadlines) : undefined), [records, task, jobs.deadlines])
  if (!task || !order)
    return (
      <Empty title="No open job" why="A work order is made of a job: its name and note, the parts and lines it names, the day it is wanted.">
        <Link className="button" to="../jobs?tab=road&do=job">
          List a job
        </Link>
      </Empty>
    )
  const { parts, lines, ratings, wantedOn } = order
  return (
    <>
      <div className="no-print mb-3 flex flex-wrap items-center gap-4">
        <label className="flex items-center gap-2">
          Job
          <select value={task.id} onChange={(event) => set({ task: event.target.value })}>
            {openTasks(records).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <CsvButton name={`${records.build.name}-order`} table={() => orderTable(order, units, records)} />
      </div>
      <SheetHead records={records} stage={board.stages.find(({ id }) => id === task.stageId)} title="Work order">
        <p>{wantedOn ? `the car is wanted on ${dayText(wantedOn)}` : 'no day set'}</p>
      </SheetHead>
      <p className="text-[18px] font-semibold">{task.name}</p>
      <p className="mb-3 whitespace-pre-line">{task.note ?? ''}</p>
      <p className="mb-3">
        Reckoned with {task.kind === 'work' ? `${task.guessH} h` : `${task.guessDays} days`}
        {task.notBefore ? `, not before ${dayText(task.notBefore)}` : ''}
        {task.cost !== null ? `, cost ${task.cost} ${records.build.money?.currency ?? ''}` : ''}.
      </p>
      <h2 className="border-b border-ink">What goes along</h2>
      {parts.length + lines.length === 0 && <p className="py-1.5 text-quiet">The job names no part and no line. Name them in Jobs, or write them here.</p>}
      <ul className="mb-4">
        {parts.map((part) => (
          <li key={part.id} className="flex items-baseline border-b border-line py-1.5">
            <TickBox />
            <span className="flex-1">
              {part.count > 1 ? `${part.count} × ` : ''}
              {part.name}
              {part.serial ? `, ${part.serial}` : ''}
            </span>
            <span className="text-quiet">{part.mass ? text('mass', part.mass.massKg) : ''}</span>
          </li>
        ))}
        {lines.map((line) => (
          <li key={line.id} className="flex items-baseline border-b border-line py-1.5">
            <TickBox />
            <span className="flex-1">
              {line.count > 1 ? `${line.count} × ` : ''}
              {line.name}
            </span>
            <span className="text-quiet">{line.kind === 'off' ? 'comes off' : 'goes on'}</span>
          </li>
        ))}
      </ul>
      {ratings.length > 0 && (
        <>
          <h2 className="border-b border-ink">What it has to take</h2>
          <ul className="mb-4">
            {ratings.map(({ partId, rating }) => {
              const part = parts.find(({ id }) => id === partId)
              return part ? (
                <li key={`${partId} ${rating.of} ${rating.ethanolShare}`} className="border-b border-line py-1.5">
                  {part.name}: {ratingText(part, rating, text)} <span className="text-quiet">({rating.known})</span>
                </li>
              ) : null
            })}
          </ul>
        </>
      )}
      <WriteLine label="Done, what was found" />
      <WriteLine label="Hours, cost" />
      <WriteLine label="Name, day" />
    </>
  )
}
