import type { DynoStatus, RecordsAnswer } from '@bold-ballast/contract'
import { FIRST_SETTING } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { readStored } from '../../../data/stored.ts'
import { airValues } from '../../../shared/fields/air-fields.ts'
import { AirFromStation } from '../../../shared/station-air.tsx'
import { type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { AsPrintedOffer } from './as-printed-offer.tsx'
import { nextSetting, sessionBody, sessionDefaults, sessionFieldSpecs, whyUncounted } from './session-form.ts'

interface Props {
  readonly records: RecordsAnswer
  readonly stageId: string
  /** The stored one that is changed; null for a new one. */
  readonly session: RecordsAnswer['sessions'][number] | null
  /** Air that a dyno reads now. */
  readonly air: DynoStatus['ambient'] | null
  readonly onDone: (body: Record<string, unknown>) => void
}

const MOST_SETTINGS = 20

/** How many settings an unfinished form had when it was left. */
function draftedSettings(draftKey: string): number {
  const { values } = readStored<{ values: FormValues }>(`bold-ballast.draft.${draftKey}`, { values: {} })
  const places = Object.entries(values ?? {}).flatMap(([name, text]) => (text !== '' ? (/^setting(\d+)name$/.exec(name)?.slice(1) ?? []) : []))
  return 1 + Math.max(0, ...places.map(Number))
}

/** A visit to a dyno and the settings that were run there. */
export function SessionPanel({ records, stageId, session, air, onDone }: Props) {
  const { build } = records
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const draftKey = session ? `${build.id}.session.${session.id}.${session.version}` : `${build.id}.session`
  const [ids, setIds] = useState<readonly string[]>(() => {
    const known = session?.settings.map(({ id }) => id) ?? [FIRST_SETTING]
    const more = Math.max(0, draftedSettings(draftKey) - known.length)
    return [...known, ...Array.from({ length: more }, () => crypto.randomUUID())]
  })
  const { powerBasis } = build
  const begin: FormValues = session
    ? sessionDefaults(session, units, powerBasis.boostSchool)
    : {
        stage: stageId,
        at: localTime(new Date()),
        place: powerBasis.place,
        printedStandard: air || powerBasis.standard === 'asPrinted' ? 'none' : powerBasis.standard,
        boostSchool: powerBasis.boostSchool,
        pressureKind: 'station',
        setting0name: 'as it ran',
        setting0control: 'none',
        ...(air ? airValues(air, units) : {}),
      }
  const [values, setValues] = useState<FormValues>(begin)
  const uncounted = whyUncounted(values, build)
  const more = Object.assign({}, ...ids.map((_, i) => (i === 0 ? {} : nextSetting(i, values))))
  return (
    <RecordForm
      key={`${JSON.stringify(air)} ${ids.length}`}
      draftKey={draftKey}
      fields={sessionFieldSpecs(records.stages, units, ids.length)}
      defaults={{ ...more, ...begin }}
      submitLabel="Store the session"
      toBody={(read, id) => ({ ...(session ? { version: session.version } : { id }), ...sessionBody(read, ids) })}
      send={(body) =>
        session
          ? patch({ buildId: build.id, resource: 'sessions', id: session.id, body }).unwrap()
          : create({ buildId: build.id, resource: 'sessions', body }).unwrap()
      }
      onValues={setValues}
      onDone={onDone}
    >
      {(set) => (
        <div className="grid gap-2 sm:col-span-2">
          <AirFromStation set={set} />
          {ids.length < MOST_SETTINGS && (
            <button type="button" className="word-link justify-self-start" onClick={() => setIds([...ids, crypto.randomUUID()])}>
              Another setting of this visit
            </button>
          )}
          {uncounted && <AsPrintedOffer build={build} why={uncounted.why} isMended={uncounted.isMended} />}
        </div>
      )}
    </RecordForm>
  )
}
