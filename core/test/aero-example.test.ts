import { describe, expect, it, test } from 'vitest'
import { planCoastDown } from '../src/aero/coast-down-plan.ts'
import { aeroBalance, deviceLoads, sizeForBalance, sumLoads, totalSdM2 } from '../src/aero/device-loads.ts'
import { dragTopSpeed } from '../src/aero/drag-top-speed.ts'
import { contactMps, rideHeights, springForHeight, touches } from '../src/aero/ride-heights.ts'
import { largestChordM, ruleBox, wingBox } from '../src/aero/rule-box.ts'
import { splitterEstimate, USUAL_PRESSURE, USUAL_PRESSURE_SD } from '../src/aero/splitter.ts'
import { wheelRates } from '../src/aero/wheel-rates.ts'
import { type WingEstimate, wingEstimate } from '../src/aero/wing.ts'
import { EXAMPLE_DEVICES, EXAMPLE_HEIGHTS, EXAMPLE_LIP, EXAMPLE_MOUNT, EXAMPLE_WHEELBASE_M, EXAMPLE_WING } from '../src/calculations/examples/example-aero.ts'
import { normalCdf } from '../src/stats/normal.ts'
import { mountLoads } from '../src/structure/mounts.ts'
import { PANEL_MATERIALS } from '../src/structure/panel-materials.ts'
import { checkPanel, choosePanel } from '../src/structure/panels.ts'

const DEG = Math.PI / 180
const Q = 1500
const L = EXAMPLE_WHEELBASE_M
const SHARE = 0.6124
const PLYWOOD = PANEL_MATERIALS.find(({ key }) => key === 'plywood') as (typeof PANEL_MATERIALS)[number]

const placed = (wing: WingEstimate) =>
  ({
    form: 'place',
    downforceM2: wing.downforceM2,
    downforceSdM2: wing.downforceSdM2,
    dragM2: wing.dragM2,
    dragSdM2: wing.dragSdM2,
    xM: 3.45,
    xSdM: 0.02,
    zM: 1.405,
  }) as const
const hole = (angle: number) => wingEstimate({ ...EXAMPLE_WING, angleRad: angle * DEG })
const whole = (angle: number, school: 'contactPatches' | 'geometric' = 'contactPatches') => {
  const forces = { ...EXAMPLE_DEVICES, wing: placed(hole(angle)) }
  return sumLoads(Object.values(forces).map((force) => deviceLoads(force, L, school)))
}
const balanceOf = (areas: ReturnType<typeof whole>) => aeroBalance(areas, 0.72)

