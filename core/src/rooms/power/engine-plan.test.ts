import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { LOSS, plan } from '../../../test/engine-plan.ts'
import { EXAMPLE_PLAN } from '../../calculations/examples/example-plan.ts'
import { crankToWheel, LOSS_SCHOOLS, wheelToCrank } from '../../dyno/wheel-to-crank.ts'
import { fuelBlend } from '../../engine/fuels.ts'
import { airFlowKgPerS } from '../../engine/swallow.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import { toSi } from '../../units/units.ts'
import { USUAL_LOSS } from './driveline-loss.ts'
import type { PlanStepKey } from './engine-plan-steps.ts'
import { airPath, enginePoint, volumetricEfficiencyAt } from './engine-point.ts'
import { demandsAt } from './subject-demands.ts'
import { workEnginePlan } from './work-engine-plan.ts'

const stepOf = (made: EnginePlan, key: PlanStepKey) => workEnginePlan(made, LOSS).steps.find((step) => step.key === key)
const figureOf = (made: EnginePlan, key: PlanStepKey, word: string) => stepOf(made, key)?.figures.find((entry) => entry.word.startsWith(word))?.value as number

describe('an engine plan', () => {
  it('has pressure and temperature of the charge that fit each other, and air that the engine takes at them', () => {
    fc.assert(
      fc.property(fc.double({ min: 120_000, max: 400_000, noNaN: true }), fc.double({ min: 0.55, max: 0.85, noNaN: true }), (powerW, effectiveness) => {
        const made = plan((entry) => Object.assign(entry.air, { coolerEffectiveness: effectiveness }))
        const point = enginePoint(made, LOSS, powerW)
        const path = airPath(made, point)
        const { air, engine, burn } = made
        expect(Math.abs(path.residualK)).toBeLessThan(1e-7)
        // Hand thermodynamics: isentropic compression with an efficiency, then a cooler of an effectiveness; γ = 1.4, closed form.
        const ratio = Math.max(1, (path.manifoldPressurePa + air.afterLossPa) / (air.ambientPressurePa - air.beforeLossPa))
        const outK = air.ambientTemperatureK * (1 + (ratio ** (0.4 / 1.4) - 1) / air.compressorEfficiency)
        const coolant = air.coolantTemperatureK as number
        const chargeK = outK > coolant ? outK - effectiveness * (outK - coolant) : outK
        expect(path.chargeTemperatureK).toBeCloseTo(chargeK, 5)
        const swallowed = airFlowKgPerS({
          ...engine,
          speedRpm: burn.powerSpeedRpm,
          volumetricEfficiency: point.volumetricEfficiency,
          manifoldPressurePa: path.manifoldPressurePa,
          manifoldTemperatureK: path.chargeTemperatureK,
        })
        expect(swallowed / point.flows.airKgPerS).toBeCloseTo(1, 7)
      }),
      { numRuns: 60, seed: 4600 },
    )
  })
  it('asks more of everything as power rises', () => {
    const [low, high] = [demandsAt(plan(), LOSS, 200_000), demandsAt(plan(), LOSS, 300_000)]
    for (const subject of [
      'wheelPower',
      'crankPower',
      'crankTorque',
      'airFlow',
      'fuelFlow',
      'boost',
      'fuelPressure',
      'outletTemperature',
      'injectorDuty',
      'pumpCurrent',
    ] as const)
      expect(high[subject] as number, subject).toBeGreaterThan(low[subject] as number)
    expect(high.engineSpeed).toBe(low.engineSpeed)
  })
  it('says how far a target is from today in words for each step, and refuses none of it', () => {
    const { steps, refusedBy } = workEnginePlan(plan(), LOSS)
    expect(refusedBy).toBeNull()
    for (const step of steps) {
      expect(step.refusal, step.key).toBeNull()
      expect(step.usualFrom, step.key).toMatch(/common practice|memory/)
      for (const { low, high } of step.usual) expect(low ?? 0).toBeLessThan(high ?? Number.POSITIVE_INFINITY)
      for (const { value, word } of step.figures) expect(Number.isFinite(value), `${step.key} ${word}`).toBe(true)
    }
    expect(figureOf(plan(), 'power', 'at the crank')).toBeCloseTo((290_000 + 12_000) / 0.94, 6)
    // 4 π T/V_d (closed form) with the torque of the power at its speed and the rise.
    const torque = (figureOf(plan(), 'power', 'at the crank') / ((6800 * Math.PI) / 30)) * 1.15
    expect(figureOf(plan(), 'bmep', 'brake mean')).toBeCloseTo((4 * Math.PI * torque) / 0.002, 3)
    expect(figureOf(plan(), 'pumps', 'margin with one failed')).toBeLessThan(figureOf(plan(), 'pumps', 'margin'))
  })
  test.each<[string, (made: EnginePlan) => void, PlanStepKey, RegExp, readonly PlanStepKey[]]>([
    [
      'too little air without boost',
      (made) => Object.assign(made.air, { isBoosted: false }),
      'pressure',
      /come in by themselves/,
      ['compressor', 'cooler', 'pumps'],
    ],
    [
      'a fuel use that would beat any engine',
      (made) => Object.assign(made.burn, { bsfcKgPerJ: 200 / 3.6e9 }),
      'fuel',
      /into work/,
      ['power', 'air', 'pressure', 'injectors'],
    ],
    [
      'an efficiency that nobody gave at that speed',
      (made) => Object.assign(made.burn, { powerSpeedRpm: 9000 }),
      'air',
      /Add a point/,
      ['fuel', 'pressure', 'bmep'],
    ],
    [
      'a dead time longer than the injector may be open',
      (made) => Object.assign(made.injectors as object, { deadTimeS: 0.01, dutyLimit: 0.5 }),
      'injectors',
      /dead time/,
      [],
    ],
    [
      'a pump nobody measured at that pressure',
      (made) => Object.assign(made.pump as object, { basePressurePa: 900_000 }),
      'pumps',
      /not measured at this pressure/,
      [],
    ],
    ['a rod no longer than the crank', (made) => Object.assign(made.engine, { rodM: 0.04 }), 'piston', /rod/, []],
    [
      'a mean pressure over 40 bar',
      (made) => {
        made.engine.displacementM3 = 0.001
        made.pump = null
      },
      'bmep',
      /bar of mean pressure/,
      [],
    ],
  ])('%s: the step that refuses says so, and what needs it waits', (_, edit, key, sentence, waiting) => {
    const made = plan(edit)
    expect(workEnginePlan(made, LOSS).refusedBy).toBe(key)
    expect(stepOf(made, key)?.refusal).toMatch(sentence)
    for (const other of waiting) expect(stepOf(made, other)).toMatchObject({ refusal: null, waitsFor: key, figures: [] })
  })
  it('waits for what nobody has given yet, and refuses nothing for it', () => {
    const made = plan((entry) => Object.assign(entry, { injectors: null, pump: null, engine: { ...entry.engine, rodM: null } }))
    const worked = workEnginePlan(made, LOSS)
    expect(worked.refusedBy).toBeNull()
    for (const key of ['injectors', 'pumps', 'piston'] as const)
      expect(worked.steps.find((step) => step.key === key)).toMatchObject({ refusal: null, waitsFor: null, notGiven: expect.stringMatching(/yet/) })
  })
  it('is refused by nothing that was measured: the step that contradicts it has a wrong assumption', () => {
    const made = plan((entry) => Object.assign(entry.air, { isBoosted: false }))
    expect(workEnginePlan(made, LOSS, 289_000)).toMatchObject({ refusedBy: 'pressure', contradictedBy: null })
    const worked = workEnginePlan(made, LOSS, 291_000)
    expect(worked).toMatchObject({ refusedBy: null, contradictedBy: 'pressure' })
    expect(worked.steps.find(({ key }) => key === 'pressure')?.refusal).toMatch(/it was measured.*not as assumed/)
  })
  it('counts a spare pump in when one has failed', () => {
    const spare = (spareCount: number) => plan((entry) => Object.assign(entry.pump as object, { spareCount }))
    // (N − 1 + spare) of N pumps: one of two is gone, and a spare one stands in for it.
    expect(figureOf(spare(1), 'pumps', 'margin with one failed')).toBeCloseTo(figureOf(spare(1), 'pumps', 'margin'), 12)
    expect(1 + figureOf(spare(0), 'pumps', 'margin with one failed')).toBeCloseTo((1 + figureOf(spare(0), 'pumps', 'margin')) / 2, 12)
  })
  it('warns of what is unusual, and of one pump that fails', () => {
    const lean = plan((made) => {
      made.burn.lambda = 1
      made.burn.bsfcKgPerJ = 700 / 3.6e9
    })
    const one = plan((made) => Object.assign(made.pump as object, { count: 1 }))
    expect(stepOf(lean, 'air')?.warnings.join()).toMatch(/unusual/)
    expect(stepOf(lean, 'fuel')?.warnings.join()).toMatch(/outside what is usual/)
    expect(stepOf(one, 'pumps')?.warnings.join()).toMatch(/one pump failed/)
  })
  it('reads volumetric efficiency by straight lines, and one point everywhere', () => {
    const curve = EXAMPLE_PLAN.engine.veCurve
    expect(volumetricEfficiencyAt(curve, 6500)).toBeCloseTo(0.985, 12)
    expect(volumetricEfficiencyAt(curve, 3000)).toBe(0.92)
    expect(volumetricEfficiencyAt(curve.slice(0, 1), 9000)).toBe(0.92)
    expect(() => volumetricEfficiencyAt([], 4000)).toThrow(CalculationError)
  })
})

