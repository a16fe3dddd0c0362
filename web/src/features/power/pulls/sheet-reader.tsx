import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type PictureAxis, type PicturePoint, parseQuantity, pictureReader } from '@bold-ballast/core'
import { useState } from 'react'
import { Photos } from '../../../shared/photos.tsx'
import { PicturePlaces } from '../../../shared/picture-places.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { pointsFile } from './typed-curve.ts'

const STEPS = [
  'Place the cross on the speed axis, far left, where a number stands.',
  'Place it on the speed axis, far right, where a number stands.',
  'Place it on the other axis, low, where a number stands.',
  'Place it on the other axis, high, where a number stands.',
  'Place it along the curve, left to right: ten points or more.',
] as const
const AXIS_LABELS = ['Speed, left', 'Speed, right', 'Other axis, low', 'Other axis, high'] as const
const FEWEST_POINTS = 10

/** Points read off a photographed sheet: axes placed, the curve followed by clicks or by arrow keys and Enter. The picture stays with the session. */
export function SheetReader({ records, session, read }: { records: RecordsAnswer; session: RecordsAnswer['sessions'][number]; read: (file: File) => void }) {
  const photos = records.photos.filter((photo) => photo.recordId === session.id)
  const [photoId, setPhotoId] = useState<string | null>(null)
  const photo = photos.find(({ id }) => id === photoId) ?? photos.at(-1)
  return (
    <details className="mt-3">
      <summary className="min-h-6 cursor-pointer font-semibold">Or read it off a photographed sheet</summary>
      <Photos records={records} recordId={session.id} />
      {photos.length > 1 && (
        <label className="mt-2 block">
          <span className="mb-1 block font-semibold">Picture to read</span>
          <select value={photo?.id} onChange={(event) => setPhotoId(event.target.value)}>
            {photos.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {photo && <Reader key={photo.id} url={`/api/builds/${records.build.id}/photos/${photo.id}/bytes`} name={photo.name} read={read} />}
    </details>
  )
}

function Reader({ url, name, read }: { url: string; name: string; read: (file: File) => void }) {
  const { units, decimalMark } = useQuantities()
  const [places, setPlaces] = useState<readonly PicturePoint[]>([])
  const [typed, setTyped] = useState<readonly string[]>(['', '', '', ''])
  const [of, setOf] = useState<'power' | 'torque'>('power')
  const [zoom, setZoom] = useState(1)
  const axes = places.slice(0, 4)
  const points = places.slice(4)
  const reader = attempt(() => {
    const number = (at: number) =>
      parseQuantity(typed[at] ?? '', at < 2 ? 'engineSpeed' : of, { defaultUnit: at < 2 ? 'rpm' : units[of], decimalMark, field: AXIS_LABELS[at] ?? '' })
    const axis = (from: number): PictureAxis => ({
      first: axes[from] as PicturePoint,
      firstValue: number(from).value,
      second: axes[from + 1] as PicturePoint,
      secondValue: number(from + 1).value,
    })
    return axes.length < 4 ? null : pictureReader({ speed: axis(0), value: axis(2) })
  })
  const values = reader === null || reader instanceof CalculationError ? [] : points.map(reader)
  const use = () => read(pointsFile(values, of, `read off ${name}`))
  const done = Math.min(places.length, 4)
  return (
    <div className="mt-3">
      <p className="font-semibold">{STEPS[done]}</p>
      <p className="text-xs text-quiet">
        Click, or with the picture picked move the cross by arrow keys (Shift: faster), Enter places it, Backspace takes the last one back.
      </p>
      <div className="my-2 grid grid-cols-2 gap-x-4 gap-y-2">
        {AXIS_LABELS.map((label, at) => (
          <label key={label}>
            <span className="mb-1 block">
              {label}, {at < 2 ? 'rpm' : units[of]} {axes[at] ? <span className="text-quiet">(placed)</span> : null}
            </span>
            <input value={typed[at]} onChange={(event) => setTyped(typed.map((text, i) => (i === at ? event.target.value : text)))} className="w-full" />
          </label>
        ))}
        <label>
          <span className="mb-1 block">The curve is</span>
          <select value={of} onChange={(event) => setOf(event.target.value as typeof of)} className="w-full">
            <option value="power">power, {units.power}</option>
            <option value="torque">torque, {units.torque}</option>
          </select>
        </label>
        <label>
          <span className="mb-1 block">Size of the picture</span>
          <select value={zoom} onChange={(event) => setZoom(Number(event.target.value))} className="w-full">
            {[0.5, 1, 2, 3].map((value) => (
              <option key={value} value={value}>
                {value * 100} %
              </option>
            ))}
          </select>
        </label>
      </div>
      <PicturePlaces
        url={url}
        alt={`Photographed sheet ${name}`}
        label={`The sheet ${name}: arrow keys move the cross, Enter places it`}
        places={places}
        setPlaces={setPlaces}
        zoom={zoom}
        markCount={4}
      />
      {reader instanceof CalculationError && axes.length === 4 && (
        <p role="alert" className="mt-2 text-wait">
          {reader.message}
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <button type="button" className="button" disabled={values.length < FEWEST_POINTS} onClick={use}>
          Read these {points.length} points
        </button>
        <button type="button" className="word-link" disabled={places.length === 0} onClick={() => setPlaces(places.slice(0, -1))}>
          take the last one back
        </button>
        <button type="button" className="word-link" disabled={places.length === 0} onClick={() => setPlaces([])}>
          begin again
        </button>
      </div>
    </div>
  )
}