// The worked example of the room; all numbers invented.
describe('the worked example of the room', () => {
  it('a wing at hole 4: slope, coefficients, areas, stall', () => {
    const found = hole(4)
    expect(found.effectiveAspect).toBeCloseTo(6.9923, 4)
    expect(found.slopePerRad).toBeCloseTo(4.5635, 4)
    expect(found.liftCoefficient).toBeCloseTo(1.2465, 4)
    expect(found.downforceM2).toBeCloseTo(0.3403, 4)
    expect(found.downforceSdM2).toBeCloseTo(0.0589, 4)
    expect(found.dragM2).toBeCloseTo(0.02442, 5)
    expect(found.dragSdM2).toBeCloseTo(0.00623, 5)
    expect(found.stallFromRad / DEG).toBeCloseTo(3.416, 3)
    expect(found.stallToRad / DEG).toBeCloseTo(8.438, 3)
    expect(found.stallChance).toBeCloseTo(0.0919, 4)
  })
  it('its trailing edge stands at 1.4186 m, its plates under the roof with 10 mm left', () => {
    const pose = { spanM: 1.4, chordM: 0.26, pivotXM: 3.45, pivotZM: 1.405, pivotShare: 0.25, angleRad: 4 * DEG, plate: null }
    expect(wingBox(pose).zTopM).toBeCloseTo(1.4186, 4)
    expect(wingBox({ ...pose, plate: { lengthM: 0.26, heightM: 0.22, topM: 0.015 } }).zTopM).toBeCloseTo(1.42, 9)
  })
  test.each([
    ['splitter', 428.2, -116.2],
    ['wing', -173.5, 684.0],
    ['canards', 34.2, -4.2],
    ['body', -30, -105],
    ['floor', 90, 210],
  ] as const)('%s: front and rear', (name, front, rear) => {
    const { frontM2, rearM2 } = deviceLoads(EXAMPLE_DEVICES[name], L, 'contactPatches')
    expect(frontM2 * Q).toBeCloseTo(front, 1)
    expect(rearM2 * Q).toBeCloseTo(rear, 1)
  })
  it('sums, spreads and what front and rear share', () => {
    const found = whole(4)
    expect(found.frontM2 * Q).toBeCloseTo(348.9, 1)
    expect(Math.sqrt(found.frontVariance) * Q).toBeCloseTo(168.4, 1)
    expect(found.rearM2 * Q).toBeCloseTo(668.5, 1)
    expect(Math.sqrt(found.rearVariance) * Q).toBeCloseTo(196.9, 1)
    expect((found.frontM2 + found.rearM2) * Q).toBeCloseTo(1017.4, 1)
    expect(totalSdM2(found) * Q).toBeCloseTo(224.8, 1)
    expect(found.covariance).toBeCloseTo(-0.00369, 5)
  })
  it('balance by both schools, its gap to the weight, and chances', () => {
    const { frontShare, sd } = balanceOf(whole(4))
    expect(frontShare).toBeCloseTo(0.343, 4)
    expect(sd).toBeCloseTo(0.1409, 4)
    // The page says 0.3644.
    expect(Math.abs(balanceOf(whole(4, 'geometric')).frontShare - 0.3644)).toBeLessThan(1e-4)
    expect(frontShare - SHARE).toBeCloseTo(-0.2694, 4)
    expect(normalCdf((1017.4 - 900) / 224.8)).toBeCloseTo(0.699, 3)
    expect(normalCdf((0.5 - frontShare) / sd) - normalCdf((0.4 - frontShare) / sd)).toBeCloseTo(0.21, 3)
  })
  it('the splitter for 40 %: 0.2478 m², a lip of 238 mm', () => {
    const { wing, body, canards, floor, splitter } = EXAMPLE_DEVICES
    const rest = sumLoads([wing, body, canards, floor].map((force) => deviceLoads(force, L, 'contactPatches')))
    if (splitter.form !== 'place') throw new Error('a splitter acts in a place')
    const { downforceM2 } = sizeForBalance({
      restFrontM2: rest.frontM2,
      restRearM2: rest.rearM2,
      frontShare: 0.4,
      xM: splitter.xM,
      zM: splitter.zM,
      dragPerDownforce: splitter.dragM2 / splitter.downforceM2,
      wheelbaseM: L,
    })
    expect(downforceM2).toBeCloseTo(0.2478, 4)
    expect(downforceM2 / (USUAL_PRESSURE * 1.6)).toBeCloseTo(0.238, 3)
  })
  test.each([
    [0, 0.4459, 887.0, null],
    [6, 0.3001, 1082.7, 239.0],
  ])('the wing at %d degrees moves the balance', (angle, share, newton, sd) => {
    const found = whole(angle)
    expect(balanceOf(found).frontShare).toBeCloseTo(share, 4)
    expect((found.frontM2 + found.rearM2) * Q).toBeCloseTo(newton, 1)
    if (sd !== null) expect(totalSdM2(found) * Q).toBeCloseTo(sd, 1)
  })
  it('a splitter of 1.60 x 0.20', () => {
    const found = splitterEstimate({ widthM: 1.6, lipM: 0.2, pressure: USUAL_PRESSURE, pressureSd: USUAL_PRESSURE_SD })
    expect(found.downforceM2 * Q).toBeCloseTo(312, 6)
    expect(found.downforceSdM2 * Q).toBeCloseTo(97, 0)
  })
  it('drag of the devices, and the speed that it leaves', () => {
    const found = whole(4)
    expect(found.dragM2).toBeCloseTo(0.7254, 4)
    expect(Math.sqrt(found.dragVariance)).toBeCloseTo(0.0592, 4)
    const top = dragTopSpeed({
      wheelPowerW: 318_000,
      wheelPowerSdW: 9500,
      dragAreaM2: 0.7674,
      dragAreaSdM2: 0.035,
      rollingCoefficient: 0.014,
      rollingSd: 0.003,
      massKg: 1335.9,
      airDensityKgM3: 1.2,
    })
    expect(top.speedMps).toBeCloseTo(86.89, 2)
    expect(top.sdMps).toBeCloseTo(1.61, 2)
  })
  test.each([
    [58_850, 0.94, (1335.9 * SHARE) / 2 - 38, 42.41, 1.702],
    [88_730, 0.72, (1335.9 * (1 - SHARE)) / 2 - 38, 38.33, 2.097],
  ])('a spring of %d N/m at a ratio of %d', (springRateNPerM, motionRatio, sprungKg, ride, hertz) => {
    const found = wheelRates({ springRateNPerM, motionRatio, tyreRateNPerM: 230_000, sprungKg })
    expect(found.rideRateNPerM / 1000).toBeCloseTo(ride, 2)
    expect(found.rideFrequencyHz).toBeCloseTo(hertz, 3)
  })
  it('heights at 70 m/s on packer and rubber', () => {
    const areas = whole(4)
    const input = { ...EXAMPLE_HEIGHTS, downforceFrontM2: areas.frontM2, downforceRearM2: areas.rearM2 }
    expect(contactMps(input, 'front')).toBeCloseTo(56.31, 2)
    expect(contactMps(input, 'rear')).toBeNull()
    const found = rideHeights(input, 70)
    expect(found.frontDropM * 1000).toBeCloseTo(6.726, 2)
    expect(found.rearDropM * 1000).toBeCloseTo(17.09, 2)
    expect((found.pointsM[0] as number) * 1000).toBeCloseTo(62.58, 2)
    expect(found.rakeChangeRad * 1000).toBeCloseTo(-3.91, 2)
    expect(touches(input, 70)[0]?.touchMps).toBeNull()
  })
  it('with 0.90 and 0.75 m²: with and without packer and rubber, and the spring that does the same', () => {
    const input = { ...EXAMPLE_HEIGHTS, downforceFrontM2: 0.9, downforceRearM2: 0.75 }
    const lip = (front: Partial<typeof input.front>) => (rideHeights({ ...input, front: { ...input.front, ...front } }, 70).pointsM[0] as number) * 1000
    expect(lip({})).toBeCloseTo(51.96, 2)
    expect(lip({ packerM: 0 })).toBeCloseTo(45.36, 2)
    expect(lip({ rubber: [] })).toBeCloseTo(32.8, 2)
    const bare = { ...input, front: { ...input.front, rubber: [] } }
    const rate = springForHeight(bare, { which: 'front', point: 0, heightM: lip({}) / 1000, speedMps: 70 })
    expect(rate / 1000).toBeCloseTo(125.9, 1)
    const sprungKg = (1335.9 * SHARE) / 2 - 38
    expect(wheelRates({ springRateNPerM: rate, motionRatio: 0.94, tyreRateNPerM: 230_000, sprungKg }).rideFrequencyHz).toBeCloseTo(2.262, 3)
  })
  it('a lip of plywood in the air and under somebody', () => {
    const thin = checkPanel(EXAMPLE_LIP, PLYWOOD, 0.0095)
    expect(thin.air.tipM * 1000).toBeCloseTo(0.594, 3)
    expect(thin.air.stressPa / 1e6).toBeCloseTo(5.08, 2)
    expect(thin.standing.stressPa / 1e6).toBeCloseTo(26.6, 1)
    expect(thin.standing.holds).toBe(false)
    const thick = checkPanel(EXAMPLE_LIP, PLYWOOD, 0.0127)
    expect(thick.standing.stressPa / 1e6).toBeCloseTo(14.9, 1)
    expect(thick.standing.tipM * 1000).toBeCloseTo(3.47, 2)
    expect(thick.holds).toBe(true)
  })
  it('the feet of the wing’s mount', () => {
    const { feet } = mountLoads(EXAMPLE_MOUNT)
    expect(feet[0]?.downN).toBeCloseTo(978.3, 1)
    expect(feet[1]?.downN).toBeCloseTo(1022.6, 1)
  })
  it('a coast-down before it is driven', () => {
    const input = {
      dragAreaM2: 0.742,
      rollingCoefficient: 0.0138,
      massKg: 1342,
      rotatingShare: 0.04,
      massSdKg: 3,
      airDensityKgM3: 1.185,
      airDensitySd: 0.004,
      fromMps: 50,
      toMps: 15,
      gustMps: 1,
      pairs: 4,
    }
    const long = planCoastDown(input)
    expect(long.roadM).toBeCloseTo(2410, 0)
    expect(100 * long.onePairRelativeSd).toBeCloseTo(3.21, 2)
    expect(100 * long.meanRelativeSd).toBeCloseTo(1.61, 2)
    expect(100 * (long.smallestDifferenceRelative ?? 0)).toBeCloseTo(7.6, 1)
    const short = planCoastDown({ ...input, fromMps: 35 })
    expect(short.roadM).toBeCloseTo(1497, 0)
    expect(100 * short.onePairRelativeSd).toBeCloseTo(5.86, 2)
  })
})

