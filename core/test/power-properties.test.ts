import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandMean, curveFromTorque, powerAtSpeedW } from '../src/dyno/band-mean.ts'
import { comparePulls } from '../src/dyno/compare-pulls.ts'
import { driftOf } from '../src/dyno/drift.ts'
import { powerband } from '../src/dyno/powerband.ts'
import { savitzkyGolayWeights } from '../src/dyno/smooth.ts'
import { lossFromPairs, wheelToCrank } from '../src/dyno/wheel-to-crank.ts'
import { compressor, FLOW_REFERENCES, type FlowReference, intercooler } from '../src/engine/compressor.ts'
import { injectors, pumpFlowM3PerS } from '../src/engine/fuel-supply.ts'
import { ETHANOL, fuelBlend, PETROL } from '../src/engine/fuels.ts'
import { ratingChain } from '../src/engine/rating-chain.ts'
import { airFlowKgPerS, manifoldPressurePa } from '../src/engine/swallow.ts'

const options = { numRuns: 150, seed: 4600 }
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const pulls = (min: number) => fc.array(within(200, 400), { minLength: min, maxLength: 8 })

describe('means of a band', () => {
  const torque = fc.array(within(150, 600), { minLength: 3, maxLength: 12 })
  const curveOf = (values: number[]) =>
    curveFromTorque(
      values.map((_, i) => 2000 + 500 * i),
      values,
    )
  it('of constant torque is the power in the middle, in every school', () => {
    fc.assert(
      fc.property(within(100, 800), within(2500, 4000), within(200, 2500), (torqueNm, fromRpm, width) => {
        const curve = curveFromTorque([2000, 7000], [torqueNm, torqueNm])
        const middle = powerAtSpeedW(curve, fromRpm + width / 2)
        const found = bandMean({ curve, fromRpm, toRpm: fromRpm + width, gearRatios: [2.1] })
        for (const value of Object.values(found)) expect((value as number) / middle).toBeCloseTo(1, 8)
      }),
      options,
    )
  })
  it('lie between the least and the most of the band, and rise with the torque', () => {
    fc.assert(
      fc.property(torque, within(1.01, 2), (values, factor) => {
        const curve = curveOf(values)
        const band = { fromRpm: 2000, toRpm: 2000 + 500 * (values.length - 1) }
        const found = bandMean({ curve, ...band })
        const [least, most] = [Math.min(...curve.powerW), Math.max(...curve.powerW)]
        // Between two points torque is straight and power may bulge a little over both.
        for (const value of [found.bySpeedW, found.byTimeW]) {
          expect(value).toBeGreaterThan(least * 0.9999)
          expect(value).toBeLessThan(most * 1.1)
        }
        const more = bandMean({ curve: { ...curve, powerW: curve.powerW.map((power) => power * factor) }, ...band })
        expect(more.bySpeedW / found.bySpeedW).toBeCloseTo(factor, 9)
        expect(more.byTimeW / found.byTimeW).toBeCloseTo(factor, 9)
      }),
      options,
    )
  })
  it('a wider share of the peak is a wider band that holds the peak', () => {
    fc.assert(
      fc.property(torque, (values) => {
        const { speedRpm, powerW } = curveOf(values)
        const [ninety, seventy] = [0.9, 0.7].map((share) => powerband({ speedRpm: [...speedRpm], value: [...powerW], share }))
        expect(seventy?.fromRpm).toBeLessThanOrEqual(ninety?.fromRpm as number)
        expect(seventy?.toRpm).toBeGreaterThanOrEqual(ninety?.toRpm as number)
        expect(ninety?.fromRpm).toBeLessThanOrEqual(ninety?.peakSpeedRpm as number)
        expect(ninety?.toRpm).toBeGreaterThanOrEqual(ninety?.peakSpeedRpm as number)
      }),
      options,
    )
  })
})

describe('smoothing', () => {
  it('leaves a polynomial of its order as it is, in the middle and at the ends, and gives its slope', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 8 }), fc.integer({ min: 1, max: 3 }), within(-2, 2), within(-2, 2), (half, order, first, second) => {
        const f = (x: number) => 3 + first * x + (order > 1 ? second * x * x : 0)
        const points = 2 * half + 1
        if (points <= order) return
        const steps = Array.from({ length: points }, (_, i) => i - half)
        for (const at of [-half, 0, half]) {
          const value = savitzkyGolayWeights(points, order, at).reduce((sum, weight, i) => sum + weight * f(steps[i] as number), 0)
          expect(value).toBeCloseTo(f(at), 7)
        }
        const slope = savitzkyGolayWeights(points, order, 0, 1).reduce((sum, weight, i) => sum + weight * f(steps[i] as number), 0)
        expect(slope).toBeCloseTo(first, 7)
      }),
      options,
    )
  })
})

