import { readFileSync } from 'node:fs'
import loadHighs from 'highs'
import { describe, expect, test } from 'vitest'
import { saturationPressurePa } from '../src/air/saturation-pressure.ts'
import { gridCurve } from '../src/dyno/curve.ts'
import { findCalculation, forward, highsSolver, PAD_NAMES, type PerCorner, runCalculation } from '../src/index.ts'
import { fromSi, toSi } from '../src/units/units.ts'
import { describeRows, input, number, type Row } from './check-rows.ts'

const tools = { solveMilp: highsSolver(await loadHighs()) }
type Answer = Record<string, never>
function calculate(name: string, input: unknown): Record<string, number> & Record<string, Record<string, { value: number; sd: number }>> {
  const calculation = findCalculation(name)
  if (!calculation) throw new Error(`no calculation ${name}`)
  const answer = runCalculation(calculation, input, tools)
  if (!answer.ok) throw new Error(answer.error.message)
  return answer.value as Answer
}

const air = (row: Row) => ({
  pressurePa: number(row, 'p_wet') ?? number(row, 'p'),
  temperatureK: number(row, 't') + 273.15,
  relativeHumidity: number(row, 'RH'),
})
const factor = (row: Row, standard: string, boostSchool?: string) =>
  calculate('dyno.correction', { standard, ...air(row), ...(boostSchool ? { boostSchool } : {}) }).factor as number
const pads = (row: Row, sd: (kg: number) => number) => {
  const [LF, RF, LR, RR] = (input(row, 'LF,RF,LR,RR') as number[]).map((massKg) => ({ massKg, sdKg: sd(massKg) }))
  return { LF, RF, LR, RR }
}
const corners = (row: Row, sd = (_: number) => 0.5) =>
  calculate('mass.corners', { pads: pads(row, sd) }).figures as Record<string, { value: number; sd: number }>
const pairs = (row: Row) => (input(row, '(estimate, measured)') as [number, number][]).map(([guessKg, measuredKg]) => ({ guessKg, measuredKg }))
const forecast = (row: Row) =>
  calculate('mass.forecast', {
    knownKg: number(row, 'measured so far'),
    pairs: pairs(row),
    parts: (input(row, 'open estimates') as number[]).map((massKg) => ({ massKg })),
    ...(row.inputs.limit ? { limitKg: number(row, 'limit') } : {}),
  })
const combined = (row: Row) =>
  calculate('mass.combine', {
    parts: (input(row, 'parts [m,x,y,z,Izz]') as number[][]).map(([massKg, xM, yM, zM, yawInertiaKgM2]) => ({ massKg, xM, yM, zM, yawInertiaKgM2 })),
  })
const crossing = (powerUnit: string, torqueUnit: string) =>
  calculate('dyno.power-torque', { speedRpm: 1000, torqueNm: 1, powerUnit, torqueUnit }).crossingSpeedRpm as number
const isa = (row: Row) => calculate('air.standard-atmosphere', { altitudeM: number(row, 'h') })
const density = (row: Row) => calculate('air.density', air(row)).densityKgM3 as number
const at99 = { p_wet: { value: 99_000 }, t: { value: 25 }, RH: { value: 0 } }

const byCorner = (values: unknown) => Object.fromEntries(PAD_NAMES.map((name, i) => [name, (values as number[])[i]])) as PerCorner<number>
const HEAVY = { LF: 300, RF: 300, LR: 300, RR: 300 }
const places = (row: Row) => ({ wheelbaseM: number(row, 'L') ?? 2.57, trackFrontM: number(row, 'tf') ?? 1.5, trackRearM: number(row, 'tr') ?? 1.52 })
const added = (row: Row, more: object = {}) =>
  calculate('mass.add-at', {
    corners: HEAVY,
    ...places(row),
    wheelRateNPerM: byCorner(input(row, 'k LF,RF,LR,RR')),
    loads: [{ massKg: number(row, 'm'), xM: number(row, 'x'), yM: number(row, 'y') }],
    ...more,
  }).changeKg as unknown as PerCorner<number>
const loadPerKg = (row: Row, xM: number) => {
  const change = calculate('mass.add-at', { corners: HEAVY, ...places(row), wheelRateNPerM: HEAVY, loads: [{ massKg: 1, xM, yM: 0 }] })
    .changeKg as unknown as PerCorner<number>
  return change.LF + change.RF
}
const perches = (row: Row, moves: PerCorner<number>, corners: PerCorner<number> = HEAVY) =>
  forward(
    {
      corners,
      ...places(row),
      wheelRateNPerM: byCorner(input(row, 'k') ?? [38_000, 38_000, 46_000, 46_000]),
      motionRatio: { LF: 1, RF: 1, LR: 1, RR: 1 },
      threadPitchM: { LF: 1, RF: 1, LR: 1, RR: 1 },
    },
    moves,
  )
