import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it, test } from 'vitest'
import { highsSolver } from '../solver/highs-solver.ts'
import { planBallast } from './ballast.ts'
import type { BallastInput } from './ballast-types.ts'
import { PAD_NAMES } from './corners.ts'

const solve = highsSolver(await loadHighs())
const cases = JSON.parse(readFileSync(new URL('../../test/outside/ballast-cases.json', import.meta.url), 'utf8')) as {
  ballast: { input: BallastInput; objective: number }[]
}
const car: Omit<BallastInput, 'sites' | 'minimumKg' | 'objective'> = {
  corners: { LF: 312, RF: 298, LR: 276, RR: 294 },
  wheelbaseM: 2.57,
  trackFrontM: 1.5,
  trackRearM: 1.52,
}
const site = (id: string, xM: number, yM: number, zM: number, limitKg: number, massKg = 5, count = 10) => ({
  id,
  xM,
  yM,
  zM,
  limitKg,
  plates: [{ massKg, count }],
})
const SITES = [site('left', 0.2, 0.35, 0.25, 25), site('right', 0.2, -0.35, 0.25, 25), site('floor', 1.3, -0.5, 0.15, 40), site('boot', 2.4, 0, 0.2, 30)]
const rates = { wheelRateNPerM: { LF: 38_000, RF: 38_000, LR: 46_000, RR: 46_000 } }

/** Every placement there is, by counting; for searches that are small. */
function everyPlacement(input: BallastInput): number[][] {
  const ranges = input.sites.flatMap(({ plates, limitKg }) => plates.map(({ massKg, count }) => Math.min(count, Math.floor(limitKg / massKg))))
  return ranges.reduce<number[][]>((lists, most) => lists.flatMap((list) => Array.from({ length: most + 1 }, (_, n) => [...list, n])), [[]])
}

describe('ballast', () => {
  test.each(cases.ballast.map((entry, i) => [i, entry] as const))('agrees with scipy.optimize.milp, case %d', (_, { input, objective }) => {
    const found = planBallast({ ...input, runnersUp: 0 }, solve)
    expect(found.isProven).toBe(true)
    // Both stop within 1e-6 of a bound; the objective is in kg.
    expect(found.best.objective).toBeCloseTo(objective, 4)
  })

  it('finds what counting every placement finds, and the next best ones in order', () => {
    const input: BallastInput = { ...car, sites: SITES, minimumKg: 1230, front: { value: 0.51 }, objective: 'nearestShares' }
    const total = PAD_NAMES.reduce((sum, name) => sum + car.corners[name], 0)
    const scored = everyPlacement(input)
      .map((counts) => {
        const masses = counts.map((n) => n * 5)
        const kg = masses.reduce((sum, mass) => sum + mass, 0)
        const front = 610 + masses.reduce((sum, mass, i) => sum + mass * (1 - (SITES[i]?.xM ?? 0) / 2.57), 0)
        return { kg, off: Math.abs(front - 0.51 * (total + kg)) + 1e-4 * kg }
      })
      .filter(({ kg }) => kg >= 50 && kg <= 55)
      .sort((a, b) => a.off - b.off)
    const found = planBallast({ ...input, runnersUp: 3 }, solve)
    const offs = [found.best, ...found.runnersUp].map(({ objective, ballastKg }) => objective + 1e-4 * ballastKg)
    offs.forEach((off, i) => {
      expect(off).toBeCloseTo(scored[i]?.off as number, 6)
    })
  })

  it('reaches the minimum, keeps each limit and never uses a plate that is not there', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1190, max: 1290 }),
        fc.constantFrom('nearestShares', 'lowestCentre', 'leastYawInertia', 'leastMass'),
        (minimumKg, objective) => {
          const { best } = planBallast({ ...car, sites: SITES, minimumKg, objective, front: { value: 0.51 }, runnersUp: 0 }, solve)
          expect(best.totalKg).toBeGreaterThanOrEqual(minimumKg - 1e-9)
          expect(best.totalKg).toBeLessThanOrEqual(minimumKg + 5 + 1e-9)
          for (const { id, massKg, plates } of best.sites) {
            expect(massKg).toBeLessThanOrEqual((SITES.find((entry) => entry.id === id)?.limitKg as number) + 1e-9)
            for (const plate of plates) expect(plate.count).toBeLessThanOrEqual(10)
          }
        },
      ),
      { numRuns: 25 },
    )
  })

  it('states what a mount must hold, the centre with ballast and the cross share', () => {
    const input: BallastInput = {
      ...car,
      sites: SITES,
      minimumKg: 1250,
      objective: 'lowestCentre',
      loadFactorG: 20,
      centreHeightM: 0.5,
      rates,
      crossRfLr: { value: 0.49, within: 0.02 },
    }
    const { best } = planBallast(input, solve)
    const [heaviest] = [...best.sites].sort((a, b) => b.massKg - a.massKg)
    expect(heaviest?.mountLoadN).toBeCloseTo((heaviest?.massKg as number) * 20 * 9.80665, 6)
    expect(best.centreHeightM).toBeLessThan(0.5)
    expect(Math.abs((best.crossShareRfLr as number) - 0.49)).toBeLessThanOrEqual(0.02 + 1e-9)
  })

  test.each([
    ['no site', { sites: [] }, /Add a site/],
    ['sites that hold too little', { minimumKg: 1400 }, /The sites hold 120 kg and the car lacks 220 kg to its minimum: 100 kg short/],
    ['a front share out of reach', { front: { value: 0.7, within: 0.001 }, objective: 'leastMass' }, /front share cannot be reached/],
    ['plates too coarse for the band', { minimumKg: 1183, mostOverKg: 1 }, /No sum of these plates/],
    ['a cross share without rates', { crossRfLr: { value: 0.5 } }, /needs the wheel rates/],
    ['a share of no kind', { left: { value: 1.2 } }, /between 0 and 1/],
    ['a limit of nothing', { sites: [site('x', 0, 0, 0, 0)] }, /more than zero/],
    ['a site without plates', { sites: [{ ...site('x', 0, 0, 0, 5), plates: [] }] }, /has no plates/],
  ] as [string, Partial<BallastInput>, RegExp][])('refuses %s', (_, more, sentence) => {
    expect(() => planBallast({ ...car, sites: SITES, minimumKg: 1240, objective: 'nearestShares', front: { value: 0.51 }, ...more }, solve)).toThrow(sentence)
  })
})
