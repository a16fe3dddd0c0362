import { describe, expect, it, test } from 'vitest'
import { RATING_SUBJECT_NAMES } from '../../records/part-kinds.ts'
import { UNIT_SETS } from '../../units/unit-set.ts'
import { parseRatingLine, RATING_WORDS, ratingLine } from './part-lines.ts'

const metric = { units: UNIT_SETS.metric, decimalMark: '.' } as const

test.each([
  ['crank torque 480 N·m', { of: 'crankTorque', limit: 480, known: 'catalogue', isEach: false, ethanolShare: null }],
  ['gearbox torque 520 N·m', { of: 'gearboxTorque', limit: 520 }],
  ['axle torque 2600 N·m', { of: 'axleTorque', limit: 2600 }],
  ['wheel torque 1300 N·m', { of: 'wheelTorque', limit: 1300 }],
  ['Torque at the crank 354 lb·ft measured', { of: 'crankTorque', limit: expect.closeTo(479.9595, 3), known: 'measured' }],
  ['power 450 hp guess', { of: 'crankPower', limit: expect.closeTo(335_564.9, 0), known: 'guess' }],
  ['wheel power 300', { of: 'wheelPower', limit: 300_000 }],
  ['fuel flow 1000 cc/min each on petrol', { of: 'fuelFlow', limit: expect.closeTo(1.6667e-5, 9), isEach: true, ethanolShare: 0 }],
  ['fuel pressure 6 bar', { of: 'fuelPressure', limit: 600_000 }],
  ['flow 265 L/h catalogue on 78 % ethanol', { of: 'fuelFlow', limit: expect.closeTo(265 / 3.6e6, 12), ethanolShare: 0.78 }],
  ['air 60 lb/min', { of: 'airFlow', limit: expect.closeTo(0.453592, 6) }],
  ['duty 85 %', { of: 'injectorDuty', limit: 0.85 }],
  ['charge 60 °C', { of: 'chargeTemperature', limit: 333.15 }],
  ['current 18', { of: 'pumpCurrent', limit: 18 }],
  ['speed 8 200 rpm', { of: 'engineSpeed', limit: 8200 }],
])('"%s" is read', (line, expected) => {
  expect(parseRatingLine(line, metric)).toMatchObject(expected)
})

test.each([
  ['courage 100', /does not begin with what is rated/],
  ['torque', /does not say where/],
  ['torque 480 N·m', /crank torque, gearbox torque, axle torque \(both shafts together\) or wheel torque/],
  ['crank torque much', /cannot be read as a number/],
  ['crank torque 480 ponies', /Nobody here knows the unit/],
  ['crank torque -3', /more than zero/],
  ['flow 200 on 140 % ethanol', /0 to 100 %/],
])('"%s" is refused in words', (line, sentence) => {
  expect(() => parseRatingLine(line, metric)).toThrow(sentence)
})

describe('a rating written out', () => {
  test.each(RATING_SUBJECT_NAMES)('%s reads back, in both sets of units', (of) => {
    for (const units of Object.values(UNIT_SETS)) {
      for (const more of [
        { isEach: true, ethanolShare: 0.785 },
        { isEach: false, ethanolShare: null },
        { isEach: false, ethanolShare: 0 },
      ]) {
        const rating = { of, limit: 0.62, known: 'measured' as const, typed: null, ...more }
        const back = parseRatingLine(ratingLine(rating, units), { units, decimalMark: '.' })
        expect(back).toMatchObject({ of, known: 'measured', isEach: more.isEach })
        expect(back.limit / rating.limit).toBeCloseTo(1, 5)
        if (more.ethanolShare === null) expect(back.ethanolShare).toBeNull()
        else expect(back.ethanolShare).toBeCloseTo(more.ethanolShare, 6)
      }
    }
  })
  it('of a torque from before places were named is one at the crank', () => {
    const old = { of: 'crankTorque' as const, limit: 450, isEach: false, known: 'catalogue' as const, ethanolShare: null, typed: 'torque 450 N·m' }
    expect(parseRatingLine(ratingLine(old, UNIT_SETS.metric), metric)).toMatchObject({ of: 'crankTorque', limit: 450 })
  })
  it('keeps what was typed, and every word names one subject', () => {
    expect(ratingLine(parseRatingLine('air 60 lb/min', metric), UNIT_SETS.metric)).toBe('air 60 lb/min')
    const words = Object.values(RATING_WORDS).flat()
    expect(new Set(words).size).toBe(words.length)
  })
})
