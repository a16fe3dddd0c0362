import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { type AxleSprings, axleDropM, wheelForceN } from '../src/aero/axle-springs.ts'
import { type DeviceForce, deviceLoads, sumLoads } from '../src/aero/device-loads.ts'
import { measuredDownforce, pitotFactor } from '../src/aero/measured-downforce.ts'
import { pitotSpeeds } from '../src/aero/pitot-speeds.ts'
import { rideHeights, touches } from '../src/aero/ride-heights.ts'
import { USUAL_WING, wingEstimate, wingSlope } from '../src/aero/wing.ts'
import { EXAMPLE_DEVICES, EXAMPLE_HEIGHTS, EXAMPLE_WING } from '../src/calculations/examples/example-aero.ts'
import { draws } from './draws.ts'
import { STEADY } from './example-fixtures.ts'
import { rectangularWing } from './lifting-line.ts'

const DEG = Math.PI / 180

/** Angle, lift and drag of a section, computed with a panel code (version and settings in the file); its stall is 5 to 15 % optimistic (from memory). */
const polar = () =>
  readFileSync(new URL('./section-polar.txt', import.meta.url), 'utf8')
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number))
    .filter((row) => row.length >= 8 && row.every(Number.isFinite))

describe('wings, a second way', () => {
  // Slope and span efficiency of a rectangular wing with a section slope of 2π, computed for this project by lifting line.
  test.each([
    [3, 3.6314, 0.9815],
    [4, 4.0284, 0.9723],
    [6, 4.5304, 0.9539],
    [10, 5.0468, 0.9209],
  ])('of aspect %d: solved anew, and the closed form within 3.5 % of it', (aspect, slope, efficiency) => {
    const solved = rectangularWing(aspect, 2 * Math.PI)
    expect(solved.slope).toBeCloseTo(slope, 3)
    expect(1 / (1 + solved.delta)).toBeCloseTo(efficiency, 3)
    const found = wingSlope(aspect, { slopeSchool: 'liftingLine', sectionShare: 1, spanEfficiency: efficiency })
    expect(Math.abs(found / slope - 1)).toBeLessThan(0.035)
  })
  it('the zero lift of a thin curved section, −4.15 degrees (thin aerofoil), stands in the polar within half a degree', () => {
    const zero = polar().reduce((best, row) => (Math.abs(row[1] as number) < Math.abs(best[1] as number) ? row : best))
    expect(Math.abs((zero[0] as number) + 4.1545)).toBeLessThan(0.5)
  })
  it('an endless wing has the slope of its section; a very short one tends to πA/2', () => {
    for (const slopeSchool of ['lowAspect', 'liftingLine'] as const)
      expect(wingSlope(1e7, { slopeSchool, sectionShare: 1, spanEfficiency: 1 })).toBeCloseTo(2 * Math.PI, 4)
    expect(wingSlope(0.01, { slopeSchool: 'lowAspect', sectionShare: 1, spanEfficiency: 1 }) / ((Math.PI * 0.01) / 2)).toBeCloseTo(1, 3)
  })
  it('the section polar kept beside this has a slope within 10 % of what is taken for a section, and lets go within the band or above it', () => {
    const rows = polar()
    const straight = rows.filter(([angle]) => (angle as number) >= -2 && (angle as number) <= 6)
    const [first, last] = [straight[0] as number[], straight.at(-1) as number[]]
    const slope = ((last[1] as number) - (first[1] as number)) / (((last[0] as number) - (first[0] as number)) * DEG)
    expect(Math.abs(slope / (2 * Math.PI * USUAL_WING.sectionShare) - 1)).toBeLessThan(0.1)
    expect(Math.max(...rows.map((row) => row[1] as number))).toBeGreaterThan(USUAL_WING.stall.to)
  })
  it('draws of its inputs give the spread that is told', () => {
    const found = wingEstimate(EXAMPLE_WING)
    // Even draws for what is known between bounds, others normal; common practice, no source.
    const even = draws(7)
    const normal = () => Array.from({ length: 12 }, even).reduce((sum, each) => sum + each, -6)
    const areas = Array.from({ length: 20_000 }, () => {
      const flow = EXAMPLE_WING.angleRad + 0.5 * DEG * normal() + (5 + 5 * even()) * DEG - EXAMPLE_WING.zeroLiftRad + DEG * normal()
      return found.slopePerRad * (1 + 0.05 * normal()) * flow * (0.6 + 0.3 * even()) * EXAMPLE_WING.spanM * EXAMPLE_WING.chordM
    })
    const mean = areas.reduce((sum, each) => sum + each, 0) / areas.length
    const sd = Math.sqrt(areas.reduce((sum, each) => sum + (each - mean) ** 2, 0) / areas.length)
    expect(mean / found.downforceM2).toBeCloseTo(1, 2)
    // Stall adds to what is told, nothing takes away.
    expect(sd).toBeLessThan(found.downforceSdM2)
    expect(sd / found.downforceSdM2).toBeGreaterThan(0.95)
  })
  it('past its stall, pushing up, or with plates of half its span it is refused by name', () => {
    expect(() => wingEstimate({ ...EXAMPLE_WING, angleRad: 12 * DEG })).toThrow(/past its stall.*under 8\.4 degrees/)
    expect(() => wingEstimate({ ...EXAMPLE_WING, angleRad: -20 * DEG })).toThrow(/does not push down/)
    expect(() => wingEstimate({ ...EXAMPLE_WING, plateHeightM: 0.7 })).toThrow(/plateHeightM/)
  })
})

