import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { trackPlanKind } from '../../records/brake-kinds.ts'
import { type Check, checkKind, type Mark, markKind } from '../../records/check-kinds.ts'
import { partKind, partUseKind } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { trackKind, trackSessionKind } from '../../records/track-kinds.ts'
import { eventKind, taskKind } from '../../records/workshop-kinds.ts'
import { chanceAtMost } from '../../stats/distribution.ts'
import { z } from '../../zod.ts'
import { livesAhead } from '../parts/lives-ahead.ts'
import { gateBehind, layHour } from './shakedown.ts'
import { dueAt, roundOf } from './states.ts'
import { takeAlong } from './take.ts'
import { usualChecks } from './usual.ts'

const TODAY = '2027-03-21'
const C = 273.15
const check = (fields: object): Check => z.object(checkKind.fields).parse({ kind: 'look', rounds: ['between'], ...fields })
const bolt = (id: string, more: object = {}) => check({ id, kind: 'bolt', name: id, bolt: { count: 1 }, isSafety: true, ...more })
let marked = 0
const mark = (checkId: string, on: string, result: string, more: object = {}): Mark =>
  z.object(markKind.fields).parse({ id: `m${marked++}`, checkId, stageId: 's1', at: `${on}T10:00:00Z`, result, ...more })
const event = (more: object = {}) => z.object(eventKind.fields).parse({ id: 'e', name: 'Test hour', kind: 'hire', startsOn: '2027-03-27', days: 2, ...more })
const records = (edit: (all: BuildRecords) => void) =>
  changed((all) => {
    all.events.push(event())
    edit(all)
  })
const asked = { event: event(), position: 1, today: TODAY, round: null } as const

describe('what is due before an event', () => {
  // Invented: a gearbox done on 20 March; its six bolts were in order on 12 March, and the seat's.
  const gearbox = records((all) => {
    all.parts.push(z.object(partKind.fields).parse({ id: 'box', kind: 'gearbox', name: 'gearbox', status: 'fitted' }) as never)
    for (let i = 0; i < 6; i++) all.checks.push(bolt(`box ${i}`, { partId: 'box' }))
    all.checks.push(bolt('seat', { zone: 'cabin' }))
    for (const { id } of all.checks) all.marks.push(mark(id, '2027-03-12', 'ok'))
    all.tasks.push(
      z
        .object(taskKind.fields)
        .parse({ id: 't', stageId: 's1', position: 1, name: 'gearbox', guessH: 4, partIds: ['box'], state: 'done', doneAt: '2027-03-20T18:00:00Z' }) as never,
    )
  })
  it('holds the bolts of a part that was worked on, and no others', () => {
    const due = dueAt(gearbox, asked)
    expect(due.map(({ check: { id }, reason, stops }) => [id, reason, stops])).toEqual([0, 1, 2, 3, 4, 5].map((i) => [`box ${i}`, 'touched', true]))
  })
  it('holds what comes off on the way to the part that was worked on', () => {
    const behind = changed((all) => {
      Object.assign(all, gearbox, { parts: [...gearbox.parts], checks: [...gearbox.checks], marks: [...gearbox.marks] })
      all.parts = [
        { ...(gearbox.parts[0] as never as object), takeOff: { minutes: null, people: 1, behindIds: ['floor'], tools: null, fixings: null } } as never,
        z.object(partKind.fields).parse({ id: 'floor', kind: 'floor', name: 'floor', status: 'fitted' }) as never,
      ]
      all.checks.push(bolt('floor screws', { partId: 'floor' }))
      all.marks.push(mark('floor screws', '2027-03-12', 'ok'))
    })
    expect(dueAt(behind, asked).map(({ check: { id } }) => id)).toContain('floor screws')
  })
  it('asks nothing of a part that is not in the car', () => {
    const gone = { ...gearbox, parts: gearbox.parts.map((part) => ({ ...part, status: 'wanted' as const })) }
    expect(dueAt(gone, asked)).toEqual([])
  })
  test.each([
    ['never marked', [], 'never', true],
    ['bad since', [mark('b', '2027-03-01', 'ok'), mark('b', '2027-03-02', 'bad')], 'bad', true],
    ['broken and made do', [mark('b', '2027-03-02', 'damage', { damage: { isMakeDo: true } })], 'bad', true],
    ['in order again', [mark('b', '2027-03-02', 'bad'), mark('b', '2027-03-03', 'fixed')], undefined, undefined],
  ] as const)('a check %s', (_, marks, reason, stops) => {
    const own = records((all) => {
      all.checks.push(bolt('b'))
      all.marks.push(...marks)
    })
    const [due] = dueAt(own, asked)
    expect([due?.reason, due?.stops]).toEqual([reason, stops])
  })
  test.each([
    ['belts to 27 March, an event of 27 and 28', '2027-03-27', 'expires'],
    ['belts to 28 March', '2027-03-28', undefined],
  ])('%s', (_, expiresOn, reason) => {
    const own = records((all) => {
      all.checks.push(check({ id: 'g', kind: 'gear', name: 'Belts', gear: { expiresOn } }))
      all.marks.push(mark('g', '2027-03-12', 'ok'))
    })
    const [due] = dueAt(own, asked)
    expect([due?.reason, due?.stops]).toEqual([reason, reason ? true : undefined])
  })
  test.each([
    [{ amount: 2, unit: 'days' }, undefined],
    [{ amount: 1, unit: 'days' }, 'interval'],
    [{ amount: 1, unit: 'events' }, undefined],
    [{ amount: 2.9, unit: 'hours' }, 'interval'],
    [{ amount: 1, unit: 'months' }, undefined],
    [{ amount: 0.5, unit: 'months' }, 'interval'],
  ])('an interval of %j before two days of 1.5 h', (every, reason) => {
    const own = records((all) => {
      all.checks.push(check({ id: 'i', name: 'i', every }))
      all.marks.push(mark('i', '2027-03-12', 'ok'))
    })
    expect(dueAt(own, asked)[0]?.reason).toBe(reason)
  })
})

