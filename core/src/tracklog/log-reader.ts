import { Column } from '../dyno/column.ts'
import { numberMarks } from '../dyno/number-marks.ts'
import { CalculationError } from '../errors.ts'
import { type DecimalMark, parseNumber } from '../units/parse-number.ts'
import { firstLook } from './first-look.ts'
import { clockOf, isUnitRow } from './log-cells.ts'
import { headsLog, type LogColumn, type LogColumnMapping, logColumns, readerOf } from './log-channels.ts'
import { BLOCK_SAMPLES, isGap, LogChannelWriter } from './log-columns.ts'
import { LogPlaces, LogWays } from './log-places.ts'
import type { LogChannel, LogChannelRole, LogReport } from './log-report.ts'
import type { LogRole } from './log-roles.ts'
import { DipWatch } from './pressure-dips.ts'

/** Fewer samples are no log. */
const FEWEST = 20
const MOST_HEAD_LINES = 60
const MARK_ROWS = 200

interface Channel {
  readonly column: LogColumn
  readonly role: LogChannelRole
  readonly unit: string
  readonly factor: number
  readonly offset: number
  readonly writer: LogChannelWriter
}

/**
 * Reads a logger's file row by row: columns by their headings or as told, a clock of seconds, milliseconds, h:m:s or instants, an empty cell not sampled then,
 * a time that comes twice averaged, lines whose clock goes back left out and told. Pieces of 65,536 samples a channel are handed on as they fill, so that
 * memory does not grow with the file but by what laps are read from. Source: the room's page.
 */
export class LogReader {
  private readonly delimiter: string
  private readonly mapping: readonly LogColumnMapping[]
  private readonly blockSamples: number
  private readonly onBlock: (channel: number, block: Float32Array) => void
  private head: (readonly string[])[] = []
  private columns: readonly LogColumn[] | undefined
  private channels: Channel[] = []
  private clockAt = 0
  private clockFactor = 1
  /** Where each role stands among the channels; under 0: nowhere. */
  private at = { north: -1, east: -1, speed: -1, wheelSpeed: -1, lap: -1, oilPressure: -1, engineSpeed: -1, across: -1 }
  private marks: { decimal: DecimalMark; thousands: DecimalMark | undefined } | undefined
  private waiting: { cells: readonly string[]; line: number }[] = []
  private isFirstBelow = true
  private line = 0
  private begin = Number.NaN
  private lastS = Number.NaN
  private readonly places = new LogPlaces()
  private readonly ways = new LogWays()
  private readonly time = new Column()
  private readonly kept = { east: new Column(), north: new Column(), lap: new Column() }
  /** The moment that is open: a time may come again. */
  private open: { atS: number; sums: Float64Array; counts: Uint16Array } | undefined
  private seen = {
    gapCount: 0,
    firstGap: null as { atS: number; lengthS: number } | null,
    backCount: 0,
    firstBack: null as { line: number; byS: number } | null,
    unreadCount: 0,
  }
  private readonly oil = new DipWatch()

  constructor({
    delimiter,
    mapping = [],
    onBlock = () => undefined,
    blockSamples = BLOCK_SAMPLES,
  }: {
    delimiter: string
    mapping?: readonly LogColumnMapping[] | undefined
    onBlock?: (channel: number, block: Float32Array) => void
    blockSamples?: number
  }) {
    this.delimiter = delimiter
    this.mapping = mapping
    this.onBlock = onBlock
    this.blockSamples = blockSamples
  }

  /** What the columns seem to be: of the heading, else of the widest of the first lines. */
  guess(): readonly LogColumn[] {
    if (this.columns) return this.columns
    const widest = [...this.head].sort((a, b) => b.length - a.length)[0] ?? []
    return logColumns(widest, undefined, this.mapping)
  }