describe('loads of devices', () => {
  const L = 2.65
  const at = (xM: number, zM: number, downforceM2 = 0.3, dragM2 = 0.05): DeviceForce => ({
    form: 'place',
    downforceM2,
    downforceSdM2: 0.03,
    dragM2,
    dragSdM2: 0.01,
    xM,
    xSdM: 0.02,
    zM,
  })
  it('stand in balance about another point: 3 m ahead of the front axle, on the ground', () => {
    for (const force of [at(-0.9, 0.1), at(3.4, 1.4), at(1.2, 0.5)] as const) {
      const { frontM2, rearM2 } = deviceLoads(force, L, 'contactPatches')
      if (force.form !== 'place') continue
      expect(frontM2 * 3 + rearM2 * (3 + L)).toBeCloseTo(force.downforceM2 * (3 + force.xM) + force.dragM2 * force.zM, 9)
    }
  })
  it('front and rear sum to the downforce; splitting and order change nothing; more of it where the weight stands moves the balance there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        (x, z, f) => {
          const whole = deviceLoads(at(x, z, f), L, 'contactPatches')
          expect(whole.frontM2 + whole.rearM2).toBeCloseTo(f, 9)
          const half = deviceLoads(at(x, z, f / 2, 0.025), L, 'contactPatches')
          expect(sumLoads([half, half]).frontM2).toBeCloseTo(whole.frontM2, 9)
          const others = [EXAMPLE_DEVICES.wing, EXAMPLE_DEVICES.splitter].map((force) => deviceLoads(force, L, 'contactPatches'))
          expect(sumLoads([whole, ...others]).rearM2).toBeCloseTo(sumLoads([...others, whole]).rearM2, 12)
          const share = 0.6
          const balance = (areas: ReturnType<typeof sumLoads>) => areas.frontM2 / (areas.frontM2 + areas.rearM2)
          const more = deviceLoads(at((1 - share) * L, 0, f, 0), L, 'contactPatches')
          expect(Math.abs(balance(sumLoads([more, ...others])) - share)).toBeLessThanOrEqual(Math.abs(balance(sumLoads(others)) - share) + 1e-12)
        },
      ),
    )
  })
})

