import type { JobsRoom } from '@bold-ballast/core'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { RoadAnswer, RoadView } from '../jobs.worker.ts'
import { letterOf } from '../letters.ts'
import { hoursText, lengthText, namesOf, roadDay } from '../road-words.ts'

/** What a job stands behind: jobs by their letters, parts that are on their way, what it holds. */
function waitsFor(room: JobsRoom, at: number): string {
  const { jobs, parts } = room.road
  const job = jobs[at]
  if (!job) return ''
  const names = namesOf(room.road)
  const coming = new Set(parts.map(({ id }) => id))
  const letters = job.afterIds.map((id) => letterOf(jobs.findIndex((other) => other.id === id)))
  return [
    letters.join(', '),
    job.partIds
      .filter((id) => coming.has(id))
      .map(names.part)
      .join(', '),
    job.holds ? `the ${job.holds}` : '',
    job.notBeforeDay !== null && job.notBeforeDay > 0 ? `not before ${roadDay(room.today, job.notBeforeDay)}` : '',
    job.isOptional ? 'optional' : '',
  ]
    .filter((text) => text !== '')
    .join('; ')
}

/** Hours that were typed: guessed, and how many of them are in. */
const guessedText = ({ kind, guess, spent }: JobsRoom['road']['jobs'][number]): string =>
  `${lengthText(kind, guess)}${spent > 0 ? `, ${Number(spent.toFixed(1))} in` : ''}`

/** As much as is looked at for room: 60 h, or 60 days. */
const MOST_ROOM = 60

/** Hours or days that leave the day where it is. */
function roomText(kind: 'work' | 'wait', room: number | undefined) {
  if (room === undefined) return '…'
  if (room === 0) return <b>none</b>
  const text = kind === 'wait' ? `${room} d` : hoursText(room)
  return room >= MOST_ROOM ? `over ${text}` : text
}

/** The jobs in the order they are laid; the picked one is what keys speak of. */
export function JobTable({
  room,
  view,
  answer,
  position,
  picked,
  pick,
  alter,
}: {
  room: JobsRoom
  view: RoadView
  answer: RoadAnswer | null
  position: number
  picked: string | null
  pick: (id: string) => void
  alter: (id: string) => void
}) {
  const { jobs } = room.road
  const names = namesOf(room.road)
  const rooms = new Map(answer?.slack.jobs.map((job) => [job.id, job]))
  const stages = [...new Set(jobs.map(({ stage }) => stage))]
  return (
    <ScrollBox label="Open jobs">
      <table className="w-full min-w-[620px] border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line text-left text-[13px]">
            <th className="w-8 p-1" aria-label="Letter" />
            <th className="p-1">Job</th>
            <th className="p-1">Hands</th>
            <th className="p-1 text-right">Guessed</th>
            <th className="p-1 text-right">Likely</th>
            <th className="p-1 pl-3">Waits for</th>
            <th className="p-1 text-right">Ends, half</th>
            <th className="p-1 text-right">8 in 10</th>
            <th className="p-1 text-right">Room</th>
          </tr>
        </thead>
        <tbody>
          {jobs.map((job, at) => {
            const ahead = view.jobs[at]
            const own = rooms.get(job.id)
            const isFirst = stages.length > 1 && jobs[at - 1]?.stage !== job.stage
            const isPicked = picked === job.id
            return (
              <tr
                key={job.id}
                aria-selected={isPicked}
                className={`cursor-pointer border-b border-line ${isPicked ? 'bg-picked' : ''} ${job.stage > position ? 'text-quiet' : ''} ${isFirst ? 'border-t-2 border-t-edge' : ''}`}
                onClick={() => pick(job.id)}
              >
                <td className="p-1">
                  <span
                    className={`grid h-5 min-w-5 place-items-center rounded-[3px] px-0.5 text-[11px] font-bold ${own?.room === 0 ? 'bg-ink text-sheet' : 'bg-wash text-ink'}`}
                  >
                    {letterOf(at)}
                  </span>
                </td>
                <td className="p-1">
                  <button type="button" className="text-left font-semibold" onClick={() => (isPicked ? alter(job.id) : pick(job.id))}>
                    {job.name}
                    <span className="sr-only">{isPicked ? ', alter it' : ', pick it'}</span>
                  </button>
                  {isFirst && <span className="ml-2 text-xs text-quiet">stage {job.stage}</span>}
                </td>
                <td className="p-1">
                  {job.kind === 'wait'
                    ? 'nobody'
                    : job.handIds.map(names.hand).join(' + ') || `anyone${ahead ? `: ${ahead.laid.handIds.map(names.hand).join('')}` : ''}`}
                </td>
                <td className="p-1 text-right whitespace-nowrap">{guessedText(job)}</td>
                <td className="p-1 text-right font-bold whitespace-nowrap">
                  {ahead ? `${lengthText(job.kind, ahead.laid.length)}${job.spent > 0 ? ' left' : ''}` : ''}
                </td>
                <td className="max-w-[150px] truncate p-1 pl-3 text-[13px] text-quiet" title={waitsFor(room, at)}>
                  {waitsFor(room, at)}
                </td>
                <td className="p-1 text-right whitespace-nowrap">{answer && ahead ? roadDay(room.today, answer.view.jobs[at]?.halfDay ?? Number.NaN) : '…'}</td>
                <td className="p-1 text-right whitespace-nowrap text-quiet">
                  {answer ? roadDay(room.today, answer.view.jobs[at]?.eightDay ?? Number.NaN) : '…'}
                </td>
                <td className="p-1 text-right whitespace-nowrap">{job.stage > position ? '' : roomText(job.kind, own?.room)}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}
