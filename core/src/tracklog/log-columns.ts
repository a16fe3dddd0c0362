/** How many samples of a channel are kept in one piece. */
export const BLOCK_SAMPLES = 65_536

/** What was seen of a channel while it was read. */
export interface ChannelSeen {
  readonly count: number
  readonly min: number
  readonly max: number
  /** Time over which it was not sampled though the log ran, s. */
  readonly gapS: number
}

/** A step is a gap where it is so many times the usual one, and half a second at least. */
const GAP_TIMES = 4
const LEAST_GAP_S = 0.5
/** Before so many samples nothing is usual. */
const USUAL_AFTER = 10

/**
 * Whether a step between samples is a gap, by the mean step so far.
 * @example isGap(2, 0.1, 50) // true
 */
export const isGap = (stepS: number, meanStepS: number, count: number): boolean => count >= USUAL_AFTER && stepS > Math.max(LEAST_GAP_S, GAP_TIMES * meanStepS)

/** One channel of a log while it is read: full pieces are handed on, what was seen stays. */
export class LogChannelWriter {
  private block: Float32Array
  private filled = 0
  private count = 0
  private min = Number.POSITIVE_INFINITY
  private max = Number.NEGATIVE_INFINITY
  private firstS = Number.NaN
  private lastS = Number.NaN
  private gapS = 0
  private readonly hand: (block: Float32Array) => void
  private readonly size: number

  constructor(hand: (block: Float32Array) => void, size = BLOCK_SAMPLES) {
    this.hand = hand
    this.size = size
    this.block = new Float32Array(size)
  }

  /** NaN: not sampled then. */
  push(value: number, atS: number): void {
    this.block[this.filled++] = value
    if (this.filled === this.size) this.flush()
    if (Number.isNaN(value)) return
    if (value < this.min) this.min = value
    if (value > this.max) this.max = value
    if (this.count === 0) this.firstS = atS
    else if (isGap(atS - this.lastS, (this.lastS - this.firstS) / (this.count - 1 || 1), this.count)) this.gapS += atS - this.lastS
    this.lastS = atS
    this.count++
  }

  private flush(): void {
    if (this.filled === 0) return
    this.hand(this.filled === this.size ? this.block : this.block.slice(0, this.filled))
    this.block = new Float32Array(this.size)
    this.filled = 0
  }

  finish(endS: number): ChannelSeen {
    this.flush()
    const { count, min, max, gapS, lastS } = this
    const lost = count === 0 ? endS : isGap(endS - lastS, (lastS - this.firstS) / (count - 1 || 1), count) ? endS - lastS : 0
    return { count, min: count === 0 ? 0 : min, max: count === 0 ? 0 : max, gapS: gapS + lost }
  }
}