describe('the rule box', () => {
  const outline = { frontOverhangM: 0.9, rearOverhangM: 1, bodyWidthM: 1.74, roofHeightM: 1.43, wheelbaseM: L }
  const lip = { name: 'lip', box: { xFrontM: -1.1, xRearM: -0.6, yInnerM: 0, yOuterM: 0.8, zBottomM: 0.065, zTopM: 0.08 }, wing: null }
  const canards = { name: 'canards', box: { xFrontM: -0.7, xRearM: -0.4, yInnerM: 0.6, yOuterM: 0.905, zBottomM: 0.3, zTopM: 0.4 }, wing: null }
  const wing = {
    name: 'wing',
    box: wingBox({
      spanM: 1.4,
      chordM: 0.26,
      pivotXM: 3.45,
      pivotZM: 1.405,
      pivotShare: 0.25,
      angleRad: 4 * DEG,
      plate: { lengthM: 0.26, heightM: 0.22, topM: 0.015 },
    }),
    wing: { chordM: 0.26, spanM: 1.4, elements: 1 },
  }
  it('reads every reach from standard bodywork, with the device that decides it', () => {
    const found = ruleBox(outline, [lip, canards, wing])
    expect(found.reachFront?.value).toBeCloseTo(0.2, 9)
    expect(found.reachFront?.name).toBe('lip')
    expect(found.reachSide?.value).toBeCloseTo(0.035, 9)
    expect(found.reachSide?.name).toBe('canards')
    expect(found.wingOverRoof?.value).toBeCloseTo(-0.01, 9)
    expect(found.groundHeight).toEqual({ value: 0.065, name: 'lip' })
    expect(found.reachRear?.value).toBe(0)
    expect(found.wingElements?.value).toBe(1)
  })
  it('a car without a wing has none to measure', () => {
    expect(ruleBox(outline, [lip]).wingOverRoof).toBeUndefined()
    expect(ruleBox(outline, []).groundHeight).toBeUndefined()
  })
  it('the largest chord stays 10 mm under the roof and short of the rear limit', () => {
    const pose = { spanM: 1.4, chordM: 0.2, pivotXM: 3.45, pivotZM: 1.3, pivotShare: 0.25, angleRad: 12 * DEG, plate: null }
    const chordM = largestChordM(pose, { topM: 1.43, rearXM: null }) as number
    expect(wingBox({ ...pose, chordM }).zTopM).toBeCloseTo(1.42, 6)
    const short = largestChordM(pose, { topM: 1.43, rearXM: 3.65 }) as number
    expect(wingBox({ ...pose, chordM: short }).xRearM).toBeCloseTo(3.64, 6)
    expect(largestChordM({ ...pose, pivotZM: 1.5 }, { topM: 1.43, rearXM: null })).toBeNull()
  })
})