const raisedLf = (row: Row) => perches(row, { LF: number(row, 'u LF'), RF: 0, LR: 0, RR: 0 })
const height = (row: Row) =>
  calculate('mass.centre-of-mass-height', {
    totalKg: number(row, 'W'),
    rearAxleKg: number(row, 'Wr level'),
    lifts: [{ lifted: 'rear', liftM: number(row, 'H'), rearAxleKg: number(row, 'Wr lifted') }],
    wheelbaseM: Math.sqrt(number(row, 'D') ** 2 - (number(row, 'r_r') - number(row, 'r_f')) ** 2),
    radiusFrontM: number(row, 'r_f'),
    radiusRearM: number(row, 'r_r'),
  }).heightM as number
const simpleHeight = (row: Row) => {
  const [W, D, lift] = [number(row, 'W'), number(row, 'D'), number(row, 'D') * Math.sin(number(row, 'theta'))]
  const rearAxleKg = 0.48 * W
  const lifts = [{ lifted: 'rear', liftM: lift, rearAxleKg: rearAxleKg - number(row, 'dW front') }]
  return calculate('mass.centre-of-mass-height', {
    totalKg: W,
    rearAxleKg,
    lifts,
    wheelbaseM: D,
    radiusFrontM: number(row, 'r'),
    radiusRearM: number(row, 'r'),
  }).heightM as number
}
const heightSd = (row: Row) => {
  const [W, D, H] = [number(row, 'W'), number(row, 'D'), number(row, 'H')]
  const cosine = Math.cos(Math.asin(H / D))
  const rearAxleKg = 0.48 * W
  const lifts = [{ lifted: 'rear', liftM: H, rearAxleKg: rearAxleKg - (number(row, 'h-r') * W * Math.tan(Math.asin(H / D))) / D }]
  const spreads = {
    axleSdKg: number(row, 'u_W'),
    liftSdM: ((number(row, 'u_theta') * Math.PI) / 180) * D * cosine,
    radiusSdM: number(row, 'u_r'),
  }
  return calculate('mass.centre-of-mass-height', { totalKg: W, rearAxleKg, lifts, wheelbaseM: D, radiusFrontM: 0.305, radiusRearM: 0.305, ...spreads })
    .sdM as number
}
const crossSolved = (row: Row) =>
  calculate('mass.corner-balance', {
    corners: byCorner(input(row, 'LF,RF,LR,RR')),
    ...places(row),
    wheelRateNPerM: byCorner(input(row, 'k')),
    wantedCrossRfLr: number(row, 'target'),
    motionRatio: { LF: 1, RF: 1, LR: 1, RR: 1 },
    threadPitchM: { LF: 0.001, RF: 0.001, LR: 0.001, RR: 0.001 },
  }).exactTurns as unknown as PerCorner<number>
const ballasted = (row: Row) => {
  const [W, L, bar] = [number(row, 'car mass'), number(row, 'L'), number(row, 'bar')]
  const front = 1 - number(row, 'car x_cg') / L
  const caps = input(row, 'capacity') as number[]
  const sites = (input(row, 'positions x,y,z') as number[][]).map(([xM, yM, zM], i) => ({
    id: String(i),
    xM,
    yM,
    zM,
    limitKg: caps[i],
    plates: [{ massKg: bar, count: 20 }],
  }))
  // "At least f": a share bound that is open upwards as far as a share can be.
  const least = number(row, 'front share at least')
  const found = calculate('mass.ballast', {
    corners: { LF: (W * front) / 2, RF: (W * front) / 2, LR: (W * (1 - front)) / 2, RR: (W * (1 - front)) / 2 },
    wheelbaseM: L,
    trackFrontM: 1.5,
    trackRearM: 1.5,
    sites,
    minimumKg: W + number(row, 'ballast total'),
    mostOverKg: 0,
    front: { value: least + 0.1, within: 0.1 },
    objective: 'lowestCentre',
  })
  return (found.best as unknown as { objective: number }).objective
}

