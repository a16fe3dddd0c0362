import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { stopState } from '../rooms/power/stop-state.ts'
import { smallestGainFound } from './compare-pulls.ts'
import { type PicturePoint, pictureReader } from './picture-axes.ts'
import { type PullPlanInput, planPulls } from './pull-planner.ts'

const HOURS: PullPlanInput = { bookedS: 7200, setUpS: 1200, pullS: 60, coolingS: 180, firstPulls: 2, basePulls: 3, changes: [], returnsToBase: true }
const change = (name: string, setUpS: number, pulls = 3) => ({ name, setUpS, pulls })

describe('a plan of pulls', () => {
  it('goes from set-up to the baseline, one change at a time, and back', () => {
    const { steps, spareS, pulls } = planPulls({ ...HOURS, changes: [change('boost 120 kPa', 0), change('cams', 900)] })
    expect(steps.map(({ kind }) => kind)).toEqual(['setUp', 'firstPulls', 'base', 'changePulls', 'change', 'changePulls', 'return'])
    expect(pulls).toBe(2 + 3 + 3 + 3 + 3)
    expect(spareS).toBe(7200 - 1200 - 900 - 14 * 240)
  })
  it('keeps the return free, leaves out what does not fit whole, and still takes a shorter one after it', () => {
    const { steps, leftOut } = planPulls({ ...HOURS, changes: [change('turbo', 7000), change('fuel', 300)] })
    expect(leftOut).toEqual(['turbo'])
    expect(steps.at(-1)?.kind).toBe('return')
    expect(steps.some((step) => 'name' in step && step.name === 'fuel')).toBe(true)
  })
  it('never overlaps, never runs over, and takes each change whole or not at all', () => {
    const changes = fc.array(
      fc.record({ name: fc.constantFrom('a', 'b', 'c'), setUpS: fc.integer({ min: 0, max: 3000 }), pulls: fc.integer({ min: 1, max: 6 }) }),
      { maxLength: 8 },
    )
    fc.assert(
      fc.property(changes, fc.integer({ min: 3600, max: 20_000 }), fc.boolean(), (list, bookedS, returnsToBase) => {
        const input = { ...HOURS, bookedS, returnsToBase, changes: list }
        const { steps, leftOut, spareS } = planPulls(input)
        for (const [i, step] of steps.entries()) expect(step.fromS).toBe(i === 0 ? 0 : steps[i - 1]?.toS)
        expect((steps.at(-1)?.toS as number) + spareS).toBe(bookedS)
        expect(steps.filter((step) => step.kind === 'changePulls').length + leftOut.length).toBe(list.length)
      }),
      { numRuns: 150, seed: 4600 },
    )
  })
  it('says what gain its fewest pulls would find', () => {
    expect(planPulls({ ...HOURS, pullSdW: 900 }).smallestGainW).toBe(smallestGainFound(900, 3))
    expect(planPulls({ ...HOURS, pullSdW: 900, changes: [change('x', 0, 1)] }).smallestGainW).toBeNull()
    expect(planPulls(HOURS).smallestGainW).toBeNull()
  })
  test.each([
    ['hours that do not hold the baseline', { bookedS: 1800 }, /alone take 52 minutes of the 30/],
    ['a pull that takes no time', { pullS: 0 }, /A pull takes time/],
    ['a time under zero', { coolingS: -1 }, /coolingS is under zero/],
    ['a change with a time under zero', { changes: [change('x', -5)] }, /changes.0.setUpS/],
  ])('refuses %s', (_, edit, sentence) => {
    expect(() => planPulls({ ...HOURS, ...edit })).toThrow(sentence)
  })
})

const at = (right: number, down: number): PicturePoint => ({ right, down })