describe('two sets of pulls', () => {
  it('turned round, the difference turns round and the verdict stays', () => {
    fc.assert(
      fc.property(pulls(2), pulls(2), (first, second) => {
        const [there, back] = [comparePulls({ first, second }), comparePulls({ first: second, second: first })]
        expect(back.difference).toBeCloseTo(-there.difference, 9)
        expect(back.smallestReal).toBeCloseTo(there.smallestReal as number, 6)
        expect(back.verdict).toBe(there.verdict)
        expect((there.pValue as number) < 0.05).toBe(there.verdict === 'real')
      }),
      options,
    )
  })
  it('doubling every pull doubles the difference and keeps the chance', () => {
    fc.assert(
      fc.property(pulls(2), pulls(2), (first, second) => {
        const one = comparePulls({ first, second })
        const two = comparePulls({ first: first.map((x) => 2 * x), second: second.map((x) => 2 * x) })
        expect(two.difference).toBeCloseTo(2 * one.difference, 9)
        expect(two.pValue).toBeCloseTo(one.pValue as number, 6)
      }),
      options,
    )
  })
  it('pulls in the other order drift the other way', () => {
    fc.assert(
      fc.property(pulls(4), (values) => {
        const [there, back] = [driftOf(values), driftOf([...values].reverse())]
        expect(back.slopePerPull).toBeCloseTo(-there.slopePerPull, 9)
        expect(back.mannKendallS).toBe(-there.mannKendallS || 0)
        expect(back.isDrifting).toBe(there.isDrifting)
      }),
      options,
    )
  })
})

describe('wheel and crank', () => {
  it('two pairs made with a fixed part and a share give both back', () => {
    fc.assert(
      fc.property(within(0, 20_000), within(0.01, 0.2), within(100e3, 250e3), within(20e3, 300e3), (fixedLossW, proportionalShare, crankW, more) => {
        const wheel = (power: number) => (1 - proportionalShare) * power - fixedLossW
        const found = lossFromPairs({ crankW, wheelW: wheel(crankW) }, { crankW: crankW + more, wheelW: wheel(crankW + more) })
        expect(found.proportionalShare).toBeCloseTo(proportionalShare, 8)
        expect(found.fixedLossW).toBeCloseTo(fixedLossW, 3)
        const back = wheelToCrank({ wheelPowerW: wheel(crankW), school: 'fixedAndProportional', fixedLossW, proportionalShare })
        expect(back.crankPowerW / crankW).toBeCloseTo(1, 9)
      }),
      options,
    )
  })
})

