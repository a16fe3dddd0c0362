import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { averagePower } from '../src/ruling/average-power.ts'
import { type ComparedRule, compareBooks } from '../src/ruling/class-change.ts'
import { massOverRuleKg, roundAgainst, ruleRatio, soundAt } from '../src/ruling/rule-ratio.ts'

// The worked example of the room, worked apart with scipy.
const CURVE = { speedRpm: [9000, 9500, 10_000, 10_500, 11_000, 11_500], powerW: [96, 101.5, 105.6, 108.2, 106.9, 101].map((kw) => 1000 * kw) }
const about = (offsetsRpm: number[], more: object = {}) => ({
  around: 'peak' as const,
  speedRpm: null,
  offsetsRpm,
  weights: [],
  fromRpm: null,
  toRpm: null,
  ...more,
})

describe('power as a class averages it', () => {
  it('about the peak, as in the worked example', () => {
    expect(averagePower(CURVE, about([-500, 0, 500]))).toBeCloseTo(106_900, 6)
  })
  test.each([
    ['with weights', about([-500, 0, 500], { weights: [1, 2, 1] }), 107_225],
    ['about a speed, between two points', about([0], { around: 'speed', speedRpm: 9250 }), 98_750],
    // (101.5 + 105.6)/2 and (105.6 + 108.2)/2, each over 500 rpm.
    ['over a range, by trapezoids', about([], { fromRpm: 9500, toRpm: 10_500 }), 105_225],
  ])('%s', (_, rule, expected) => {
    expect(averagePower(CURVE, rule)).toBeCloseTo(expected, 6)
  })
  test.each([
    ['beyond the pulls', about([1250]), 'The rule asks 11 750 rpm, the pulls end at 11 500.'],
    ['before the pulls', about([-2000]), 'The rule asks 8 500 rpm, the pulls begin at 9 000.'],
    ['with weights that sum to nothing', about([0, 500], { weights: [0, 0] }), 'The weights sum to nothing.'],
    ['with a weight too few', about([0, 500], { weights: [1] }), 'There are 2 points and 1 weights.'],
    ['over a range that runs backwards', about([], { fromRpm: 10_500, toRpm: 9500 }), 'ends before it begins'],
    ['at no points', about([]), 'names no points'],
  ])('is refused %s', (_, rule, sentence) => {
    expect(() => averagePower(CURVE, rule)).toThrow(sentence)
  })
})

