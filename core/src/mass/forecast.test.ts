import { expect, it, test } from 'vitest'
import { DEFAULT_BIAS, estimateBiases } from './estimate-bias.ts'
import { forecastMass } from './forecast.ts'
import type { OpenPart } from './open-mass.ts'

const part = (id: string, massKg: number, more: Partial<OpenPart> = {}): OpenPart => ({
  id,
  sign: 1,
  side: more.sign === -1 ? 'off' : 'on',
  massKg,
  isGuess: true,
  sdKg: 0,
  ...more,
})
const DEFAULTS = estimateBiases({ off: [], on: [] })

/** A seeded stream of even numbers between 0 and 1 (Park and Miller's minimal generator). */
function seeded(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 48_271) % 2_147_483_647
    return state / 2_147_483_647
  }
}

it('agrees with 20,000 seeded draws of the same model', () => {
  const parts = [part('a', 41), part('b', 12), part('c', 19), part('d', 7.4, { isGuess: false, sdKg: 0.37 })]
  const next = seeded(46)
  // Box and Muller's transform: a thousandth of the work of a quantile.
  const draw = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next())
  const found = Array.from({ length: 20_000 }, () => {
    const bias = DEFAULT_BIAS.mu + Math.sqrt(DEFAULT_BIAS.v) * draw()
    const open = parts.reduce(
      (sum, entry) => sum + (entry.isGuess ? entry.massKg * Math.exp(bias + DEFAULT_BIAS.s * draw()) : entry.massKg + entry.sdKg * draw()),
      0,
    )
    return 1200 + 1.5 * draw() + open
  }).sort((a, b) => a - b)
  const mean = found.reduce((sum, value) => sum + value, 0) / found.length
  const sd = Math.sqrt(found.reduce((sum, value) => sum + (value - mean) ** 2, 0) / found.length)
  const forecast = forecastMass({ knownKg: 1200, knownSdKg: 1.5, parts, biases: DEFAULTS, limitKg: 1285 })
  // The error of the draws themselves: sd/√20,000 is 0.08 kg.
  expect(Math.abs(forecast.meanKg - mean)).toBeLessThan(0.3)
  expect(Math.abs(forecast.sdKg / sd - 1)).toBeLessThan(0.03)
  expect(Math.abs(forecast.p10Kg - (found[2000] as number))).toBeLessThan(0.5)
  expect(Math.abs(forecast.p90Kg - (found[18_000] as number))).toBeLessThan(0.5)
  expect(Math.abs((forecast.chanceUnderLimit ?? 0) - found.filter((value) => value <= 1285).length / 20_000)).toBeLessThan(0.02)
})

test.each([
  ['no guess', [part('a', 10, { isGuess: false, sdKg: 0.5 })], 'normal'],
  ['a guess that comes off', [part('a', 41), part('b', 10, { sign: -1 })], 'normal'],
  ['a guess smaller than the doubt of the scales', [part('a', 1)], 'normal'],
  ['guesses that go on', [part('a', 41), part('b', 20)], 'lognormal'],
] as const)('%s is spread as a %s', (_, parts, shape) => {
  expect(forecastMass({ knownKg: 1200, knownSdKg: 1.5, parts, biases: DEFAULTS }).shape).toBe(shape)
})

it('names the part that carries most of the doubt, and refuses a mass of nothing', () => {
  const { doubt } = forecastMass({
    knownKg: 1200,
    knownSdKg: 1,
    parts: [part('small', 3), part('large', 40), part('weighed', 90, { isGuess: false, sdKg: 0.1 })],
    biases: DEFAULTS,
  })
  expect(doubt[0]?.id).toBe('large')
  expect(doubt.at(-1)?.id).toBe('weighed')
  expect(() => forecastMass({ knownKg: 0, knownSdKg: 1, parts: [], biases: DEFAULTS })).toThrow(/knownKg/)
  expect(() => forecastMass({ knownKg: 900, knownSdKg: 1, parts: [part('a', -1)], biases: DEFAULTS })).toThrow(/parts\[0\]/)
})
