import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { addAt } from './add-at.ts'
import { type CornerBalanceInput, cornerBalance, forward } from './corner-balance.ts'
import { PAD_NAMES } from './corners.ts'
import { type PerCorner, perCorner } from './suspension.ts'

const { perches } = JSON.parse(readFileSync(new URL('../../test/outside/ballast-cases.json', import.meta.url), 'utf8')) as {
  perches: { input: Omit<CornerBalanceInput, 'wantedCrossRfLr' | 'motionRatio' | 'threadPitchM'>; movesM: PerCorner<number>; cornersKg: PerCorner<number> }[]
}
const ones = perCorner(() => 1)
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const four = (min: number, max: number) => fc.record({ LF: number(min, max), RF: number(min, max), LR: number(min, max), RR: number(min, max) })
const cars = fc.record({
  corners: four(180, 340),
  wheelbaseM: number(2.2, 3),
  trackFrontM: number(1.3, 1.7),
  trackRearM: number(1.3, 1.7),
  wheelRateNPerM: four(15_000, 120_000),
  tyreRateNPerM: four(150_000, 300_000),
  motionRatio: four(0.5, 1.1),
  threadPitchM: four(0.001, 0.003),
  wantedCrossRfLr: number(0.46, 0.54),
})
const sum = (corners: PerCorner<number>, names: readonly (typeof PAD_NAMES)[number][] = PAD_NAMES) => names.reduce((total, name) => total + corners[name], 0)

describe('perch moves', () => {
  test.each(perches.map((entry, i) => [i, entry] as const))(
    'load the corners as the least potential energy does, case %d',
    (_, { input, movesM, cornersKg }) => {
      const found = forward({ ...input, motionRatio: ones, threadPitchM: ones }, movesM)
      for (const name of PAD_NAMES) expect(found.cornersKg[name]).toBeCloseTo(cornersKg[name], 4)
    },
  )

  it('exact turns reach the wanted cross and leave every ride height, whatever the car', () => {
    fc.assert(
      fc.property(cars, (car) => {
        fc.pre(Math.abs(cornerBalanceOrNull(car)?.before.crossShareRfLr ?? 9) < 1)
        const found = cornerBalance(car)
        const after = forward(car, found.exactTurns)
        expect(after.crossShareRfLr).toBeCloseTo(car.wantedCrossRfLr, 9)
        for (const name of PAD_NAMES) expect(Math.abs(after.riseM[name])).toBeLessThan(1e-9)
      }),
      { numRuns: 60 },
    )
  })

  it('never change the total, an axle or a side in moment: front, rear and total stay', () => {
    fc.assert(
      fc.property(cars, four(-1, 1), (car, turns) => {
        const after = attempt(() => forward(car, turns))
        fc.pre(after !== null)
        expect(sum(after.cornersKg)).toBeCloseTo(sum(car.corners), 6)
        expect(sum(after.cornersKg, ['LF', 'RF'])).toBeCloseTo(sum(car.corners, ['LF', 'RF']), 6)
      }),
      { numRuns: 60 },
    )
  })

  it('rounds to quarter turns and says what those give; equal turns shift heights where rates differ', () => {
    const { heightKept, equalTurns } = cornerBalance({
      corners: { LF: 312, RF: 298, LR: 276, RR: 294 },
      wheelbaseM: 2.57,
      trackFrontM: 1.5,
      trackRearM: 1.52,
      wheelRateNPerM: { LF: 38_000, RF: 38_000, LR: 46_000, RR: 46_000 },
      motionRatio: { LF: 0.95, RF: 0.95, LR: 0.9, RR: 0.9 },
      threadPitchM: perCorner(() => 0.0015),
      wantedCrossRfLr: 0.5,
    })
    for (const name of PAD_NAMES) expect((heightKept.turns[name] * 4) % 1).toBeCloseTo(0, 12)
    expect(new Set(PAD_NAMES.map((name) => Math.abs(equalTurns.turns[name]))).size).toBe(1)
    expect(Math.abs(equalTurns.riseM.LF)).toBeGreaterThan(4 * Math.abs(heightKept.riseM.LF))
  })

  it('refuses what cannot be', () => {
    const car = fc.sample(cars, { numRuns: 1, seed: 4 })[0] as CornerBalanceInput
    expect(() => cornerBalance({ ...car, wantedCrossRfLr: 0.7 })).toThrow(/0.4 to 0.6/)
    expect(() => cornerBalance({ ...car, motionRatio: { ...car.motionRatio, LR: 2.5 } })).toThrow(/motion ratio left rear is 2.5/)
    expect(() => cornerBalance({ ...car, wheelRateNPerM: { ...car.wheelRateNPerM, RR: 0 } })).toThrow(/more than zero/)
    expect(() => forward(car, { LF: 90, RF: -90, LR: -90, RR: 90 })).toThrow(/lift off/)
  })
})

describe('a mass put at a place', () => {
  it('moves the centre towards it and adds up, whatever the rates', () => {
    fc.assert(
      fc.property(cars, number(-0.5, 3.2), number(-0.7, 0.7), number(0.5, 60), (car, xM, yM, massKg) => {
        const found = attempt(() => addAt({ ...car, loads: [{ massKg, xM, yM }] }))
        fc.pre(found !== null)
        const centre = (corners: PerCorner<number>) => (car.wheelbaseM * sum(corners, ['LR', 'RR'])) / sum(corners)
        expect(sum(found.changeKg)).toBeCloseTo(massKg, 8)
        const [before, after] = [centre(car.corners), centre(found.cornersKg)]
        expect(Math.abs(xM - after)).toBeLessThanOrEqual(Math.abs(xM - before) + 1e-9)
        // Statics: the new centre is the mass-weighted mean, however the springs split the load.
        expect(after).toBeCloseTo((sum(car.corners) * before + massKg * xM) / (sum(car.corners) + massKg), 8)
      }),
      { numRuns: 60 },
    )
  })
})

function attempt<Result>(work: () => Result): Result | null {
  try {
    return work()
  } catch {
    return null
  }
}
const cornerBalanceOrNull = (car: CornerBalanceInput) => attempt(() => cornerBalance(car))
