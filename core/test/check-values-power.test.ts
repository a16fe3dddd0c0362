import { describe, expect, it, test } from 'vitest'
import { densityAltitudeM } from '../src/air/density-altitude.ts'
import { bandMean, curveFromTorque } from '../src/dyno/band-mean.ts'
import { comparePulls, smallestGainFound } from '../src/dyno/compare-pulls.ts'
import { driftOf } from '../src/dyno/drift.ts'
import { powerband } from '../src/dyno/powerband.ts'
import { equivalentMassKg, rollerInertiaKgM2, rollerPowerW } from '../src/dyno/roller-inertia.ts'
import { savitzkyGolay, savitzkyGolayWeights } from '../src/dyno/smooth.ts'
import { lossFromPairs, wheelToCrank } from '../src/dyno/wheel-to-crank.ts'
import { airAndFuel, GRAM_PER_KWH } from '../src/engine/air-and-fuel.ts'
import { compressor, intercooler } from '../src/engine/compressor.ts'
import { fuelPumps, injectors, openShare, pumpFlowM3PerS } from '../src/engine/fuel-supply.ts'
import { fuelBlend, PETROL, stoichiometricRatio } from '../src/engine/fuels.ts'
import { bmepPa, coolantFlowM3PerS, pistonAccelerationMps2, pistonMotion } from '../src/engine/mechanics.ts'
import { pressureRatio } from '../src/engine/swallow.ts'
import { findCalculation, runCalculation } from '../src/index.ts'
import { studentTQuantile } from '../src/stats/student-t.ts'
import { describeRows, list, number, type Row } from './check-rows.ts'

const calculated = (name: string, input: object) => {
  const calculation = findCalculation(name)
  const answer = calculation && runCalculation(calculation, input)
  if (!answer?.ok) throw new Error(JSON.stringify(answer))
  return answer.value as Record<string, number>
}
const curve = (row: Row) => curveFromTorque(list(row, 'n'), list(row, 'T'))
const welch = (row: Row) => comparePulls({ first: list(row, 'A'), second: list(row, 'B') })
const quantile = (row: Row) => studentTQuantile(number(row, 'p'), number(row, 'nu'))
const blend = (row: Row) => fuelBlend(number(row, 'phi'))
const ratio = (row: Row) => stoichiometricRatio({ carbon: number(row, 'C'), hydrogen: number(row, 'H'), oxygen: number(row, 'O') })
const air = (row: Row) =>
  airAndFuel({ powerW: number(row, 'P'), bsfcKgPerJ: number(row, 'BSFC') * GRAM_PER_KWH, lambda: number(row, 'lambda'), fuel: PETROL }).airKgPerS
const compressed = (row: Row, more: Partial<Parameters<typeof compressor>[0]> = {}) =>
  compressor({
    temperatureK: number(row, 'T1'),
    pressurePa: number(row, 'p1') ?? 100_000,
    pressureRatio: number(row, 'PR') ?? 2,
    efficiency: number(row, 'eta_c') ?? 0.7,
    airKgPerS: number(row, 'm_a') ?? number(row, 'm') ?? 0.2,
    reference: '298 K, 100 kPa',
    ...more,
  })
const injector = { fuelKgPerS: 0.02, injectorCount: 4, ratedFlowM3PerS: 1e-5, ratedPressurePa: 300_000, pressureDifferencePa: 300_000, dutyLimit: 0.85 }
const litresPerHour = 3.6e6

