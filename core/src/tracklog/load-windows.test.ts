import { expect, it, test } from 'vitest'
import { measuredDownforce, type SteadyAxle } from '../aero/measured-downforce.ts'
import { axleTravel, type LoadSamples, loadPoints } from './load-windows.ts'

const AIR = 1.2
const MASS_KG = 1300
const SPRINGS = {
  springRateNPerM: 60_000,
  motionRatio: 0.9,
  damperMotionRatio: null,
  tyreRateNPerM: 250_000,
  rideHeightM: null,
  gapM: null,
  packerM: 0,
  rubber: [],
  unsprungKg: 38,
}
/** Areas of downforce that the axles are driven with, m². */
const [FRONT, REAR] = [0.9, 0.75]

/**
 * A straight out of a log at ten rows a second: a low and a high speed held, rolled down from the high one, braked, and a corner, in which axles sink by other
 * things than air. Dampers move by the load on two springs, and by bumps.
 */
function drive(): LoadSamples & { readonly east: null } {
  const rows: { v: number; slowing: number; brake: number; across: number; throttle: number }[] = []
  const add = (seconds: number, row: (i: number) => Omit<(typeof rows)[number], 'slowing'>, slowing = 0) => {
    for (let i = 0; i < seconds * 10; i++) rows.push({ ...row(i / 10), slowing })
  }
  add(10, () => ({ v: 20, brake: 0, across: 0, throttle: 0.2 }))
  add(4, (t) => ({ v: 20 + 8 * t, brake: 0, across: 0, throttle: 1 }), -8)
  add(10, () => ({ v: 52, brake: 0, across: 0, throttle: 0.6 }))
  add(10, (t) => ({ v: 52 - t, brake: 0, across: 0, throttle: 0 }), 1)
  add(2, (t) => ({ v: 42 - 10 * t, brake: 6e6, across: 0, throttle: 0 }), 10)
  add(8, () => ({ v: 22, brake: 0, across: 12, throttle: 0.5 }))
  const rate = 2 * SPRINGS.springRateNPerM * SPRINGS.motionRatio ** 2
  const damper = (areaM2: number, sign: 1 | -1) =>
    rows.map(({ v, slowing, across }, i) => {
      const loadN = 0.5 * AIR * areaM2 * v * v + (sign * MASS_KG * slowing * 0.5) / 2.6 + (across > 0 ? 2000 : 0)
      return SPRINGS.motionRatio * (loadN / rate) + 0.002 * Math.sin(2 * Math.PI * 0.3 * i)
    })
  return {
    timeS: rows.map((_, i) => i / 10),
    speedMps: rows.map(({ v }) => v),
    throttle: rows.map(({ throttle }) => throttle),
    brakePa: rows.map(({ brake }) => brake),
    engineRpm: null,
    acrossMps2: rows.map(({ across }) => across),
    east: null,
    north: null,
    frontM: damper(FRONT, 1),
    rearM: damper(REAR, -1),
  }
}

it('reads held and rolled seconds alone, and they give back the areas they were driven with', () => {
  const points = loadPoints(drive())
  expect(points.every(({ fromS }) => fromS < 10 || (fromS >= 13.9 && fromS < 34))).toBe(true)
  expect(points.length).toBeGreaterThan(24)
  const axle = (travelM: number[]): SteadyAxle => ({ springs: SPRINGS, reading: 'damper', travelM, readingSdM: 0.0003, rateRelativeSd: 0.02 })
  const found = measuredDownforce({
    speedMps: points.map(({ speedMps }) => speedMps),
    airDensityKgM3: AIR,
    front: axle(points.map(({ frontM }) => frontM)),
    rear: axle(points.map(({ rearM }) => rearM)),
    decelerationMps2: points.map(({ decelerationMps2 }) => decelerationMps2),
    massKg: MASS_KG,
    centreHeightM: 0.5,
    wheelbaseM: 2.6,
  })
  expect(found.frontM2).toBeCloseTo(FRONT, 1)
  expect(found.rearM2).toBeCloseTo(REAR, 1)
})

it('keeps no more than a test holds, evenly out of all', () => {
  const short = drive()
  const count = short.timeS.length
  const often = <T>(list: readonly T[]) => Array.from({ length: 12 }, () => list).flat()
  const long: LoadSamples = {
    ...short,
    timeS: Array.from({ length: 12 * count }, (_, i) => i / 10),
    speedMps: often(short.speedMps),
    throttle: often(short.throttle ?? []),
    brakePa: often(short.brakePa ?? []),
    acrossMps2: often(short.acrossMps2 ?? []),
    frontM: often(short.frontM),
    rearM: often(short.rearM),
  }
  const points = loadPoints(long)
  expect(points).toHaveLength(200)
  expect(points.at(-1)?.fromS).toBeGreaterThan(11.5 * (count / 10))
})

const constant = (samples: LoadSamples, speed: number): LoadSamples => ({ ...samples, speedMps: samples.speedMps.map(() => speed) })
test.each([
  ['nothing that tells a straight', { ...drive(), acrossMps2: null }, /neither acceleration across nor a position/],
  ['one speed', constant(drive(), 30), /fastest 1\.5 times the slowest/],
  ['a car that stands', constant(drive(), 1), /three seconds or more on straights/],
] as const)('refuses %s', (_, samples, sentence) => {
  expect(() => loadPoints(samples)).toThrow(sentence)
})

it('takes positions for a straight where nothing across was read, and a bend for none', () => {
  const samples = drive()
  let along = 0
  const road = samples.speedMps.map((v) => (along += v / 10))
  const straight = { ...samples, acrossMps2: null, east: road, north: road.map(() => 0) }
  expect(loadPoints(straight).length).toBeGreaterThan(24)
  const bend = { ...straight, east: road.map((s) => 30 * Math.sin(s / 30)), north: road.map((s) => 30 * Math.cos(s / 30)) }
  expect(() => loadPoints(bend)).toThrow(/straights/)
})

it('reads heights at both axles before dampers, and the mean of two dampers', () => {
  const of = (lists: Record<string, number[]>) => (role: string) => lists[role] ?? null
  const dampers = { damperLF: [0.01], damperRF: [0.03], damperLR: [0.02] }
  expect(axleTravel(of(dampers))).toEqual({ reading: 'damper', frontM: [0.02], rearM: [0.02] })
  expect(axleTravel(of({ ...dampers, heightFront: [0.09], heightRear: [0.12] }))).toEqual({ reading: 'height', frontM: [-0.09], rearM: [-0.12] })
  expect(axleTravel(of({ damperLF: [0.01], heightRear: [0.1] }))).toBeNull()
})
