import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_ROAD } from '../src/calculations/examples/example-road.ts'
import { drawLeft, leftOf } from '../src/jobs/begun.ts'
import { drawLengths } from '../src/jobs/draws.ts'
import { learnOptimism, optimismFactors, USUAL_OPTIMISM } from '../src/jobs/optimism.ts'
import { seededNormals } from '../src/jobs/seeded.ts'
import type { LogBias } from '../src/stats/log-bias.ts'
import { normalCdf, normalDensity, normalQuantile } from '../src/stats/normal.ts'

describe('how guesses run', () => {
  it('with few pairs holds a strip that took five to six times three hours for a day', () => {
    // Common practice, no source: one day of 7 h guessed, 15 to 18 h worked, 2 to 2.3 times.
    const { low, high } = optimismFactors(USUAL_OPTIMISM.work)
    expect([low, high]).toEqual([expect.closeTo(0.77, 2), expect.closeTo(2.9, 1)])
    expect(low < 2 && 2.3 < high).toBe(true)
  })
  test.each(['work', 'wait', 'arrival', 'money'] as const)('%s learns of itself from five pairs on', (kind) => {
    const pairs = Array.from({ length: 5 }, () => ({ guess: 2, real: 3 }))
    expect(learnOptimism(kind, pairs.slice(1)).isDefault).toBe(true)
    expect(learnOptimism(kind, pairs)).toMatchObject({ mu: expect.closeTo(Math.log(1.5), 12), isDefault: false, pairCount: 5 })
    expect(() => learnOptimism(kind, [{ guess: 0, real: 1 }])).toThrow('more than zero')
  })
  /** Moments of what is left, by Simpson's rule over the truncated density. */
  function integrated(guess: number, spent: number, { mu, s, v }: LogBias) {
    const [m, sigma] = [Math.log(guess) + mu, Math.sqrt(s * s + v)]
    const [from, steps] = [(Math.log(spent) - m) / sigma, 20_000]
    const step = 14 / steps
    const sums = [0, 0, 0]
    for (let i = 0; i <= steps; i++) {
      const z = from + i * step
      const weight = (i === 0 || i === steps ? 1 : i % 2 ? 4 : 2) * Math.exp((from * from - z * z) / 2)
      for (const power of [0, 1, 2]) sums[power] = (sums[power] as number) + weight * Math.exp(power * (m + sigma * z))
    }
    const [zeroth, first, second] = sums as [number, number, number]
    return { mean: first / zeroth - spent, sd: Math.sqrt(second / zeroth - (first / zeroth) ** 2) }
  }
  test.each([
    [6, 1],
    [6, 6],
    [6, 9.9],
    [6, 20],
    [6, 60],
    [6, 400],
  ])('of %d h guessed and %d h worked there is left what integration finds', (guess, spent) => {
    for (const bias of [USUAL_OPTIMISM.work, EXAMPLE_ROAD.optimism.work]) {
      const [found, expected] = [leftOf(guess, spent, bias), integrated(guess, spent, bias)]
      expect(found.mean / expected.mean).toBeCloseTo(1, 6)
      expect(found.sd / expected.sd).toBeCloseTo(1, 3)
      expect(found.mean).toBeGreaterThan(0)
    }
  })
  it('draws of a begun job have its mean, and never less than nothing', () => {
    const bias = EXAMPLE_ROAD.optimism.work
    for (const spent of [0, 3, 8, 14, 60]) {
      const kinds = seededNormals('k', 400)
      const own = seededNormals('o', 400)
      const drawn = Array.from({ length: 400 }, (_, i) => drawLeft({ guess: 6, spent, bias, zKind: kinds[i] as number, zOwn: own[i] as number }))
      expect(Math.min(...drawn)).toBeGreaterThanOrEqual(0)
      // The draws share √v apart from s; for a begun job that is not quite one log-normal, and near it.
      expect(drawn.reduce((sum, x) => sum + x, 0) / 400 / leftOf(6, spent, bias).mean).toBeCloseTo(1, spent < 10 ? 1 : 0)
    }
  })
  it('far over its guess the draw goes on from where the exact one ends', () => {
    const bias = { ...EXAMPLE_ROAD.optimism.work, v: 0 }
    const at = (a: number) => 6 * Math.exp(bias.mu + bias.s * a)
    for (const zOwn of [-1.5, 0, 1.5]) {
      const [before, after] = [5.999, 6.001].map((a) => drawLeft({ guess: 6, spent: at(a), bias, zKind: 0, zOwn }) / at(a)) as [number, number]
      expect(after / before).toBeCloseTo(1, 1)
    }
  })
})

describe('draws that hang on an id', () => {
  it('are the same each time, others for another id, of mean 0 and spread 1', () => {
    const drawn = [...seededNormals('drives', 400)]
    expect([...seededNormals('drives', 400)]).toEqual(drawn)
    expect([...seededNormals('drive', 400)]).not.toEqual(drawn)
    expect(drawn.reduce((sum, z) => sum + z, 0)).toBeCloseTo(0, 9)
    expect(drawn.reduce((sum, z) => sum + z * z, 0) / 400).toBeCloseTo(1, 2)
    expect([...drawn].sort((a, b) => a - b)[0]).toBeCloseTo(normalQuantile(0.5 / 400), 12)
  })
  it('of two ids hardly run together', () => {
    const [one, other] = [seededNormals('one', 400), seededNormals('other', 400)]
    expect(Math.abs(one.reduce((sum, z, i) => sum + z * (other[i] ?? 0), 0) / 400)).toBeLessThan(0.15)
  })
  it('leave the others as they were when one job is edited', () => {
    const edited = { ...EXAMPLE_ROAD, jobs: EXAMPLE_ROAD.jobs.map((job) => (job.id === 'C' ? { ...job, guess: 9 } : job)) }
    const [before, after] = [drawLengths(EXAMPLE_ROAD, 20), drawLengths(edited, 20)]
    after.forEach(({ jobs, arrivalDays }, i) => {
      expect(arrivalDays).toEqual(before[i]?.arrivalDays)
      expect(jobs.filter((_, at) => at !== 2)).toEqual(before[i]?.jobs.filter((_, at) => at !== 2))
      expect(jobs[2]).toBeCloseTo(((before[i]?.jobs[2] ?? 0) * 9) / 4, 9)
    })
  })
})

describe('the normal distribution far out', () => {
  // scipy.stats.norm.cdf and ppf (from memory of their digits: textbook values).
  test.each([
    [-1.959963984540054, 0.025],
    [-6, 9.865876450376946e-10],
    [-8, 6.22096057427178e-16],
  ])('Φ(%d) is %d', (z, p) => {
    expect(normalCdf(z) / p).toBeCloseTo(1, 9)
    if (p > 1e-15) expect(normalQuantile(p)).toBeCloseTo(z, 9)
  })
  it('the quantile turns the distribution back, and the density is its slope', () => {
    for (let z = -7; z <= 4; z += 0.37) {
      expect(normalQuantile(normalCdf(z))).toBeCloseTo(z, 8)
      expect((normalCdf(z + 1e-5) - normalCdf(z - 1e-5)) / 2e-5 / normalDensity(z)).toBeCloseTo(1, 4)
    }
  })
})
