import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  cornersOf,
  LAP_SCHOOL_WORDS,
  LAP_SCHOOLS,
  type LapSchool,
  lengthOfTrack,
  parseTrackText,
  type TrackLine,
  type TrackRoom,
  trackShape,
  trackText,
  USUAL_CUT_OFF_M,
} from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { TakenFromOthers } from '../../../shared/taken-from-others.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Empty } from '../../../ui/states.tsx'
import type { TrackTabProps } from '../tab-props.ts'
import { type ReadTrace, readTrace } from './read-trace.ts'
import { trackBody, trackDefaults, trackFieldSpecs } from './track-form.ts'

/** A track's outline, small: what it is, at a glance. */
export function Outline({ track, width = 150, height = 100 }: { track: TrackLine; width?: number; height?: number }) {
  const path = useMemo(() => {
    const shape = attempt(() => trackShape(track, 5))
    if (shape instanceof CalculationError) return null
    const [xs, ys] = [[...shape.x], [...shape.y]]
    const [left, right, low, high] = [
      xs.reduce((a, b) => Math.min(a, b)),
      xs.reduce((a, b) => Math.max(a, b)),
      ys.reduce((a, b) => Math.min(a, b)),
      ys.reduce((a, b) => Math.max(a, b)),
    ]
    const scale = Math.min((width - 16) / Math.max(right - left, 1), (height - 16) / Math.max(high - low, 1))
    const [x0, y0] = [(width - (right - left) * scale) / 2, (height - (high - low) * scale) / 2]
    return xs.map((x, i) => `${i === 0 ? 'M' : 'L'}${(x0 + (x - left) * scale).toFixed(1)} ${(y0 + (high - (ys[i] ?? 0)) * scale).toFixed(1)}`).join('')
  }, [track, width, height])
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true" className="shrink-0">
      {path && <path d={path} fill="none" stroke="var(--ink)" strokeWidth={3} strokeLinejoin="round" />}
    </svg>
  )
}

/** What is drawn so far: outline, length and how far the ends miss each other. */
function Drawing({ values, trace }: { values: FormValues; trace: ReadTrace | null }) {
  const { text, decimalMark } = useQuantities()
  const isClosed = values.isClosed !== 'false'
  const segments = useMemo(() => {
    if (trace) return trace.track.segments
    const found = values.drawn?.trim() ? attempt(() => parseTrackText(values.drawn ?? '', decimalMark)) : null
    return found === null || found instanceof CalculationError ? null : found
  }, [trace, values.drawn, decimalMark])
  if (!segments) return <p className="text-quiet">The track stands here as it is drawn.</p>
  const track = { segments, isClosed }
  const shape = attempt(() => trackShape(track))
  if (shape instanceof CalculationError) return <p className="text-wait">{shape.message}</p>
  const turned = Math.round((shape.turningRad * 180) / Math.PI)
  return (
    <div className="flex flex-wrap items-center gap-4">
      <Outline track={track} width={260} height={180} />
      <p>
        {text('distance', shape.lengthM, { decimals: 0 })}
        {isClosed && (
          <>
            ; the ends miss each other by <strong>{text('distance', shape.gapM, { decimals: 1 })}</strong>, it turns by {turned} degrees
          </>
        )}
      </p>
    </div>
  )
}

