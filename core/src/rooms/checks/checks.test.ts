import { describe, expect, it, test } from 'vitest'
import { asked, bolt, check, event, mark, records, TODAY } from '../../../test/checked.ts'
import { changed } from '../../../test/worked-example.ts'
import { partKind, partUseKind } from '../../records/part-kinds.ts'
import { taskKind } from '../../records/workshop-kinds.ts'
import { z } from '../../zod.ts'
import { livesAhead } from '../parts/lives-ahead.ts'
import { damageSeen } from './damage.ts'
import { dueAt, roundOf } from './states.ts'
import { takeAlong } from './take.ts'

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

describe('what breaks', () => {
  const ran = (id: string, startsOn: string) => event({ id, name: id, startsOn, days: 1 })
  const own = (marks: readonly ReturnType<typeof mark>[], events = 4) =>
    records((all) => {
      all.checks.push(check({ id: 'lip', name: 'Front lip' }), check({ id: 'fan', name: 'Fan' }))
      for (let i = 0; i < events; i++) all.events.push(ran(`r${i}`, `2026-0${i + 1}-10`))
      all.marks.push(...marks)
    })
  const broke = (id: string, on: string, damage: object = {}) => mark(id, on, 'damage', { damage: { isMakeDo: true, hours: null, cost: null, ...damage } })
  it('is counted over the events that were run, with what it took; spares do in nine of ten', () => {
    const seen = damageSeen(
      own([broke('lip', '2026-01-10', { hours: 1.5, cost: 40 }), broke('lip', '2026-03-10', { hours: 0.5 }), broke('fan', '2026-02-10')]),
      TODAY,
    )
    // Two in four events: Poisson of .5, at most 1 in .9098 (closed form 1.5 exp(-.5)).
    expect(seen.map(({ check: { id }, count, perEvent, spares, hours, cost }) => [id, count, perEvent, spares, hours, cost])).toEqual([
      ['lip', 2, 0.5, 1, 2, 40],
      ['fan', 1, 0.25, 1, 0, 0],
    ])
  })
  test.each([
    ['mended for now', [broke('lip', '2026-01-10')], true],
    ['mended for good', [broke('lip', '2026-01-10', { isMakeDo: false })], false],
    ['in order since', [broke('lip', '2026-01-10'), mark('lip', '2026-02-10', 'ok')], false],
    ['broken again', [broke('lip', '2026-01-10', { isMakeDo: false }), broke('lip', '2026-02-10')], true],
  ] as const)('%s', (_, marks, isMakeDo) => {
    const all = own(marks)
    expect(damageSeen(all, TODAY)[0]?.isMakeDo).toBe(isMakeDo)
    expect(dueAt(all, asked).find(({ check: { id } }) => id === 'lip')?.reason).toBe(isMakeDo ? 'bad' : undefined)
  })
  it('has no rate before anything was run, and packs what broke as a spare', () => {
    const none = own([broke('lip', '2026-01-10')], 0)
    expect(damageSeen(none, TODAY)[0]).toMatchObject({ perEvent: null, spares: 0 })
    expect(takeAlong(none, asked).items).toEqual([])
    const { items } = takeAlong(own([broke('lip', '2026-01-10')]), asked)
    expect(items.map(({ name, why, count }) => [name, why, count])).toEqual([['Front lip', 'spare', 1]])
  })
})
