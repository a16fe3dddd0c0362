import { describe, expect, it, test } from 'vitest'
import { comparePulls } from '../src/dyno/compare-pulls.ts'
import { driftOf } from '../src/dyno/drift.ts'
import { smoothSeries } from '../src/dyno/smooth.ts'
import cases from './outside/power-cases.json' with { type: 'json' }

// Answers of a general statistics library; outside/make_power_cases.py made them.
describe(`against ${cases.madeBy}`, () => {
  test.each(cases.smoothed.map((entry) => [entry.window, entry.order, entry] as const))(
    'Savitzky-Golay, window %d, order %d',
    (window, order, { value, smooth }) => {
      const speedRpm = value.map((_, i) => 2000 + 50 * i)
      const found = smoothSeries({ speedRpm, value, method: 'savitzkyGolay', windowRpm: 50 * (window - 1), order, stepRpm: 50 })
      expect(found.points).toBe(window)
      for (const [i, expected] of smooth.entries()) expect(Math.abs((found.value[i] as number) - expected)).toBeLessThan(1e-9)
    },
  )
  test.each(cases.compared.map((entry, i) => [i + 1, entry] as const))('Welch, case %d', (_, { first, second, ...expected }) => {
    const found = comparePulls({ first, second })
    for (const key of ['pValue', 'degreesOfFreedom', 'low', 'high'] as const) expect(Math.abs((found[key] as number) - expected[key]), key).toBeLessThan(1e-8)
  })
  it('drift: slope, its spread, chance, and Kendall’s S', () => {
    for (const { value, slope, slopeSd, pValue, kendallS } of cases.drifting) {
      const found = driftOf(value)
      expect(Math.abs(found.slopePerPull - slope)).toBeLessThan(1e-10)
      expect(Math.abs(found.slopeSd - slopeSd)).toBeLessThan(1e-10)
      expect(Math.abs(found.pValue - pValue)).toBeLessThan(1e-9)
      expect(found.mannKendallS).toBe(kendallS)
    }
  })
})