it('a round goes round the car from the left front along the left, and takes in what is bad', () => {
  const own = records((all) => {
    const at = (id: string, xM: number, yM: number, rounds: string[] = ['between']) =>
      all.checks.push(check({ id, name: id, rounds, place: { xM, yM, zM: 0 } }))
    at('right front', 0, -0.7)
    at('tail', 3.2, 0)
    at('left front', 0, 0.75)
    at('left sill', 1.3, 0.8)
    at('nose', -0.6, 0)
    at('elsewhere', 1, 0, ['event'])
    at('bad one', 2.6, -0.7, ['event'])
    all.marks.push(mark('bad one', '2027-03-12', 'bad'), mark('elsewhere', '2027-03-12', 'ok'))
  })
  const names = roundOf(own, { ...asked, round: 'between' }).map(({ check: { name } }) => name)
  expect(names).toEqual(['left front', 'left sill', 'tail', 'bad one', 'right front', 'nose'])
})

describe('lives', () => {
  const use = (id: string, partId: string, kind: string, amount: number, on: string) =>
    z.object(partUseKind.fields).parse({ id, partId, kind, amount, at: `${on}T10:00:00Z` })
  const gear = (id: string, more: object = {}) =>
    z.object(partKind.fields).parse({ id, kind: 'fifth gear', name: id, status: 'fitted', life: { amount: 4, unit: 'days' }, leadDays: 10, ...more })
  it('a fifth gear of four days with 3.5 used lasts two days less than two times in ten, and says when to order', () => {
    const [life] = livesAhead(
      records((all) => {
        all.parts.push(gear('now') as never)
        all.partUses.push(use('u', 'now', 'use', 3.5, '2027-01-01') as never)
      }),
      TODAY,
    )
    expect(life?.events[0]?.chance).toBeCloseTo(0.1768, 4)
    expect([life?.mayEnd?.id, life?.orderBy]).toEqual(['e', '2027-03-17'])
  })
  it('a new one does, and a rebuilt one is new', () => {
    const own = records((all) => {
      all.parts.push(gear('now') as never)
      all.partUses.push(
        use('u', 'now', 'use', 3.5, '2027-01-01') as never,
        use('r', 'now', 'rebuilt', 6, '2027-01-02') as never,
        use('p', 'now', 'pulled', 5, '2027-01-02') as never,
      )
    })
    const [life] = livesAhead(own, TODAY)
    expect(life?.events[0]?.chance).toBeCloseTo(0.9754, 4)
    expect([life?.pulls, life?.hoursPerPull, life?.mayEnd]).toEqual([1, 5, null])
  })
  it('two of a kind that wore out give the life, four their spread', () => {
    const worn = (days: readonly number[]) =>
      livesAhead(
        records((all) => {
          all.parts.push(gear('now') as never)
          for (const [i, amount] of days.entries()) {
            all.parts.push(gear(`old ${i}`, { status: 'wornOut' }) as never)
            all.partUses.push(use(`u${i}`, `old ${i}`, 'use', amount, '2026-01-01') as never, use(`w${i}`, `old ${i}`, 'wornOut', 0, '2026-01-02') as never)
          }
        }),
        TODAY,
      )[0]?.known
    expect(worn([3])).toEqual({ life: 4, cv: 0.3, wornOut: 1, from: 'given' })
    expect(worn([3, 5])).toEqual({ life: 4, cv: 0.3, wornOut: 2, from: 'wornOut' })
    expect(worn([3, 5, 4, 4])).toEqual({ life: 4, cv: expect.closeTo(Math.sqrt(2 / 3) / 4, 9), wornOut: 4, from: 'wornOut' })
  })
})

