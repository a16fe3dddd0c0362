import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { workedExample } from '../../../test/worked-example.ts'
import type { Row } from '../../records/define-record.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { movedByPerson } from './moved-by-person.ts'
import { type LiveLists, type MovedLine, type MovedPair, putBack } from './put-back.ts'
import { kindOfLine, MOST_SPELLS, spellsOf } from './spells.ts'
import { whatMoved } from './what-moved.ts'

const minute = (n: number) => new Date(Date.parse('2026-11-25T09:00:00Z') + n * 60_000).toISOString()

/** A build with a log: each write is a line, as the server keeps it. */
class Logged {
  lists: LiveLists
  readonly lines: MovedLine[] = []
  private id: number

  constructor(lists: object, firstId = 411) {
    this.lists = lists as LiveLists
    this.id = firstId
  }

  row = (list: string, id: string) => (this.lists[list] as Row[]).find((each) => each.id === id) ?? null

  write(by: string, atMinute: number, resource: string, id: string, change: Row | null): this {
    const before = this.row(resource, id)
    const after = change === null ? { ...(before as Row), deletedAt: minute(atMinute) } : { ...(before ?? {}), ...change, id }
    const rows = (this.lists[resource] as Row[]).filter((each) => each.id !== id)
    this.lists = { ...this.lists, [resource]: change === null ? rows : [...rows, after] }
    const pair: MovedPair = { resource, before, after }
    this.lines.push({ id: this.id++, at: minute(atMinute), by, undoes: null, pairs: [pair] })
    return this
  }
}

// The worked example of the rules (invented numbers).
const value = (massKg: number, proof: string) => [{ massKg, proof, sdKg: null, at: minute(0) }]
const pad = { massKg: 327.15, sdKg: 0.5 }
const line = (id: string, kind: string, massKg: number, proof: string) => ({
  id,
  stageId: 's2',
  kind,
  name: id,
  values: value(massKg, proof),
  state: 'planned',
})
const example = () =>
  new Logged(
    buildRecordsSchema.parse({
      build: { ...workedExample().build, reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 } },
      stages: [
        { id: 's0', position: 0, name: 'As bought' },
        { id: 's1', position: 1, name: 'Strip' },
        { id: 's2', position: 2, name: 'Floor and wing' },
      ],
      targets: [{ id: 't', metric: 'massReady', sense: 'atMost', value: 1326, dueStageId: 's2' }],
      changes: [
        line('bonnet', 'off', 26.3, 'measured'),
        line('cooler', 'on', 8.6, 'catalogue'),
        line('floor', 'on', 19, 'guess'),
        line('wing', 'on', 9, 'guess'),
      ],
      weighings: [{ id: 'w', stageId: 's1', at: '2026-05-02T10:00:00Z', pads: { LF: pad, RF: pad, LR: pad, RR: pad }, driverInKg: 82, fuelL: 24, fuelSdL: 1 }],
    }),
  )
    .write('Tomas', 0, 'changes', 'floor', { id: 'floor', values: [...value(19, 'guess'), ...value(22.4, 'measured')] })
    .write('Tomas', 4, 'changes', 'wing', { id: 'wing', values: [...value(9, 'guess'), ...value(9.6, 'measured')] })
    .write('Wen', 30, 'changes', 'struts', line('struts', 'on', 7.4, 'catalogue'))
    .write('Wen', 33, 'targets', 't', { id: 't', value: 1330 })
    .write('Ilse', 60, 'changes', 'glass', line('glass', 'off', 6, 'guess'))
    .write('Ilse', 62, 'changes', 'glass', null)
const ASKED = { metric: 'massReady', stageId: 's2', today: '2026-11-28' } as const
const close = (number: number) => expect.closeTo(number, 4)

