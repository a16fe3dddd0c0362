import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { addAt, cornerShares, sharesOf } from './add-at.ts'
import { centreOfMassHeight, leastLiftM } from './centre-of-mass-height.ts'
import { PAD_NAMES } from './corners.ts'
import { perCorner } from './suspension.ts'

const PLACES = { wheelbaseM: 2.57, trackFrontM: 1.5, trackRearM: 1.52 }
const CORNERS = { LF: 312, RF: 298, LR: 276, RR: 294 }
const rate = fc.double({ min: 15_000, max: 250_000, noNaN: true })
const rates = fc.record({ LF: rate, RF: rate, LR: rate, RR: rate })
const place = fc.record({ xM: fc.double({ min: -0.8, max: 3.4, noNaN: true }), yM: fc.double({ min: -0.8, max: 0.8, noNaN: true }) })
const total = (values: Record<string, number>) => Object.values(values).reduce((sum, value) => sum + value, 0)
const options = { numRuns: 200, seed: 4600 }

describe('a mass put at a place', () => {
  it('keeps the force and both moments, whatever the springs', () => {
    fc.assert(
      fc.property(rates, place, (wheelRateNPerM, { xM, yM }) => {
        const share = cornerShares(PLACES, { wheelRateNPerM }, xM, yM)
        expect(total(share)).toBeCloseTo(1, 9)
        expect((share.LR + share.RR) * PLACES.wheelbaseM).toBeCloseTo(xM, 9)
        expect(((share.LF - share.RF) * PLACES.trackFrontM + (share.LR - share.RR) * PLACES.trackRearM) / 2).toBeCloseTo(yM, 9)
      }),
      options,
    )
  })
  it('put on and taken off again changes nothing, and two add up', () => {
    fc.assert(
      fc.property(rates, place, place, (wheelRateNPerM, first, second) => {
        const setting = { ...PLACES, corners: CORNERS, wheelRateNPerM }
        const there = addAt({ ...setting, loads: [{ massKg: 12, ...first }] })
        const back = addAt({ ...setting, corners: there.cornersKg, loads: [{ massKg: -12, ...first }] })
        for (const pad of PAD_NAMES) expect(back.cornersKg[pad]).toBeCloseTo(CORNERS[pad], 9)
        const both = addAt({
          ...setting,
          loads: [
            { massKg: 12, ...first },
            { massKg: 7, ...second },
          ],
        })
        const alone = addAt({ ...setting, loads: [{ massKg: 7, ...second }] })
        for (const pad of PAD_NAMES) expect(both.changeKg[pad]).toBeCloseTo(there.changeKg[pad] + alone.changeKg[pad], 9)
      }),
      options,
    )
  })
  it('all springs of one factor softer split it alike', () => {
    fc.assert(
      fc.property(rates, place, fc.double({ min: 0.1, max: 10, noNaN: true }), (wheelRateNPerM, { xM, yM }, factor) => {
        const scaled = perCorner((pad) => wheelRateNPerM[pad] * factor)
        const [one, other] = [wheelRateNPerM, scaled].map((chosen) => cornerShares(PLACES, { wheelRateNPerM: chosen }, xM, yM))
        for (const pad of PAD_NAMES) expect(other?.[pad]).toBeCloseTo(one?.[pad] as number, 8)
      }),
      options,
    )
  })
  it('mirrored springs and a mirrored place give the mirrored split', () => {
    fc.assert(
      fc.property(rates, place, ({ LF, RF, LR, RR }, { xM, yM }) => {
        const one = cornerShares(PLACES, { wheelRateNPerM: { LF, RF, LR, RR } }, xM, yM)
        const other = cornerShares(PLACES, { wheelRateNPerM: { LF: RF, RF: LF, LR: RR, RR: LR } }, xM, -yM)
        for (const [pad, mirror] of [
          ['LF', 'RF'],
          ['LR', 'RR'],
        ] as const) {
          expect(other[pad]).toBeCloseTo(one[mirror], 9)
          expect(other[mirror]).toBeCloseTo(one[pad], 9)
        }
      }),
      options,
    )
  })
  it('stiff tyres behind it change nothing, soft ones even it out', () => {
    const wheelRateNPerM = { LF: 40_000, RF: 60_000, LR: 50_000, RR: 50_000 }
    const bare = cornerShares(PLACES, { wheelRateNPerM }, 0.4, 0.3)
    const hard = cornerShares(PLACES, { wheelRateNPerM, tyreRateNPerM: perCorner(() => 1e12) }, 0.4, 0.3)
    for (const pad of PAD_NAMES) expect(hard[pad]).toBeCloseTo(bare[pad], 6)
    const even = cornerShares(PLACES, { wheelRateNPerM: perCorner(() => 50_000) }, 0.4, 0.3)
    const soft = cornerShares(PLACES, { wheelRateNPerM, tyreRateNPerM: perCorner(() => 1000) }, 0.4, 0.3)
    expect(Math.abs(soft.LF - even.LF)).toBeLessThan(Math.abs(bare.LF - even.LF) / 5)
  })
  test.each<[string, object, RegExp]>([
    ['a rate of zero', { wheelRateNPerM: { LF: 0, RF: 1, LR: 1, RR: 1 } }, /wheelRateNPerM\.LF/],
    ['a bar under zero', { barFrontNPerM: -1 }, /a bar's rate is zero or more/],
    ['a place that is no number', { loads: [{ massKg: 1, xM: Number.NaN, yM: 0 }] }, /loads\[0\]\.xM/],
    ['more than a corner can lose', { loads: [{ massKg: -900, xM: 0, yM: 0.7 }] }, /A wheel would lift off its pad/],
  ])('refuses %s', (_, more, message) => {
    expect(() => addAt({ ...PLACES, corners: CORNERS, wheelRateNPerM: perCorner(() => 40_000), loads: [], ...more })).toThrow(message)
  })
  it('the two crosses are one and add up, and the wedge is theirs', () => {
    const { crossShareRfLr, crossShareLfRr, wedgeKg, frontShare } = sharesOf(CORNERS)
    expect(crossShareRfLr + crossShareLfRr).toBeCloseTo(1, 12)
    expect(frontShare).toBeCloseTo(610 / 1180, 12)
    expect(wedgeKg).toBeCloseTo(276 - 294, 12)
  })
})

describe('height by lifting an axle', () => {
  /** The rear axle load of a rigid car on two wheels with its centre at x behind the front axle and h up, the rear higher by `liftM`: moments about the front contact. */
  const axleAt = (car: { totalKg: number; xM: number; hM: number; wheelbaseM: number; radiusM: number }, liftM: number) => {
    const angle = Math.asin(liftM / car.wheelbaseM)
    const along = car.xM * Math.cos(angle) - (car.hM - car.radiusM) * Math.sin(angle)
    return (car.totalKg * along) / (car.wheelbaseM * Math.cos(angle))
  }
  const car = fc.record({
    totalKg: fc.double({ min: 400, max: 2500, noNaN: true }),
    xM: fc.double({ min: 0.9, max: 1.7, noNaN: true }),
    hM: fc.double({ min: 0.3, max: 0.8, noNaN: true }),
    wheelbaseM: fc.double({ min: 2.2, max: 3, noNaN: true }),
    radiusM: fc.double({ min: 0.27, max: 0.36, noNaN: true }),
  })
  const measure = (given: Parameters<typeof axleAt>[0], lifts: number[], lifted: 'rear' | 'front' = 'rear') =>
    centreOfMassHeight({
      totalKg: given.totalKg,
      rearAxleKg: axleAt(given, 0),
      lifts: lifts.map((liftM) => ({ lifted, liftM, rearAxleKg: axleAt(given, lifted === 'rear' ? liftM : -liftM) })),
      wheelbaseM: given.wheelbaseM,
      radiusFrontM: given.radiusM,
      radiusRearM: given.radiusM,
    })
  it('finds the height a rigid car was given, by one lift, several and either axle', () => {
    fc.assert(
      fc.property(car, (given) => {
        expect(measure(given, [0.5]).heightM).toBeCloseTo(given.hM, 9)
        expect(measure(given, [0.3, 0.45, 0.6]).heightM).toBeCloseTo(given.hM, 9)
        expect(measure(given, [0.4], 'front').heightM).toBeCloseTo(given.hM, 9)
      }),
      options,
    )
  })
  it('a higher lift and more lifts are surer', () => {
    const given = { totalKg: 1200, xM: 1.2, hM: 0.5, wheelbaseM: 2.6, radiusM: 0.31 }
    const spreads = [0.2, 0.3, 0.5, 0.8].map((lift) => measure(given, [lift]).sdM)
    expect(spreads).toEqual([...spreads].sort((a, b) => b - a))
    expect(measure(given, [0.5, 0.5, 0.5]).sdM).toBeLessThan(measure(given, [0.5]).sdM)
    const listed = measure(given, [0.5]).sdByLift
    expect(listed.find(({ liftM }) => liftM === 0.5)?.sdM).toBeCloseTo(measure(given, [0.5]).sdM, 12)
  })
  test.each<[string, number, number, RegExp]>([
    ['a lift too small', 0.1, 560, /too small to tell a height/],
    ['a lift over half the wheelbase', 1.4, 500, /over half the wheelbase/],
    ['a lifted reading of the whole car', 0.4, 1200, /as much as the whole car/],
  ])('refuses %s', (_, liftM, rearAxleKg, message) => {
    const call = () =>
      centreOfMassHeight({
        totalKg: 1200,
        rearAxleKg: 560,
        lifts: [{ lifted: 'rear', liftM, rearAxleKg }],
        wheelbaseM: 2.6,
        radiusFrontM: 0.31,
        radiusRearM: 0.31,
      })
    expect(call).toThrow(message)
  })
  it('the least lift is a twentieth of the wheelbase', () => expect(leastLiftM(2.6)).toBeCloseTo(0.13, 12))
})
