import { numberMarks } from '../dyno/number-marks.ts'
import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { parseNumber } from '../units/parse-number.ts'
import { findUnit, toSi } from '../units/units.ts'
import type { CoastRun } from './coast-model.ts'

/** A run as a logger's file has it, cut to where the car coasted. */
export interface CoastFile {
  readonly run: CoastRun
  /** Headings that were read. */
  readonly timeHeading: string
  readonly speedHeading: string
  /** The unit of speed that the file names; null: it names none, and the given one was taken. */
  readonly namedUnit: string | null
  /** What was cut off before and behind the coasting, s. */
  readonly cutBeforeS: number
  readonly cutAfterS: number
}

const TIME = 'session time|elapsed time|elapsed|time|zeit|temps|t'
const SPEED = 'vehicle speed|ground speed|road speed|gps speed|wheel speed|velocity|speed|geschwindigkeit|vitesse|v'
const TIME_UNITS: Readonly<Record<string, number>> = { '': 1, s: 1, sec: 1, seconds: 1, ms: 0.001, min: 60 }
const MOST_HEAD_LINES = 60

interface Columns {
  readonly at: number
  readonly time: { readonly index: number; readonly heading: string; readonly unit: string }
  readonly speed: { readonly index: number; readonly heading: string; readonly unit: string }
}

/** "Speed (km/h)", "speed_kmh", "GPS speed, km/h", "speed" as the unit behind one of the names; null for another heading. */
function unitBehind(names: string, heading: string): string | null {
  const text = heading.replace(/[\s_,;:()[\]{}\ufeff]+/g, ' ').trim()
  const found = new RegExp(`^(?:${names})(?: (\\S+))?$`, 'i').exec(text)
  return found ? (found[1] ?? '') : null
}

/** What a person said a column is. */
export interface ToldColumn {
  readonly heading: string
  readonly role: string
  readonly unit: string
}

const plain = (heading: string): string =>
  heading
    .replace(/^\ufeff/, '')
    .trim()
    .toLowerCase()

/** The first line that heads a time and a speed, by what a person said or by their names, with the units it or the line below names. */
function findColumns(rows: readonly (readonly string[])[], told: readonly ToldColumn[]): Columns {
  for (const [at, cells] of rows.slice(0, MOST_HEAD_LINES).entries()) {
    const of = (names: string, roles: readonly string[]) => {
      for (const role of roles) {
        const said = told.find((each) => each.role === role && cells.some((cell) => plain(cell) === plain(each.heading)))
        if (said) return { index: cells.findIndex((cell) => plain(cell) === plain(said.heading)), heading: said.heading, unit: said.unit }
      }
      const units = cells.map((cell) => (told.some(({ heading }) => plain(heading) === plain(cell)) ? null : unitBehind(names, cell)))
      const index = units.findIndex((unit) => unit !== null)
      return { index, heading: (cells[index] ?? '').replace(/^\ufeff/, '').trim(), unit: units[index] ?? '' }
    }
    const [time, speed] = [of(TIME, ['time']), of(SPEED, ['speed', 'wheelSpeed'])]
    if (time.index < 0 || speed.index < 0) continue
    const below = rows[at + 1]?.map((cell) => cell.replace(/[()[\]{}]/g, '').trim()) ?? []
    const hasUnits = below.some((cell) => cell !== '') && below.every((cell) => !/^[-+]?\d/.test(cell))
    const withUnit = (column: Columns['time']) => ({ ...column, unit: column.unit || (hasUnits ? (below[column.index] ?? '') : '') })
    return { at: at + (hasUnits ? 2 : 1), time: withUnit(time), speed: withUnit(speed) }
  }
  const listed = (rows.find((cells) => cells.length > 1) ?? []).map((cell) => `"${cell.trim()}"`).join(', ')
  throw new CalculationError('missing', 'file', `No line heads a time and a speed. Found ${listed || 'nothing'}. Head the columns "time s" and "speed km/h".`)
}

/** How far a coasting car may gain for a moment, m/s. */
const RISE_MPS = 0.5

/** Where the car coasted: from the last moment at its fastest to the slowest before it gains again. */
function coasting(speeds: readonly number[]): { from: number; to: number } {
  const most = Math.max(...speeds)
  const from = speeds.findLastIndex((speed) => speed >= most - 1e-9)
  let to = from
  for (let i = from; i < speeds.length; i++) {
    if (itemAt(speeds, i) > itemAt(speeds, to) + RISE_MPS) break
    if (itemAt(speeds, i) <= itemAt(speeds, to)) to = i
  }
  return { from, to: to + 1 }
}

/**
 * A run of a coast-down out of the rows of a logger's file: its columns of time and speed by their headings, cut to where the car coasted. `speedUnit` is that
 * of a file that names none; what a person said a column is goes before its heading. Refuses (`missing`, `unknown-unit`) a file without such columns, and units that nobody here knows.
 * @example coastFile([['time s', 'speed m/s'], ['0', '50'], ['1', '49']], ',', 'km/h').run.speedMps // [50, 49]
 */
export function coastFile(rows: readonly (readonly string[])[], delimiter: string, speedUnit: string, told: readonly ToldColumn[] = []): CoastFile {
  const { at, time, speed } = findColumns(rows, told)
  const perS = TIME_UNITS[time.unit.toLowerCase()]
  if (perS === undefined)
    throw new CalculationError('unknown-unit', 'file', `The column "${time.heading}" is in "${time.unit}". Time is read in s, ms or min: correct the heading.`)
  const unit = findUnit('speed', speed.unit || speedUnit)
  if (!unit)
    throw new CalculationError(
      'unknown-unit',
      'file',
      `The column "${speed.heading}" is in "${speed.unit}". Speed is read in km/h, m/s or mph: correct the heading.`,
    )
  const marks = numberMarks(
    rows.slice(at, at + 200).flatMap((cells) => [cells[time.index] ?? '', cells[speed.index] ?? '']),
    delimiter,
  )
  const read = (cell: string | undefined) => parseNumber((cell ?? '').replaceAll(marks.thousands ?? '\0', '').trim(), marks.decimal, 'file')
  const [timeS, speedMps]: [number[], number[]] = [[], []]
  for (const cells of rows.slice(at)) {
    if ((cells[time.index] ?? '').trim() === '' || (cells[speed.index] ?? '').trim() === '') continue
    const t = perS * read(cells[time.index])
    // Loggers print one moment twice where a slow channel fills in.
    if (timeS.length > 0 && t <= itemAt(timeS, timeS.length - 1)) continue
    timeS.push(t)
    speedMps.push(toSi('speed', read(cells[speed.index]), unit.symbol))
  }
  if (timeS.length === 0) throw new CalculationError('missing', 'file', `No line below "${time.heading}" holds a time and a speed. Export the run again.`)
  const { from, to } = coasting(speedMps)
  return {
    run: { timeS: timeS.slice(from, to), speedMps: speedMps.slice(from, to) },
    timeHeading: time.heading,
    speedHeading: speed.heading,
    namedUnit: speed.unit === '' ? null : unit.symbol,
    cutBeforeS: itemAt(timeS, from) - itemAt(timeS, 0),
    cutAfterS: itemAt(timeS, timeS.length - 1) - itemAt(timeS, to - 1),
  }
}
