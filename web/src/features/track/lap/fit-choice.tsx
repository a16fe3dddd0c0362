import { FIT_FACTORS, type FitFactors, type RoomTrackSession, type StageLap, type TrackRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { type FieldSpec, RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'

const FACTOR_WORDS: Readonly<Record<FitFactors, string>> = {
  grip: 'the grip alone',
  gripAndBraking: 'the grip and how much of the brakes is used, by three sectors or more',
}

/** Sessions of a track that stand for their stages, the latest first. */
export const fittable = (sessions: readonly RoomTrackSession[], trackId: string): RoomTrackSession[] =>
  sessions.filter(({ record, whyNot, value }) => record.trackId === trackId && record.kind === 'laps' && whyNot === null && value !== null).toReversed()

export const fitFieldSpecs = (sessions: readonly RoomTrackSession[], lap: (seconds: number) => string): FieldSpec[] => [
  {
    name: 'factors',
    label: 'By',
    type: 'select',
    isWide: true,
    options: FIT_FACTORS.map((value) => ({ value, label: FACTOR_WORDS[value] })),
  },
  ...sessions.map(
    ({ record, position, value }): FieldSpec => ({
      name: `session ${record.id}`,
      label: `Stage ${position}, ${dayText(record.at.slice(0, 10))}, ${record.driver ?? 'nobody named'}: ${lap(value?.lapS ?? 0)}, ${value?.clean ?? 0} clean`,
      type: 'checkbox',
      isWide: true,
    }),
  ),
]

/** All that stand are chosen by choosing none, so that later ones count too. */
export function fitBody(read: FormReader, sessions: readonly RoomTrackSession[]): { factors: string; trackSessionIds: string[] } {
  const chosen = sessions.map(({ record }) => record.id).filter((id) => read.flag(`session ${id}`))
  return { factors: read.raw('factors'), trackSessionIds: chosen.length === sessions.length ? [] : chosen }
}

/** What the driven laps of a track are fitted by, and of which sessions; what sectors the fit does not reach. */
export function FitChoice({ room, track, stage, buildId }: { room: TrackRoom; track: TrackRoom['tracks'][number]; stage: StageLap; buildId: string }) {
  const { text } = useQuantities()
  const [isOpen, open] = useState(false)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const sessions = fittable(room.sessions, track.id)
  const fit = room.fits.find(({ trackId }) => trackId === track.id)
  if (!stage.fit || sessions.length === 0) return null
  const chosen = fit?.trackSessionIds.filter((id) => sessions.some(({ record }) => record.id === id)) ?? []
  const { brakes } = stage
  const resource = 'lap-fits' as const
  return (
    <div className="mb-1 text-quiet">
      <p>
        By {chosen.length === 0 ? 'all sessions that stand' : `${chosen.length} of ${sessions.length} sessions`},{' '}
        {brakes ? (
          <>
            with <span className="tabular-nums">{text('share', brakes.brakingUse, { decimals: 0 })}</span> of the brakes used
          </>
        ) : (
          'the grip alone'
        )}
        .{' '}
        <button type="button" className="word-link no-print" onClick={() => open(true)}>
          Change what it is fitted to
        </button>
      </p>
      {stage.whyNoBrakes && <p className="text-wait">{stage.whyNoBrakes}</p>}
      {brakes?.odd.map((sector) => (
        <p key={sector} className="text-wait">
          Sector {sector + 1} is {Math.abs(brakes.leftS[sector] ?? 0).toFixed(2)} s {(brakes.leftS[sector] ?? 0) > 0 ? 'slower' : 'quicker'} than the fit
          reaches: the line, traffic or gears.
        </p>
      ))}
      {isOpen && (
        <Panel title={`What laps of ${track.name} are fitted to`} onClose={() => open(false)}>
          <RecordForm
            draftKey={`${buildId}.lapFit.${track.id}.${fit?.version ?? 0}`}
            fields={fitFieldSpecs(sessions, (seconds) => text('lapTime', seconds, { decimals: 2 }))}
            defaults={{
              factors: fit?.factors ?? 'grip',
              ...Object.fromEntries(sessions.map(({ record }) => [`session ${record.id}`, String(chosen.length === 0 || chosen.includes(record.id))])),
            }}
            submitLabel="Fit to these"
            toBody={(read, id) => ({ ...fitBody(read, sessions), ...(fit ? { version: fit.version } : { id, trackId: track.id }) })}
            send={(body) => (fit ? patch({ buildId, resource, id: fit.id, body: body as never }).unwrap() : create({ buildId, resource, body }).unwrap())}
            onDone={() => open(false)}
          />
        </Panel>
      )}
    </div>
  )
}