describe('points off a picture', () => {
  it('are read right however the sheet lies in the picture, as long as lines stay lines', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
    fc.assert(
      fc.property(
        number(-0.4, 0.4),
        number(-0.4, 0.4),
        number(0.05, 0.3),
        number(0.8, 3),
        number(2000, 8000),
        number(0, 300),
        (tilt, shear, scale, stretch, rpm, kw) => {
          // A sheet with 1 px a rpm and 10 px a kW, turned, sheared and scaled: the inverse of what the reader does.
          const place = (speedRpm: number, value: number) => {
            const [x, y] = [scale * (speedRpm - 2000 + shear * stretch * 10 * value), -stretch * 10 * value * scale]
            return at(500 + x * Math.cos(tilt) - y * Math.sin(tilt), 900 + x * Math.sin(tilt) + y * Math.cos(tilt))
          }
          const read = pictureReader({
            speed: { first: place(2000, 0), firstValue: 2000, second: place(8000, 0), secondValue: 8000 },
            value: { first: place(3000, 0), firstValue: 0, second: place(3000, 300), secondValue: 300 },
          })
          const found = read(place(rpm, kw))
          expect(found.speedRpm).toBeCloseTo(rpm, 5)
          expect(found.value).toBeCloseTo(kw, 6)
        },
      ),
      { numRuns: 200, seed: 4600 },
    )
  })
  const axes = {
    speed: { first: at(0, 100), firstValue: 2000, second: at(100, 100), secondValue: 7000 },
    value: { first: at(0, 100), firstValue: 0, second: at(0, 0), secondValue: 200 },
  }
  it('reads the example of its comment', () => {
    expect(pictureReader(axes)(at(50, 50))).toEqual({ speedRpm: 4500, value: 100 })
  })
  test.each([
    ['places that fall together', { speed: { ...axes.speed, second: at(2, 101) } }, /nearly the same/],
    ['places with one number', { value: { ...axes.value, secondValue: 0 } }, /same number/],
    ['axes that run the same way', { value: { ...axes.value, second: at(100, 102) } }, /nearly the same way/],
  ])('refuses %s', (_, edit, sentence) => {
    expect(() => pictureReader({ ...axes, ...edit })).toThrow(sentence)
  })
})

describe('limits that end a pull', () => {
  const stops = { lambdaOver: 0.9, intakeOverK: 333, coolantOverK: 378, fuelPressureUnderPa: 280_000, headroomUnder: 0.1, knock: null }
  const calm = { powerW: 200_000, lambda: 0.86, intakeK: 320, coolantK: 365, fuelPressurePa: 300_000 }
  test.each([
    ['nothing', {}, 250_000, [], []],
    ['lean', { lambda: 0.91 }, 250_000, ['lambda'], []],
    ['at the limit is not over it', { lambda: 0.9, intakeK: 333, powerW: 250_000 }, 250_000, [], []],
    ['hot, on a dyno that reads no lambda', { lambda: null, intakeK: 340, coolantK: 380 }, 250_000, ['intakeTemperature', 'coolantTemperature'], ['lambda']],
    ['starved', { fuelPressurePa: 250_000 }, 250_000, ['fuelPressure'], []],
    ['more than the weakest part keeps its headroom at', {}, 190_000, ['headroom'], []],
    ['headroom that nobody can tell', {}, null, [], []],
  ])('%s', (_, edit, headroomPowerW, broken, unread) => {
    const found = stopState(stops, { ...calm, ...edit }, headroomPowerW)
    expect(found.reasons.map(({ of }) => of)).toEqual(broken)
    expect(found.unread).toEqual(unread)
  })
  it('without limits break nothing, and ask nobody to watch', () => {
    const none = { lambdaOver: null, intakeOverK: null, coolantOverK: null, fuelPressureUnderPa: null, headroomUnder: null, knock: null }
    const hot = { powerW: 9e5, lambda: 2, intakeK: 500, coolantK: null, fuelPressurePa: 1 }
    expect(stopState(none, hot, 100_000)).toEqual({ reasons: [], unread: [] })
  })
})