const checks: Record<string, (row: Row) => number> = {
  'B-da-84000-35': (row) =>
    calculated('air.density-altitude', { pressurePa: number(row, 'p'), temperatureK: number(row, 't') + 273.15, relativeHumidity: number(row, 'RH') })
      .moistM as number,
  'B-da-isa2000': (row) => densityAltitudeM(number(row, 'rho')),
  'C-roller-energy-diff': (row) => {
    const [before, after, dt] = [number(row, 'omega(t-dt)'), number(row, 'omega(t+dt)'), number(row, 'dt')]
    const samples = [
      { timeS: 0, speedRadPerS: before },
      { timeS: dt, speedRadPerS: (before + after) / 2 },
      { timeS: 2 * dt, speedRadPerS: after },
    ]
    return rollerPowerW(number(row, 'I'), samples)[0]?.powerW as number
  },
  'C-roller-I-hollow': (row) => rollerInertiaKgM2(number(row, 'm'), number(row, 'ro'), number(row, 'ri')),
  'C-roller-eqmass': (row) => equivalentMassKg(number(row, 'I'), number(row, 'r')),
  'C-loss-fixprop': (row) =>
    wheelToCrank({
      wheelPowerW: number(row, 'P_w') * 1000,
      school: 'fixedAndProportional',
      fixedLossW: number(row, 'P_fix') * 1000,
      proportionalShare: number(row, 'k'),
    }).crankPowerW / 1000,
  'C-loss-calib': (row) =>
    lossFromPairs({ crankW: number(row, 'Pc1'), wheelW: number(row, 'Pw1') }, { crankW: number(row, 'Pc2'), wheelW: number(row, 'Pw2') }).fixedLossW,
  'C-sg-5-2-c': () => savitzkyGolayWeights(5, 2)[2] as number,
  'C-sg-7-2-edge': () => savitzkyGolayWeights(7, 2)[0] as number,
  'C-sg-9-4-c': () => savitzkyGolayWeights(9, 4)[4] as number,
  'C-sg-5-2-d1': () => savitzkyGolayWeights(5, 2, 0, 1)[4] as number,
  'C-sg-data-edge': (row) => savitzkyGolay(list(row, 'y'), 5, 2)[0] as number,
  'C-mean-const-T': (row) => {
    const [fromRpm, toRpm] = list(row, 'band') as [number, number]
    const flat = curveFromTorque([3000, 8000], [number(row, 'T'), number(row, 'T')])
    const { bySpeedW, byTimeW } = bandMean({ curve: flat, fromRpm, toRpm })
    expect(byTimeW).toBeCloseTo(bySpeedW, 3)
    return byTimeW / 1000
  },
  'C-mean-gears': (row) =>
    (bandMean({ curve: curve(row), fromRpm: number(row, 'start'), toRpm: number(row, 'shift'), gearRatios: list(row, 'ratios') }).throughGearsW as number) /
    1000,
  'C-width-T-hi': (row) => powerband({ speedRpm: list(row, 'n'), value: list(row, 'T') }).toRpm,
  'C-width-parab': (row) => {
    const [top, width] = [number(row, 'n0'), number(row, 'w')]
    const speedRpm = Array.from({ length: 701 }, (_, i) => 2000 + 10 * i)
    return powerband({ speedRpm, value: speedRpm.map((n) => 1 - ((n - top) / width) ** 2) }).widthRpm
  },
  'C-t-975-2': quantile,
  'C-t-975-4': quantile,
  'C-t-975-9': quantile,
  'C-t-975-30': quantile,
  'C-t-nonint': quantile,
  'C-welch-nu': (row) => welch(row).degreesOfFreedom as number,
  'C-welch-p': (row) => welch(row).pValue as number,
  'C-mdd-approx': (row) => smallestGainFound(number(row, 's'), number(row, 'n'), 1 - number(row, 'alpha'), { power: number(row, 'power') }),
  'C-drift-slope': (row) => driftOf(list(row, 'P')).slopePerPull,
  'C-drift-mk': (row) => driftOf(list(row, 'P')).mannKendallS,
  'D-afr-petrol': ratio,
  'D-afr-isooctane': ratio,
  'D-afr-methanol': ratio,
  'D-e10-w': (row) => blend(row).ethanolMassShare,
  'D-e10-afr': (row) => blend(row).stoichiometricRatio,
  'D-e10-rho': (row) => blend(row).densityKgM3,
  'D-e30-afr': (row) => blend(row).stoichiometricRatio,
  'D-e85-afr': (row) => blend(row).stoichiometricRatio,
  'D-e85-rho': (row) => blend(row).densityKgM3,
  'D-emix-ethanol': () => fuelBlend(1).heatingValueJPerKg / fuelBlend(1).stoichiometricRatio / 1e6,
  'D-ma': air,
  'D-ma-lbmin': (row) => (number(row, 'm_a') * 60) / 0.45359237,
  'D-pr-need': (row) =>
    pressureRatio({
      manifoldPressurePa: number(row, 'p_man'),
      afterLossPa: number(row, 'dp_ic'),
      ambientPressurePa: number(row, 'p_amb'),
      beforeLossPa: number(row, 'dp_in'),
    }),
  'D-T2-3': (row) => compressed(row).outletTemperatureK,
  'D-ic-T3': (row) =>
    intercooler({
      temperatureK: number(row, 'T2'),
      pressurePa: 240_000,
      coolantTemperatureK: number(row, 'T_cool'),
      effectiveness: number(row, 'eps'),
      pressureLossPa: 8000,
      airKgPerS: 0.25,
    }).temperatureK,
  'D-ic-heat': (row) =>
    intercooler({
      temperatureK: 300 + number(row, 'dT'),
      pressurePa: 240_000,
      coolantTemperatureK: 300,
      effectiveness: 1,
      pressureLossPa: 0,
      airKgPerS: number(row, 'm_a'),
    }).heatW,
  'D-comp-power': (row) => compressed(row).shaftPowerW,
  'D-corr-298-100': (row) => compressed(row).correctedFlowKgPerS,
  'D-corr-isa': (row) => compressed(row, { reference: '288.15 K, 101.325 kPa' }).correctedFlowKgPerS,
  'D-inj-noref': (row) =>
    number(row, 'q1') *
    (injectors({
      ...injector,
      fuelDensityKgM3: 780,
      ratedPressurePa: number(row, 'rail gauge'),
      pressureDifferencePa: number(row, 'rail gauge') - number(row, 'boost gauge'),
    }).flowM3PerS /
      1e-5),
  'D-inj-fluid': (row) => injectors({ ...injector, fuelDensityKgM3: number(row, 'rho'), ratedDensityKgM3: number(row, 'rho_test') }).flowM3PerS / 1e-5,
  'D-inj-eff': (row) => openShare(number(row, 'duty'), number(row, 't_dead'), number(row, 'n')),
  'D-pump-flow': (row) =>
    pumpFlowM3PerS(
      list(row, 'p').map((pressurePa, i) => ({ pressurePa, flowM3PerS: list(row, 'Q')[i] as number })),
      number(row, 'at'),
    ),
  'D-pump-need': (row) =>
    fuelPumps({
      fuelKgPerS: number(row, 'm_f'),
      fuelDensityKgM3: number(row, 'rho'),
      points: [{ pressurePa: 4e5, flowM3PerS: 1e-4 }],
      outletPressurePa: 4e5,
      pumpCount: 1,
      margin: 0.2,
    }).demandM3PerS * litresPerHour,
  'D-pump-return': (row) =>
    fuelPumps({
      fuelKgPerS: (number(row, 'demand') / litresPerHour) * 745,
      fuelDensityKgM3: 745,
      points: [{ pressurePa: 4e5, flowM3PerS: number(row, 'Q_pump') / litresPerHour }],
      outletPressurePa: 4e5,
      pumpCount: number(row, 'N'),
      margin: 0.2,
    }).returnM3PerS * litresPerHour,
  'D-bmep': (row) => bmepPa(number(row, 'T'), number(row, 'V_d'), 4),
  'D-mps': (row) => pistonMotion({ strokeM: number(row, 'S'), rodM: 0.139, speedRpm: number(row, 'n') }).meanSpeedMps,
  'D-pacc-60': (row) => pistonAccelerationMps2(number(row, 'r'), number(row, 'l'), number(row, 'n'), (number(row, 'theta') * Math.PI) / 180),
  'D-pvmax': (row) => pistonMotion({ strokeM: 2 * number(row, 'r'), rodM: number(row, 'l'), speedRpm: number(row, 'n') }).peakSpeedMps,
  'D-heat-flow': (row) => coolantFlowM3PerS(number(row, 'Q'), number(row, 'dT')) * 60_000,
  'D-bte': (row) => airAndFuel({ powerW: 1, bsfcKgPerJ: number(row, 'BSFC') * GRAM_PER_KWH, lambda: 0.9, fuel: PETROL }).brakeEfficiency,
}

