/**
 * The root of a smooth function between two places at which its signs differ, by false position with a halved end (Illinois); to the last digits.
 * @example rootBetween((x) => x * x - 2, 0, 2) // 1.414214
 */
export function rootBetween(at: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from, to]
  let [atA, atB] = [at(a), at(b)]
  for (let round = 0; round < 100 && atA !== 0 && atB !== 0; round++) {
    const middle = b - (atB * (b - a)) / (atB - atA)
    if (middle === a || middle === b || Math.abs(b - a) < 1e-15 * Math.abs(b)) break
    const value = at(middle)
    if (value > 0 === atB > 0) atA /= 2
    else {
      a = b
      atA = atB
    }
    b = middle
    atB = value
  }
  return Math.abs(atA) < Math.abs(atB) ? a : b
}