describe('what panels are made of (common practice, no source)', () => {
  const chosen = (lipM: number, standingN: number) =>
    Object.fromEntries(
      choosePanel({ ...EXAMPLE_LIP, lipM, standingN, pressurePa: 0.65 * 0.5 * 1.2 * 60 ** 2 }, PANEL_MATERIALS).map((choice) => [choice.material.key, choice]),
    )
  const inches = (metres: number | undefined | null) => (metres ?? Number.NaN) / 0.0254
  it('plywood of 3/8 in holds 80 kg on the edge of a lip of 150 mm, 1/2 in holds 1 kN', () => {
    expect(inches(chosen(0.15, 785).plywood?.panel.thicknessM)).toBeCloseTo(3 / 8, 9)
    expect(inches(chosen(0.15, 1000).plywood?.panel.thicknessM)).toBeCloseTo(1 / 2, 9)
  })
  test.each(['al5052', 'al6061', 'al7075'])('%s of 3/16 in holds 1 kN; 1/8 in the air alone', (key) => {
    const choice = chosen(0.15, 1000)[key]
    expect(inches(choice?.panel.thicknessM)).toBeCloseTo(3 / 16, 9)
    expect(inches(choice?.airOnlyM)).toBeLessThanOrEqual(1 / 8)
    expect(choice?.decides).toBe('standing')
  })
  it('soft aluminium needs more at 150 mm', () => {
    expect(inches(chosen(0.15, 1000).al3003?.panel.thicknessM)).toBeGreaterThan(3 / 16 + 1e-9)
  })
  it('ABS of 1/4 in holds the air and not a person', () => {
    const abs = PANEL_MATERIALS.find(({ key }) => key === 'abs') as (typeof PANEL_MATERIALS)[number]
    const found = checkPanel({ ...EXAMPLE_LIP, lipM: 0.15 }, abs, 0.25 * 0.0254)
    expect(found.air.holds).toBe(true)
    expect(found.standing.holds).toBe(false)
  })
  it('honeycomb lands between 1/2 and 1 in, at ten times the price of wood', () => {
    const choice = chosen(0.15, 1000).honeycomb
    expect(inches(choice?.panel.thicknessM)).toBeGreaterThanOrEqual(0.5)
    expect(inches(choice?.panel.thicknessM)).toBeLessThanOrEqual(1)
    expect(choice?.panel.holds).toBe(true)
    expect(choice?.material.priceOverPly).toBe(10)
  })
})
