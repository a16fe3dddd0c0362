import { type LoggedTest, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { loggedTexts } from './logged-texts.ts'

const UNITS = UNIT_SETS.metric
const run = { timeS: [0, 0.2], speedMps: [50, 49.5] }
const NOTHING: LoggedTest = { pairs: [], held: { out: [], back: [] }, reading: null, isFromRest: false }
const held = { speedMps: 20, frontM: 0.00123, rearM: 0.002, pitotPa: 251.7 }

describe('what the runs of a logger put into the form', () => {
  it('pairs as lines of seconds and speed; one driven one way alone is left out and said', () => {
    const found = loggedTexts(
      {
        ...NOTHING,
        pairs: [
          { out: run, back: run },
          { out: run, back: null },
        ],
      },
      'coastDown',
      UNITS,
    )
    expect(found).toMatchObject({ pairs: 1, isEmpty: false, told: 'one pair; 1 driven one way alone is left out.' })
    expect(found.texts).toEqual({ out0: '0; 180 km/h\n0.2; 178.2 km/h', back0: '0; 180 km/h\n0.2; 178.2 km/h' })
  })
  it('held speeds with the tube behind an empty cell', () => {
    const found = loggedTexts({ ...NOTHING, held: { out: [held], back: [{ ...held, pitotPa: null }] }, reading: 'height', isFromRest: true }, 'steady', UNITS)
    expect(found.texts).toEqual({ reading: 'height', points: '72 km/h; 1.23 mm; 2 mm; ; 252 Pa', pointsBack: '72 km/h; 1.23 mm; 2 mm' })
    expect(found.told).toBe('2 held speeds, by ride height from the car at rest.')
  })
  test.each([
    ['no run', NOTHING, 'coastDown', 'It told of no run yet.'],
    ['one way alone', { ...NOTHING, pairs: [{ out: run, back: null }] }, 'coastDown', /One direction cannot tell wind/],
    ['no channel', NOTHING, 'steady', 'It reads neither heights nor dampers at both axles.'],
    ['nothing held', { ...NOTHING, reading: 'damper' as const }, 'steady', 'No speed was held for two seconds yet.'],
  ] as const)('%s: nothing is taken, and why', (_, logged, kind, told) => {
    expect(loggedTexts(logged, kind, UNITS)).toMatchObject({ isEmpty: true, told: typeof told === 'string' ? told : expect.stringMatching(told) })
  })
})