describe('mass over power', () => {
  const INPUT = { massKg: 598.55, massSdKg: 2, powerW: 106_900, powerSdW: 1200, modifiersKgPerW: -0.0002, limitKgPerW: 0.0053, roundStep: null }
  it('stands as in the worked example, with its chance and what is in hand', () => {
    expect(606 - massOverRuleKg({ driverKg: 80, fuelL: 15, fuelKgPerL: 0.745 }, { driverIn: true, fuelL: 5 })).toBeCloseTo(598.55, 9)
    const found = ruleRatio(INPUT)
    expect([1000 * found.ratio, 1000 * found.sd, found.chance]).toEqual([expect.closeTo(5.3992, 4), expect.closeTo(0.0656, 4), expect.closeTo(0.9347, 4)])
    expect([-found.kgToAdd, -found.wToGiveUp / 1000]).toEqual([expect.closeTo(10.6, 1), expect.closeTo(1.927, 3)])
  })
  it('comes to its limit exactly with the kilograms added, or the power given up', () => {
    fc.assert(
      fc.property(fc.double({ min: 400, max: 1600, noNaN: true }), fc.double({ min: 5e4, max: 6e5, noNaN: true }), (massKg, powerW) => {
        const { kgToAdd, wToGiveUp } = ruleRatio({ ...INPUT, massKg, powerW })
        expect(ruleRatio({ ...INPUT, massKg: massKg + kgToAdd, powerW }).ratio).toBeCloseTo(INPUT.limitKgPerW, 9)
        expect(ruleRatio({ ...INPUT, massKg, powerW: powerW - wToGiveUp }).ratio).toBeCloseTo(INPUT.limitKgPerW, 9)
      }),
    )
  })
  test.each([
    [5.399, 0.01, 'atLeast', 5.39],
    [5.39, 0.01, 'atLeast', 5.39],
    [5.391, 0.01, 'atMost', 5.4],
    [5.391, null, 'atMost', 5.391],
  ] as const)('%d is rounded by %s against the car that has to be %s', (value, step, sense, expected) => {
    expect(roundAgainst(value, step, sense)).toBeCloseTo(expected, 9)
  })
  it('is refused where the modifiers use up the limit', () => {
    expect(() => ruleRatio({ ...INPUT, modifiersKgPerW: 0.2 })).toThrow('use up the whole limit')
  })
  it('a driver out and fuel less weigh less; 10 L less are 7.5 kg (common practice, no source)', () => {
    const reference = { driverKg: 80, fuelL: 15, fuelKgPerL: 0.745 }
    expect(massOverRuleKg(reference, { driverIn: false, fuelL: null })).toBe(80)
    expect(massOverRuleKg(reference, { driverIn: true, fuelL: 5 })).toBeCloseTo(7.45, 9)
    expect(massOverRuleKg(reference, null)).toBe(0)
  })
  it('sound falls by 6 dB where the distance doubles, and comes to what the worked example says', () => {
    expect(soundAt({ levelDb: 101.5, fromM: 0.5, toM: 7.5 })).toBeCloseTo(77.98, 2)
    expect(soundAt({ levelDb: 90, fromM: 5, toM: 10 })).toBeCloseTo(90 - 6.0206, 4)
  })
})

describe('another class', () => {
  const rule = (key: string, more: Partial<ComparedRule> = {}): ComparedRule => ({ key, sense: 'atLeast', value: 1, highValue: null, blocks: [], ...more })
  test.each([
    ['a minimum that falls', rule('m', { value: 1100 }), rule('m', { value: 1000 }), 'looser'],
    ['a minimum that rises', rule('m', { value: 1000 }), rule('m', { value: 1100 }), 'tighter'],
    ['a most that rises', rule('m', { sense: 'atMost', value: 1 }), rule('m', { sense: 'atMost', value: 2 }), 'looser'],
    ['a wider range', rule('m', { sense: 'between', value: 1, highValue: 2 }), rule('m', { sense: 'between', value: 1, highValue: 3 }), 'looser'],
    ['a range that moved', rule('m', { sense: 'between', value: 1, highValue: 2 }), rule('m', { sense: 'between', value: 2, highValue: 3 }), 'other'],
    ['the same', rule('m'), rule('M'), 'same'],
    ['a ban that goes', rule('m', { sense: 'mustNot', value: null }), undefined, 'freed'],
    ['a minimum that goes', rule('m'), undefined, 'gone'],
    ['one that was not there', undefined, rule('m'), 'new'],
    ['another sense', rule('m'), rule('m', { sense: 'atMost' }), 'other'],
  ] as const)('%s', (_, before, after, change) => {
    expect(compareBooks(before ? [before] : [], after ? [after] : []).rules[0]?.change).toBe(change)
  })
  it('there and back swaps what is freed and what is lost', () => {
    const anyBook = fc.uniqueArray(
      fc
        .record({ key: fc.constantFrom('a', 'b', 'c', 'd'), blocks: fc.subarray(['wing', 'floor', 'cell']) })
        .map(({ key, blocks }) => rule(key, { sense: 'mustNot', value: null, blocks })),
      { selector: ({ key }) => key },
    )
    fc.assert(
      fc.property(anyBook, anyBook, (one, other) => {
        const [there, back] = [compareBooks(one, other), compareBooks(other, one)]
        expect([...there.freed].sort()).toEqual([...back.lost].sort())
        expect([...there.lost].sort()).toEqual([...back.freed].sort())
      }),
    )
  })
})
