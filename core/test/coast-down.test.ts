import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { speedAfter } from '../src/aero/coast-down.ts'
import { coastDown } from '../src/aero/coast-down-drag.ts'
import { fitPair, keepFit } from '../src/aero/coast-down-fit.ts'
import { planCoastDown } from '../src/aero/coast-down-plan.ts'
import { fitOf, isFitOf, thinRun } from '../src/aero/coast-model.ts'
import { EXAMPLE_COAST, exampleRun } from '../src/calculations/examples/example-aero.ts'
import { findCalculation, runCalculation, z } from '../src/index.ts'
import { aeroRunKind } from '../src/records/aero-test-kinds.ts'
import { RecordRefusal } from '../src/records/define-record.ts'
import { draws } from './draws.ts'
import { COAST, COAST_PLAN } from './example-fixtures.ts'
import { Solver } from './ode-solver.ts'

const G = 9.80665

describe('coasting', () => {
  it('the closed form agrees with a general solver in wind and on a slope', () => {
    for (const [sign, windMps, grade] of [
      [1, 3, 0.004],
      [-1, 3, 0.004],
      [1, -2, -0.006],
    ] as const) {
      const { timeS, speedMps } = exampleRun(sign, { windMps, grade, stepS: 5, count: 12 })
      const solver = new Solver(1)
      solver.absoluteTolerance = 1e-11
      solver.relativeTolerance = 1e-11
      const slope = (_: number, [v]: number[]) => [-(181.617 + 0.439635 * ((v as number) + sign * windMps) ** 2 + sign * 1342 * G * grade) / 1395.68]
      const end = solver.solve(slope, 0, [50], timeS.at(-1) as number).y[0] as number
      expect(Math.abs(end - (speedMps.at(-1) as number))).toBeLessThan(2e-6)
    }
  })
  it('any wind and slope give the drag area back within 0.1 %; swapping out and back flips wind and slope alone', () => {
    fc.assert(
      fc.property(fc.double({ min: -4, max: 4, noNaN: true }), fc.double({ min: -0.004, max: 0.004, noNaN: true }), (windMps, grade) => {
        const [out, back] = [exampleRun(1, { windMps, grade }), exampleRun(-1, { windMps, grade })]
        const fit = fitPair({ out, back }, 1342, 1395.68)
        expect(Math.abs(fit.cNPerMps2 / 0.439635 - 1)).toBeLessThan(1e-3)
        const swapped = fitPair({ out: back, back: out }, 1342, 1395.68)
        expect(swapped.cNPerMps2).toBeCloseTo(fit.cNPerMps2, 6)
        expect(swapped.windMps).toBeCloseTo(-fit.windMps, 3)
        expect(swapped.grade).toBeCloseTo(-fit.grade, 6)
      }),
      { numRuns: 25 },
    )
  })
  it('the planner’s doubt is that of many coast-downs with gusts and reading noise', () => {
    const even = draws(11)
    const normal = () => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even())
    const plan = planCoastDown({ ...COAST_PLAN, pairs: 2 })
    const stepS = 0.1
    const gusty = () => {
      const count = Math.round(plan.timeS / stepS)
      const [timeS, speedMps]: [number[], number[]] = [[], []]
      let [v, w] = [50, normal()]
      for (let i = 0; i <= count; i++) {
        if (i % 10 === 0) {
          timeS.push(i * stepS)
          speedMps.push(v + (0.05 / Math.sqrt(10)) * normal())
        }
        v -= (stepS * (181.617 + 0.439635 * (v + w) ** 2)) / 1395.68
        w = w * Math.exp(-stepS / 6) + Math.sqrt(1 - Math.exp((-2 * stepS) / 6)) * normal()
      }
      return { timeS, speedMps }
    }
    const found = Array.from({ length: 60 }, () => fitPair({ out: gusty(), back: gusty() }, 1342, 1395.68).cNPerMps2 / 0.439635)
    const mean = found.reduce((sum, each) => sum + each, 0) / found.length
    const sd = Math.sqrt(found.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (found.length - 1))
    // 60 draws tell a spread to about 9 %.
    expect(sd / plan.onePairRelativeSd).toBeGreaterThan(0.7)
    expect(sd / plan.onePairRelativeSd).toBeLessThan(1.35)
  }, 60_000)
  it('several pairs: the mean; its doubt never falls under what mass and air bring', () => {
    const pairs = [1, -2, 0.5, 3].map((windMps) => ({ out: exampleRun(1, { windMps }), back: exampleRun(-1, { windMps }) }))
    const found = coastDown({ ...COAST, pairs })
    expect(found.dragAreaM2).toBeCloseTo(0.742, 3)
    expect(found.dragAreaSdM2).toBeGreaterThanOrEqual(found.systematicSdM2)
    expect(coastDown({ ...COAST, pairs: pairs.slice(0, 1) }).dragAreaSdM2).toBeGreaterThan(0.05 * 0.742)
    expect(coastDown({ ...COAST, pairs, rollingSchool: 'growing' }).dragAreaM2).toBeLessThan(found.dragAreaM2)
    expect(found.rollingCoefficient).toBeCloseTo(0.0138, 4)
  })
  const run = exampleRun(1)
  const slow = { timeS: run.timeS, speedMps: run.speedMps.map((v) => 40 + v / 10) }
  const gust = { timeS: run.timeS.map((t) => t / 20), speedMps: run.speedMps.map((v, i) => (i === 9 ? v + 8 : v)) }
  test.each([
    ['one direction', { pairs: [] }, /One direction cannot tell wind and slope from drag/],
    ['a gust', { pairs: [{ out: gust, back: run }] }, /speed rises at 2 s: a gust or a gear/],
    ['few points', { pairs: [{ out: { timeS: run.timeS.slice(0, 5), speedMps: run.speedMps.slice(0, 5) }, back: run }] }, /has 5 points/],
    ['a short span', { pairs: [{ out: slow, back: run }] }, /1\.5 to 1/],
    ['a time that stands', { pairs: [{ out: { ...run, timeS: run.timeS.map(() => 1) }, back: run }] }, /time does not rise/],
    ['a mass of 5 kg', { massKg: 5 }, /massKg/],
  ])('refuses %s', (_, more, message) => {
    const calculation = findCalculation('aero.coastdown')
    const answer = calculation && runCalculation(calculation, { ...EXAMPLE_COAST, ...more, asMeant: true })
    expect(answer?.ok).toBe(false)
    if (answer && !answer.ok) expect(answer.error.message).toMatch(message)
  })
  it('ten thousand samples fit as a few do', () => {
    const run = (sign: 1 | -1) => exampleRun(sign, { windMps: 2, grade: -0.003, stepS: 0.008, count: 10_000 })
    const fit = fitPair({ out: run(1), back: run(-1) }, 1342, 1395.68)
    expect(Math.abs(fit.cNPerMps2 / 0.439635 - 1)).toBeLessThan(1e-4)
    expect(fit.windMps).toBeCloseTo(2, 3)
    expect(fit.grade).toBeCloseTo(-0.003, 5)
  })
  it('stands still at its end, and not before', () => {
    const force = { aN: 180, bNPerMps: 0, cNPerMps2: 0.45, effectiveKg: 1290 }
    expect(speedAfter(force, 50, 1e6)).toBe(0)
    expect(speedAfter(force, 50, 170)).toBeGreaterThan(0)
  })
  it('what is kept of a pair is over its mass: any masses give back what a fit with them gives', () => {
    const pair = { out: exampleRun(1, { windMps: 2, grade: -0.003 }), back: exampleRun(-1, { windMps: 2, grade: -0.003 }) }
    const kept = keepFit(pair)
    fc.assert(
      fc.property(fc.double({ min: 900, max: 2000, noNaN: true }), fc.double({ min: 1, max: 1.1, noNaN: true }), (massKg, share) => {
        const [own, given] = [fitPair(pair, massKg, share * massKg), fitOf(kept, massKg, share * massKg)]
        expect(given.cNPerMps2 / own.cNPerMps2).toBeCloseTo(1, 5)
        expect(given.aN / own.aN).toBeCloseTo(1, 4)
        expect(given.grade).toBeCloseTo(own.grade, 6)
      }),
      { numRuns: 10 },
    )
  })
  it('a run is kept by 240 means at most, of as many points each, and falls as it did', () => {
    const long = exampleRun(1, { stepS: 0.008, count: 6000 })
    const thin = thinRun(long)
    expect(thin.timeS).toHaveLength(240)
    expect(thin.timeS[0]).toBeCloseTo(12 * 0.008, 9)
    expect(thinRun(exampleRun(1))).toEqual(exampleRun(1))
    expect(thin.speedMps.every((speed, i) => i === 0 || speed < (thin.speedMps[i - 1] as number))).toBe(true)
  })
  it('a fit is known as that of its runs, noisy or not; one that somebody altered is not', () => {
    const even = draws(5)
    const noisy = (sign: 1 | -1) => {
      const { timeS, speedMps } = exampleRun(sign, { windMps: 2, stepS: 1, count: 60 })
      return { timeS, speedMps: speedMps.map((speed) => speed + 0.2 * (even() - 0.5)) }
    }
    for (const pair of [
      { out: noisy(1), back: noisy(-1) },
      { out: exampleRun(1), back: exampleRun(-1) },
    ]) {
      const kept = keepFit(pair)
      expect(isFitOf(pair, kept)).toBe(true)
      for (const altered of [{ cPerM: 0.97 * kept.cPerM }, { aMps2: 1.05 * kept.aMps2 }, { windMps: kept.windMps + 0.5 }, { cPerM: -kept.cPerM }])
        expect(isFitOf(pair, { ...kept, ...altered })).toBe(false)
    }
  })
})