describe('heights', () => {
  const springs = fc.record({
    springRateNPerM: fc.double({ min: 20_000, max: 300_000, noNaN: true }),
    motionRatio: fc.double({ min: 0.5, max: 1.2, noNaN: true }),
    tyreRateNPerM: fc.double({ min: 150_000, max: 400_000, noNaN: true }),
    gapM: fc.double({ min: 0.005, max: 0.04, noNaN: true }),
    packerM: fc.constant(0),
    damperMotionRatio: fc.constant(null),
    rubber: fc.constant(EXAMPLE_HEIGHTS.front.rubber),
  })
  const load = fc.double({ min: 0, max: 12_000, noNaN: true })
  it('a travel gives back its force, and the energy in springs and tyre is least where it stands', () => {
    fc.assert(
      fc.property(springs, load, (axle: AxleSprings, axleN) => {
        const drop = axleDropM(axle, axleN)
        const travel = drop - axleN / 2 / axle.tyreRateNPerM
        expect(wheelForceN(axle, travel)).toBeCloseTo(axleN / 2, 5)
        // Energy of the suspension by the trapezoid of a fine grid, less the work of the load.
        const energy = (z: number) => {
          const n = 400
          let sum = 0
          for (let i = 0; i < n; i++) sum += ((wheelForceN(axle, (z * i) / n) + wheelForceN(axle, (z * (i + 1)) / n)) / 2) * (z / n)
          return sum - (axleN / 2) * z
        }
        for (const by of [-1e-3, 1e-3]) expect(energy(travel)).toBeLessThanOrEqual(energy(travel + by) + 1e-4)
      }),
      { numRuns: 60 },
    )
  })
  it('a stiffer spring or a longer packer never lets its axle sink more', () => {
    fc.assert(
      fc.property(springs, load, (axle: AxleSprings, axleN) => {
        const drop = axleDropM(axle, axleN)
        expect(axleDropM({ ...axle, springRateNPerM: axle.springRateNPerM * 1.2 }, axleN)).toBeLessThanOrEqual(drop + 1e-12)
        expect(axleDropM({ ...axle, packerM: (axle.gapM ?? 0) / 2 }, axleN)).toBeLessThanOrEqual(drop + 1e-12)
      }),
    )
  })
  it('the speed of a touch is the first on a fine grid of speeds, though the height is not monotone', () => {
    const low = { ...EXAMPLE_HEIGHTS, downforceFrontM2: 1.4, downforceRearM2: 0.9, points: [{ name: 'lip', xM: -1.1, zM: 0.02 }] }
    const [lip] = touches(low, 90)
    const grid = Array.from({ length: 9001 }, (_, i) => i / 100)
    const first = grid.find((speed) => (rideHeights(low, speed).pointsM[0] as number) <= 0)
    expect(Math.abs((lip?.touchMps ?? 0) - (first ?? 0))).toBeLessThan(0.011)
    const least = Math.min(...grid.map((speed) => rideHeights(low, speed).pointsM[0] as number))
    expect(lip?.leastM).toBeCloseTo(least, 5)
  })
  it('refuses a packer longer than the gap, a ratio over 2 and a rubber that falls', () => {
    const front = (more: Partial<AxleSprings>) => () => rideHeights({ ...EXAMPLE_HEIGHTS, front: { ...EXAMPLE_HEIGHTS.front, ...more } }, 50)
    expect(front({ packerM: 0.02 })).toThrow(/packer is longer than the free gap/)
    expect(front({ motionRatio: 2.5 })).toThrow(/front.motionRatio/)
    expect(
      front({
        rubber: [
          { compressionM: 0.005, forceN: 400 },
          { compressionM: 0.004, forceN: 500 },
        ],
      }),
    ).toThrow(/must rise/)
  })
})

