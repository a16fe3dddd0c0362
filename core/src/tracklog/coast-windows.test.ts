import { describe, expect, it, test } from 'vitest'
import { fitPair } from '../aero/coast-down-fit.ts'
import { type CoastingSamples, coastPairs, coastWindows } from './coast-windows.ts'

const MASS_KG = 1300
const AIR = 1.2
const G = 9.80665

/** Four coasts to and fro along a road at 30 degrees, driven in small steps with a wind: pulled up, rolled from 50 to 18 m/s, braked, turned round. */
function drive(more: { readonly inGear?: boolean; readonly bend?: boolean; readonly windMps?: number } = {}) {
  const rows: { t: number; v: number; throttle: number; brake: number; rpm: number; x: number; y: number }[] = []
  const step = 0.1
  let [t, along, side] = [0, 0, 0]
  const put = (v: number, way: number, throttle: number, brake: number, rpm: number) => {
    along += way * v * step
    if (more.bend) side += v * step * Math.sin(t / 15)
    const angle = Math.PI / 6
    rows.push({ t, v, throttle, brake, rpm, x: along * Math.cos(angle) - side * Math.sin(angle), y: along * Math.sin(angle) + side * Math.cos(angle) })
    t += step
  }
  for (const way of [1, -1, 1, -1]) {
    for (let v = 5; v < 50; v += 0.5) put(v, way, 1, 0, 4000)
    for (let v = 50; v > 18; ) {
      put(v, way, 0, 0, more.inGear ? 3500 : 900)
      const air = v + way * (more.windMps ?? 2)
      v -= (step * (0.014 * MASS_KG * G + 0.5 * AIR * 0.8 * air * air)) / (1.04 * MASS_KG)
    }
    for (let v = 18; v > 0.5; v -= 0.8) put(v, way, 0, 4e6, 900)
    for (let i = 0; i < 30; i++) put(0.1, way, 0, 0, 900)
  }
  return rows
}
const samplesOf = (rows: ReturnType<typeof drive>, without: readonly (keyof CoastingSamples)[] = []): CoastingSamples => {
  const all: CoastingSamples = {
    timeS: rows.map(({ t }) => t),
    speedMps: rows.map(({ v }) => v),
    throttle: rows.map(({ throttle }) => throttle),
    brakePa: rows.map(({ brake }) => brake),
    engineRpm: rows.map(({ rpm }) => rpm),
    acrossMps2: rows.map(() => 0),
    east: rows.map(({ x }) => x),
    north: rows.map(({ y }) => y),
  }
  return { ...all, ...Object.fromEntries(without.map((key) => [key, null])) }
}

describe('coasting in a log', () => {
  it('is found to and fro, and gives back the drag it was driven with', () => {
    const windows = coastWindows(samplesOf(drive()))
    expect(windows).toHaveLength(4)
    expect(windows.map(({ headingRad }) => Math.round((180 * (headingRad ?? 0)) / Math.PI))).toEqual([30, -150, 30, -150])
    const { pairs, left } = coastPairs(windows)
    expect([pairs.length, left]).toEqual([2, 0])
    const fit = fitPair(pairs[0] as never, MASS_KG, 1.04 * MASS_KG)
    expect(fit.cNPerMps2).toBeCloseTo(0.5 * AIR * 0.8, 2)
    expect(fit.windMps).toBeCloseTo(2, 0)
  })
  test.each([
    ['without pedals and an engine speed, by how the car slows', ['throttle', 'brakePa', 'engineRpm'], 4],
    ['without positions, out and back by turns', ['east', 'north'], 4],
  ] as const)('%s', (_, without, count) => {
    const windows = coastWindows(samplesOf(drive(), without))
    expect(windows).toHaveLength(count)
    expect(coastPairs(windows).pairs).toHaveLength(2)
  })
  it('is not what a car does in gear, round a bend, or too short', () => {
    expect(coastWindows(samplesOf(drive({ inGear: true })))).toEqual([])
    expect(coastWindows(samplesOf(drive({ bend: true })))).toEqual([])
    expect(coastWindows(samplesOf(drive().slice(0, 160)))).toEqual([])
  })
  it('leaves over what has no way back', () => {
    const windows = coastWindows(samplesOf(drive()))
    expect(coastPairs(windows.slice(0, 3))).toMatchObject({ left: 1 })
    expect(coastPairs([windows[0], windows[2], windows[3]] as never)).toMatchObject({ left: 1 })
  })
})
