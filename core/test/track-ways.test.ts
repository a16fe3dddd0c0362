import { describe, expect, it } from 'vitest'
import { EXAMPLE_AIRFIELD, EXAMPLE_LAP_CAR } from '../src/calculations/examples/example-lap.ts'
import { lapOf } from '../src/track/lap.ts'
import { type LapCar, lapGears } from '../src/track/lap-car.ts'
import type { Segment, TrackLine } from '../src/track/track.ts'
import { cornerSpeed, tyreLimits } from '../src/track/tyre-limits.ts'
import { lapsFromLog } from '../src/tracklog/laps-from-log.ts'
import { accelerationOf, powerFromAcceleration } from '../src/tracklog/log-power.ts'
import { toPlane } from '../src/tracklog/plane.ts'
import { tracedTrack } from '../src/tracklog/traced-track.ts'
import { draws } from './draws.ts'
import { Solver } from './ode-solver.ts'

const TRACK: TrackLine = EXAMPLE_AIRFIELD
const CAR: LapCar = { ...EXAMPLE_LAP_CAR, gears: null }

/** A lap by a general solver over whole segments of v² with the distance, forward and backward, each corner held at its own speed: no cells. */
function solvedLap(track: TrackLine, car: LapCar): number {
  const tyres = tyreLimits(car)
  const gear = lapGears(car)[0] as ReturnType<typeof lapGears>[number]
  const place = (segment: Segment) => ({ curvaturePerM: segment.curvaturePerM, grade: 0, camberRad: 0, gripFactor: 1 })
  const limits = track.segments.map((segment) => cornerSpeed(tyres, place(segment)) ** 2)
  const pull = (segment: Segment, y: number) => {
    const v = Math.sqrt(Math.max(1, y))
    const { left, tractionN, resistanceN } = tyres.at(place(segment), v)
    return 2 * Math.min((gear.forceN(v) - resistanceN) / gear.effectiveMassKg, (left * tractionN - resistanceN) / car.massKg)
  }
  const slow = (segment: Segment, y: number) => {
    const { left, brakingN, resistanceN } = tyres.at(place(segment), Math.sqrt(Math.max(1, y)))
    return (2 * (car.brakingUse * left * brakingN + resistanceN)) / car.massKg
  }
  // A solver's answer at every quarter of a metre: the two ways meet between them.
  const along = (order: readonly number[], start: number, slope: typeof pull) => {
    const found = new Map<number, number[]>()
    let y = start
    for (const index of order) {
      const segment = track.segments[index] as Segment
      const steps = Math.round(segment.lengthM / 0.25)
      const limit = limits[index] as number
      const values = [Math.min(y, limit)]
      const solver = new Solver(1)
      solver.absoluteTolerance = 1e-9
      solver.relativeTolerance = 1e-9
      for (let i = 0; i < steps; i++) {
        const from = values.at(-1) as number
        const to =
          from >= limit - 1e-9
            ? limit
            : (solver.solve((_, state) => [slope(segment, Math.min(state[0] as number, limit))], 0, [from], segment.lengthM / steps).y[0] as number)
        values.push(Math.min(to, limit))
      }
      y = values.at(-1) as number
      found.set(index, values)
    }
    return found
  }
  const slowest = limits.indexOf(Math.min(...limits))
  const order = track.segments.map((_, i) => (slowest + i) % track.segments.length)
  const went = along(order, limits[slowest] as number, pull)
  const came = along([...order].reverse(), limits[slowest] as number, slow)
  let time = 0
  for (const index of order) {
    const [up, down] = [went.get(index) as number[], [...(came.get(index) as number[])].reverse()]
    const y = up.map((value, i) => Math.min(value, down[i] as number))
    const ds = (track.segments[index] as Segment).lengthM / (y.length - 1)
    for (let i = 1; i < y.length; i++) time += (2 * ds) / (Math.sqrt(y[i] as number) + Math.sqrt(y[i - 1] as number))
  }
  return time
}

describe('a lap another way', () => {
  it('is what a general solver makes of the same forces, within a millisecond at cells of 1 m', () => {
    expect(Math.abs(lapOf(TRACK, CAR).lapS - solvedLap(TRACK, CAR))).toBeLessThan(1e-3)
  })
  it('falls by the square of the cell: halving it leaves about a quarter of the error', () => {
    const [four, two, one] = [4, 2, 1].map((stepM) => lapOf(TRACK, CAR, { stepM }).lapS) as [number, number, number]
    const ratio = (four - two) / (two - one)
    expect(ratio).toBeGreaterThan(2)
    expect(ratio).toBeLessThan(8)
  })
})

/** Earth-centred coordinates of a place at sea level on WGS 84: the other way to metres. */
function earthCentred(latitudeDeg: number, longitudeDeg: number): [number, number, number] {
  const [a, f] = [6_378_137, 1 / 298.257223563]
  const e2 = f * (2 - f)
  const [phi, l] = [(latitudeDeg * Math.PI) / 180, (longitudeDeg * Math.PI) / 180]
  const n = a / Math.sqrt(1 - e2 * Math.sin(phi) ** 2)
  return [n * Math.cos(phi) * Math.cos(l), n * Math.cos(phi) * Math.sin(l), n * (1 - e2) * Math.sin(phi)]
}

