import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { median } from '../stats/moments.ts'
import { type LoggedLap, lapsFromLog, type TimingLine } from './laps-from-log.ts'
import { type Origin, toPlane } from './plane.ts'

/** What a logger wrote, as far as laps need it: a clock, and positions or a count of laps. */
export interface LogSamples {
  /** From its own begin, s. */
  readonly timeS: readonly number[]
  readonly places: readonly Origin[] | null
  /** As the logger counted them. */
  readonly lap: readonly number[] | null
  /** What to look at before any lap time, as sentences. */
  readonly problems: readonly string[]
  readonly told: string
}

/** Fewer samples are no log. */
const FEWEST = 20
/** A gap is this many times the usual step, and half a second at least. */
const GAP_TIMES = 4

/** One cell of a clock, s: seconds, h:m:s, or an ISO instant; undefined where it is none. */
function clockS(cell: string): number | undefined {
  const text = cell.trim()
  if (text === '') return undefined
  if (/^-?\d+([.,]\d+)?$/.test(text)) return Number(text.replace(',', '.'))
  const parts = /^(?:(\d+):)?(\d+):(\d+(?:[.,]\d+)?)$/.exec(text)
  if (parts) return 3600 * Number(parts[1] ?? 0) + 60 * Number(parts[2]) + Number((parts[3] as string).replace(',', '.'))
  const at = Date.parse(text)
  return Number.isNaN(at) ? undefined : at / 1000
}

const NAMES = {
  time: /^\W*(time|clock|utc|timestamp|seconds?|t)\b/i,
  latitude: /lat/i,
  longitude: /lon|lng/i,
  lap: /^\W*lap\b(?!.*time)/i,
} as const

interface Heading {
  readonly row: number
  readonly time: number
  readonly latitude: number
  readonly longitude: number
  readonly lap: number
  readonly isMs: boolean
}

function headingOf(rows: readonly (readonly string[])[]): Heading {
  for (let row = 0; row < Math.min(rows.length, 60); row++) {
    const names = itemAt(rows, row)
    const column = (pattern: RegExp) => names.findIndex((name) => pattern.test(name))
    const [time, latitude, longitude, lap] = [column(NAMES.time), column(NAMES.latitude), column(NAMES.longitude), column(NAMES.lap)]
    if (time >= 0 && ((latitude >= 0 && longitude >= 0) || lap >= 0))
      return { row, time, latitude, longitude, lap, isMs: /\bms\b|milli/i.test(names[time] ?? '') }
  }
  const found = (rows.find((row) => row.length > 1) ?? []).slice(0, 6).map((name) => `"${name}"`)
  throw new CalculationError(
    'unreadable',
    'file',
    `No line heads a time with positions or a lap number. Found ${found.join(', ') || 'nothing'}. Name the columns time, latitude, longitude or lap.`,
  )
}

const number = (cell: string | undefined) => (cell === undefined || cell.trim() === '' ? Number.NaN : Number(cell.replace(',', '.')))

/** Gaps in a clock, told by the first of them. */
function gapsOf(timeS: readonly number[]): string[] {
  const steps = timeS.slice(1).map((time, i) => time - itemAt(timeS, i))
  const usual = median(steps)
  const least = Math.max(0.5, GAP_TIMES * usual)
  const gaps = steps.flatMap((step, i) => (step > least ? [{ at: itemAt(timeS, i), step }] : []))
  const [first] = gaps
  if (!first) return []
  return [`${gaps.length === 1 ? 'One gap' : `${gaps.length} gaps`}: nothing was recorded for ${first.step.toFixed(1)} s from ${first.at.toFixed(0)} s on.`]
}

/**
 * A logger's rows as samples: columns by their headings, a clock in seconds, milliseconds, h:m:s or ISO, an empty cell not sampled then, a time that comes
 * twice taken once. Source: the room's page. Rejects rows without a heading, a clock that goes back, and fewer than 20 samples.
 * @example readLog(LOG_ROWS).timeS.length // 20
 */
