import type { RecordsAnswer } from '@bold-ballast/contract'
import type { TrackRoom } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { AirFromStation } from '../../../shared/station-air.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { sessionBody, sessionDefaults, sessionFieldSpecs } from './session-form.ts'

/** A session, new or as it is, in its form. */
export function SessionPanel({
  records,
  room,
  stageId,
  id,
  onDone,
}: {
  records: RecordsAnswer
  room: TrackRoom
  stageId: string
  id: string
  onDone: (id: string) => void
}) {
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const { take, notice } = useRemoval(buildId, 'track-sessions')
  const session = records.trackSessions.find((each) => each.id === id) ?? null
  const last = [...records.trackSessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at)).at(-1) ?? null
  const resource = 'track-sessions' as const
  return (
    <>
      {notice}
      {session && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(session).then(() => onDone(''))}>
            Delete it with its laps
          </button>
        </p>
      )}
      <RecordForm
        key={`${id} ${session?.version ?? 0}`}
        draftKey={`${buildId}.trackSession.${id}`}
        fields={sessionFieldSpecs(records, room)}
        defaults={sessionDefaults(session, last, room, stageId, records.build.discipline === 'drift', units)}
        submitLabel={session ? 'Save the session' : 'Store the session'}
        toBody={(read, fresh) => ({ ...sessionBody(read, session), ...(session ? { version: session.version } : { id: fresh }) })}
        send={(body) => (session ? patch({ buildId, resource, id, body: body as never }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={(body) => onDone(session ? session.id : String(body.id))}
      >
        {(set) => <AirFromStation set={set} />}
      </RecordForm>
    </>
  )
}