describe('what records of tests refuse', () => {
  const pair = { out: exampleRun(1), back: exampleRun(-1) }
  const coast = { ...pair, fit: keepFit(pair) }
  const refusal = async (more: object, kind = 'coastDown') => {
    const record = z.object(aeroRunKind.fields).parse({ id: 'r', testId: 't', position: 0, ...more })
    const context = { live: async () => [{ id: 't', kind }], now: '2026-06-01T10:00:00Z', before: undefined }
    for (const rule of aeroRunKind.rules)
      try {
        await rule(record, context)
      } catch (error) {
        return error
      }
    return null
  }
  it('a pair with its fit, and steady points, of tests of their kind, are taken', async () => {
    expect(await refusal({ coast })).toBeNull()
    expect(await refusal({ steady: { reading: 'height', points: [{ speedMps: 20, frontM: 0, rearM: 0 }] } }, 'steady')).toBeNull()
  })
  test.each([
    ['neither runs nor points', {}, 'coastDown', 'coast', /two runs of a coast-down, or the points/],
    ['a test of the other kind', { coast }, 'steady', 'coast', /of the other kind/],
    [
      'a gust',
      { coast: { ...coast, out: { timeS: coast.out.timeS.map((t) => t / 20), speedMps: coast.out.speedMps.map((v, i) => (i === 9 ? v + 8 : v)) } } },
      'coastDown',
      'coast.out',
      /a gust or a gear/,
    ],
    ['a fit that is none', { coast: { ...coast, fit: { ...coast.fit, cPerM: 0.9 * coast.fit.cPerM } } }, 'coastDown', 'coast.fit', /is not its fit/],
  ])('%s', async (_, more, kind, field, message) => {
    const refused = await refusal(more, kind)
    expect(refused).toBeInstanceOf(RecordRefusal)
    expect(refused).toMatchObject({ field, message: expect.stringMatching(message) })
  })
})