const checks: Record<string, (row: Row) => number> = {
  'A-hp': () => toSi('power', 1, 'hp'),
  'A-lbft': () => toSi('torque', 1, 'lb·ft'),
  'A-inhg': () => toSi('pressure', 1, 'inHg'),
  'A-cross-ps-nm': () => crossing('PS', 'N·m'),
  'A-cross-kw-nm': () => crossing('kW', 'N·m'),
  'A-cross-ps-kgfm': () => crossing('PS', 'kgf·m'),
  'A-cross-hp-kgfm': () => crossing('hp', 'kgf·m'),
  'A-pt-1': (row) => calculate('dyno.power-torque', { speedRpm: number(row, 'n'), torqueNm: number(row, 'T') }).powerW as number,
  'A-pt-2': (row) =>
    fromSi('power', calculate('dyno.power-torque', { speedRpm: number(row, 'n'), torqueNm: toSi('torque', number(row, 'T'), 'lb·ft') }).powerW as number, 'hp'),
  'B-isa-p-1000': (row) => isa(row).pressurePa as number,
  'B-isa-p-1500': (row) => isa(row).pressurePa as number,
  'B-isa-p-2000': (row) => isa(row).pressurePa as number,
  'B-isa-p-5000': (row) => isa(row).pressurePa as number,
  'B-isa-rho-5000': (row) => isa(row).densityKgM3 as number,
  'B-psat-if97-300': (row) => saturationPressurePa(number(row, 'T')),
  'B-psat-if97-20': (row) => saturationPressurePa(number(row, 't') + 273.15),
  'B-rho-101325-15-0': density,
  'B-rho-84000-5-30': density,
  'B-j1349-ref': (row) => factor(row, 'SAE J1349'),
  'B-din-ref': (row) => factor(row, 'DIN 70020'),
  'B-std-ref': (row) => factor(row, 'STD J607'),
  'B-j1349-cool': (row) => factor(row, 'SAE J1349'),
  'B-iso1585-cool': (row) => factor(row, 'ISO 1585'),
  'B-din-cool': (row) => factor(row, 'DIN 70020'),
  'B-j1349-hot': (row) => factor(row, 'SAE J1349'),
  'B-iso1585-alt': (row) => factor(row, 'ISO 1585'),
  'B-std-alt': (row) => factor(row, 'STD J607'),
  'B-conv-std-j1349': (row) => (300 * factor(row, 'SAE J1349')) / factor(row, 'STD J607'),
  'B-conv-din-j1349': (row) => (300 * factor(row, 'SAE J1349')) / factor(row, 'DIN 70020'),
  'B-std-over-j1349-ref': (row) => factor({ ...row, inputs: at99 }, 'STD J607') / factor({ ...row, inputs: at99 }, 'SAE J1349'),
  'B-boost-school-gap': (row) => factor(row, 'SAE J1349') / factor(row, 'SAE J1349', 'temperatureOnly') - 1,
  'C-lin-4600': () => {
    const speedRpm = [2000, 3000, 4000, 5000, 6000, 7000]
    const curve = gridCurve({ speedRpm, powerW: [250, 320, 380, 400, 370, 310] })
    return curve.powerW[(4600 - curve.firstSpeedRpm) / curve.stepRpm] as number
  },
  'E-total': (row) => corners(row).totalKg?.value as number,
  'E-front': (row) => corners(row).frontShare?.value as number,
  'E-cross': (row) => corners(row).crossShareRfLr?.value as number,
  'E-cross-natural': (row) => {
    const { frontShare, leftShare } = corners(row)
    const [front, left] = [frontShare?.value as number, leftShare?.value as number]
    return front * (1 - left) + (1 - front) * left
  },
  'E-u-cross': (row) => corners(row).crossShareRfLr?.sd as number,
  'E-u-front-pct': (row) => corners(row, (kg) => 0.001 * kg).frontShare?.sd as number,
  'E-cg-y': (row) =>
    (
      calculate('mass.centre-of-mass', { pads: pads(row, () => 0.5), wheelbaseM: 2.57, trackFrontM: number(row, 'tf'), trackRearM: number(row, 'tr') })
        .leftOfMiddleM as unknown as { value: number }
    ).value,
  'E-comb-x': (row) => combined(row).xM as number,
  'E-comb-z': (row) => combined(row).zM as number,
  'E-cgh-equal': height,
  'E-cgh-stagger': height,
  'E-cgh-simple': simpleHeight,
  'E-cgh-u-30': heightSd,
  'E-cgh-u-55': heightSd,
  'E-add-LF': (row) => added(row).LF,
  'E-add-RF': (row) => added(row).RF,
  'E-add-RR': (row) => added(row).RR,
  'E-add-sym-RR': (row) => added(row).RR,
  'E-add-arb-LF': (row) => added(row, { barFrontNPerM: number(row, 'arb front (N/m per wheel pair diff)'), barRearNPerM: number(row, 'arb rear') }).LF,
  'E-perch-LF': (row) => raisedLf(row).cornersKg.LF - HEAVY.LF,
  'E-perch-RF': (row) => raisedLf(row).cornersKg.RF - HEAVY.RF,
  'E-perch-LR': (row) => raisedLf(row).cornersKg.LR - HEAVY.LR,
  'E-perch-RR': (row) => raisedLf(row).cornersKg.RR - HEAVY.RR,
  'E-perch-h-LF': (row) => raisedLf(row).riseM.LF * 1000,
  'E-cross-solve-RR': (row) => crossSolved(row).RR,
  'E-cross-solve-check': (row) => perches(row, byCorner(input(row, 'u')), { LF: 312, RF: 298, LR: 276, RR: 294 }).crossShareRfLr,
  'E-milp-obj': ballasted,
  'E-ballast-move': (row) => (number(row, 'dshare') * number(row, 'W')) / (loadPerKg(row, 0.1) - loadPerKg(row, 0.1 + number(row, 'dx'))),
  'E-ballast-add': (row) => (number(row, 'W') * (number(row, 'f1') - number(row, 'f0'))) / (loadPerKg(row, number(row, 'x')) - number(row, 'f1')),
  'E-pred-90': (row) => calculate('mass.estimate-bias', { pairs: pairs(row), newGuessKg: number(row, 'E'), probability: 0.9 }).newPartQuantileKg as number,
  'E-fc-sd': (row) => forecast(row).sdKg as number,
  'E-fc-q10': (row) => forecast(row).p10Kg as number,
  'E-fc-q90': (row) => forecast(row).p90Kg as number,
  'E-fc-under': (row) => forecast(row).chanceUnderLimit as number,
  'I-kgkw': () => toSi('mass', 1, 'lb') / (toSi('power', 1, 'hp') / 1000),
  'I-ratio-nodrv': (row) =>
    calculate('mass.power-to-weight', {
      powerW: toSi('power', number(row, 'P'), 'hp'),
      massKg: toSi('mass', number(row, 'W'), 'lb'),
      driverKg: toSi('mass', number(row, 'driver'), 'lb'),
    }).lbPerHp as number,
  'I-ratio-ps': (row) => calculate('mass.power-to-weight', { powerW: toSi('power', number(row, 'P'), 'PS'), massKg: number(row, 'm') }).lbPerHp as number,
}

