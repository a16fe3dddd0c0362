import { CalculationError } from '../errors.ts'
import { type DecimalMark, parseNumber } from '../units/parse-number.ts'
import { toSi } from '../units/units.ts'
import { Column } from './column.ts'
import { columnNotes } from './column-notes.ts'
import { crossCheckPower } from './cross-check.ts'
import { numberMarks } from './number-marks.ts'
import { type Channel, type PullFigures, pullFigures } from './pull-figures.ts'
import { MOST_PULLS, notEngineSpeed, tooManyPulls, unitsDoNotFit } from './pull-refusals.ts'
import { type ChannelColumn, type ChannelRole, type ColumnMapping, guessColumns, isHeadingRow, isUnitRow, readColumns } from './read-header.ts'

export interface RefusedLine {
  readonly line: number
  readonly reason: string
}

export interface ReadPull extends PullFigures {
  readonly label: string
  readonly channels: readonly Channel[]
}

export interface PullFileReport {
  readonly columns: readonly { heading: string; name: string; role: ChannelRole; unit: string }[]
  readonly pulls: readonly ReadPull[]
  readonly crossCheckRatio: number | null
  readonly refusedLines: readonly RefusedLine[]
  readonly refusedLineCount: number
  readonly notes: readonly string[]
}

const MOST_REPORTED_LINES = 50
/** So many lines of names, dates and air may stand before the heading. */
const MOST_LINES_BEFORE_HEADING = 40
const NEEDED_ROLES: ReadonlySet<string> = new Set(['speed', 'power', 'torque'])
const FALL_ENDS_PULL_RPM = 500

/** A pull while it is read: what each of its columns is, and its numbers so far. */
interface OpenPull {
  readonly label: string
  readonly channels: readonly ChannelColumn[]
  readonly columns: readonly Column[]
}

/** Power is checked against torque on about so many rows of a file, evenly spread, and on so many of each pull at least. */
const CHECKED_ROWS = 12_000
const FEWEST_CHECKED_ROWS = 60

/**
 * Reads the rows of a dyno file as they come and keeps only numbers, so that a large file never stands in memory as text.
 * Feed rows with `addRow`, then call `finish`. The marks of its numbers are found from the first rows. Rows with a cell that is no number are refused with their line and reason; empty cells of channels
 * other than speed, power and torque are kept as gaps. A pull ends where the speed has fallen 500 rpm below its highest and rises
 * again, or where the pull column changes; where each pull has columns of its own, it ends where its cells are empty.
 */
export class PullReader {
  private readonly delimiter: string
  private readonly mapping: readonly ColumnMapping[]
  private beforeHeading: { cells: readonly string[]; line: number }[] = []
  private skippedLines = 0
  private heading: readonly string[] | undefined
  private columns: ChannelColumn[] | undefined
  private decimalMark: DecimalMark | undefined
  private thousandsMark: DecimalMark | undefined
  private waiting: { cells: readonly string[]; line: number }[] = []
  private readonly refused: RefusedLine[] = []
  private refusedCount = 0
  private readonly pulls: OpenPull[] = []
  private fastest = 0
  private highest = Number.NEGATIVE_INFINITY
  private lowest = Number.POSITIVE_INFINITY
  private line = 0
  private speedAt = -1
  private pullAt: number | undefined
  /** Whether each pull has columns of its own. */
  private isSideBySide = false
  /** The numbers of the row at hand; one list for all rows. */
  private readonly row: number[] = []

  constructor(options: { delimiter: string; mapping?: readonly ColumnMapping[] | undefined }) {
    this.delimiter = options.delimiter
    this.mapping = options.mapping ?? []
  }

  addRow(cells: readonly string[]): void {
    this.line++
    if (cells.every((cell) => cell.trim() === '')) return
    if (this.heading) this.takeCells(cells, this.line)
    else if (isHeadingRow(cells, this.mapping)) {
      this.skippedLines = this.beforeHeading.length
      this.heading = cells
      this.beforeHeading = []
    } else {
      this.beforeHeading.push({ cells, line: this.line })
      if (this.beforeHeading.length >= MOST_LINES_BEFORE_HEADING) this.takeWidestAsHeading()
    }
  }

  /** No row looks like a heading: the first of the widest is taken, so that a refusal can name what it found there. */
  private takeWidestAsHeading(): void {
    const rows = this.beforeHeading
    const at = widestAt(rows)
    this.beforeHeading = []
    this.heading = rows[at]?.cells
    this.skippedLines = at
    for (const { cells, line } of rows.slice(at + 1)) this.takeCells(cells, line)
  }

  private takeCells(cells: readonly string[], line: number): void {
    if (!this.columns) {
      const unitRow = isUnitRow(cells) ? cells : undefined
      this.settleColumns(unitRow)
      if (unitRow) return
    }
    if (this.decimalMark) this.takeRow(cells, line)
    else {
      this.waiting.push({ cells, line })
      if (this.waiting.length >= 200) this.settleMarks()
    }
  }

