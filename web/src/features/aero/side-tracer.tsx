import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type PicturePoint, type SidePoint, sideReader } from '@bold-ballast/core'
import { useEffect, useState } from 'react'
import { readFailure } from '../../data/api.ts'
import { PicturePlaces } from '../../shared/picture-places.tsx'
import { Alert } from '../../ui/states.tsx'

type Outline = NonNullable<RecordsAnswer['build']['outline']>

const STEPS = [
  'Place the cross on the middle of the front wheel.',
  'Place it on the middle of the rear wheel.',
  'Place it along the edge of the car, all the way round: three places or more, eighty at most.',
] as const
const WHEELS = 2
const FEWEST = 3
const MOST = 80

/** The side of the car traced on one's own picture, which stays in this browser; it is for drawing, and no limit hangs on it. */
export function SideTracer({
  outline,
  wheelbaseM,
  save,
}: {
  outline: Outline
  wheelbaseM: number
  save: (sidePoints: readonly SidePoint[] | null) => Promise<unknown>
}) {
  const [picture, setPicture] = useState<{ url: string; name: string } | null>(null)
  const [places, setPlaces] = useState<readonly PicturePoint[]>([])
  const [zoom, setZoom] = useState(1)
  const [said, setSaid] = useState<string | null>(null)
  useEffect(() => () => (picture ? URL.revokeObjectURL(picture.url) : undefined), [picture])
  const [frontWheel, rearWheel, ...edge] = places
  const read = frontWheel && rearWheel ? attempt(() => edge.map(sideReader({ frontWheel, rearWheel, wheelbaseM, wheelRadiusM: outline.wheelRadiusM }))) : null
  const outside = read && !(read instanceof CalculationError) && read.some(({ xM, zM }) => xM < -4 || xM > 9 || zM < -0.5 || zM > 4)
  const store = async (sidePoints: readonly SidePoint[] | null, words: string) => {
    try {
      await save(sidePoints)
      setSaid(words)
    } catch (error) {
      setSaid(readFailure(error).message)
    }
  }
  const canKeep = read !== null && !(read instanceof CalculationError) && !outside && read.length >= FEWEST && read.length <= MOST
  return (
    <details className="mt-4 border-t border-line pt-3">
      <summary className="min-h-6 cursor-pointer font-semibold">Trace its side on a picture of your own</summary>
      <p className="mt-1 text-quiet">
        {outline.sidePoints ? `${outline.sidePoints.length} places are kept. ` : ''}Taken square to the car, from far off. It is for drawing; limits hang on the
        tapes alone. The picture stays in this browser.
      </p>
      <label className="my-2 block">
        <span className="mb-1 block font-semibold">Picture of the side</span>
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (!file) return
            setPlaces([])
            setPicture({ url: URL.createObjectURL(file), name: file.name })
          }}
        />
      </label>
      {picture && (
        <>
          <p className="font-semibold">{STEPS[Math.min(places.length, WHEELS)]}</p>
          <p className="text-xs text-quiet">
            Click, or with the picture picked move the cross by arrow keys (Shift: faster), Enter places it, Backspace takes the last one back.
          </p>
          <label className="my-2 flex items-center gap-2">
            <span>Size of the picture</span>
            <select value={zoom} onChange={(event) => setZoom(Number(event.target.value))}>
              {[0.25, 0.5, 1, 2].map((value) => (
                <option key={value} value={value}>
                  {value * 100} %
                </option>
              ))}
            </select>
          </label>
          <PicturePlaces
            url={picture.url}
            alt={`The side of the car, ${picture.name}`}
            label={`The picture ${picture.name}: arrow keys move the cross, Enter places it`}
            places={places}
            setPlaces={setPlaces}
            zoom={zoom}
            markCount={WHEELS}
            isClosed
          />
          {read instanceof CalculationError && <Alert className="mt-2">{read.message}</Alert>}
          {outside && <Alert className="mt-2">A place lies further from the wheels than any car is long. Take it back, or place the wheels anew.</Alert>}
          <div className="mt-2 flex flex-wrap items-center gap-3">
            <button
              type="button"
              className="button"
              disabled={!canKeep}
              onClick={() => canKeep && void store(read, `Kept: ${read.length} places of the side.`)}
            >
              Keep these {edge.length} places
            </button>
            <button type="button" className="word-link" disabled={places.length === 0} onClick={() => setPlaces([])}>
              begin again
            </button>
          </div>
        </>
      )}
      {outline.sidePoints && (
        <button type="button" className="word-link mt-2 block" onClick={() => void store(null, 'Drawn by its tapes again.')}>
          Draw it by its tapes again
        </button>
      )}
      <p role="status" className="min-h-5 text-sm text-quiet">
        {said}
      </p>
    </details>
  )
}