  addRow(cells: readonly string[]): void {
    this.line++
    if (!this.columns) {
      if (cells.length <= 1 && (cells[0] ?? '').trim() === '') return
      const columns = logColumns(cells, undefined, this.mapping)
      if (headsLog(columns)) this.columns = columns
      else {
        this.head.push(cells)
        if (this.head.length >= MOST_HEAD_LINES) throw this.noHeading()
      }
      return
    }
    if (this.isFirstBelow) {
      this.isFirstBelow = false
      const unitRow = isUnitRow(cells) ? cells : undefined
      if (unitRow)
        this.columns = logColumns(
          this.columns.map(({ heading }) => heading),
          unitRow,
          this.mapping,
        )
      this.settle()
      if (unitRow) return
    }
    if (this.marks) this.takeRow(cells, this.line)
    else {
      this.waiting.push({ cells, line: this.line })
      if (this.waiting.length >= MARK_ROWS) this.settleMarks()
    }
  }

  private noHeading(): CalculationError {
    const found = (this.head.find((row) => row.length > 1) ?? []).slice(0, 6).map((name) => `"${name.trim()}"`)
    return new CalculationError(
      'unreadable',
      'file',
      `No line heads a time with positions, a speed or a lap number. Found ${found.join(', ') || 'nothing'}. Say which column is what, or name them time, latitude, longitude, speed or lap.`,
    )
  }

  private settle(): void {
    const columns = this.columns as readonly LogColumn[]
    const at = (role: LogRole) => columns.findIndex((column) => column.role === role)
    const hasPlaces = at('latitude') >= 0 && at('longitude') >= 0
    const kept = columns.filter(({ role }) => hasPlaces || (role !== 'latitude' && role !== 'longitude'))
    this.channels = kept.map((column, i) => {
      const { toRecord, unit } = readerOf(column)
      const role = column.role === 'longitude' ? 'east' : column.role === 'latitude' ? 'north' : column.role
      return {
        column,
        role,
        unit: role === 'east' || role === 'north' ? 'm' : unit,
        ...toRecord,
        writer: new LogChannelWriter((block) => this.onBlock(i, block), this.blockSamples),
      }
    })
    const channelAt = (role: LogChannelRole) => this.channels.findIndex((channel) => channel.role === role)
    for (const role of Object.keys(this.at) as (keyof LogReader['at'])[]) this.at[role] = channelAt(role)
    this.clockAt = at('time')
    this.clockFactor = this.channels.find(({ role }) => role === 'time')?.factor ?? 1
  }

  private settleMarks(): void {
    this.marks = numberMarks(
      this.waiting.flatMap(({ cells }) => cells),
      this.delimiter,
    )
    for (const { cells, line } of this.waiting) this.takeRow(cells, line)
    this.waiting = []
  }

  private numberOf(cell: string): number {
    // Most cells by far are plain numbers.
    if (this.marks?.decimal === '.' && this.marks.thousands === undefined) {
      const value = Number(cell)
      if (!Number.isNaN(value) && Number.isFinite(value)) return value
    }
    try {
      const { decimal, thousands } = this.marks ?? { decimal: '.' as const, thousands: undefined }
      return parseNumber(thousands ? cell.replaceAll(thousands, '') : cell, decimal)
    } catch {
      return Number.NaN
    }
  }

  private takeRow(cells: readonly string[], line: number): void {
    const clock = clockOf(cells[this.clockAt] ?? '')
    if (!clock) {
      this.seen.unreadCount++
      return
    }
    const at = clock.isPlain ? clock.value * this.clockFactor : clock.value
    if (Number.isNaN(this.begin)) this.begin = at
    const since = at - this.begin
    if (since < this.lastS - 1e-9) {
      this.seen.firstBack ??= { line, byS: this.lastS - since }
      this.seen.backCount++
      return
    }
    if (!this.open || since > this.open.atS + 1e-9) {
      this.close()
      this.open = { atS: since, sums: new Float64Array(this.channels.length), counts: new Uint16Array(this.channels.length) }
    }
    this.lastS = since
    this.takeCells(cells, this.open)
  }

