import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { normalQuantile } from '../stats/normal.ts'

/** A number out of a text, the same wherever it is asked. Source: FNV-1a, 32 bits (from memory). */
function seedOf(text: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return hash
}

const scores = new Map<number, Float64Array>()

/** The middles of so many equal shares of the normal distribution, least first. */
function normalScores(count: number): Float64Array {
  const before = scores.get(count)
  if (before) return before
  const made = Float64Array.from({ length: count }, (_, i) => normalQuantile((i + 0.5) / count))
  scores.set(count, made)
  return made
}

/**
 * Draws of a normal of mean 0 and spread 1 that hang on nothing but the id: one out of each of `count` equal shares, in an order shuffled by it,
 * so that an edit of one thing leaves the draws of all others as they were. Source: Latin hypercube sampling.
 * @example seededNormals('drives', 3).length // 3
 */
export function seededNormals(id: string, count: number): Float64Array {
  const drawn = normalScores(count).slice()
  const generator = xoroshiro128plus(seedOf(id))
  for (let i = count - 1; i > 0; i--) {
    const other = uniformInt(generator, 0, i)
    const [one, two] = [drawn[i] as number, drawn[other] as number]
    drawn[i] = two
    drawn[other] = one
  }
  return drawn
}
