const BLOCK = 8192
/** A column that stays short takes no whole block. */
const FIRST = 64

/** A column of numbers that grows in blocks, so that a long one is never copied while it grows; 8 bytes a number. */
export class Column {
  private blocks: Float64Array[] = []
  private count = 0

  get length(): number {
    return this.count
  }

  push(value: number): void {
    const at = this.count % BLOCK
    if (at === 0) this.blocks.push(new Float64Array(this.blocks.length === 0 ? FIRST : BLOCK))
    const block = this.blocks.at(-1) as Float64Array
    const roomy = at < block.length ? block : this.grow(block)
    roomy[at] = value
    this.count++
  }

  private grow(block: Float64Array): Float64Array {
    const larger = new Float64Array(Math.min(BLOCK, 4 * block.length))
    larger.set(block)
    this.blocks[this.blocks.length - 1] = larger
    return larger
  }

  at(index: number): number {
    return this.blocks[Math.floor(index / BLOCK)]?.[index % BLOCK] as number
  }

  /** Cuts the column at an index and answers what came after it. */
  takeFrom(index: number): number[] {
    const rest = Array.from({ length: this.count - index }, (_, i) => this.at(index + i))
    this.count = index
    this.blocks.length = Math.ceil(index / BLOCK)
    return rest
  }

  /** The whole column as one array; the column is empty afterwards. */
  drain(): Float64Array {
    const all = new Float64Array(this.count)
    this.blocks.forEach((block, i) => {
      all.set(block.subarray(0, Math.min(BLOCK, this.count - i * BLOCK)), i * BLOCK)
    })
    this.blocks = []
    this.count = 0
    return all
  }
}