  /** What the columns seem to be, for a file that cannot be read until a person says it. */
  guess(): PullFileReport['columns'] {
    const heading = this.heading ?? this.beforeHeading[widestAt(this.beforeHeading)]?.cells ?? []
    return named(heading, this.columns ?? guessColumns(heading, undefined, this.mapping))
  }

  private settleColumns(unitRow: readonly string[] | undefined): void {
    this.columns = readColumns(this.heading as readonly string[], unitRow, this.mapping)
    this.speedAt = this.columns.findIndex((column) => column.role === 'speed')
    this.pullAt = this.columns.find((column) => column.role === 'pull')?.index
    const labels = new Set(this.columns.flatMap(({ pull }) => pull ?? []))
    this.isSideBySide = labels.size > 0
    if (labels.size > MOST_PULLS) throw tooManyPulls(null)
    for (const label of labels) {
      const channels = this.columns.filter(({ pull }) => pull === undefined || pull === label)
      this.pulls.push({ label, channels, columns: channels.map(() => new Column()) })
    }
  }

  private settleMarks(): void {
    const { decimal, thousands } = numberMarks(
      this.waiting.flatMap((row) => row.cells),
      this.delimiter,
    )
    this.decimalMark = decimal
    this.thousandsMark = thousands
    for (const row of this.waiting) this.takeRow(row.cells, row.line)
    this.waiting = []
  }

  /** Notes a line that is left out; answers true so that a reader can stop with it. */
  private refuse(line: number, reason: string): true {
    this.refusedCount++
    if (this.refused.length < MOST_REPORTED_LINES) this.refused.push({ line, reason })
    return true
  }

  /** Takes a row into its pull, or into each that has cells in it; true when it was refused instead. */
  private takeRow(cells: readonly string[], line: number): boolean {
    const columns = this.columns as ChannelColumn[]
    if (cells.length < columns.length) return this.refuse(line, `has ${cells.length} cells where the heading has ${columns.length}`)
    if (!this.isSideBySide) return this.takeInto(() => this.pullFor(cells, this.row[this.speedAt] as number), columns, cells, line)
    const isEmpty = ({ index, pull }: ChannelColumn) => pull === undefined || (cells[index] ?? '').trim() === ''
    const refusals = this.pulls.map((pull) => !pull.channels.every(isEmpty) && this.takeInto(() => pull, pull.channels, cells, line))
    return refusals.includes(true)
  }

  private takeInto(pullOf: () => OpenPull, columns: readonly ChannelColumn[], cells: readonly string[], line: number): boolean {
    const values = this.row
    let speed = Number.NaN
    for (let i = 0; i < columns.length; i++) {
      const column = columns[i] as ChannelColumn
      const cell = (cells[column.index] ?? '').trim()
      const needed = NEEDED_ROLES.has(column.role)
      values[i] = Number.NaN
      if (cell === '' && needed) return this.refuse(line, `${column.name} is empty`)
      if (cell === '' || column.role === 'pull') continue
      try {
        values[i] = parseNumber(this.thousandsMark ? cell.replaceAll(this.thousandsMark, '') : cell, this.decimalMark, column.name)
      } catch (error) {
        if (!(error instanceof CalculationError)) throw error
        if (needed) return this.refuse(line, error.message)
      }
      if (column.role === 'speed') speed = values[i] as number
    }
    if (!(speed > 0)) return this.refuse(line, `engine speed is ${speed}; it must be more than zero`)
    this.fastest = Math.max(this.fastest, speed)
    const open = pullOf().columns
    for (let i = 0; i < open.length; i++) (open[i] as Column).push(values[i] as number)
    return false
  }

  private pullFor(cells: readonly string[], speed: number): OpenPull {
    const { pullAt } = this
    const current = this.pulls.at(-1)
    const label = pullAt === undefined ? '' : (cells[pullAt] ?? '').trim()
    this.highest = Math.max(this.highest, speed)
    this.lowest = speed < this.highest - FALL_ENDS_PULL_RPM ? Math.min(this.lowest, speed) : this.lowest
    const risesAgain = speed > this.lowest + FALL_ENDS_PULL_RPM
    const isNew = !current || (pullAt === undefined ? risesAgain : label !== current.label)
    if (!isNew) return current
    this.highest = speed
    this.lowest = Number.POSITIVE_INFINITY
    if (this.pulls.length >= MOST_PULLS) throw tooManyPulls(pullAt === undefined ? null : (this.heading?.[pullAt] ?? ''))
    const channels = this.columns as ChannelColumn[]
    const fresh: OpenPull = { label: pullAt === undefined ? String(this.pulls.length + 1) : label, channels, columns: channels.map(() => new Column()) }
    this.pulls.push(fresh)
    if (pullAt === undefined && current) this.moveStartOfRise(current, fresh)
    return fresh
  }

