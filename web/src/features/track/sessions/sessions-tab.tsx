import type { RoomTrackSession } from '@bold-ballast/core'
import { Panel } from '../../../ui/dialog.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { timeText } from '../../../ui/words.ts'
import type { TrackTabProps } from '../tab-props.ts'
import { SessionDetail } from './session-detail.tsx'
import { SESSION_KIND_WORDS } from './session-form.ts'
import { SessionPanel } from './session-panel.tsx'
import { TrackPlanView } from './track-plan.tsx'

/** Sessions of the build, the latest first; picking one opens it beside. */
function SessionList({ sessions, picked, pick }: { sessions: readonly RoomTrackSession[]; picked: string; pick: (id: string) => void }) {
  const { text } = useQuantities()
  return (
    <ol aria-label="Sessions" className="max-h-[560px] overflow-y-auto">
      {[...sessions].reverse().map(({ record, trackName, position, value, laps, runs, whyNot }) => (
        <li key={record.id} className="border-t border-line">
          <button
            type="button"
            aria-pressed={record.id === picked}
            onClick={() => pick(record.id)}
            className={`w-full px-2 py-1.5 text-left ${record.id === picked ? 'bg-wash' : ''} ${whyNot === null || record.kind === 'runs' ? '' : 'text-quiet'}`}
          >
            <span className="flex items-baseline justify-between gap-3">
              <strong>{record.aim ?? SESSION_KIND_WORDS[record.kind]}</strong>
              <span className="shrink-0 font-semibold tabular-nums">
                {value ? text('lapTime', value.lapS, { decimals: 2 }) : runs.length > 0 ? `${runs.length} runs` : laps.length > 0 ? `${laps.length} laps` : ''}
              </span>
            </span>
            <span className="block text-xs text-quiet">
              {timeText(record.at)}, {trackName}, stage {position}
              {record.driver ? `, ${record.driver}` : ''}
            </span>
          </button>
        </li>
      ))}
    </ol>
  )
}

/** What was driven: sessions with their laps or runs, the four corners, what was said; one line takes the paddock. */
export function SessionsTab({ records, room, stageId, position, driven }: TrackTabProps) {
  const address = useAddress()
  const [isEditing, setIsEditing] = useAsked('session')
  const [isAsked] = useAsked('paddock')
  const { sessions } = room
  const picked = sessions.find(({ record }) => record.id === address.get('a')) ?? sessions.at(-1)
  const buildId = records.build.id
  const edit = (id: string) => {
    address.set({ edit: id })
    setIsEditing(true)
  }
  // The session that was just stored is the one the paddock speaks of.
  const done = (id: string) => {
    address.set({ a: id, edit: '' })
    setIsEditing(false)
  }
  const form = isEditing && (
    <Panel title={address.get('edit') ? 'A session on track' : 'A new session on track'} onClose={() => setIsEditing(false)}>
      <SessionPanel records={records} room={room} stageId={stageId} id={address.get('edit')} onDone={done} />
    </Panel>
  )
  if (room.tracks.length === 0)
    return <Empty title="No track to drive on" why="Draw or import the track first, in the tab Tracks; sessions are kept by the track they were driven on." />
  return (
    <>
      {sessions.length === 0 || !picked ? (
        <Empty title="No session yet" why="Eight keys a lap, or the stopwatch by Space. Pressures, what was turned and what the driver said go into one line.">
          <button type="button" className="button button-strong" onClick={() => edit('')}>
            New session
          </button>
        </Empty>
      ) : (
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,330px)_minmax(0,1fr)]">
          <div className="min-w-0">
            <button type="button" className="button mb-2" onClick={() => edit('')}>
              New session
            </button>
            <SessionList sessions={sessions} picked={picked.record.id} pick={(id) => address.set({ a: id })} />
            <TrackPlanView records={records} room={room} stageId={stageId} position={position} lapS={driven?.stage?.lapS ?? null} />
          </div>
          <SessionDetail
            records={records}
            key={picked.record.id}
            buildId={buildId}
            session={picked}
            room={room}
            whole={room.drift}
            edit={() => edit(picked.record.id)}
            isAsked={isAsked}
          />
        </div>
      )}
      {sessions.length === 0 && <TrackPlanView records={records} room={room} stageId={stageId} position={position} lapS={driven?.stage?.lapS ?? null} />}
      <Caution className="mt-5 text-xs">Only on a closed track, by its event’s rules. Brakes, tyres and exhaust are hot when the car comes in.</Caution>
      {form}
    </>
  )
}