describe('what a test of the whole car measures', () => {
  it('gives the areas back that the heights were made of, by wheel, damper and height', () => {
    const { frontM2, rearM2 } = measuredDownforce(STEADY)
    expect(frontM2).toBeCloseTo(0.9, 6)
    expect(rearM2).toBeCloseTo(0.75, 6)
    const springs = STEADY.front.springs
    const travel = (speed: number) => axleDropM({ ...springs, tyreRateNPerM: 1e15 }, 0.6 * speed ** 2 * 0.9)
    for (const reading of ['wheel', 'damper'] as const) {
      const travelM = STEADY.speedMps.map((speed) => travel(speed) * (reading === 'damper' ? springs.motionRatio : 1) - 0.002)
      expect(measuredDownforce({ ...STEADY, front: { ...STEADY.front, reading, travelM } }).frontM2).toBeCloseTo(0.9, 6)
    }
  })
  it('a car that coasts seems to push on its front: that is taken away', () => {
    const deceleration = STEADY.speedMps.map((speed) => 0.1 + 0.0003 * speed ** 2)
    const shift = (i: number) => (1336 * (deceleration[i] as number) * 0.5) / 2.65
    const travelM = STEADY.speedMps.map((speed, i) => axleDropM(STEADY.front.springs, 0.6 * speed ** 2 * 0.9 + shift(i)))
    const found = measuredDownforce({ ...STEADY, front: { ...STEADY.front, travelM }, decelerationMps2: deceleration })
    expect(found.frontM2).toBeCloseTo(0.9, 6)
  })
  it('a pitot in a head wind gives its factor and the wind back', () => {
    const [v, w, f] = [45, 3, 0.92]
    const q = (speed: number) => f * 0.6 * speed ** 2
    const found = pitotFactor({ firstPa: q(v + w), secondPa: q(v - w), speedMps: v, airDensityKgM3: 1.2 })
    expect(found.factor).toBeCloseTo(f, 9)
    expect(found.headWindMps).toBeCloseTo(w, 9)
  })
  it('a pitot at many speeds gives any factor, any wind and the speed of the air back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 1.5, noNaN: true }),
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.array(fc.double({ min: 12, max: 80, noNaN: true }), { minLength: 1, maxLength: 6 }),
        fc.array(fc.double({ min: 12, max: 80, noNaN: true }), { minLength: 1, maxLength: 6 }),
        (factor, wind, out, back) => {
          const point = (speedMps: number, direction: 'out' | 'back') => {
            const air = speedMps + (direction === 'out' ? wind : -wind)
            return { speedMps, direction, pitotPa: factor * 0.6 * air ** 2 }
          }
          const points = [...out.map((speed) => point(speed, 'out')), ...back.map((speed) => point(speed, 'back'))]
          const found = pitotSpeeds(points, 1.2)
          expect(found.factor).toBeCloseTo(factor, 6)
          expect(found.headWindMps).toBeCloseTo(wind, 5)
          for (const [i, speed] of found.airSpeedMps.entries())
            expect(speed).toBeCloseTo((points[i]?.speedMps ?? 0) + (points[i]?.direction === 'out' ? wind : -wind), 5)
        },
      ),
    )
  })
  it('a pitot of one pair is that of the pair, and of one direction is refused', () => {
    const pair = [
      { speedMps: 50, pitotPa: 1600, direction: 'out' },
      { speedMps: 50, pitotPa: 1400, direction: 'back' },
    ] as const
    const { factor, headWindMps } = pitotFactor({ firstPa: 1600, secondPa: 1400, speedMps: 50, airDensityKgM3: 1.2 })
    expect(pitotSpeeds(pair, 1.2)).toMatchObject({ factor: expect.closeTo(factor, 12), headWindMps: expect.closeTo(headWindMps, 12) })
    expect(() => pitotSpeeds([pair[0], pair[0]], 1.2)).toThrow(
      expect.objectContaining({ field: 'direction', message: expect.stringMatching(/on the way back/) }),
    )
  })
})
