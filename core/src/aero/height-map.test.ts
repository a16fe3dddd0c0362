import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { attempt } from '../attempt.ts'
import { EXAMPLE_HEIGHTS } from '../calculations/examples/example-aero.ts'
import { CalculationError } from '../errors.ts'
import { axleDropM } from './axle-springs.ts'
import { mapFactor, requireMap } from './height-map.ts'
import { contactMps, type HeightsInput, heightsAlong, rideHeights, touches } from './ride-heights.ts'

/** Springs without rubber, one device over the front axle: all is linear there. */
const LINEAR: HeightsInput = { ...EXAMPLE_HEIGHTS, front: { ...EXAMPLE_HEIGHTS.front, gapM: null, rubber: [] }, downforceFrontM2: 0.9, downforceRearM2: 0.75 }
const wheelRate = 58_850 * 0.94 ** 2
/** N on the axle for a metre. */
const AXLE_RATE = 2 / (1 / wheelRate + 1 / 230_000)
const [REST_M, AREA_M2] = [0.09, 0.6]
/** Twice as much at the ground as at rest. */
const suction = (more: number) => [
  { clearanceM: 0, factor: 1 + more },
  { clearanceM: REST_M, factor: 1 },
]
const withMap = (map: { clearanceM: number; factor: number }[]): HeightsInput => ({
  ...LINEAR,
  points: [{ name: 'floor', xM: 0, zM: REST_M }],
  mapped: [{ name: 'floor', xM: 0, zM: REST_M, frontM2: AREA_M2, rearM2: 0, map }],
})
const q = (speed: number) => 0.5 * LINEAR.airDensityKgM3 * speed ** 2

describe('a height map', () => {
  it('is straight between its points and level beyond them', () => {
    const map = [
      { clearanceM: 0.02, factor: 0.5 },
      { clearanceM: 0.05, factor: 1.25 },
      { clearanceM: 0.1, factor: 1 },
    ]
    expect([-0.01, 0.02, 0.03, 0.05, 0.075, 0.1, 0.4].map((clearance) => mapFactor(map, clearance))).toEqual(
      [0.5, 0.5, 0.75, 1.25, 1.125, 1, 1].map((factor) => expect.closeTo(factor, 12)),
    )
  })
  test.each([
    ['one point', [{ clearanceM: 0.1, factor: 1 }], /two clearances/],
    ['falling clearances', suction(1).reverse(), /rise from line to line/],
    ['a factor that cannot be', [suction(7)[0], suction(1)[1]], /heightMap.factor/],
  ])('of %s is refused', (_, map, message) => {
    expect(() => requireMap(map as never)).toThrow(message)
  })
})

describe('heights under a map', () => {
  // Closed form: f (K + q s A) = q (A0 + (k0 - 1) A), s the slope of the map over the drop, k0 at rest.
  test.each([20, 40, 60])('at %d m/s as the closed form of a straight map', (speed) => {
    const slope = 0.5 / REST_M
    const f = (q(speed) * LINEAR.downforceFrontM2) / (AXLE_RATE - q(speed) * slope * AREA_M2)
    expect(rideHeights(withMap(suction(0.5)), speed).frontDropM).toBeCloseTo(f, 9)
    expect(rideHeights(withMap(suction(0.5)), speed).factors[0]).toBeCloseTo(1 + slope * f, 8)
  })
  it('pulls the car down until it stands, above the speed at which the suction grows faster than the spring', () => {
    const own = withMap(suction(4))
    const slope = 4 / REST_M
    const runaway = Math.sqrt((2 * AXLE_RATE) / (slope * AREA_M2 * LINEAR.airDensityKgM3))
    const [touch] = touches(own, runaway + 5)
    expect(touch?.touchMps).toBeLessThan(runaway)
    expect(touch?.touchMps).toBeGreaterThan(0.7 * runaway)
    expect(rideHeights(own, (touch?.touchMps ?? 0) - 1.5).pointsM[0]).toBeGreaterThan(0)
  })
  it('whatever it finds is a balance of springs and load; where there is none it says so', () => {
    const balances: number[] = []
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 90 }), { minLength: 2, maxLength: 5 }),
        fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.double({ min: 10, max: 90, noNaN: true }),
        (clearances, factors, speed) => {
          const map = [...clearances].sort((a, b) => a - b).map((mm, i) => ({ clearanceM: mm / 1000, factor: factors[i] ?? 1 }))
          const found = attempt(() => rideHeights(withMap(map), speed))
          if (found instanceof CalculationError) return /no steady height at \d+ m\/s: it would hop there/.test(found.message)
          const load = q(speed) * (LINEAR.downforceFrontM2 + ((found.factors[0] ?? 1) - 1) * AREA_M2)
          balances.push(Math.abs(axleDropM(LINEAR.front, load) - found.frontDropM))
          return (balances.at(-1) ?? 1) < 1e-8
        },
      ),
      { numRuns: 60 },
    )
    expect(balances.length).toBeGreaterThan(20)
  })
  it('meets its rubber sooner by as much as it pulls more', () => {
    const own = { ...withMap(suction(0.5)), front: EXAMPLE_HEIGHTS.front }
    const [plain, mapped] = [contactMps({ ...own, mapped: [] }, 'front') ?? 0, contactMps(own, 'front') ?? 0]
    expect(mapped).toBeLessThan(plain)
    const at = rideHeights(own, mapped).frontDropM
    expect(at).toBeCloseTo(rideHeights({ ...own, mapped: [] }, plain).frontDropM, 6)
  })
  it('of factors that are all one changes nothing; along several speeds it is as at each', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 90, noNaN: true }), fc.double({ min: 0, max: 0.2, noNaN: true }), (speed, clearance) => {
        const [base] = withMap([]).mapped ?? []
        const ones = {
          ...LINEAR,
          mapped: [{ ...base, map: [0, clearance + 0.01].map((clearanceM) => ({ clearanceM, factor: 1 })) }],
        } as HeightsInput
        const [a, b] = [rideHeights(ones, speed), rideHeights(LINEAR, speed)]
        return Math.abs(a.frontDropM - b.frontDropM) < 1e-9 && Math.abs(a.rearDropM - b.rearDropM) < 1e-9
      }),
      { numRuns: 20 },
    )
    const speeds = [0, 13.7, 31, 55]
    expect(heightsAlong(withMap(suction(0.5)), speeds).map(({ frontDropM }) => frontDropM)).toEqual(
      speeds.map((speed) => expect.closeTo(rideHeights(withMap(suction(0.5)), speed).frontDropM, 8)),
    )
  })
})