describeRows('published and derived check values of dyno and engine', 'check-values-power.json', checks)

describe('facts of the trade', () => {
  it('six 1,000 cc/min injectors on E85 at 85 percent carry about 500 hp at the wheels, or up to 15 percent more (common practice, no source)', () => {
    const { powerAtLimitW } = calculated('engine.injector', {
      powerW: 400_000,
      bsfcKgPerJ: 500 * GRAM_PER_KWH,
      lambda: 0.8,
      ethanolShare: 0.85,
      injectorCount: 6,
      ratedFlowM3PerS: 1000e-6 / 60,
      ratedPressurePa: 300_000,
      pressureDifferencePa: 300_000,
      dutyLimit: 0.85,
    })
    // Crank to wheel with a usual 15 % of loss.
    const wheelHp = ((powerAtLimitW as number) * 0.85) / 745.7
    expect(wheelHp).toBeGreaterThan(500)
    expect(wheelHp).toBeLessThan(575)
  })
  it('an ethanol blend needs 30 to 40 percent more volume than petrol (common practice, no source)', () => {
    expect(fuelBlend(0.79).moreVolumeThanPetrol).toBeGreaterThan(0.3)
    expect(fuelBlend(0.85).moreVolumeThanPetrol).toBeLessThan(0.42)
  })
})

