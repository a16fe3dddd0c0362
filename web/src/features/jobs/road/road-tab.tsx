import { type JobsRoom, lengthsAt, openTasks } from '@bold-ballast/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { api, readFailure } from '../../../data/api.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { KEY_ROWS, useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { Alert } from '../../../ui/states.tsx'
import type { JobsTabProps, StoredTask } from '../tab-props.ts'
import { roadTable } from '../tables.ts'
import { useHelps } from '../use-road.ts'
import { DoneJobs } from './done-jobs.tsx'
import { JobTable } from './job-table.tsx'
import { Lessons } from './lessons.tsx'
import { RoadFigure } from './road-figure.tsx'
import { type LineMode, RoadLine } from './road-line.tsx'
import { RoadSide } from './road-side.tsx'
import { moveWrites } from './road-writes.ts'
import { taskForm } from './task-form.ts'

const WEEK = 7

/** The days that parts come by the middle, with what is asked. */
const arrivalsOf = ({ road }: JobsRoom, late: JobsTabProps['late']): number[] =>
  lengthsAt(road).arrivalDays.map((day, i) => Math.max(0, day + (late && road.parts[i]?.id === late.id ? late.days : 0)))

/** The road to the event: the drawing, the line to type into, the jobs in their order, and what it all comes to. */
export function RoadTab({ records, room, position, stageId, road, late }: JobsTabProps) {
  const buildId = records.build.id
  const { get, set } = useAddress()
  const [mode, setMode] = useState<LineMode>('job')
  const line = useRef<HTMLInputElement | null>(null)
  const [write] = api.useBatchMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const open = useMemo(() => openTasks(records as never) as StoredTask[], [records])
  const picked = open.find(({ id }) => id === get('task')) ?? null
  const deadline = room.deadlines.find(({ stage }) => stage === position) ?? null
  const helps = useHelps(room, deadline && deadline.day >= 0 && road.answer ? deadline : null)
  const asked = get('do')
  useEffect(() => {
    if (asked !== 'job' && asked !== 'hours') return
    set({ do: '' })
    if (asked === 'hours' && !get('task') && open[0]) set({ task: open[0].id })
    setMode(asked === 'hours' ? 'hours' : 'job')
    line.current?.focus()
  }, [asked, set, get, open])

  const step = (by: 1 | -1) => {
    const at = open.findIndex(({ id }) => id === picked?.id)
    const next = open[at < 0 ? (by === 1 ? 0 : open.length - 1) : at + by]
    if (next) set({ task: next.id })
  }
  const move = async (by: 1 | -1) => {
    const writes = picked ? moveWrites(picked, open, by) : []
    if (writes.length === 0) return
    const answer = await write({ buildId, batchId: crypto.randomUUID(), writes })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  /** A job that waits for a part is late by the part. */
  const lateId = room.road.parts.find(({ id }) => picked?.partIds.includes(id))?.id ?? picked?.id ?? room.road.parts[0]?.id ?? ''
  const slip = (weeks: 1 | -1) => {
    const id = late?.id ?? lateId
    const next = (late ? late.days / WEEK : 0) + weeks
    set({ late: id === '' || next === 0 ? '' : `${id} ${next}` })
  }
  const begin = (next: LineMode) => {
    if (next !== 'job' && !picked) {
      if (!open[0]) return
      set({ task: open[0].id })
    }
    // At once: the next key is meant for the line.
    flushSync(() => setMode(next))
    if (next === 'job') line.current?.focus()
  }
  useTabKeys((key) => {
    if (key === 'n') begin('job')
    else if (key === 'h') begin('hours')
    else if (key === 'x') begin('done')
    else if (key === ',' || key === '.') slip(key === ',' ? 1 : -1)
    else if (key === 'ArrowDown' || key === 'ArrowUp') step(key === 'ArrowDown' ? 1 : -1)
    else if (key === 'Alt+ArrowDown' || key === 'Alt+ArrowUp') void move(key === 'Alt+ArrowDown' ? 1 : -1)
    else if (key === 'Enter' && picked) set({ alter: picked.id })
    else if (key === 'Escape' && (picked || late)) set({ late: '', task: '' })
    else return false
    return true
  })
  const altered = records.tasks.find(({ id }) => id === get('alter')) ?? null
  const form = useMemo(() => (altered ? taskForm(records, altered.kind === 'wait') : null), [records, altered])
  const shown = road.answer && !road.isOld ? (late && road.answer.slipped ? road.answer.slipped : road.answer.view) : (road.first ?? road.answer?.view ?? null)
  const onLine = new Set(
    road.answer?.slack.jobs.filter((job) => job.room === 0 && room.road.jobs.some(({ id, stage }) => id === job.id && stage <= position)).map(({ id }) => id),
  )
  const { work } = room.optimism
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1100px]:grid-cols-[minmax(0,1fr)_300px]">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        {failure && <Alert>{failure}</Alert>}
        {road.refused && <Alert>{road.refused}</Alert>}
        {room.isHandAssumed && (
          <p className="text-quiet">
            Nobody is listed: one person with Tuesday and Thursday evenings of 3 h and 6 h on Saturday is assumed.{' '}
            <button type="button" className="word-link" onClick={() => set({ tab: 'dates', do: 'hand' })}>
              Enter who works on it
            </button>
          </p>
        )}
        {shown && room.road.jobs.length > 0 && (
          <RoadFigure room={room} view={shown} arrivals={arrivalsOf(room, late)} onLine={onLine} deadline={deadline} late={late} />
        )}
        <RoadLine
          records={records}
          room={room}
          stageId={stageId}
          mode={mode}
          setMode={setMode}
          task={picked}
          input={line}
          onStored={(id) => set({ task: id ?? '' })}
        />
        {shown && room.road.jobs.length > 0 && (
          <div {...{ [KEY_ROWS]: '' }}>
            <JobTable
              room={room}
              view={shown}
              answer={road.answer}
              position={position}
              picked={picked?.id ?? null}
              pick={(id) => set({ task: id })}
              alter={(id) => set({ alter: id })}
            />
            <p className="mt-1 text-[13px] text-quiet">
              <CsvButton name={`${records.build.name} road`} table={() => roadTable(room, shown, road.answer)} />{' '}
              {work.isDefault
                ? `Jobs are taken to come to ${work.median.toFixed(1)} times their guess until five of yours are done (assumed).`
                : `Your jobs have taken ${work.median.toFixed(2)} times your guess (${work.pairCount} jobs, 8 in 10 between ${work.low.toFixed(2)} and ${work.high.toFixed(2)}).`}{' '}
              Ink: on the line. Open cells: free hours. Keys: n a job, ↓ ↑ pick, h hours, x done, Enter alter, Alt ↑ ↓ order, <kbd>,</kbd> <kbd>.</kbd> a week
              later or back.
            </p>
          </div>
        )}
        <DoneJobs records={records} alter={(id) => set({ alter: id })} />
        <Lessons records={records} />
      </div>
      {road.answer && <RoadSide room={room} answer={road.answer} isOld={road.isOld} deadline={deadline} late={late} helps={helps} />}
      {altered && form && (
        <KindPanel buildId={buildId} resource="tasks" word="job" form={form} record={altered} onClose={() => set({ alter: '' })}>
          <p className="mb-3 text-quiet">
            {altered.kind === 'wait' ? 'A wait: it runs by day and night and takes nobody’s hours.' : 'Work: it is laid into the hours of its hands.'}
          </p>
        </KindPanel>
      )}
    </div>
  )
}
