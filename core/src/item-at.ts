/**
 * What stands at a place of a list that is known to reach so far. Throws where it does not, so that a slip of the count is never taken for a number.
 * @example itemAt([3, 5, 8], 1) // 5
 */
export function itemAt<Item>(list: ArrayLike<Item>, index: number): Item {
  if (!(index >= 0 && index < list.length)) throw new RangeError(`There is nothing at ${index} of ${list.length}.`)
  return list[index] as Item
}
