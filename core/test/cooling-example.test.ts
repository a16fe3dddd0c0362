import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { crossflowEffectiveness, crossflowUnits } from '../src/cooling/crossflow.ts'
import { fitsIn } from '../src/cooling/fits-in.ts'
import { type CoolingPoint, coolingPerK, coverFor, type RadiatorRating, radiatorCore, settledCoolant, warmUp } from '../src/cooling/radiator.ts'

/** The worked example of the car side of the workshop (invented numbers), digit for digit. */
const RATING: RadiatorRating = { areaM2: 0.24, ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }
const HOT: CoolingPoint = { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15, flowM3PerS: 120 / 60_000, faceShare: 0.28 }
const COLD: CoolingPoint = { ...HOT, speedMps: 22, airK: 283.15, airDensityKgM3: 1.25 }

/** Both streams unmixed on a grid: each cell hands on what it could not exchange, second order in the cell. Another program for the same exchanger. */
function byGrid(units: number, ratio: number, cells: number): number {
  // The stream of less capacity runs down, in at 1; the other across, in at 0.
  const least = Array.from({ length: cells }, () => 1)
  let out = 0
  const each = units / cells
  for (let row = 0; row < cells; row++) {
    let across = 0
    for (let column = 0; column < cells; column++) {
      const down = least[column] as number
      // Means over the cell on both sides, solved for what is exchanged.
      const q = (each * (down - across)) / (1 + (each / 2) * (1 + ratio))
      least[column] = down - q
      across += q * ratio
    }
  }
  for (const value of least) out += value / cells
  return 1 - out
}