describe('facts of the trade (common practice, no source)', () => {
  it('six injectors of 1 000 cc/min carry about 500 hp at the wheels on 85 % ethanol, or up to 15 % more', () => {
    const made = plan((entry) => {
      entry.injectors = {
        count: 6,
        ratedFlowM3PerS: toSi('volumeFlow', 1000, 'cc/min'),
        ratedPressurePa: 300_000,
        pressureDifferencePa: 300_000,
        dutyLimit: 0.85,
        deadTimeS: 0.001,
      }
      Object.assign(entry.burn, { ethanolShare: 0.85, bsfcKgPerJ: 490 / 3.6e9, powerSpeedRpm: 7000 })
    })
    const carried = workEnginePlan(made, { ...USUAL_LOSS, isUsual: true }).steps.find(({ key }) => key === 'injectors')?.figures[1]?.value as number
    const wheelHp = carried / toSi('power', 1, 'hp')
    expect(wheelHp).toBeGreaterThan(500)
    expect(wheelHp).toBeLessThan(575)
  })
  it('a two-litre four without boost that is revved to 9 000 makes 160 to 165 kW at the hubs with what comes in by itself, and not 185', () => {
    const hubs = { school: 'percentage', lossShare: 0.07, isUsual: false } as const
    const made = plan((entry) => {
      Object.assign(entry.air, { isBoosted: false, beforeLossPa: 500, afterLossPa: 1500, intakeRiseK: 5 })
      Object.assign(entry.burn, { ethanolShare: 0.05, bsfcKgPerJ: 270 / 3.6e9, lambda: 0.9, powerSpeedRpm: 8600, torqueRise: 1.05 })
      Object.assign(entry.engine, { redlineRpm: 9000, veCurve: [{ speedRpm: 8600, volumetricEfficiency: 1.08 }] })
    })
    const at = (powerW: number) => workEnginePlan({ ...made, target: { powerW, place: 'wheel' } }, hubs)
    expect([160_000, 165_000, 185_000].map((powerW) => at(powerW).refusedBy)).toEqual([null, null, 'pressure'])
    const bar = (at(165_000).steps.find(({ key }) => key === 'bmep')?.figures[1]?.value as number) / 1e5
    expect(bar).toBeGreaterThan(9)
    expect(bar).toBeLessThan(15)
  })
  it('a blend with 79 % of ethanol needs 30 to 40 % more volume than petrol', () => {
    const volume = (ethanolShare: number) => {
      const { densityKgM3, heatingValueJPerKg } = fuelBlend(ethanolShare)
      return 1 / (densityKgM3 * heatingValueJPerKg)
    }
    expect(volume(0.79) / volume(0)).toBeGreaterThan(1.3)
    expect(volume(0.79) / volume(0)).toBeLessThan(1.4)
  })
})

describe('wheel and crank', () => {
  test.each(LOSS_SCHOOLS)('%s goes there and back', (school) => {
    const numbers = { school, lossShare: 0.14, fixedLossW: 12_000, proportionalShare: 0.06, coastDownLossW: 21_000 }
    for (const wheelPowerW of [80_000, 250_000, 600_000])
      expect(crankToWheel({ crankPowerW: wheelToCrank({ wheelPowerW, ...numbers }).crankPowerW, ...numbers })).toBeCloseTo(wheelPowerW, 6)
  })
  it('refuses a loss that takes all, and a school without numbers', () => {
    expect(() => crankToWheel({ crankPowerW: 5000, ...USUAL_LOSS })).toThrow(/all of that power/)
    expect(() => crankToWheel({ crankPowerW: 5000, school: 'coastDown' })).toThrow(/needs its numbers/)
  })
})
