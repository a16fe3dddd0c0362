import { describe, expect, it, test } from 'vitest'
import { centreOfMassHeight } from './centre-of-mass-height.ts'
import { cornerFigures, type Pads } from './corners.ts'
import { blockSpreadKg, floorFigures, joinPlacements } from './placements.ts'

const pad = (massKg: number) => ({ massKg, sdKg: 0.5 })
const NONE = { LF: null, RF: null, LR: null, RR: null }

describe('two placements', () => {
  const front: Pads = { ...NONE, LF: pad(312), RF: pad(298) }
  const rear: Pads = { ...NONE, LR: pad(276), RR: pad(294) }

  it('on blocks give all four loads, with the block’s height error in each', () => {
    const joined = joinPlacements(front, rear, blockSpreadKg(40_000, 0.002))
    const { totalKg, crossShareRfLr } = cornerFigures(joined)
    expect(totalKg.value).toBe(1180)
    // k h/4 = 40 N/mm × 2 mm/4 = 20 N, which is 2.039 kg (closed form).
    expect(joined.LF?.sdKg).toBeCloseTo(Math.hypot(0.5, 20 / 9.80665), 9)
    expect(crossShareRfLr.sd).toBeGreaterThan(4 * 0.00042)
  })
  it('a corner read twice counts by its mean', () => {
    const joined = joinPlacements({ ...front, LR: pad(276) }, { ...rear, LR: pad(277) }, 0)
    expect(joined.LR).toEqual({ massKg: 276.5, sdKg: Math.hypot(0.5, 0.5) / 2 })
  })
  it('never make up a fourth number', () => {
    expect(joinPlacements(front, { ...NONE, LR: pad(276) }, 1).RR).toBeNull()
  })
  it('with the other axle on the floor: total and front share, the tilt in the spread', () => {
    const found = floorFigures({ pads: joinPlacements(front, rear, 0), padHeightM: 0.06, wheelbaseM: 2.57 })
    // W q tan θ/D with q = 0.25 m, sin θ = 0.06/2.57: 2.680 kg an axle (closed form).
    expect(found.tiltKg).toBeCloseTo((1180 * 0.25 * Math.tan(Math.asin(0.06 / 2.57))) / 2.57, 12)
    expect(found.totalKg).toEqual({ value: 1180, sd: expect.closeTo(Math.hypot(1, 2 * found.tiltKg), 9) })
    expect(found.frontShare.value).toBeCloseTo(610 / 1180, 12)
    expect(() => floorFigures({ pads: { ...front, LR: pad(276), RR: null }, padHeightM: 0.06, wheelbaseM: 2.57 })).toThrow(/right rear wheel/)
    expect(() => floorFigures({ pads: front, padHeightM: 0, wheelbaseM: 2.57 })).toThrow(/padHeightM/)
  })
})

describe('height of the centre', () => {
  const car = { totalKg: 1180, rearAxleKg: 569.3385214, wheelbaseM: 2.57, radiusFrontM: 0.305, radiusRearM: 0.305 }
  const reading = (heightM: number, liftM: number) => 569.3385214 - (1180 * (heightM - 0.305) * Math.tan(Math.asin(liftM / 2.57))) / 2.57

  it('several lifts, and lifting the front, give the height they were made from', () => {
    const lifts = [0.3, 0.45, 0.6].map((liftM) => ({ lifted: 'rear' as const, liftM, rearAxleKg: reading(0.48, liftM) }))
    expect(centreOfMassHeight({ ...car, lifts }).heightM).toBeCloseTo(0.48, 9)
    const front = [{ lifted: 'front' as const, liftM: 0.4, rearAxleKg: reading(0.48, -0.4) }]
    expect(centreOfMassHeight({ ...car, lifts: front }).heightM).toBeCloseTo(0.48, 9)
  })
  it('has less spread with more lifts and with higher ones', () => {
    const lift = (liftM: number) => ({ lifted: 'rear' as const, liftM, rearAxleKg: reading(0.48, liftM) })
    const sd = (...lifts: number[]) => centreOfMassHeight({ ...car, lifts: lifts.map(lift) }).sdM
    expect(sd(0.6)).toBeLessThan(sd(0.3))
    expect(sd(0.3, 0.6)).toBeLessThan(sd(0.3))
  })
  it('warns of a low lift and of a height that is likelier a slip', () => {
    const { warnings } = centreOfMassHeight({ ...car, lifts: [{ lifted: 'rear', liftM: 0.2, rearAxleKg: reading(1.1, 0.2) }] })
    expect(warnings).toEqual([expect.stringMatching(/under 15 %/), expect.stringMatching(/0\.25 to 0\.9 m/)])
  })
  test.each([
    ['a lift too small', { lifts: [{ lifted: 'rear' as const, liftM: 0.12, rearAxleKg: 560 }] }, /Lift by more than 129 mm/],
    ['no lift', { lifts: [] }, /at least one/],
    ['a lift that cannot be', { lifts: [{ lifted: 'rear' as const, liftM: 1.5, rearAxleKg: 500 }] }, /half the wheelbase/],
    ['a lifted reading of the whole car', { lifts: [{ lifted: 'rear' as const, liftM: 0.3, rearAxleKg: 1200 }] }, /whole car/],
    ['a rear axle of the whole car', { rearAxleKg: 1200, lifts: [{ lifted: 'rear' as const, liftM: 0.3, rearAxleKg: 500 }] }, /whole car/],
  ])('refuses %s', (_, more, sentence) => {
    expect(() => centreOfMassHeight({ ...car, ...more })).toThrow(sentence)
  })
})
