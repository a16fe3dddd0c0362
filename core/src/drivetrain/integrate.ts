/** Points and weights of Gauss and Legendre on −1 to 1, eight points (Abramowitz and Stegun, table 25.4, from memory; a test holds their moments). */
const POINTS = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const

/** Three points, for pieces so short that what is integrated hardly bends. */
const FEW = [
  [0, 0.888888888888889],
  [-0.774596669241483, 0.555555555555556],
  [0.774596669241483, 0.555555555555556],
] as const

/**
 * The same over a short interval, by three points: exact for polynomials to degree 5.
 * @example integrateShort((x) => [1, x * x], 0, 3)[1] // 9.000000
 */
export function integrateShort(at: (x: number) => readonly [number, number], from: number, to: number): [number, number] {
  const [middle, half] = [(from + to) / 2, (to - from) / 2]
  let [first, second] = [0, 0]
  for (const [x, weight] of FEW) {
    const [a, b] = at(middle + half * x)
    first += weight * a
    second += weight * b
  }
  return [half * first, half * second]
}

/**
 * Two integrals over one interval at once, by eight points, so that nothing is lost: exact for polynomials to degree 15.
 * @example integrateTwo((x) => [1, x * x], 0, 3)[1] // 9.000000
 */
export function integrateTwo(at: (x: number) => readonly [number, number], from: number, to: number): [number, number] {
  const [middle, half] = [(from + to) / 2, (to - from) / 2]
  let [first, second] = [0, 0]
  for (const [x, weight] of POINTS)
    for (const place of [middle - half * x, middle + half * x]) {
      const [a, b] = at(place)
      first += weight * a
      second += weight * b
    }
  return [half * first, half * second]
}

/**
 * Where a function changes its sign between two places that lie on either side of it, by halving; to the last digits of the place.
 * @example signChange((x) => x * x - 2, 0, 2) // 1.414214
 */
export function signChange(at: (x: number) => number, from: number, to: number): number {
  let [low, high] = [from, to]
  const isPositive = at(low) > 0
  for (let halvings = 0; halvings < 80; halvings++) {
    const middle = (low + high) / 2
    if (middle === low || middle === high) break
    if (at(middle) > 0 === isPositive) low = middle
    else high = middle
  }
  return (low + high) / 2
}
