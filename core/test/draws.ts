/** Even draws from 0 to 1, the same at every run. */
export function draws(start: number): () => number {
  let state = start
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return (((t ^ (t >>> 14)) >>> 0) + 0.5) / 4_294_967_296
  }
}

/** Draws of a normal distribution of spread 1 (Box and Muller), the same at every run. */
export function normalDraws(start: number): () => number {
  const even = draws(start)
  return () => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even())
}
