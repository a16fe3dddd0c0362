import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { coastDown } from '../src/aero/coast-down-drag.ts'
import { driveTest, type SimulatedTest } from '../src/aero/drive-test.ts'
import { measuredDownforce } from '../src/aero/measured-downforce.ts'
import { pitotSpeeds } from '../src/aero/pitot-speeds.ts'
import { EXAMPLE_SIMULATED_TEST } from '../src/calculations/examples/example-aero.ts'
import { heldStretches, type LoggedRun, loggedTest } from '../src/tracklog/logged-runs.ts'
import { normalDraws } from './draws.ts'

const CHANNELS = [
  { name: 'Speed', unit: 'km/h' },
  { name: 'Damper LF', unit: 'mm' },
  { name: 'Damper RF', unit: 'mm' },
  { name: 'Damper LR', unit: 'mm' },
  { name: 'Damper RR', unit: 'mm' },
  { name: 'Height front', unit: 'mm' },
  { name: 'Height rear', unit: 'mm' },
  { name: 'Pitot', unit: 'Pa' },
]
const mm = (value: number | null) => (value === null ? null : 1000 * value)
/** What a logger would tell of a run, heights over the ground from 120 mm at rest. */
function logged(own: SimulatedTest, way: 'out' | 'back', seed: number): LoggedRun {
  const rows = driveTest(own, way, normalDraws(seed))
  return {
    way,
    rows: rows.map(({ timeS, speedMps, frontDropM, rearDropM, frontDamperM, rearDamperM, pitotPa }) => ({
      timeS,
      values: [
        3.6 * speedMps,
        mm(frontDamperM),
        mm(frontDamperM),
        mm(rearDamperM),
        mm(rearDamperM),
        frontDropM === null ? null : 120 - 1000 * frontDropM,
        rearDropM === null ? null : 120 - 1000 * rearDropM,
        pitotPa,
      ],
    })),
  }
}
const both = (own: SimulatedTest, pairs: number, seed: number) =>
  Array.from({ length: pairs }, (_, i) => [logged(own, 'out', seed + 2 * i), logged(own, 'back', seed + 2 * i + 1)]).flat()

describe('a test out of a logger gives the truth back', () => {
  test.each([1, 2, 3, 4])('coasted down four times both ways, seed %i', (seed) => {
    const { pairs } = loggedTest(CHANNELS, both(EXAMPLE_SIMULATED_TEST, 4, 100 * seed))
    expect(pairs).toHaveLength(4)
    const found = coastDown({
      pairs: pairs as never,
      massKg: 1342,
      massSdKg: 3,
      rotatingKg: 0.04 * 1342,
      airDensityKgM3: 1.185,
      airDensitySd: 0.005,
      rollingSchool: 'asRoadShows',
      rollingSpeedMps: 120,
    })
    expect(Math.abs(found.dragAreaM2 - EXAMPLE_SIMULATED_TEST.dragAreaM2)).toBeLessThan(3 * found.dragAreaSdM2)
    expect(found.fits[0]?.grade).toBeCloseTo(0.002, 2)
  })
  test.each(['height', 'damper'] as const)('held at four speeds, read by %s', (reading) => {
    const own: SimulatedTest = { ...EXAMPLE_SIMULATED_TEST, kind: 'steady', windMps: 0, gustMps: 0, fromMps: 20, toMps: 60 }
    const channels = reading === 'height' ? CHANNELS : CHANNELS.map((channel) => (/^Height/.test(channel.name) ? { name: 'Spare', unit: '' } : channel))
    const { held, reading: by, isFromRest } = loggedTest(channels, both(own, 1, 7))
    expect([by, held.out.length, held.back.length, isFromRest]).toEqual([reading, 4, 4, true])
    const axle = (key: 'frontM' | 'rearM', springs: SimulatedTest['front']) => ({
      springs: springs as NonNullable<typeof springs>,
      reading,
      travelM: held.out.map((each) => each[key]),
      readingSdM: 0.0002,
      rateRelativeSd: 0.02,
    })
    const found = measuredDownforce({
      speedMps: held.out.map(({ speedMps }) => speedMps),
      airDensityKgM3: own.airDensityKgM3,
      front: axle('frontM', own.front),
      rear: axle('rearM', own.rear),
      decelerationMps2: null,
      massKg: own.massKg,
      centreHeightM: 0.46,
      wheelbaseM: 2.65,
    })
    expect(Math.abs(found.frontM2 - own.downforceFrontM2)).toBeLessThan(3 * found.frontSdM2)
    expect(Math.abs(found.rearM2 - own.downforceRearM2)).toBeLessThan(3 * found.rearSdM2)
  })
  it('its pitot tube and the wind, out and back', () => {
    const own: SimulatedTest = { ...EXAMPLE_SIMULATED_TEST, kind: 'steady', windMps: 2.5, gustMps: 0, fromMps: 20, toMps: 60 }
    const { held } = loggedTest(CHANNELS, both(own, 1, 11))
    const points = (['out', 'back'] as const).flatMap((direction) =>
      held[direction].map(({ speedMps, pitotPa }) => ({ speedMps, pitotPa: pitotPa as number, direction })),
    )
    const found = pitotSpeeds(points, own.airDensityKgM3)
    expect(found.factor).toBeCloseTo(own.pitotFactor, 2)
    expect(found.headWindMps).toBeCloseTo(2.5, 1)
  })
})

describe('runs of a logger', () => {
  const run = (way: 'out' | 'back', speeds: readonly (number | null)[]): LoggedRun => ({
    way,
    rows: speeds.map((speed, i) => ({ timeS: i, values: [speed] })),
  })
  const channels = [{ name: 'Speed', unit: 'm/s' }]
  it('pairs a run back with the run out before it; one that lacks the other says so', () => {
    const told = loggedTest(channels, [run('out', [30, 29]), run('back', [31, 30]), run('out', [32, 31]), run('out', [33, 32]), run('back', [34, null])])
    expect(told.pairs.map(({ out, back }) => [out?.speedMps, back?.speedMps])).toEqual([
      [
        [30, 29],
        [31, 30],
      ],
      [[32, 31], undefined],
      [[33, 32], [34]],
    ])
    expect(told).toMatchObject({ reading: null, isFromRest: false, held: { out: [], back: [] } })
  })
  it('without a channel of speed holds nothing that could be fitted', () => {
    expect(loggedTest([{ name: 'Boost', unit: 'bar' }], [run('out', [1]), run('back', [1])]).pairs).toEqual([
      { out: { timeS: [], speedMps: [] }, back: { timeS: [], speedMps: [] } },
    ])
  })
  it('a held speed stays within 1 m/s, and neither end of it is taken', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 60, noNaN: true }), { maxLength: 80 }), (speeds) => {
        const times = speeds.map((_, i) => i / 5)
        for (const { from, to } of heldStretches(times, speeds)) {
          const own = speeds.slice(from, to + 1)
          if (Math.max(...own) - Math.min(...own) > 1) return false
        }
        return true
      }),
    )
  })
  it('pulling away is no held speed', () => {
    const times = Array.from({ length: 100 }, (_, i) => i / 5)
    expect(
      heldStretches(
        times,
        times.map((time) => 20 + 3 * time),
      ),
    ).toEqual([])
  })
})
