import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { AIR_OF_NITROUS, bottleTime, nitrousPower } from './nitrous.ts'

const spray = { nitrousKgPerS: 0.05, lambda: 1, stoichiometricRatio: 14.7, bsfcKgPerJ: 335 / 3.6e9 }

describe('nitrous oxide', () => {
  it('carries the oxygen of 1.571 kg of air a kilogram, by its molar masses', () => {
    // O over N2O is 15.999/44.013 (standard atomic weights, IUPAC, from memory); air holds 23.14 % of oxygen by mass (closed form of 20.946 % by volume).
    expect(15.999 / 44.013 / 0.2314).toBeCloseTo(AIR_OF_NITROUS, 3)
  })
  it('takes 9.36 kg for a kilogram of petrol at lambda 1', () => {
    // The formulas' own figure, at an air-fuel ratio of 14.7: 14.7/1.571.
    expect(nitrousPower(spray).nitrousToFuel).toBeCloseTo(9.36, 2)
  })
  it('adds what its fuel makes, and a richer mixture more', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.3, noNaN: true }), fc.double({ min: 0.7, max: 1, noNaN: true }), (nitrousKgPerS, lambda) => {
        const found = nitrousPower({ ...spray, nitrousKgPerS, lambda })
        expect(found.addedPowerW * spray.bsfcKgPerJ).toBeCloseTo(found.fuelKgPerS, 12)
        expect(nitrousPower({ ...spray, nitrousKgPerS, lambda: lambda * 0.9 }).addedPowerW).toBeGreaterThan(found.addedPowerW)
        expect(nitrousPower({ ...spray, nitrousKgPerS: 2 * nitrousKgPerS, lambda }).addedPowerW).toBeCloseTo(2 * found.addedPowerW, 6)
      }),
      { seed: 4600 },
    )
  })
  it('empties its bottle', () => {
    expect(bottleTime({ bottleKg: 4.5, nitrousKgPerS: 0.05 })).toBeCloseTo(90, 12)
    expect(() => bottleTime({ bottleKg: -1, nitrousKgPerS: 0.05 })).toThrow(/nothing or more/)
    expect(() => nitrousPower({ ...spray, lambda: 3 })).toThrow()
  })
})