it('what to take: what was missing first, tools that nobody packs, spares of what may end, fluids', () => {
  const own = records((all) => {
    all.checks.push(
      ...[1, 2].map((i) => bolt(`hub ${i}`, { tool: '32 mm hub socket' })),
      check({ id: 'w', kind: 'take', name: 'Torque wrench', take: { count: 1 }, rounds: ['event'] }),
      check({ id: 'j', kind: 'take', name: 'Jack', take: { count: 1 }, rounds: ['event'] }),
      check({ id: 'o', kind: 'level', name: 'Engine oil', level: { fluid: 'engine oil' } }),
    )
    all.marks.push(mark('j', '2027-02-01', 'bad'))
    all.parts.push(z.object(partKind.fields).parse({ id: 'g', kind: 'gear', name: 'Fifth gear', status: 'fitted', life: { amount: 1, unit: 'days' } }) as never)
  })
  const { items, unpacked } = takeAlong(own, asked)
  expect(items.map(({ name, why }) => [name, why])).toEqual([
    ['Jack', 'packed'],
    ['32 mm hub socket', 'tool'],
    ['Torque wrench', 'packed'],
    ['Fifth gear', 'spare'],
    ['engine oil', 'fluid'],
  ])
  expect(unpacked).toEqual([{ tool: '32 mm hub socket', neededBy: ['hub 1', 'hub 2'] }])
})

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

test.each(['timeAttack', 'track', 'drift'] as const)('the usual list of %s: 26 checks of different names, most of the rounds covered', (discipline) => {
  const list = usualChecks({ discipline, wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 })
  expect([list.length, new Set(list.map(({ name }) => name)).size]).toEqual([26, 26])
  for (const [i, body] of list.entries()) expect(z.object(checkKind.fields).safeParse({ id: `u${i}`, ...body }).success).toBe(true)
  expect(new Set(list.flatMap(({ rounds }) => rounds)).size).toBeGreaterThanOrEqual(6)
})

it('a mean that rounding put onto its floor is still a chance', () => {
  expect(chanceAtMost({ shape: 'lognormal', floor: 5, mean: 5, sd: 1e-3 }, 6)).toBe(1)
})
