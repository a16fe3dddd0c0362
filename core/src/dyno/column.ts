const BLOCK = 8192

/** A column of numbers that grows in blocks, so that a long one is never copied while it grows; 8 bytes a number. */
export class Column {
  private blocks: Float64Array[] = []
  private count = 0

  get length(): number {
    return this.count
  }

  push(value: number): void {
    const at = this.count % BLOCK
    if (at === 0) this.blocks.push(new Float64Array(BLOCK))
    ;(this.blocks.at(-1) as Float64Array)[at] = value
    this.count++
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
