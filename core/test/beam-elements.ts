import { Matrix, solve } from 'ml-matrix'

/**
 * A beam by cubic elements: a second way to what strips give. Held at x = 0 (clamped or hinged), with a rigid rod at rodAtM where it has one.
 */
export function beamTip(
  { lipM, rodAtM, bendingNm2, isClamped, hasRod }: { lipM: number; rodAtM: number; bendingNm2: number; isClamped: boolean; hasRod: boolean },
  { pressurePa = 0, edgeN = 0 }: { pressurePa?: number; edgeN?: number },
): { tipM: number; rodN: number } {
  const inner = 20
  const places = [
    ...Array.from({ length: inner + 1 }, (_, i) => (rodAtM * i) / inner),
    ...Array.from({ length: inner }, (_, i) => rodAtM + ((lipM - rodAtM) * (i + 1)) / inner),
  ]
  const n = places.length
  const stiffness = Matrix.zeros(2 * n, 2 * n)
  const load = Matrix.zeros(2 * n, 1)
  const add = (i: number, j: number, value: number) => stiffness.set(i, j, stiffness.get(i, j) + value)
  for (let e = 0; e + 1 < n; e++) {
    const h = (places[e + 1] as number) - (places[e] as number)
    const k = bendingNm2 / h ** 3
    const own = [
      [12, 6 * h, -12, 6 * h],
      [6 * h, 4 * h * h, -6 * h, 2 * h * h],
      [-12, -6 * h, 12, -6 * h],
      [6 * h, 2 * h * h, -6 * h, 4 * h * h],
    ]
    for (const [a, row] of own.entries()) for (const [b, value] of row.entries()) add(2 * e + a, 2 * e + b, k * value)
    const even = [h / 2, (h * h) / 12, h / 2, (-h * h) / 12]
    for (const [a, value] of even.entries()) load.set(2 * e + a, 0, load.get(2 * e + a, 0) + pressurePa * value)
  }
  load.set(2 * n - 2, 0, load.get(2 * n - 2, 0) + edgeN)
  const held = [0, ...(isClamped ? [1] : []), ...(hasRod ? [2 * inner] : [])]
  const free = Array.from({ length: 2 * n }, (_, i) => i).filter((i) => !held.includes(i))
  const found = solve(stiffness.selection(free, free), load.selection(free, [0]))
  const all = Matrix.zeros(2 * n, 1)
  for (const [i, at] of free.entries()) all.set(at, 0, found.get(i, 0))
  const reaction = stiffness.mmul(all).sub(load)
  return { tipM: all.get(2 * n - 2, 0), rodN: hasRod ? -reaction.get(2 * inner, 0) : 0 }
}
