import { CalculationError, type TracedTrack, tracedTrack } from '@bold-ballast/core'
import Papa from 'papaparse'

interface Place {
  readonly latitudeDeg: number
  readonly longitudeDeg: number
  readonly heightM: number | null
}

/** A trace that was driven, and what was read of its file. */
export interface ReadTrace {
  readonly track: TracedTrack
  readonly origin: { readonly latitudeDeg: number; readonly longitudeDeg: number }
  readonly places: number
  readonly told: string
}

const MOST_BYTES = 20e6
const MOST_PLACES = 20_000
/** The ends of a lap lie nearer to each other than this share of its length: it is a circuit. */
const CLOSED_SHARE = 0.02

/** Points of a GPX file, in their order. */
export function placesOfGpx(text: string): Place[] {
  const page = new DOMParser().parseFromString(text, 'application/xml')
  if (page.querySelector('parsererror'))
    throw new CalculationError('unreadable', 'file', 'The file is no whole GPX: it is cut short or of another kind. Export it again.')
  return [...page.querySelectorAll('trkpt, rtept')].map((point) => {
    const height = point.querySelector('ele')?.textContent
    return { latitudeDeg: Number(point.getAttribute('lat')), longitudeDeg: Number(point.getAttribute('lon')), heightM: height ? Number(height) : null }
  })
}

/** Points of a CSV file by its headings. */
export function placesOfCsv(text: string): Place[] {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true })
  const head = data.findIndex((row) => row.some((cell) => /lat/i.test(cell)) && row.some((cell) => /lon|lng/i.test(cell)))
  if (head < 0)
    throw new CalculationError('unreadable', 'file', 'No columns of latitude and longitude were found by their headings. Name them so in the first line.')
  const names = data[head] ?? []
  const column = (pattern: RegExp) => names.findIndex((cell) => pattern.test(cell))
  const [lat, lon, height] = [column(/lat/i), column(/lon|lng/i), column(/alt|ele|height/i)]
  return data.slice(head + 1).flatMap((row): Place[] => {
    const [latitudeDeg, longitudeDeg] = [Number(row[lat]), Number(row[lon])]
    // Empty is not sampled then.
    if (row[lat] === '' || row[lon] === '' || !Number.isFinite(latitudeDeg) || !Number.isFinite(longitudeDeg)) return []
    const up = height < 0 || row[height] === '' ? null : Number(row[height])
    return [{ latitudeDeg, longitudeDeg, heightM: up !== null && Number.isFinite(up) ? up : null }]
  })
}

/** Cuts a file of several laps to the first that comes back to where it began. */
function firstLap(places: readonly Place[]): readonly Place[] {
  const [first] = places
  if (!first) return places
  const metres = ({ latitudeDeg, longitudeDeg }: Place) =>
    Math.hypot((latitudeDeg - first.latitudeDeg) * 111_400, (longitudeDeg - first.longitudeDeg) * 111_400 * Math.cos((first.latitudeDeg * Math.PI) / 180))
  const away = places.findIndex((place) => metres(place) > 60)
  if (away < 0) return places
  let nearest = -1
  for (let i = away; i < places.length; i++) {
    const far = metres(places[i] as Place)
    if (far > 30) {
      if (nearest >= 0) break
      continue
    }
    if (nearest < 0 || far < metres(places[nearest] as Place)) nearest = i
  }
  return nearest > 0 ? places.slice(0, nearest) : places
}

/** A track out of a file of positions: GPX 1.1, or CSV with latitude and longitude. Rejects what is neither, with the cure. */
export async function readTrace(file: File, cutOffM: number): Promise<ReadTrace> {
  if (file.size > MOST_BYTES) throw new CalculationError('too-long', 'file', `The file is over ${MOST_BYTES / 1e6} MB. Export one lap of it.`)
  const text = await file.text()
  if (text.includes('\u0000')) throw new CalculationError('unreadable', 'file', 'The file is a logger’s own binary. Export it as GPX or CSV.')
  const all = text.trimStart().startsWith('<') ? placesOfGpx(text) : placesOfCsv(text)
  const lap = firstLap(all)
  if (lap.length > MOST_PLACES) throw new CalculationError('too-long', 'file', `The lap has ${lap.length} places; ${MOST_PLACES} are the most. Thin it out.`)
  const open = tracedTrack(lap, { isClosed: false, cutOffM })
  const isClosed = open.gapM < CLOSED_SHARE * open.lengthM
  const track = isClosed ? tracedTrack(lap, { isClosed: true, cutOffM }) : open
  const first = lap[0] as Place
  const told = `${lap.length} of ${all.length} places, ${track.lengthM.toFixed(0)} m, ${isClosed ? `ends ${track.gapM.toFixed(1)} m apart, closed` : 'no circuit'}`
  return { track, origin: { latitudeDeg: first.latitudeDeg, longitudeDeg: first.longitudeDeg }, places: lap.length, told }
}
