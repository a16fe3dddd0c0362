import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { slowDrift } from './slow-drift.ts'

const line = (values: readonly number[]) => values.map((value, use) => ({ use, value }))
const LIMITS = { low: 4.2, high: 6 }

describe('a standard value over use', () => {
  it('falls towards its lower limit, rises towards its upper', () => {
    expect(slowDrift(line([5, 4.9, 4.8, 4.7, 4.6]), LIMITS)).toMatchObject({ perUse: expect.closeTo(-0.1, 12), limit: 4.2, useLeft: expect.closeTo(4, 9) })
    expect(slowDrift(line([5, 5.1, 5.2, 5.3, 5.4]), LIMITS)).toMatchObject({ limit: 6, useLeft: expect.closeTo(6, 9) })
  })
  test.each([
    ['four readings', line([5, 4.9, 4.8, 4.7])],
    ['no use between them', [5, 4.9, 4.8, 4.7, 4.6].map((value) => ({ use: 3, value }))],
    ['scatter alone', line([5, 4.7, 5.1, 4.8, 5.05, 4.9])],
    ['a limit too far ahead to be told', line([5, 4.99, 4.98, 4.97, 4.96])],
    ['a limit that was passed', line([4.4, 4.3, 4.2, 4.1, 4])],
    ['the same each time', line([5, 5, 5, 5, 5])],
  ])('%s tell nothing', (_, readings) => {
    expect(slowDrift(readings, LIMITS)).toBeNull()
  })
  it('is told without a limit that way, as a drift alone', () => {
    expect(slowDrift(line([5, 4.9, 4.8, 4.7, 4.6]), { low: null, high: 6 })).toMatchObject({ limit: null, useLeft: null })
  })
  it('cries of scatter about once in twenty times', () => {
    let told = 0
    // A fixed draw, so that the test is the same each time.
    let seed = 7
    const draw = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648
      return seed / 2147483648 - 0.5
    }
    for (let i = 0; i < 400; i++) if (slowDrift(line(Array.from({ length: 8 }, () => 5 + draw())), { low: null, high: null })) told++
    expect(told / 400).toBeGreaterThan(0.02)
    expect(told / 400).toBeLessThan(0.09)
  })
  it('does not hang on the order, the unit or the zero of use', () => {
    const any = fc.array(fc.record({ use: fc.integer({ min: 0, max: 50 }), value: fc.double({ min: 1, max: 9, noNaN: true }) }), {
      minLength: 5,
      maxLength: 9,
    })
    fc.assert(
      fc.property(any, (readings) => {
        const [plain, moved] = [
          slowDrift(readings, { low: null, high: null }),
          slowDrift(
            [...readings].reverse().map(({ use, value }) => ({ use: 10 * use + 3, value })),
            { low: null, high: null },
          ),
        ]
        if (!plain || !moved) return true
        return Math.abs(moved.perUse * 10 - plain.perUse) < 1e-6 * Math.abs(plain.perUse) + 1e-9
      }),
    )
  })
})
