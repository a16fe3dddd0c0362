import { describe, expect, it, test } from 'vitest'
import { driftOf } from '../dyno/drift.ts'
import { fuelBlend } from '../engine/fuels.ts'
import { findCalculation } from './all.ts'
import { type CalculationAnswer, runCalculation } from './registry.ts'

const run = (name: string, input: unknown): CalculationAnswer => {
  const calculation = findCalculation(name)
  if (!calculation) throw new Error(name)
  return runCalculation(calculation, input)
}
const answerOf = (name: string, input: unknown) => {
  const answer = run(name, input)
  if (!answer.ok) throw new Error(answer.error.message)
  return answer.value as Record<string, number | null>
}

describe('flows', () => {
  test.each([
    // (cc/min per lb/h) = 0.45359237/(60 ρ) 10⁶: the well-known 10.5 holds at 720 kg/m³, at E85's density it is 9.66 (closed form).
    [{ value: 1, unit: 'lb/h', densityKgM3: 720 }, 'ccPerMin', 10.4998],
    [{ value: 1, unit: 'lb/h', densityKgM3: 782.4 }, 'ccPerMin', 9.6624],
    [{ value: 100, unit: 'ft3/min', densityKgM3: 1.2 }, 'kgPerS', 0.0566337],
    [{ value: 60, unit: 'lb/min', densityKgM3: 1.2 }, 'lbPerH', 3600],
  ] as const)('%j', (input, key, value) => expect(answerOf('engine.flow', input)[key]).toBeCloseTo(value, 4))
  it('refuses a unit that is no flow', () => {
    expect(run('engine.flow', { value: 1, unit: 'kg', densityKgM3: 720 })).toMatchObject({ ok: false, error: { code: 'unknown-unit', field: 'unit' } })
  })
})

describe('fuels', () => {
  it('methanol is a fuel of its own: 6.47 kg of air, 792 kg/m³ (handbook, from memory)', () => {
    expect(fuelBlend(0, 1)).toMatchObject({ stoichiometricRatio: expect.closeTo(6.47, 9), densityKgM3: 792, methanolMassShare: expect.closeTo(1, 12) })
    expect(fuelBlend(0.3, 0)).toEqual({ ...fuelBlend(0.3), methanolMassShare: 0 })
    expect(() => fuelBlend(0.6, 0.6)).toThrow(/more than all of the fuel/)
  })
})

describe('whether pulls drift', () => {
  test.each<[string, number[], number | null]>([
    // Of the 4! = 24 orders of four pulls one rises throughout and one falls: 2/24. Of six, 2/720.
    ['four that rise', [1, 2, 3, 4], 2 / 24],
    ['six that fall', [6, 5, 4, 3, 2, 1], 2 / 720],
    // S = 4 of four: one inversion, of which there are 3 orders; as far from nothing are 1 + 3 on each side: 8/24.
    ['four with one exchanged', [1, 3, 2, 4], 8 / 24],
    ['two that are equal', [1, 2, 2, 4], null],
  ])('%s', (_, values, chance) => {
    const { mannKendallP } = driftOf(values)
    if (chance === null) expect(mannKendallP).toBeNull()
    else expect(mannKendallP).toBeCloseTo(chance, 12)
  })
})

describe('a compressor map and a pump', () => {
  const charge = { temperatureK: 298.15, pressurePa: 99_000, pressureRatio: 2.4, efficiency: 0.73, airKgPerS: 0.25 }
  it('a map of its own reference gives the flow there, as a named one does', () => {
    const named = answerOf('engine.compressor', { ...charge, reference: '298 K, 100 kPa' })
    expect(answerOf('engine.compressor', { ...charge, reference: { temperatureK: 298, pressurePa: 100_000 } })).toEqual(named)
    // In the state it was read in, the corrected flow is the flow.
    expect(answerOf('engine.compressor', { ...charge, reference: { temperatureK: 298.15, pressurePa: 99_000 } }).correctedFlowKgPerS).toBeCloseTo(0.25, 12)
    expect(run('engine.compressor', { ...charge, reference: { temperatureK: 0, pressurePa: 1e5 } })).toMatchObject({ ok: false })
  })
  it('pumps take voltage times current, of each', () => {
    const points = [
      { pressurePa: 300_000, flowM3PerS: 9e-5, currentA: 12 },
      { pressurePa: 500_000, flowM3PerS: 8e-5, currentA: 15 },
    ]
    const pump = { powerW: 200_000, bsfcKgPerJ: 330 / 3.6e9, lambda: 0.82, points, outletPressurePa: 400_000, pumpCount: 2, margin: 0.2 }
    expect(answerOf('engine.fuel-pump', { ...pump, voltageV: 13.5 }).electricalPowerW).toBeCloseTo(2 * 13.5 * 13.5, 9)
    expect(answerOf('engine.fuel-pump', pump).electricalPowerW).toBeNull()
    const bare = { ...pump, points: points.map(({ currentA: _, ...rest }) => rest), voltageV: 13.5 }
    expect(run('engine.fuel-pump', bare)).toMatchObject({ ok: false, error: { field: 'points', message: expect.stringMatching(/no point has a current/i) } })
  })
})

it('the limits of DIN and STD are not known, and nothing is said of them', () => {
  const air = { pressurePa: 99_000, temperatureK: 298.15, relativeHumidity: 0.3 }
  const inside = (standard: string) => answerOf('dyno.correction', { ...air, standard }).insideStandardLimits as unknown
  expect(['SAE J1349', 'ISO 1585', 'DIN 70020', 'STD J607'].map(inside)).toEqual([true, true, null, null])
})
