import { type Due, dueAt, usualChecks } from '@bold-ballast/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { KEY_ROWS, useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { checkForm } from '../check-form.ts'
import { aboutWords, reasonWords } from '../check-words.ts'
import { EventPicker } from '../event-picker.tsx'
import { jobOf, makeJob } from '../make-job.ts'
import { PlanDots } from '../plan-dots.tsx'
import type { ChecksTabProps, StoredCheck } from '../tab-props.ts'
import { checksTable } from '../tables.ts'
import { markCheck } from '../use-marks.ts'
import { AllChecks } from './all-checks.tsx'
import { CheckLine } from './check-line.tsx'

/** The usual list, written at once as one entry of the log. */
function StartFromUsual({ records }: Pick<ChecksTabProps, 'records'>) {
  const [write, { isLoading }] = api.useBatchMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const [batchId] = useState(() => crypto.randomUUID())
  const start = async () => {
    const writes = usualChecks(records.build).map((check) => ({ kind: 'create', resource: 'checks', body: { id: crypto.randomUUID(), ...check } }))
    const answer = await write({ buildId: records.build.id, batchId, writes: writes as never })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  return (
    <Empty
      title="Start from a usual list (26 checks)"
      why="Strike what your car lacks. Torques are the maker’s: none is offered. Or type the first check above."
    >
      {failure && <Alert>{failure}</Alert>}
      <button type="button" className="button button-strong" disabled={isLoading} onClick={() => void start()}>
        Write the usual list
      </button>
    </Empty>
  )
}

/** One thing that is due, with the ways to be done with it. */
function DueRow({
  due,
  number,
  isPicked,
  today,
  hasJob,
  pick,
  act,
  alter,
}: {
  due: Due
  number: number
  isPicked: boolean
  today: string
  hasJob: boolean
  pick: () => void
  act: (what: 'ok' | 'bad' | 'job') => void
  alter: () => void
}) {
  const { check, reason, stops, minutes } = due
  const about = aboutWords(check)
  return (
    <tr className={`border-t border-line align-baseline ${isPicked ? 'bg-picked' : ''}`} aria-current={isPicked ? 'true' : undefined} onClick={pick}>
      <td className="w-8 py-1.5 pl-1 text-right font-semibold tabular-nums">{number}</td>
      <td className="py-1.5 pl-3">
        <button type="button" className="text-left font-semibold" onClick={alter}>
          {check.name}
        </button>
        {about && <span className="text-quiet">, {about}</span>}
      </td>
      <td
        className={`py-1.5 pl-3 ${reason === 'bad' || reason === 'expires' ? 'font-semibold text-danger' : stops ? 'font-semibold text-wait' : 'text-quiet'}`}
      >
        {reasonWords(due, today)}
      </td>
      <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{Number(minutes.toFixed(1))} min</td>
      <td className="no-print py-1.5 pl-3 text-right whitespace-nowrap">
        <button type="button" className="word-link mr-3" onClick={() => act('ok')} aria-label={`${check.name} is in order`}>
          in order
        </button>
        <button type="button" className="word-link mr-3" onClick={() => act('bad')} aria-label={`${check.name} is bad`}>
          bad
        </button>
        {hasJob ? (
          <span className="text-quiet">has a job</span>
        ) : (
          <button type="button" className="word-link" onClick={() => act('job')} aria-label={`Make a job of ${check.name}`}>
            job
          </button>
        )}
      </td>
    </tr>
  )
}

/** Fit or not for the event, and why, in order. */
export function ReadyTab({ records, today, event, position, stageId }: ChecksTabProps) {
  const { get, set } = useAddress()
  const [said, setSaid] = useState<string | null>(null)
  const line = useRef<HTMLInputElement | null>(null)
  const due = useMemo(() => {
    const round = event?.kind === 'scrutineering' ? 'scrutineering' : 'event'
    return dueAt(records as never, { event, position, today, round }).toSorted((a, b) => Number(b.stops) - Number(a.stops))
  }, [records, event, position, today])
  const picked = due.find(({ check }) => check.id === get('check')) ?? null
  const altered = records.checks.find(({ id }) => id === get('alter')) ?? null
  const form = useMemo(() => (altered ? checkForm(records, altered.kind, altered.reading?.quantity) : null), [records, altered])
  const isAsked = get('do') === 'check'
  useEffect(() => {
    if (!isAsked) return
    set({ do: '' })
    line.current?.focus()
  }, [isAsked, set])
  const act = (own: Due, what: 'ok' | 'bad' | 'job') => {
    const check = own.check as StoredCheck
    if (what === 'job') return setSaid(makeJob(records, check, stageId, own.last?.note ?? null))
    const result = what === 'ok' && own.reason === 'bad' ? 'fixed' : what
    markCheck(records.build.id, stageId, check, { result, eventId: event?.id ?? null, round: 'event' })
    setSaid(`${check.name}: ${what === 'ok' ? 'in order' : 'bad. j makes a job of it'}.`)
  }
  const step = (by: 1 | -1) => {
    const at = due.findIndex(({ check }) => check.id === picked?.check.id)
    const next = due[at < 0 ? (by === 1 ? 0 : due.length - 1) : at + by]
    if (next) set({ check: next.check.id })
  }
  useTabKeys((key) => {
    if (key === 'n') line.current?.focus()
    else if (key === 'ArrowDown' || key === 'ArrowUp') step(key === 'ArrowDown' ? 1 : -1)
    else if (picked && key === 't') act(picked, 'ok')
    else if (picked && key === 'b') act(picked, 'bad')
    else if (picked && key === 'j') act(picked, 'job')
    else if (picked && key === 'Enter') set({ alter: picked.check.id })
    else return false
    return true
  })
  const minutes = due.reduce((sum, own) => sum + own.minutes, 0)
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
      <div className="no-print flex flex-wrap items-center gap-4">
        <EventPicker records={records} event={event} />
        {due.length > 0 && (
          <span className="text-quiet">
            {due.length} due, about {Math.ceil(minutes)} min for one
          </span>
        )}
      </div>
      <CheckLine records={records} stageId={stageId} today={today} input={line} />
      {said && <p role="status">{said}</p>}
      {records.checks.length === 0 && <StartFromUsual records={records} />}
      {records.checks.length > 0 && due.length === 0 && (
        <p>Every check that this car has stands in order. Whether it is safe is yours, the event’s and its scrutineers’ to judge.</p>
      )}
      {due.length > 0 && (
        <>
          <PlanDots
            records={records}
            dots={due.map((own, i) => ({
              check: own.check,
              number: i + 1,
              state: own.check.id === picked?.check.id ? 'now' : own.reason === 'bad' ? 'bad' : 'open',
            }))}
            pick={(id) => set({ check: id })}
          />
          <div className="overflow-x-auto" {...{ [KEY_ROWS]: '' }}>
            <table className="w-full border-collapse">
              <thead>
                <tr>
                  <th className="text-right">No.</th>
                  <th className="pl-3 text-left">Check</th>
                  <th className="pl-3 text-left">Why it is due</th>
                  <th className="pl-3 text-right">Takes</th>
                  <th className="no-print" />
                </tr>
              </thead>
              <tbody>
                {due.map((own, i) => (
                  <DueRow
                    key={own.check.id}
                    due={own}
                    number={i + 1}
                    isPicked={own.check.id === picked?.check.id}
                    today={today}
                    hasJob={jobOf(records, own.check.id) !== undefined}
                    pick={() => set({ check: own.check.id })}
                    act={(what) => act(own, what)}
                    alter={() => set({ alter: own.check.id })}
                  />
                ))}
              </tbody>
            </table>
          </div>
          <p className="text-[13px] text-quiet">
            <CsvButton name={`${records.build.name} checks`} table={() => checksTable(records, due, today)} /> Safety first, then what goes bad most often for
            its minutes. Keys: ↓ ↑ pick, t in order, b bad, j a job, Enter alter, n a new one.
          </p>
          <Caution>
            A jacked car stands on stands before a hand goes under it. Never open a hot cooling system; fuel and batteries want a clear head and an extinguisher
            near.
          </Caution>
        </>
      )}
      {records.checks.length > 0 && <AllChecks records={records} alter={(id) => set({ alter: id })} />}
      {altered && form && (
        <KindPanel buildId={records.build.id} resource="checks" word="check" form={form} record={altered} onClose={() => set({ alter: '' })} />
      )}
    </div>
  )
}
