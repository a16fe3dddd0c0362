import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { betweenShare } from '../stats/between-sessions.ts'
import { learnedModelShare } from './model-share.ts'

describe('the share of a change that the model is trusted', () => {
  const pair = (gainS: number, missS: number, sdS = 0) => ({ gainS, missS, sdS })
  it.each([
    ['four pairs teach nothing', [1, 1, 1, 1].map((gain) => pair(gain, 0.5)), 0.2],
    // Root of the mean of squares 0.3, for the sixth of five: 0.3 √(1 + 1/5).
    ['a third missed each time', [1, -1, 2, -2, 0.5].map((gain) => pair(gain, 0.3 * gain)), 0.3 * Math.sqrt(1.2)],
    ['never missed: still never trusted whole', [1, 1, 1, 1, 1].map((gain) => pair(gain, 0)), 0.05],
    ['missed by no more than both are in doubt', [1, 1, 1, 1, 1].map((gain) => pair(gain, 0.3, 0.4)), 0.05],
    ['changes of nothing teach nothing', [0, 0, 0, 0, 0].map((gain) => pair(gain, 0.3)), 0.2],
  ])('%s', (_, pairs, share) => {
    expect(learnedModelShare(pairs).share).toBeCloseTo(share, 12)
  })
  it('does not hang on the order or the direction of changes', () => {
    const any = fc.array(
      fc.record({ gainS: fc.double({ min: 0.1, max: 5, noNaN: true }), missS: fc.double({ min: -1, max: 1, noNaN: true }), sdS: fc.constant(0.1) }),
      {
        minLength: 5,
        maxLength: 12,
      },
    )
    fc.assert(
      fc.property(any, (pairs) => {
        const turned = [...pairs].reverse().map(({ gainS, missS, sdS }) => ({ gainS: -gainS, missS: -missS, sdS }))
        return Math.abs(learnedModelShare(pairs).share - learnedModelShare(turned).share) < 1e-12
      }),
    )
  })
})

describe('how outings of an unchanged car differ', () => {
  const outcome = (lapS: number, sdS = 0) => ({ lapS, sdS })
  it('is the spread beyond their own laps, pooled', () => {
    expect(betweenShare([])).toBeNull()
    expect(betweenShare([[outcome(100), outcome(101)]])).toBeNull()
    // One-way components of variance by hand: (1 + 1)/2 less 0.36.
    expect(betweenShare([[outcome(99, 0.6), outcome(100, 0.6), outcome(101, 0.6)]])).toBeCloseTo(0.008, 12)
    const both = betweenShare([
      [outcome(99), outcome(100), outcome(101)],
      [outcome(200), outcome(200), outcome(200), outcome(200)],
    ])
    expect(both).toBeCloseTo(0.01 * Math.sqrt(2 / 5), 9)
    expect(betweenShare([[outcome(100, 1), outcome(100, 1), outcome(100, 1)]])).toBe(0.0005)
  })
})
