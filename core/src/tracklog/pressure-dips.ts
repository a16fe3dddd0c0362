/** Oil pressure under so much of it for each revolution a minute is too little for bearings that turn so fast (common practice, no source). */
const LEAST_PA_PER_RPM = 60
/** Slower than it an engine idles, and little pressure is usual (common practice, no source). */
const LEAST_RPM = 2500
/** A shorter dip is a sensor's. */
const LEAST_S = 0.1
const MOST_KEPT = 200

/** A time over which oil pressure was under what the engine's speed needs. */
export interface PressureDip {
  readonly fromS: number
  readonly lengthS: number
  readonly leastPa: number
  /** Where it was least. */
  readonly engineRpm: number
  /** Null: the log has none. */
  readonly acrossMps2: number | null
  readonly lap: number | null
}

/** One row of a log, as far as oil pressure is concerned; NaN: not sampled then. */
export interface OilRow {
  readonly atS: number
  readonly pressurePa: number
  readonly engineRpm: number
  readonly acrossMps2: number
  readonly lap: number
}

const orNull = (value: number) => (Number.isNaN(value) ? null : value)

/** Watches oil pressure row by row; a slower channel holds until its next sample. */
export class DipWatch {
  private readonly dips: PressureDip[] = []
  private open: { fromS: number; least: OilRow } | null = null
  private last: OilRow | null = null
  count = 0

  push(row: OilRow): void {
    const held = (key: 'pressurePa' | 'engineRpm' | 'acrossMps2' | 'lap') => (Number.isNaN(row[key]) ? (this.last?.[key] ?? Number.NaN) : row[key])
    const now = { atS: row.atS, pressurePa: held('pressurePa'), engineRpm: held('engineRpm'), acrossMps2: held('acrossMps2'), lap: held('lap') }
    const isLow = now.engineRpm >= LEAST_RPM && now.pressurePa < LEAST_PA_PER_RPM * now.engineRpm
    if (isLow) {
      if (!this.open) this.open = { fromS: now.atS, least: now }
      else if (now.pressurePa < this.open.least.pressurePa) this.open.least = now
    } else this.close(now.atS)
    this.last = now
  }

  private close(atS: number): void {
    const { open } = this
    this.open = null
    if (!open || atS - open.fromS < LEAST_S) return
    this.count++
    const { pressurePa, engineRpm, acrossMps2, lap } = open.least
    if (this.dips.length < MOST_KEPT)
      this.dips.push({ fromS: open.fromS, lengthS: atS - open.fromS, leastPa: pressurePa, engineRpm, acrossMps2: orNull(acrossMps2), lap: orNull(lap) })
  }

  /** The dips, in their order. */
  finish(): readonly PressureDip[] {
    if (this.last) this.close(this.last.atS)
    return this.dips
  }
}
