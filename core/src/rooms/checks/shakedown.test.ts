import { describe, expect, it, test } from 'vitest'
import { bolt, C, check, mark, records, TODAY } from '../../../test/checked.ts'
import { trackPlanKind } from '../../records/brake-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { trackKind } from '../../records/track/track-kinds.ts'
import { trackSessionKind } from '../../records/track/track-session-kinds.ts'
import { z } from '../../zod.ts'
import { gateBehind, layHour } from './shakedown.ts'

describe('the hour and its gates', () => {
  const step = (kind: string, share: number, wantLaps: number, more: object = {}) => ({ kind, share, wantLaps, leastLaps: 3, ...more })
  const steps = [step('bed', 0.5, 4, { coolS: 600 }), step('level', 0.65, 5, { coolS: 300 }), step('level', 0.8, 5, { coolS: 300 }), step('level', 1, 4)]
  const plan = (more: object = {}) =>
    z.object(trackPlanKind.fields).parse({ id: 'p', trackId: 'k', stageId: 's1', bookedS: 3600, setUpS: 480, lapS: 75, people: 2, steps, ...more })
  // 18 minutes of checks: the worked example's.
  const minutes = [2.5, 2, 2, 1.5, 1.5, 1.5, 1, 1, 1, 1, 1, 1, 0.5, 0.5]
  const between = (all: BuildRecords) => all.checks.push(...minutes.map((each, i) => check({ id: `c${i}`, name: `c${i}`, minutes: each })))
  it('as worked by hand: 9 minutes of checks, one lap given up, what to book for all, one more hand', () => {
    const found = layHour(
      records((all) => void between(all)),
      plan(),
      1,
    )
    expect([found.roundS, found.hour?.laps, found.hour?.spareS, found.hour?.wholeS]).toEqual([540, [4, 5, 3, 3], 25.5, 3817.5])
    expect(found.fitsWithOneMore).toBe(true)
  })
  it('four launches take their own time, and fuel is for the laps that fit', () => {
    const launches = { kind: 'other', words: 'four launches', seconds: 480 }
    const found = layHour(
      records((all) => void between(all)),
      plan({ bookedS: 7200, fuelPerLapL: 1.5, steps: [...steps, launches] }),
      1,
    )
    expect(found.hour?.laps).toEqual([4, 5, 5, 4, 1])
    expect(found.fuelL).toBeCloseTo(18 * 1.5 + 3, 9)
  })
  it('says what to book for a first step that does not fit', () => {
    expect(
      layHour(
        records(() => undefined),
        plan({ bookedS: 600 }),
        1,
      ).refused,
    ).toBe('Book 4 minutes more for the first step.')
  })

  const gates = (values: readonly (readonly [number, number])[], more: (all: BuildRecords) => void = () => undefined) => {
    const own = records((all) => {
      all.tracks.push(z.object(trackKind.fields).parse({ id: 'k', name: 'k', segments: [{ lengthM: 500 }] }) as never)
      const reading = (id: string, warn: number, stop: number) =>
        check({ id, name: id, kind: 'reading', reading: { quantity: 'temperature', warnHigh: warn + C, stopHigh: stop + C } })
      all.checks.push(reading('coolant', 100, 105), reading('oil', 125, 130))
      for (const [i, [coolant, oil]] of values.entries()) {
        const at = `2027-03-27T1${i}:00:00Z`
        all.trackSessions.push(
          z.object(trackSessionKind.fields).parse({ id: `t${i}`, stageId: 's1', trackId: 'k', at, kind: 'shakedown', step: i + 1 }) as never,
        )
        const value = (id: string, celsius: number) => all.marks.push(mark(id, '2027-03-27', 'ok', { trackSessionId: `t${i}`, value: celsius + C, at }))
        value('coolant', coolant)
        if (!Number.isNaN(oil)) value('oil', oil)
      }
      more(all)
    })
    return gateBehind(own, plan(), 1, values.length, TODAY)
  }
  it('as worked by hand: coolant goes on, the oil would pass its stop: again', () => {
    const gate = gates([
      [88, 112],
      [93.5, 121],
    ])
    expect(gate?.word).toBe('again')
    expect(gate?.readings.map(({ next, nextSd, word }) => [next && next - C, nextSd, word])).toEqual([
      [expect.closeTo(100.8333, 3), expect.closeTo(2.687, 3), 'watch'],
      [expect.closeTo(133, 6), expect.closeTo(2.687, 3), 'again'],
    ])
  })
  test.each([
    [
      'a reading over its stop',
      [
        [88, 112],
        [106, 113],
      ],
      () => undefined,
      'no',
      /coolant is over its stop/,
    ],
    [
      'a missing reading',
      [
        [80, 100],
        [81, Number.NaN],
      ],
      () => undefined,
      'again',
      /Not read: oil/,
    ],
    [
      'all well',
      [
        [80, 100],
        [81, 101],
      ],
      () => undefined,
      'go',
      null,
    ],
    [
      'a safety bolt that is bad',
      [
        [80, 100],
        [81, 101],
      ],
      (all: BuildRecords): void => {
        all.checks.push(bolt('nut', { rounds: [] }))
        all.marks.push(mark('nut', '2027-03-27', 'bad'))
      },
      'no',
      /nut: bad/,
    ],
    [
      'a check that is open',
      [
        [80, 100],
        [81, 101],
      ],
      (all: BuildRecords): void => void all.checks.push(bolt('nut')),
      'again',
      /1 check is still open/,
    ],
  ] as const)('%s', (_, values, more, word, reason) => {
    const gate = gates(values as never, more)
    expect(gate?.word).toBe(word)
    if (reason) expect(gate?.reasons.join(' ')).toMatch(reason)
    else expect(gate?.reasons).toEqual([])
  })
  it('a low limit holds from below', () => {
    const own = (press: number): ReturnType<typeof gateBehind> =>
      gates(
        [
          [80, 100],
          [81, 101],
        ],
        (all) => {
          all.checks.push(check({ id: 'p', name: 'oil pressure', kind: 'reading', reading: { quantity: 'pressure', stopLow: 3.2e5, warnLow: 4e5 } }))
          for (const [i, value] of [4.9e5, press].entries())
            all.marks.push(mark('p', '2027-03-27', 'ok', { trackSessionId: `t${i}`, value, at: `2027-03-27T1${i}:00:00Z` }))
        },
      )
    expect(own(4.7e5)?.readings[2]).toMatchObject({ word: 'go', next: expect.closeTo(4.4333e5, -1), nextSd: expect.closeTo(2.687e4, -1) })
    expect(own(3e5)?.word).toBe('no')
  })
  it('no reading, no gate', () => {
    const own = records(
      (all) =>
        void all.trackSessions.push(
          z.object(trackSessionKind.fields).parse({ id: 't', stageId: 's1', trackId: 'k', at: '2027-03-27T10:00:00Z', kind: 'shakedown', step: 0 }) as never,
        ),
    )
    expect(() => gateBehind(own, plan(), 1, 0, TODAY)).toThrow(/A gate with no reading says nothing/)
  })
})