describe('cooling', () => {
  it('the rating says ε 0.54703, Cr 0.47361, UA 2,848.80', () => {
    const core = radiatorCore(RATING)
    expect(core.effectiveness).toBeCloseTo(0.54703, 5)
    expect(core.ratio).toBeCloseTo(0.47361, 5)
    expect(core.uaWPerK).toBeCloseTo(2848.8, 1)
  })
  it('settles at 379.22 ± 17.14 K hot, under 378.15 in 0.4751', () => {
    const found = settledCoolant(RATING, HOT, 126_500)
    expect(found.kWPerK).toBeCloseTo(1662.92, 2)
    expect(found.settledK).toBeCloseTo(379.22, 2)
    expect(found.sdK).toBeCloseTo(17.14, 2)
  })
  it('warms up with 51.72 s, and takes 154.1 s from 85 to 105 °C', () => {
    const { kWPerK, settledK } = settledCoolant(RATING, HOT, 126_500)
    const found = warmUp({ kWPerK, settledK, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 378.15 })
    expect(found.tauS).toBeCloseTo(51.72, 2)
    expect(found.seconds).toBeCloseTo(154.1, 1)
    // A step-by-step run of the same (Runge and Kutta's fourth order).
    const slope = (temperature: number) => (settledK - temperature) / found.tauS
    let [temperature, seconds] = [358.15, 0]
    while (temperature < 378.15) {
      const h = 0.01
      const k1 = slope(temperature)
      const k2 = slope(temperature + (h / 2) * k1)
      const k3 = slope(temperature + (h / 2) * k2)
      const k4 = slope(temperature + h * k3)
      temperature += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4)
      seconds += h
    }
    expect(seconds).toBeCloseTo(found.seconds ?? 0, 1)
    expect(warmUp({ kWPerK, settledK, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 390 }).seconds).toBeNull()
  })
  it('on a cold road settles at 298.49 K, and wants 0.7777 covered for 75 °C', () => {
    expect(coolingPerK(RATING, COLD)).toBeCloseTo(1173.12, 2)
    expect(settledCoolant(RATING, COLD, 18_000).settledK).toBeCloseTo(298.49, 2)
    const cover = coverFor(RATING, COLD, 18_000, 348.15)
    expect(cover).toBeCloseTo(0.7777, 4)
    expect(COLD.airK + 18_000 / coolingPerK(RATING, { ...COLD, covered: cover })).toBeCloseTo(348.15, 6)
  })
  it('needs no cover where it is warm as it is, and is not asked for the impossible', () => {
    expect(coverFor(RATING, HOT, 126_500, 348.15)).toBe(0)
    expect(() => coverFor(RATING, COLD, 18_000, 280)).toThrow(/warmer than what is wanted/)
    expect(() => coverFor(RATING, COLD, 100, 348.15)).toThrow(/thermostat/)
  })
  it('is what a grid of both streams says, to 1e-4', () => {
    for (const units of [0.3, 1, 2.5, 5])
      for (const ratio of [0.1, 0.5, 0.9, 1]) {
        const fine = byGrid(units, ratio, 400)
        const finer = byGrid(units, ratio, 800)
        // Both grids together, their error being of second order.
        expect(crossflowEffectiveness(units, ratio)).toBeCloseTo((4 * finer - fine) / 3, 4)
      }
  })
  it('with one stream without end is 1 − e^−N, and goes back to its transfer units', () => {
    for (const units of [0.2, 1, 3]) expect(crossflowEffectiveness(units, 0)).toBeCloseTo(1 - Math.exp(-units), 12)
    for (const units of [0.2, 1, 3, 8]) expect(crossflowUnits(crossflowEffectiveness(units, 0.6), 0.6)).toBeCloseTo(units, 8)
  })
  it('carries more at more speed and more flow', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 70, noNaN: true }), fc.double({ min: 0.0005, max: 0.004, noNaN: true }), (speedMps, flowM3PerS) => {
        const at = coolingPerK(RATING, { ...HOT, speedMps, flowM3PerS })
        expect(coolingPerK(RATING, { ...HOT, speedMps: speedMps * 1.1, flowM3PerS })).toBeGreaterThan(at)
        expect(coolingPerK(RATING, { ...HOT, speedMps, flowM3PerS: flowM3PerS * 1.1 })).toBeGreaterThanOrEqual(at - 1e-9)
      }),
    )
  })
  test.each<[string, Partial<RadiatorRating>, RegExp]>([
    ['a rating at no difference', { ratedItdK: 0 }, /ratedItdK/],
    ['more than the air carries', { ratedW: 190_000 }, /more than the air carries \(ε 1\.09\)/],
    ['litres a second as cubic metres', { ratedFlowM3PerS: 1.7 }, /1 200 L\/min/],
  ])('refuses %s', (_, more, sentence) => expect(() => radiatorCore({ ...RATING, ...more })).toThrow(sentence))
  it('refuses a share of the face over one', () => expect(() => coolingPerK(RATING, { ...HOT, faceShare: 1.2 })).toThrow(/faceShare/))
})

describe('will it fit', () => {
  const CORE = { lengthM: 0.6, widthM: 0.4, heightM: 0.06 }
  it('says which way round, and how much is left', () => {
    const found = fitsIn(CORE, { lengthM: 0.42, widthM: 0.07, heightM: 0.62 })
    expect(found).toMatchObject({ fits: true, along: ['widthM', 'heightM', 'lengthM'] })
    expect(found.leastRoomM).toBeCloseTo(0.01, 9)
  })
  it('says by how much it is too large', () => {
    const found = fitsIn(CORE, { lengthM: 0.55, widthM: 0.5, heightM: 0.3 })
    expect(found.fits).toBe(false)
    expect(found.leastRoomM).toBeCloseTo(-0.05, 9)
  })
  it('is the same whichever way the space is told', () => {
    const all = [0.42, 0.07, 0.62]
    const rooms = [
      [0, 1, 2],
      [1, 2, 0],
      [2, 0, 1],
    ].map(([a = 0, b = 0, c = 0]) => fitsIn(CORE, { lengthM: all[a] as number, widthM: all[b] as number, heightM: all[c] as number }).leastRoomM)
    for (const room of rooms) expect(room).toBeCloseTo(0.01, 9)
  })
  it('refuses a part without a size', () => expect(() => fitsIn({ ...CORE, heightM: 0 }, CORE)).toThrow(/heightM/))
})
