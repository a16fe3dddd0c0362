import { formatChance, type JobsRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import type { RoadQuestion } from './jobs.worker.ts'
import { roadDay } from './road-words.ts'
import { TABS } from './tabs.ts'
import { type RoadState, useRoad } from './use-road.ts'

/** Will it be ready, what holds it up, what does it cost, who works when. */
export function JobsPage() {
  const { buildId } = useBuild()
  const opening = useRoomOpening<JobsRoom['stages'][number], JobsRoom>(api.useJobsQuery(buildId), 'the jobs')
  return 'instead' in opening ? opening.instead : <Room {...opening.props} />
}

const WEEK = 7
const MOST_WEEKS = 8

/** What is late in the address: "id weeks". */
export function readLate(text: string): RoadQuestion['late'] {
  const [, id = '', weeks = ''] = /^(\S+) (-?\d+)$/.exec(text) ?? []
  const count = Math.max(-MOST_WEEKS, Math.min(MOST_WEEKS, Number(weeks)))
  return id !== '' && count !== 0 ? { id, days: count * WEEK } : null
}

/** The news of the room in one line: when the picked stage is ready, and how sure that is. */
function newsOf(room: JobsRoom, position: number, { answer, first }: RoadState): string {
  const open = room.road.jobs.filter(({ stage }) => stage <= position).length
  if (room.road.jobs.length === 0) return 'List the jobs to the next event; guesses will do.'
  if (open === 0) return `No job is open up to stage ${position}`
  const ready = answer?.view.ready ?? first?.ready
  if (!ready) return `${open} open ${open === 1 ? 'job' : 'jobs'} to stage ${position}`
  if (!Number.isFinite(ready.halfDay)) return 'Never ready: a job finds no hours'
  const about = `Ready about ${roadDay(room.today, ready.halfDay)}`
  const deadline = room.deadlines.find(({ stage }) => stage === position)
  if (!deadline || !answer || ready.chance === null) return about
  return `${about}, ${formatChance(ready.chance)} by ${deadline.name ? `${deadline.name} on ` : ''}${roadDay(room.today, deadline.day)}`
}

function Room({ records, room, position, stageId }: RoomProps<JobsRoom, JobsRoom['stages'][number]>) {
  const [tab, open] = useTab(TABS)
  const lateText = useAddress().get('late')
  const late = useMemo(() => readLate(lateText), [lateText])
  const road = useRoad(room, position, late)
  return (
    <>
      <title>{`${records.build.name}: Jobs · Bold Ballast`}</title>
      <h1 className="mb-3">{newsOf(room, position, road)}</h1>
      <Tabs tabs={TABS} tab={tab} open={open} />
      <OpenTab tab={tab} props={{ records, room, position, stageId, road, late }} />
    </>
  )
}
