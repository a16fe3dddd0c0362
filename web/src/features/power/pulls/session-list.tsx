import type { StoredRecords } from '@bold-ballast/contract'
import type { PowerRoom, SessionFigures } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { useRemoval } from '../../../ui/removal.tsx'
import { dayText, SCHOOL_WORDS } from '../../../ui/words.ts'

const ROLE_WORDS: Record<SessionFigures['role'], string> = {
  stands: 'stands for the stage',
  agrees: 'agrees, so the power is confirmed',
  disagrees: 'disagrees with the one that stands',
  start: 'start value: the engine was not that of the stage',
  other: 'another session stands',
  notCounted: 'counts for no target',
}

type StoredSession = StoredRecords['sessions'][number]

/** Sessions with their record, and which pulls stand. */
export function SessionList({
  records,
  room,
  position,
  startImport,
  edit,
}: {
  records: StoredRecords
  room: PowerRoom
  position: number
  startImport: (sessionId: string) => void
  edit: (sessionId: string) => void
}) {
  const removal = useRemoval(records.build.id, 'sessions')
  const stagePosition = (id: string) => records.stages.findIndex((stage) => stage.id === id)
  const sorted = [...records.sessions].sort(
    (a, b) => Number(stagePosition(b.stageId) === position) - Number(stagePosition(a.stageId) === position) || Date.parse(b.at) - Date.parse(a.at),
  )
  return (
    <section>
      <h2 className="mb-1">Sessions</h2>
      {removal.notice}
      <ul>
        {sorted.map((session) => (
          <li key={session.id} className="border-t border-line py-3">
            <Session
              session={session}
              records={records}
              figures={room.sessions.find((entry) => entry.sessionId === session.id)}
              startImport={startImport}
              edit={edit}
              remove={() => void removal.take(session)}
            />
          </li>
        ))}
      </ul>
    </section>
  )
}

function Session({
  session,
  records,
  figures,
  startImport,
  edit,
  remove,
}: {
  session: StoredSession
  records: StoredRecords
  figures: SessionFigures | undefined
  startImport: (sessionId: string) => void
  edit: (sessionId: string) => void
  remove: () => void
}) {
  const { text } = useQuantities()
  const buildId = records.build.id
  const [patch] = api.usePatchRecordMutation()
  const [create] = api.useCreateRecordMutation()
  const stage = records.stages.find((entry) => entry.id === session.stageId)
  const pulls = records.pulls.filter((pull) => pull.sessionId === session.id)
  const standing = records.standings.find((entry) => entry.stageId === session.stageId)
  const standsIds = pulls.filter((pull) => pull.setAside === null).map((pull) => pull.id)
  const setPull = (pull: (typeof pulls)[number], stands: boolean) =>
    void patch({ buildId, resource: 'pulls', id: pull.id, body: { version: pull.version, setAside: stands ? null : 'set aside by hand' } })
  const makeStand = () => {
    const fields = { stageId: session.stageId, sessionId: session.id, pullIds: standsIds }
    if (standing) void patch({ buildId, resource: 'standings', id: standing.id, body: { ...fields, version: standing.version } })
    else void create({ buildId, resource: 'standings', body: { id: crypto.randomUUID(), ...fields } })
  }
  const { ambient } = session
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <strong>
          {session.dynoName}, {dayText(session.at)}
        </strong>
        {figures?.power && (
          <span className="text-[16px] font-bold">
            <Figure kind="power" value={figures.power.value} sd={figures.power.sd} showSpread working={{ of: 'session', id: session.id }} />
          </span>
        )}
      </div>
      <p className="text-xs text-quiet">
        {[
          `stage ${stage?.position} ${stage?.name}`,
          session.place,
          session.printedStandard === 'none' ? 'as observed' : session.printedStandard,
          session.gear && `gear ${session.gear}`,
          session.fuel,
          ambient
            ? `${text('pressure', ambient.pressurePa)}, ${text('temperature', ambient.temperatureK)}, ${text('share', ambient.relativeHumidity, { decimals: 0 })}`
            : 'no air record',
          session.boostControl !== 'none' && session.boostSchool ? SCHOOL_WORDS[session.boostSchool] : null,
          session.boostPa !== null && session.boostControl !== 'none'
            ? `boost ${text('pressure', session.boostPa, { decimals: 0 })} ${session.boostControl}`
            : null,
          session.tuneNote,
        ]
          .filter(Boolean)
          .join(', ')}
      </p>
      <p className={figures?.role === 'disagrees' || figures?.reason ? 'text-wait' : ''}>{figures?.reason ?? (figures ? ROLE_WORDS[figures.role] : '')}</p>
      {pulls.length > 0 && (
        <ul className="my-1">
          {pulls.map((pull) => (
            <li key={pull.id} className="flex items-center justify-between gap-2">
              <label className="flex min-h-7 items-center gap-2">
                <input type="checkbox" checked={pull.setAside === null} onChange={(event) => setPull(pull, event.target.checked)} />
                pull {pull.label}
                {pull.setAside && <span className="text-xs text-quiet">{pull.setAside}</span>}
              </label>
              <Figure kind="power" value={pull.peakPowerW} decimals={1} working={{ of: 'pull', id: pull.id }} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="word-link" onClick={() => startImport(session.id)}>
          import pulls
        </button>
        <button type="button" className="word-link" onClick={() => edit(session.id)} aria-label={`Change the session ${session.dynoName}`}>
          change
        </button>
        {standsIds.length > 0 && figures?.role !== 'stands' && figures?.power && (
          <button type="button" className="word-link" onClick={makeStand}>
            let it stand for stage {stage?.position}
          </button>
        )}
        <button type="button" className="word-link" onClick={remove} aria-label={`Delete the session ${session.dynoName}`}>
          delete
        </button>
      </div>
    </>
  )
}