describe('what moved the mass, as worked by hand', () => {
  const { lists, lines } = example()
  const moved = whatMoved(lists, lines, ASKED)
  it('before, and behind each spell: number, spread, chance, step', () => {
    expect([moved.before.value, moved.before.sd, moved.before.verdict]).toEqual([
      close(1315.2088),
      close(4.3935),
      { word: 'on course', chance: expect.closeTo(0.987, 3) },
    ])
    expect(moved.spells.map(({ by, firstId, lastId, step, after }) => [by, firstId, lastId, step, after.value, after.sd])).toEqual([
      ['Tomas', 411, 412, close(2.7112), close(1317.92), close(1.3341)],
      ['Wen', 413, 413, close(7.4), close(1325.32), close(1.3844)],
      ['Wen', 414, 414, close(0), close(1325.32), close(1.3844)],
      ['Ilse', 415, 416, close(0), close(1325.32), close(1.3844)],
    ])
    expect(moved.spells.map(({ after }) => [after.verdict?.word, after.verdict?.chance])).toEqual([
      ['on course', close(1)],
      ['doubtful', close(0.6883)],
      ['on course', close(0.9996)],
      ['on course', close(0.9996)],
    ])
  })
  it('a goal that moved is no step, and its old verdict is said; what was taken back is folded', () => {
    expect(moved.spells.map(({ movesGoal, isFolded, items }) => [movesGoal, isFolded, items.length])).toEqual([
      [false, false, 2],
      [false, false, 1],
      [true, false, 1],
      [false, true, 0],
    ])
    expect(moved.spells[2]?.verdictWithOldGoal).toEqual({ word: 'doubtful', chance: close(0.6883) })
    expect(moved.nowWithOldGoal?.word).toBe('doubtful')
    expect(moved.goals).toEqual([
      {
        id: 't',
        metric: 'massReady',
        before: expect.objectContaining({ word: 'on course' }),
        now: expect.objectContaining({ word: 'on course' }),
        withOldGoal: expect.objectContaining({ word: 'doubtful' }),
      },
    ])
  })
  it('each person’s steps in all, the most first, and who moved the goal', () => {
    expect(movedByPerson(moved.spells).map(({ by, step, lineCount, movedGoal }) => [by, step, lineCount, movedGoal])).toEqual([
      ['Wen', close(7.4), 2, true],
      ['Tomas', close(2.7112), 2, false],
      ['Ilse', close(0), 2, false],
    ])
    const step = (by: string, own: number | null) => ({ by, step: own, lineCount: 1, movesGoal: false })
    expect(movedByPerson([step('Wen', 2), step('Wen', null)])).toEqual([{ by: 'Wen', step: 2, isKnown: false, lineCount: 2, movedGoal: false }])
  })
  it('says what was done to each record', () => {
    expect(moved.spells[0]?.items.map(({ name, did, massKg }) => [name, did, massKg])).toEqual([
      ['floor', 'weighed', { before: 19, after: 22.4 }],
      ['wing', 'weighed', { before: 9, after: 9.6 }],
    ])
    expect(moved.spells[1]?.items[0]).toMatchObject({ name: 'struts', did: 'added', massKg: null })
    expect(moved.spells[2]?.items[0]).toMatchObject({ did: 'changed', goal: { before: 1326, after: 1330 } })
  })
  it('the middle of a spell stands as it did: Tomas with one part weighed', () => {
    const half = whatMoved(lists, lines.slice(1), ASKED, false)
    expect([half.before.value, half.before.sd]).toEqual([close(1317.7343), close(2.114)])
    expect(half.spells).toEqual([])
  })
  it('both ends alone are those of the whole', () => {
    const { before, now, goals } = whatMoved(lists, lines, ASKED, false)
    expect({ before, now, goals }).toEqual({ before: moved.before, now: moved.now, goals: moved.goals })
  })
})

test.each([
  ['a stage that was not there', (all: Logged) => all.write('Wen', 70, 'stages', 's3', { id: 's3', position: 3, name: 'Later' }), 's3'],
  ['no weighing then', (all: Logged) => all, 's0'],
])('a number that nobody could know then is none: %s', (_, edit, stageId) => {
  const all = edit(example())
  const { before, spells } = whatMoved(all.lists, all.lines, { ...ASKED, stageId })
  expect(before.value).toBeNull()
  expect(spells.every(({ step }) => step === null || step === 0)).toBe(true)
})

test.each([
  ['a weighing', 'weighings', null, { id: 'w' }, 'masses'],
  ['a place of a line', 'changes', { id: 'c', place: null, name: 'c' }, { id: 'c', place: { xM: 1 }, name: 'c' }, 'places'],
  ['a line renamed and moved', 'changes', { id: 'c', place: null, name: 'c' }, { id: 'c', place: { xM: 1 }, name: 'd' }, 'masses'],
  ['the mass of a part', 'parts', { id: 'p', mass: null }, { id: 'p', mass: { massKg: 2 } }, 'masses'],
  ['the price of a part', 'parts', { id: 'p', cost: 1 }, { id: 'p', cost: 2 }, 'other'],
  ['a pull', 'pulls', null, { id: 'p' }, 'power'],
  ['a limit', 'limits', null, { id: 'l' }, 'goals'],
  ['a check', 'checks', null, { id: 'k' }, 'other'],
  ['the build', 'builds', { id: 'b' }, { id: 'b' }, 'other'],
] as const)('%s is of the right kind', (_, resource, before, after, kind) => {
  expect(kindOfLine({ pairs: [{ resource, before, after }] })).toBe(kind)
})