describe('positions another way', () => {
  it.each([
    [59.3, 18],
    [-33.9, 18.4],
    [0.1, 36.8],
    [70, 25],
  ])('at %d, %d lie as far apart as straight through the Earth, within 2 mm in a kilometre', (latitudeDeg, longitudeDeg) => {
    const to = { latitudeDeg: latitudeDeg + 0.006, longitudeDeg: longitudeDeg + 0.008 }
    const { x, y } = toPlane({ latitudeDeg, longitudeDeg }, [to])
    const [p, q] = [earthCentred(latitudeDeg, longitudeDeg), earthCentred(to.latitudeDeg, to.longitudeDeg)]
    const through = Math.hypot(...p.map((value, i) => value - (q[i] as number)))
    // The meridians draw together towards the poles: a plane of one scale is off by half of that over the way.
    const allowed =
      2e-6 * through +
      0.5 * Math.abs((to.longitudeDeg - longitudeDeg) * (to.latitudeDeg - latitudeDeg)) * Math.abs(Math.sin((latitudeDeg * Math.PI) / 180)) * 2000
    expect(Math.abs(Math.hypot(x[0] as number, y[0] as number) - through)).toBeLessThan(allowed)
  })
  it('a noisy ring of 80 m comes back as one within 3 %, smoother with a longer cut-off', () => {
    const noise = draws(7)
    const places = Array.from({ length: 500 }, (_, i) => {
      const turn = (2 * Math.PI * i) / 500
      const [x, y] = [80 * Math.cos(turn) + 0.2 * (noise() - 0.5), 80 * Math.sin(turn) + 0.2 * (noise() - 0.5)]
      return { latitudeDeg: 59 + y / 111_412, longitudeDeg: 18 + x / 57_478 }
    })
    const spread = (cutOffM: number) => {
      const { segments, problems } = tracedTrack(places, { isClosed: true, cutOffM })
      expect(problems).toEqual([])
      return Math.sqrt(segments.reduce((sum, { curvaturePerM }) => sum + (curvaturePerM * 80 - 1) ** 2, 0) / segments.length)
    }
    expect(spread(40)).toBeLessThan(0.03)
    expect(spread(40)).toBeLessThan(spread(15))
  })
})

describe('a log made of a known car', () => {
  const power = 200_000
  const car = { massKg: 1180, massSdKg: 3, effectiveMassKg: 1321.5, dragAreaM2: 0.7, rollingCoefficient: 0.013, resistanceSdN: 60, airDensityKgM3: 1.19 }
  const solver = new Solver(1)
  solver.relativeTolerance = 1e-10
  solver.absoluteTolerance = 1e-10
  const slope = (v: number) => (power / v - 0.5 * 1.19 * 0.7 * v * v - 0.013 * 1180 * 9.80665) / car.effectiveMassKg
  const timeS = Array.from({ length: 41 }, (_, i) => i * 0.1)
  const speedMps: number[] = [24]
  for (let i = 1; i < timeS.length; i++) speedMps.push(solver.solve((_, [v]) => [slope(v as number)], 0, [speedMps[i - 1] as number], 0.1).y[0] as number)
  it('gives its power back within half a percent', () => {
    accelerationOf(timeS, speedMps).forEach((accelerationMps2, i) => {
      if (accelerationMps2 === null) return
      const inner = i > 3 && i < timeS.length - 4
      const found = powerFromAcceleration({
        car,
        speedMps: speedMps[i] as number,
        accelerationMps2,
        grade: 0,
        speedSdMps: 0.1,
        accelerationSdMps2: 0.05,
        slip: { share: 0, sd: 0 },
      })
      if (inner) expect(Math.abs(found.powerW / power - 1)).toBeLessThan(0.005)
    })
  })
  it('gives its laps back between samples, and refuses what is none', () => {
    // Once round a ring of 60 m in 15.08 s, sampled ten times a second from half a second before the line.
    const rate = 2 * Math.PI * (1 / 15.08)
    const time = Array.from({ length: 500 }, (_, i) => i * 0.1)
    const at = (t: number) => [60 * Math.sin(rate * (t - 0.53)), 60 - 60 * Math.cos(rate * (t - 0.53))] as const
    const path = { timeS: time, x: time.map((t) => at(t)[0]), y: time.map((t) => at(t)[1]) }
    const laps = lapsFromLog(path, { x: 0, y: 0, headingRad: 0, halfWidthM: 10 })
    expect(laps.length).toBe(3)
    for (const { lapS } of laps) expect(lapS).toBeCloseTo(15.08, 2)
    expect(laps[0]?.fromS).toBeCloseTo(0.53, 3)
    expect(() => lapsFromLog({ ...path, timeS: time.map((t, i) => (i === 200 ? 3 : t)) }, { x: 0, y: 0, headingRad: 0, halfWidthM: 10 })).toThrow(/goes back/)
    expect(() => lapsFromLog(path, { x: 500, y: 0, headingRad: 0, halfWidthM: 10 })).toThrow(/never crosses/)
  })
})