  private takeCells(cells: readonly string[], { sums, counts }: NonNullable<LogReader['open']>): void {
    let isSampled = false
    for (let i = 0; i < this.channels.length; i++) {
      const { column, factor, offset, role } = this.channels[i] as Channel
      const cell = cells[column.index]
      if (role === 'time' || cell === undefined || cell === '' || cell.trim() === '') continue
      const value = this.numberOf(cell)
      if (Number.isNaN(value)) continue
      isSampled = true
      sums[i] = (sums[i] as number) + (value + offset) * factor
      counts[i] = (counts[i] as number) + 1
    }
    if (!isSampled) this.seen.unreadCount++
  }

  /** The moment that was open goes to its channels. */
  private close(): void {
    const { open } = this
    if (!open) return
    this.open = undefined
    const { atS, sums, counts } = open
    if (!counts.some((count) => count > 0)) return
    const values = sums
    for (let i = 0; i < values.length; i++) values[i] = (counts[i] as number) > 0 ? (sums[i] as number) / (counts[i] as number) : Number.NaN
    this.places.place(values, this.at)
    const count = this.time.length
    if (count > 0) {
      const last = this.time.at(count - 1)
      if (isGap(atS - last, last / (count - 1 || 1), count)) {
        this.seen.gapCount++
        this.seen.firstGap ??= { atS: last, lengthS: atS - last }
      }
    }
    this.time.push(atS)
    for (let i = 0; i < this.channels.length; i++) {
      const { role, writer } = this.channels[i] as Channel
      const value = role === 'time' ? atS : (values[i] as number)
      writer.push(value, atS)
      if (role === 'east' || role === 'north') this.kept[role].push(value)
      // A count that is told now and then holds until the next.
      if (role === 'lap') this.kept.lap.push(Number.isNaN(value) && count > 0 ? this.kept.lap.at(count - 1) : value)
    }
    this.ways.add(atS, values, this.at, this.places.origin === null)
    this.watchOil(atS, values)
  }

  private watchOil(atS: number, values: Float64Array): void {
    const { oilPressure, engineSpeed, across, lap } = this.at
    if (oilPressure < 0 || engineSpeed < 0) return
    const of = (i: number) => values[i] ?? Number.NaN
    this.oil.push({ atS, pressurePa: of(oilPressure), engineRpm: of(engineSpeed), acrossMps2: of(across), lap: of(lap) })
  }

  /** Rejects a file without a heading, and one with fewer than 20 samples. */
  finish(): LogReport {
    if (!this.columns) throw this.noHeading()
    if (this.isFirstBelow) this.settle()
    if (!this.marks) this.settleMarks()
    this.close()
    const rowCount = this.time.length
    if (rowCount < FEWEST)
      throw new CalculationError(
        'missing',
        'file',
        `The log holds ${rowCount} samples: the logger recorded nothing that a lap can be read from. Record again, and read it back before the car goes out.`,
      )
    const durationS = this.time.at(rowCount - 1)
    const channels = this.channels.map(({ role, column, unit, writer }): LogChannel => {
      const { count, min, max, gapS } = writer.finish(durationS)
      return { role, name: column.name || column.heading, unit, rateHz: count / durationS, count, min, max, gapShare: Math.min(1, gapS / durationS) }
    })
    const { origin, jumpCount } = this.places
    const hasPlaces = origin !== null
    const problems = firstLook({ ...this.seen, jumpCount, rowCount, durationS, hasPlaces, dips: this.oil.finish(), ways: this.ways.seen, channels })
    const rate = (rowCount - 1) / durationS
    const hasLap = channels.some(({ role, count }) => role === 'lap' && count > 0)
    return {
      channels,
      rowCount,
      durationS,
      problems,
      told: `${rowCount} samples over ${(durationS / 60).toFixed(1)} min, ${rate.toFixed(rate < 5 ? 1 : 0)} a second`,
      origin,
      timeS: this.time.drain(),
      east: hasPlaces ? this.kept.east.drain() : null,
      north: hasPlaces ? this.kept.north.drain() : null,
      lap: hasLap ? this.kept.lap.drain() : null,
    }
  }
}