function TrackPanel({ records, id, onDone }: { records: RecordsAnswer; id: string; onDone: () => void }) {
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const resource = 'tracks' as const
  const { take, notice } = useRemoval(buildId, resource)
  const track = records.tracks.find((each) => each.id === id) ?? null
  const defaults = trackDefaults(track)
  const [values, setValues] = useState<FormValues>(defaults)
  const [trace, setTrace] = useState<ReadTrace | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const isTraced = trace !== null || (track !== null && trackText(track.segments) === undefined)
  const open = async (file: File | undefined) => {
    if (!file) return
    try {
      setTrace(await readTrace(file, USUAL_CUT_OFF_M))
      setFailure(null)
    } catch (error) {
      setTrace(null)
      setFailure(error instanceof CalculationError ? error.message : 'The file could not be read. Export it as GPX or CSV.')
    }
  }
  return (
    <>
      {notice}
      {track && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(track).then(onDone)}>
            Delete the track
          </button>
        </p>
      )}
      <div className="mb-3">
        <label htmlFor="trace" className="mb-1 block font-semibold">
          A trace that was driven: GPX or CSV
        </label>
        <input id="trace" type="file" accept=".gpx,.csv,.txt,application/gpx+xml,text/csv" onChange={(event) => void open(event.target.files?.[0])} />
        <p className="mt-1 text-xs text-quiet">Its first whole lap is taken, at steps of 5 m, smoothed over {USUAL_CUT_OFF_M} m. Or draw the track below.</p>
        {trace && (
          <p role="status">
            {trace.told}. {trace.track.problems.join(' ')}
          </p>
        )}
        {failure && <Alert>{failure}</Alert>}
      </div>
      <RecordForm
        key={`${id} ${track?.version ?? 0} ${trace ? 'traced' : 'drawn'}`}
        draftKey={`${buildId}.track.${id}`}
        fields={trackFieldSpecs(isTraced)}
        defaults={defaults}
        submitLabel={track ? 'Save the track' : 'Store the track'}
        toBody={(read, fresh) => ({ ...trackBody(read, { trace, isTraced }), ...(track ? { version: track.version } : { id: fresh }) })}
        send={(body) => (track ? patch({ buildId, resource, id, body: body as never }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={onDone}
        onValues={setValues}
      >
        <div className="sm:col-span-2">
          <Drawing values={values} trace={trace} />
        </div>
      </RecordForm>
    </>
  )
}

/** Which track is the control, and by what sessions are quoted. */
function Basis({ records, room }: { records: RecordsAnswer; room: TrackRoom }) {
  const [patch] = api.usePatchBuildMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const { build } = records
  const set = async (lapBasis: { trackId: string | null; school: LapSchool }) => {
    const answer = await patch({ buildId: build.id, body: { version: build.version, lapBasis } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  return (
    <div className="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
      <label className="flex items-baseline gap-2">
        Control track
        <select value={room.controlTrackId ?? ''} onChange={(event) => void set({ trackId: event.target.value, school: room.school })}>
          {room.tracks.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-baseline gap-2">
        Sessions are quoted by their
        <select value={room.school} onChange={(event) => void set({ trackId: room.controlTrackId, school: event.target.value as LapSchool })}>
          {LAP_SCHOOLS.map((school) => (
            <option key={school} value={school}>
              {LAP_SCHOOL_WORDS[school]}
            </option>
          ))}
        </select>
      </label>
      {failure && <Alert>{failure}</Alert>}
    </div>
  )
}

/** The tracks of the build, drawn or traced, and which of them is the control. */
export function TracksTab({ records, room, openTrack, track }: TrackTabProps) {
  const address = useAddress()
  const { text } = useQuantities()
  const [isEditing, setIsEditing] = useAsked('track')
  const edit = (id: string) => {
    address.set({ edit: id })
    setIsEditing(true)
  }
  const others = (
    <TakenFromOthers
      list="tracks"
      buildId={records.build.id}
      nameOf={({ name }) => name}
      has={({ name }) => records.tracks.some((own) => own.name === name)}
      taken={(_, name) => `${name} is copied with its marks, without laps.`}
    />
  )
  return (
    <>
      {room.tracks.length === 0 ? (
        <Empty
          title="No track yet"
          why="Draw it out of straights and corners, or drop a trace that was driven. Keep to one known track as the control: on a new one you learn the track and not the car."
        >
          <button type="button" className="button button-strong" onClick={() => edit('')}>
            New track
          </button>
          {others}
        </Empty>
      ) : (
        <>
          <Basis records={records} room={room} />
          <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
            <button type="button" className="button" onClick={() => edit('')}>
              New track
            </button>
            {others}
          </div>
          <ul>
            {room.tracks.map((each) => {
              const corners = cornersOf(each, each.marks)
              const climbs = trackShape(each).risesM
              return (
                <li key={each.id} className="flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line py-3">
                  <Outline track={each} width={190} height={120} />
                  <div className="min-w-0 flex-1">
                    <strong className="text-[17px]">{each.name}</strong>
                    {each.id === room.controlTrackId && <span className="ml-2 text-quiet">the control</span>}
                    <p>
                      {text('distance', lengthOfTrack(each.segments), { decimals: 0 })}, {corners.length} corners, tightest{' '}
                      {text('distance', 1 / Math.max(...corners.map(({ curvaturePerM }) => Math.abs(curvaturePerM)), 1e-3), { decimals: 0 })}
                      {Math.abs(climbs) > 1 ? `, climbs ${text('distance', climbs, { decimals: 0 })}` : ''}
                    </p>
                    <p className="text-xs text-quiet">
                      {each.line === 'driven' ? `A driven line, smoothed over ${each.cutOffM ?? USUAL_CUT_OFF_M} m` : 'Drawn along its middle'};{' '}
                      {each.marks.filter(({ kind }) => kind === 'sector').length + 1} sectors
                    </p>
                    <p className="mt-1 flex gap-4">
                      <button type="button" className="word-link" onClick={() => edit(each.id)}>
                        Edit
                      </button>
                      {each.id !== track?.id && (
                        <button type="button" className="word-link" onClick={() => openTrack(each.id)}>
                          Look at its lap
                        </button>
                      )}
                    </p>
                  </div>
                </li>
              )
            })}
          </ul>
        </>
      )}
      {isEditing && (
        <Panel title={address.get('edit') ? 'A track' : 'A new track'} onClose={() => setIsEditing(false)}>
          <TrackPanel records={records} id={address.get('edit')} onDone={() => setIsEditing(false)} />
        </Panel>
      )}
    </>
  )
}