describe('refusals of dyno and engine', () => {
  const refused = (name: string, input: object) => {
    const calculation = findCalculation(name)
    const answer = calculation && runCalculation(calculation, { ...(calculation.example as object), ...input })
    return answer?.ok ? 'answered' : `${answer?.error.field}: ${answer?.error.message}`
  }
  test.each([
    ['dyno.wheel-to-crank', { lossShare: 0.6, school: 'percentage' }, /lossShare.*under 0.5/],
    ['dyno.wheel-to-crank', { school: 'coastDown' }, /needs its numbers/],
    ['dyno.roller-inertia', { samples: [] }, /three samples/],
    ['dyno.smooth', { windowRpm: 90_000 }, /narrower window/],
    ['dyno.smooth', { order: 6, windowRpm: 100 }, /more than 6 points/],
    ['dyno.band-mean', { fromRpm: 1000 }, /lies outside it/],
    ['dyno.band-mean', { gearRatios: [1.2, 1.5] }, /fall from one gear/],
    ['dyno.powerband', { share: 1 }, /0.99/],
    ['dyno.compare', { first: [] }, /holds no pull/],
    ['dyno.drift', { values: [1, 2, 3] }, /at least 4/],
    ['dyno.restate', { pressurePa: 500 }, /500 kPa is 500000 Pa/],
    ['engine.air-and-fuel', { bsfcKgPerJ: 330 }, /Check its unit/],
    ['engine.air-and-fuel', { lambda: 2 }, /lambda/],
    ['engine.swallow', { manifoldPressurePa: 2e5 }, /only one of them/],
    ['engine.swallow', { manifoldTemperatureK: 20 }, /20 °C is 293.15 K/],
    ['engine.compressor', { pressurePa: 20_000 }, /absolute/],
    ['engine.intercooler', { coolantTemperatureK: 500 }, /warmer than the charge/],
    ['engine.injector', { pressureDifferencePa: -1 }, /nothing would flow/],
    ['engine.fuel-pump', { outletPressurePa: 900_000 }, /nothing is guessed beyond/],
    ['engine.fuel-blend', { ethanolShare: 1.2 }, /ethanolShare/],
    ['engine.bmep', { torqueNm: 4500 }, /over 40/],
    ['engine.piston-speed', { rodM: 0.04 }, /no longer than the crank radius/],
  ])('%s refuses %o', (name, input, sentence) => {
    expect(refused(name, input)).toMatch(sentence)
  })

  it('names the part that gives up first, and the one without a demand', () => {
    const calculation = findCalculation('engine.rating-chain')
    const answer = calculation && runCalculation(calculation, { ...(calculation.example as object) })
    expect(answer).toMatchObject({ ok: true, value: { firstLimitId: 'gearbox', withoutDemand: [] } })
    const [weakest] = (answer as { value: { headrooms: { id: string; headroom: number; limitPowerW: number }[] } }).value.headrooms
    expect(weakest).toMatchObject({ id: 'gearbox', headroom: expect.closeTo(1 - 450 / 420, 9), limitPowerW: expect.closeTo((300_000 * 420) / 450, -1) })
  })
  it('two sets of different sessions need more of a difference than two of one', () => {
    const sets = { first: [301, 302, 303], second: [304, 305, 306] }
    expect(comparePulls(sets).verdict).toBe('real')
    expect(comparePulls({ ...sets, isSameSession: false }).verdict).toBe('within noise')
    expect(comparePulls({ first: [300], second: [310, 311] }).verdict).toBe('too few pulls')
  })
})