describeRows('published and derived check values', 'check-values.json', checks)

describe('standard atmosphere against the US Standard Atmosphere 1976', () => {
  // Computed with python3-fluids 1.0.22 (geometric altitude); geopotential = r h/(r + h) with r = 6,356,766 m. Tolerance 2e-5: the table's own digits.
  const table = readFileSync(new URL('./standard-atmosphere-1976.csv', import.meta.url), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(',').map(Number) as [number, number, number, number, number])
    .filter(([altitude]) => altitude <= 11_000)
  test.each(table)('at %d m', (geometricM, temperatureK, pressurePa, densityKgM3, soundSpeedMps) => {
    const found = calculate('air.standard-atmosphere', { altitudeM: (6_356_766 * geometricM) / (6_356_766 + geometricM) })
    for (const [key, expected] of Object.entries({ temperatureK, pressurePa, densityKgM3, soundSpeedMps })) {
      expect(Math.abs((found[key] as number) / expected - 1), key).toBeLessThan(2e-5)
    }
  })
})

test.each([
  // ASHRAE 2017 by psychrolib 1.1.1; IF97 differs in vapour pressure by up to 2e-4.
  [298.15, 0.5, 1584.61, 1.176958],
  [308.15, 0.6, 3376.69, 1.131104],
])('moist air at %d K', (temperatureK, relativeHumidity, vapour, densityKgM3) => {
  const found = calculate('air.density', { pressurePa: 101_325, temperatureK, relativeHumidity })
  expect(Math.abs((found.vapourPressurePa as number) / vapour - 1)).toBeLessThan(3e-4)
  expect(Math.abs((found.densityKgM3 as number) / densityKgM3 - 1)).toBeLessThan(2e-4)
})
