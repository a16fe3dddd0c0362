/**
 * What stands at a place of a list that is known to reach so far. Throws where it does not, so that a slip of the count is never taken for a number.
 * @example itemAt([3, 5, 8], 1) // 5
 */
export function itemAt<Item>(list: ArrayLike<Item>, index: number): Item {
  if (!(index >= 0 && index < list.length)) throw new RangeError(`There is nothing at ${index} of ${list.length}.`)
  return list[index] as Item
}

/**
 * As `itemAt`, of numbers in a row: a sum that asks 100,000 times asks here, where the engine that runs it knows what it reads.
 * Throws where the list does not reach so far.
 * @example floatAt(Float64Array.of(3, 5, 8), 1) // 5
 */
export function floatAt(list: Float64Array, index: number): number {
  if (!(index >= 0 && index < list.length)) throw new RangeError(`There is nothing at ${index} of ${list.length}.`)
  return list[index] as number
}