export function readLog(rows: readonly (readonly string[])[]): LogSamples {
  const { row, time, latitude, longitude, lap, isMs } = headingOf(rows)
  const [timeS, places, laps]: [number[], Origin[], number[]] = [[], [], []]
  const hasPlaces = latitude >= 0 && longitude >= 0
  let [begin, empty] = [Number.NaN, 0]
  for (let i = row + 1; i < rows.length; i++) {
    const cells = itemAt(rows, i)
    const clock = clockS(cells[time] ?? '')
    const [place, count] = [{ latitudeDeg: number(cells[latitude]), longitudeDeg: number(cells[longitude]) }, number(cells[lap])]
    const isSampled = hasPlaces ? Number.isFinite(place.latitudeDeg) && Number.isFinite(place.longitudeDeg) : Number.isFinite(count)
    if (clock === undefined || !isSampled) {
      empty++
      continue
    }
    const at = isMs ? clock / 1000 : clock
    if (Number.isNaN(begin)) begin = at
    const since = at - begin
    const last = timeS.at(-1)
    if (last !== undefined && since < last - 1e-9)
      throw new CalculationError('inconsistent', 'file', `The clock goes back at line ${i + 1}, ${since.toFixed(1)} s after its begin. Cut the log there.`)
    if (last !== undefined && since - last < 1e-9) continue
    timeS.push(since)
    if (hasPlaces) places.push(place)
    if (lap >= 0) laps.push(count)
  }
  if (timeS.length < FEWEST)
    throw new CalculationError(
      'missing',
      'file',
      `The log holds ${timeS.length} samples: the logger recorded nothing that a lap can be read from. Record again, and read it back before the car goes out.`,
    )
  const span = itemAt(timeS, timeS.length - 1)
  const rate = (timeS.length - 1) / span
  const problems = [
    ...gapsOf(timeS),
    ...(empty > 0.05 * rows.length ? [`${empty} of ${rows.length - row - 1} lines have no ${hasPlaces ? 'position' : 'lap'}.`] : []),
  ]
  const isStill =
    hasPlaces && places.every((each) => each.latitudeDeg === itemAt(places, 0).latitudeDeg && each.longitudeDeg === itemAt(places, 0).longitudeDeg)
  if (isStill) problems.push('The position never moved: the receiver was dead.')
  const told = `${timeS.length} samples over ${(span / 60).toFixed(1)} min, ${rate.toFixed(rate < 5 ? 1 : 0)} a second`
  return { timeS, places: hasPlaces ? places : null, lap: lap >= 0 && laps.every(Number.isFinite) ? laps : null, problems, told }
}

/** Laps between changes of the count that the logger kept; what runs before the first change and behind the last is none. */
function lapsByCount({ timeS }: LogSamples, lap: readonly number[]): LoggedLap[] {
  const changes: number[] = []
  for (let i = 1; i < lap.length; i++) if (itemAt(lap, i) !== itemAt(lap, i - 1)) changes.push(itemAt(timeS, i))
  return changes.slice(1).map((at, i) => ({ fromS: itemAt(changes, i), lapS: at - itemAt(changes, i) }))
}

/** How far the timing line reaches to either side of a driven line, m (common practice, no source). */
const LINE_HALF_WIDTH_M = 15

/**
 * The laps of a log on a track: by its positions where the track has a place on the Earth, else by the count that the logger kept.
 * Rejects a log without either, one that never crosses the line, and one that lies elsewhere.
 * @example lapsOfLog(readLog(LOG_ROWS), { origin: null, bearingRad: null }).length // 1
 */
export function lapsOfLog(log: LogSamples, { origin, bearingRad }: { origin: Origin | null; bearingRad: number | null }): readonly LoggedLap[] {
  if (log.places && origin && bearingRad !== null) {
    const line: TimingLine = { x: 0, y: 0, headingRad: bearingRad, halfWidthM: LINE_HALF_WIDTH_M }
    return lapsFromLog({ timeS: log.timeS, ...toPlane(origin, log.places) }, line)
  }
  if (log.lap) {
    const laps = lapsByCount(log, log.lap)
    if (laps.length === 0) throw new CalculationError('missing', 'file', 'The count of laps changes less than twice: no whole lap in it.')
    return laps
  }
  throw new CalculationError(
    'missing',
    'file',
    'The track was drawn in words and has no place on the Earth, and the log counts no laps. Import the track out of a trace, or export the log with its laps.',
  )
}