  /** The first 500 rpm of the new rise were put behind the fall of the pull before; they belong to the new one. */
  private moveStartOfRise(from: OpenPull, to: OpenPull): void {
    const speeds = from.columns[this.speedAt] as Column
    let start = speeds.length - 1
    while (start > 0 && speeds.at(start - 1) <= speeds.at(start)) start--
    from.columns.forEach((column, i) => {
      for (const value of column.takeFrom(start)) to.columns[i]?.push(value)
    })
  }

  finish(): PullFileReport {
    if (!this.heading) this.takeWidestAsHeading()
    if (!this.heading) throw new CalculationError('missing', 'file', 'The file is empty. Export the pulls again and choose that file.')
    if (!this.columns) this.settleColumns(undefined)
    if (!this.decimalMark) this.settleMarks()
    if (this.pulls.every(({ columns: [first] }) => first?.length === 0)) {
      const first = this.refused[0]
      const why = first ? ` Line ${first.line}: ${first.reason}` : ''
      throw new CalculationError('missing', 'file', `No row of numbers could be read.${why}`)
    }
    const columns = this.columns as readonly ChannelColumn[]
    const check = this.checkUnits()
    const read = this.pulls.map(readPull)
    const notes = read.flatMap((pull) => (pull.cutRowCount > 0 ? [`Pull ${pull.label}: ${pull.cutRowCount} rows of falling speed were cut.`] : []))
    if (this.skippedLines > 0)
      notes.push(this.skippedLines === 1 ? 'One line before the heading was left out.' : `${this.skippedLines} lines before the heading were left out.`)
    if (this.isSideBySide) notes.push(`Each of the ${read.length} pulls has columns of its own.`)
    notes.push(...columnNotes(columns))
    if (this.thousandsMark) notes.push(`Thousands were marked by a ${this.thousandsMark === ',' ? 'comma' : 'point'}.`)
    if (this.decimalMark === ',') notes.push('Numbers were read with a decimal comma.')
    return {
      columns: named(this.heading, columns),
      pulls: read,
      crossCheckRatio: check,
      refusedLines: this.refused,
      refusedLineCount: this.refusedCount,
      notes,
    }
  }

  private checkUnits(): number | null {
    const ofEach = Math.max(FEWEST_CHECKED_ROWS, Math.ceil(CHECKED_ROWS / this.pulls.length))
    const all = (role: string) => {
      const found = this.pulls.flatMap(({ channels, columns }) => {
        const at = channels.findIndex((channel) => channel.role === role)
        return at < 0 ? [] : [{ channel: channels[at] as ChannelColumn, values: someOf(columns[at] as Column, ofEach) }]
      })
      return found.length < this.pulls.length ? undefined : found
    }
    const { fastest } = this
    if (fastest < 400 || fastest > 25_000) throw notEngineSpeed(fastest)
    const [speed, power, torque] = [all('speed'), all('power'), all('torque')]
    if (!speed || !power || !torque) return null
    const check = crossCheckPower({
      speedRpm: speed.flatMap(({ values }) => values),
      powerW: power.flatMap(({ channel, values }) => values.map((value) => toSi('power', value, channel.unit))),
      torqueNm: torque.flatMap(({ channel, values }) => values.map((value) => toSi('torque', value, channel.unit))),
    })
    if (check.passes) return check.ratio
    throw unitsDoNotFit(check)
  }
}

/** The place of the first of the widest rows; −1 of none. */
function widestAt(rows: readonly { readonly cells: readonly string[] }[]): number {
  const most = Math.max(0, ...rows.map(({ cells }) => cells.length))
  return rows.findIndex(({ cells }) => cells.length === most)
}

const named = (heading: readonly string[], columns: readonly ChannelColumn[]): PullFileReport['columns'] =>
  columns.map(({ index, name, role, unit }) => ({ heading: (heading[index] ?? '').replace(/^\ufeff/, '').trim(), name, role, unit }))

/** Values of a column, evenly spread: all of a short one, else about as many as asked. */
function someOf(column: Column, count: number): number[] {
  const step = Math.max(1, Math.ceil(column.length / count))
  return Array.from({ length: Math.ceil(column.length / step) }, (_, i) => column.at(i * step))
}

function readPull(pull: OpenPull): ReadPull {
  const channels = pull.channels.flatMap((column, i) =>
    column.role === 'pull' ? [] : [{ role: column.role, name: column.name, unit: column.unit, values: (pull.columns[i] as Column).drain() }],
  )
  return { label: pull.label, channels, ...pullFigures(pull.label, channels) }
}