describe('air and fuel of an engine', () => {
  it('the manifold pressure that an air flow needs gives that air flow', () => {
    fc.assert(
      fc.property(
        within(1500, 9000),
        within(0.5, 1.3),
        within(60e3, 350e3),
        within(280, 350),
        fc.constantFrom<2 | 4>(2, 4),
        (speedRpm, volumetricEfficiency, pressurePa, manifoldTemperatureK, strokes) => {
          const engine = { displacementM3: 0.002, strokes, speedRpm, volumetricEfficiency, manifoldTemperatureK }
          const airKgPerS = airFlowKgPerS({ ...engine, manifoldPressurePa: pressurePa })
          expect(manifoldPressurePa({ ...engine, airKgPerS }) / pressurePa).toBeCloseTo(1, 9)
        },
      ),
      options,
    )
  })
  it('a blend lies between its fuels, and more ethanol needs more volume and less air', () => {
    fc.assert(
      fc.property(within(0, 0.99), within(0.001, 0.01), (share, step) => {
        const [less, more] = [fuelBlend(share), fuelBlend(share + step)]
        expect(more.stoichiometricRatio).toBeLessThan(less.stoichiometricRatio)
        expect(more.moreVolumeThanPetrol).toBeGreaterThan(less.moreVolumeThanPetrol)
        expect(less.densityKgM3).toBeGreaterThanOrEqual(PETROL.densityKgM3)
        expect(more.densityKgM3).toBeLessThanOrEqual(ETHANOL.densityKgM3)
      }),
      options,
    )
  })
  it('a compressor never cools, a better one heats less, and its flow at a map’s own reference is the flow itself', () => {
    fc.assert(
      fc.property(
        within(1.01, 4),
        within(0.4, 0.8),
        fc.constantFrom(...(Object.keys(FLOW_REFERENCES) as FlowReference[])),
        (pressureRatio, efficiency, reference) => {
          const state = { ...FLOW_REFERENCES[reference], pressureRatio, airKgPerS: 0.2, reference }
          const [poor, good] = [compressor({ ...state, efficiency }), compressor({ ...state, efficiency: efficiency + 0.1 })]
          expect(good.outletTemperatureK).toBeGreaterThan(state.temperatureK)
          expect(poor.outletTemperatureK).toBeGreaterThan(good.outletTemperatureK)
          expect(poor.shaftPowerW).toBeGreaterThan(good.shaftPowerW)
          expect(good.correctedFlowKgPerS).toBeCloseTo(0.2, 12)
          const cooled = intercooler({
            temperatureK: poor.outletTemperatureK,
            pressurePa: poor.outletPressurePa,
            coolantTemperatureK: state.temperatureK,
            effectiveness: 1,
            pressureLossPa: 0,
            airKgPerS: 0.2,
          })
          expect(cooled.temperatureK).toBeCloseTo(state.temperatureK, 9)
          expect(cooled.heatW).toBeCloseTo(poor.shaftPowerW, 6)
        },
      ),
      options,
    )
  })
  it('at the fuel an injector carries at its limit, its duty is the limit', () => {
    fc.assert(
      fc.property(within(0.5, 0.95), within(0, 0.0015), within(2000, 8000), within(200e3, 500e3), (dutyLimit, deadTimeS, speedRpm, pressureDifferencePa) => {
        const set = {
          fuelDensityKgM3: 745,
          injectorCount: 4,
          ratedFlowM3PerS: 1e-5,
          ratedPressurePa: 300e3,
          pressureDifferencePa,
          dutyLimit,
          deadTimeS,
          speedRpm,
        }
        const { fuelAtLimitKgPerS } = injectors({ ...set, fuelKgPerS: 0.01 })
        expect(injectors({ ...set, fuelKgPerS: fuelAtLimitKgPerS }).duty).toBeCloseTo(dutyLimit, 9)
      }),
      options,
    )
  })
  it('a pump gives at a measured point what was measured, and nothing beyond them', () => {
    const points = [
      { pressurePa: 300e3, flowM3PerS: 9e-5 },
      { pressurePa: 400e3, flowM3PerS: 8e-5 },
      { pressurePa: 600e3, flowM3PerS: 5e-5 },
    ]
    for (const { pressurePa, flowM3PerS } of points) expect(pumpFlowM3PerS(points, pressurePa)).toBe(flowM3PerS)
    expect(pumpFlowM3PerS([...points].reverse(), 500e3)).toBeCloseTo(6.5e-5, 12)
    for (const beyond of [299e3, 601e3]) expect(() => pumpFlowM3PerS(points, beyond)).toThrow(/nothing is guessed beyond/)
  })
  it('a chain gives up where its demand meets the limit', () => {
    fc.assert(
      fc.property(fc.array(within(100, 900), { minLength: 1, maxLength: 6 }), (limits) => {
        const { headrooms } = ratingChain({
          targetPowerW: 300e3,
          fromPowerW: 100e3,
          toPowerW: 600e3,
          ratings: limits.map((limit, i) => ({ id: `part ${i}`, kind: 'torque' as const, limit })),
          demandsAt: (powerW) => ({ torque: powerW / 700 }),
        })
        expect(headrooms.map(({ headroom }) => headroom)).toEqual([...headrooms.map(({ headroom }) => headroom)].sort((a, b) => a - b))
        for (const { limit, limitPowerW } of headrooms) {
          const meets = limit * 700
          if (meets > 600e3) expect(limitPowerW).toBeNull()
          else expect(Math.abs((limitPowerW as number) - Math.max(100e3, meets))).toBeLessThanOrEqual(1)
        }
      }),
      options,
    )
  })
})