describe('spells', () => {
  const at = (id: number, minutes: number, by: string, resource = 'changes'): MovedLine => ({
    id,
    at: minute(minutes),
    by,
    undoes: null,
    pairs: [{ resource, before: null, after: { id: `r${id}` } }],
  })
  it('end with a pause of more than 15 minutes, another person or another kind', () => {
    const lines = [at(1, 0, 'Ilse'), at(2, 15, 'Ilse'), at(3, 31, 'Ilse'), at(4, 32, 'Wen'), at(5, 33, 'Wen', 'targets')]
    expect(spellsOf(lines).map((spell) => spell.lines.map(({ id }) => id))).toEqual([[1, 2], [3], [4], [5]])
  })
  it('are 40 at most: earlier ones are joined, and no line is lost', () => {
    const lines = Array.from({ length: 60 }, (_, i) => at(i, 20 * i, i % 2 ? 'Wen' : 'Ilse'))
    const spells = spellsOf(lines)
    expect([spells.length, spells[0]?.lines.length, spells[0]?.by]).toEqual([MOST_SPELLS, 21, 'Ilse, Wen'])
    expect(spells.flatMap((spell) => spell.lines)).toEqual(lines)
  })
})

describe('of any log', () => {
  const did = fc.record({
    of: fc.constantFrom('bonnet', 'cooler', 'floor', 'wing', 'struts', 'glass'),
    massKg: fc.double({ min: 0.5, max: 60, noNaN: true }),
    proof: fc.constantFrom('guess', 'catalogue', 'measured'),
    by: fc.constantFrom('Ilse', 'Wen'),
    pause: fc.integer({ min: 1, max: 40 }),
    isGone: fc.boolean(),
    goal: fc.option(fc.integer({ min: 1280, max: 1360 }), { nil: null }),
  })
  const history = fc.array(did, { minLength: 1, maxLength: 12 })
  const played = (list: readonly (typeof did extends fc.Arbitrary<infer Each> ? Each : never)[]) => {
    const all = example()
    const start = { lists: all.lists, count: all.lines.length }
    let now = 100
    for (const { of, massKg, proof, by, pause, isGone, goal } of list) {
      now += pause
      if (goal !== null) all.write(by, now, 'targets', 't', { id: 't', value: goal })
      else if (isGone && all.row('changes', of)) all.write(by, now, 'changes', of, null)
      else all.write(by, now, 'changes', of, line(of, of === 'bonnet' || of === 'glass' ? 'off' : 'on', massKg, proof))
    }
    return { all, start }
  }
  it('the steps sum to now less before', () => {
    fc.assert(
      fc.property(history, (list) => {
        const { all } = played(list)
        const { before, now, spells } = whatMoved(all.lists, all.lines, ASKED)
        const sum = spells.reduce((total, { step }) => total + (step ?? Number.NaN), 0)
        expect(sum).toBeCloseTo((now.value ?? 0) - (before.value ?? 0), 6)
        expect(spells.at(-1)?.after).toEqual(now)
      }),
      { numRuns: 60 },
    )
  })
  it('putting back every line gives the records as they were', () => {
    fc.assert(
      fc.property(history, (list) => {
        const { all, start } = played(list)
        const lists = all.lines.slice(start.count).reduceRight<LiveLists | null>((at, each) => at && putBack(at, each), all.lists)
        const rows = (of: LiveLists | null, name: string) => [...((of?.[name] ?? []) as Row[])].sort((a, b) => (String(a.id) < String(b.id) ? -1 : 1))
        for (const name of ['changes', 'targets']) expect(rows(lists, name)).toEqual(rows(start.lists, name))
      }),
    )
  })
  it('a build that was not there yet is none', () => {
    const { lists } = example()
    expect(putBack(lists, { pairs: [{ resource: 'builds', before: null, after: lists.build }] })).toBeNull()
  })
})
