import type { StoredRecords } from '@bold-ballast/contract'
import { type DynoSetting, type PowerRoom, type SessionFigures, settingOf } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { SettingSelect } from '../../../shared/fields/setting-select.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText, SCHOOL_WORDS } from '../../../ui/words.ts'
import { settingWords } from '../setting-words.ts'
import { AsPrintedOffer } from './as-printed-offer.tsx'
import { PeakEntry } from './peak-entry.tsx'

const ROLE_WORDS: Record<SessionFigures['role'], string> = {
  stands: 'stands for the stage',
  agrees: 'agrees, so the power is confirmed',
  disagrees: 'disagrees with the one that stands',
  start: 'start value: the engine was not that of the stage',
  otherSetting: 'another setting stands: a different engine',
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
              figures={room.sessions.filter((entry) => entry.sessionId === session.id)}
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
  figures: readonly SessionFigures[]
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
  const setPull = (pull: (typeof pulls)[number], stands: boolean) =>
    void patch({ buildId, resource: 'pulls', id: pull.id, body: { version: pull.version, setAside: stands ? null : 'set aside by hand' } })
  const makeStand = (setting: DynoSetting) => {
    const pullIds = pulls.filter((pull) => pull.setAside === null && settingOf(session, pull.settingId).id === setting.id).map(({ id }) => id)
    const fields = { stageId: session.stageId, sessionId: session.id, settingId: setting.id, pullIds }
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
      </div>
      <p className="text-xs text-quiet">
        {[
          `stage ${stage?.position} ${stage?.name}`,
          session.place,
          session.printedStandard === 'none' ? 'as observed' : session.printedStandard,
          session.gear && `gear ${session.gear}`,
          ambient
            ? `${text('pressure', ambient.pressurePa)}, ${text('temperature', ambient.temperatureK)}, ${text('share', ambient.relativeHumidity, { decimals: 0 })}`
            : 'no air record',
          session.settings.some(({ boostControl }) => boostControl !== 'none') && session.boostSchool ? SCHOOL_WORDS[session.boostSchool] : null,
          session.tuneNote,
        ]
          .filter(Boolean)
          .join(', ')}
      </p>
      {session.settings.map((setting) => {
        const own = figures.find((entry) => entry.settingId === setting.id)
        const ran = pulls.filter((pull) => settingOf(session, pull.settingId).id === setting.id)
        return (
          <section key={setting.id} className="mt-1.5" aria-label={`Setting ${setting.name}`}>
            <div className="flex items-baseline justify-between gap-3">
              <span>
                <strong>{setting.name}</strong> <span className="text-xs text-quiet">{settingWords(setting, text)}</span>
              </span>
              {own?.power && (
                <span className="text-[16px] font-bold">
                  <Figure kind="power" value={own.power.value} sd={own.power.sd} showSpread working={{ of: 'session', id: `${session.id}/${setting.id}` }} />
                </span>
              )}
            </div>
            {own && (
              <p className={own.role === 'disagrees' || own.reason ? 'text-wait' : 'text-quiet'}>
                {ran.length === 0 ? 'no pull yet' : (own.reason ?? ROLE_WORDS[own.role])}
                {own.power && own.role !== 'stands' && (
                  <button
                    type="button"
                    className="word-link ml-3"
                    onClick={() => makeStand(setting)}
                    aria-label={`let it stand for stage ${stage?.position}: ${setting.name}`}
                  >
                    let it stand for stage {stage?.position}
                  </button>
                )}
              </p>
            )}
            {own?.reason && ran.length > 0 && isMendedByPrint(session, records.build) && <AsPrintedOffer build={records.build} why="" isMended />}
            {ran.length > 0 && (
              <ul className="my-1">
                {ran.map((pull) => (
                  <li key={pull.id} className="flex items-center justify-between gap-2">
                    <label className="flex min-h-7 items-center gap-2">
                      <input type="checkbox" checked={pull.setAside === null} onChange={(event) => setPull(pull, event.target.checked)} />
                      {pull.curve === null ? 'peak' : 'pull'} {pull.label}
                      {pull.setAside && <span className="text-xs text-quiet">{pull.setAside}</span>}
                    </label>
                    <span className="flex items-center gap-3">
                      <SettingSelect
                        settings={session.settings}
                        value={setting.id}
                        onPick={(id) => void patch({ buildId, resource: 'pulls', id: pull.id, body: { version: pull.version, settingId: id } })}
                        name={`Setting of ${pull.label}`}
                      />
                      <Figure kind="power" value={pull.peakPowerW} decimals={1} working={{ of: 'pull', id: pull.id }} />
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </section>
        )
      })}
      <PeakEntry records={records} session={session} pullCount={pulls.length} />
      <div className="mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="word-link" onClick={() => startImport(session.id)}>
          import pulls
        </button>
        <button type="button" className="word-link" onClick={() => edit(session.id)} aria-label={`Change the session ${session.dynoName}`}>
          change
        </button>
        <button type="button" className="word-link" onClick={remove} aria-label={`Delete the session ${session.dynoName}`}>
          delete
        </button>
      </div>
    </>
  )
}

/** Whether counting as printed would let a session count: it was measured at the build's place, and only its standard is another. */
const isMendedByPrint = (session: StoredSession, { powerBasis }: StoredRecords['build']) =>
  session.place === powerBasis.place && powerBasis.standard !== 'asPrinted' && session.ambient === null
