import { describe, expect, it, test } from 'vitest'
import { limit, target } from '../../test/goals.ts'
import { changed, workedExample } from '../../test/worked-example.ts'
import type { BuildRecords } from '../records/records.ts'
import { openCar } from '../stages/car.ts'
import { makeBoard } from './board.ts'
import { stageState } from './stage-state.ts'
import { chanceOf, StageValues, satisfies } from './stage-values.ts'
import { limitVerdict, targetVerdict } from './verdict.ts'

const TODAY = '2026-04-02'
const values = (records: BuildRecords = workedExample()) => new StageValues(openCar(records))

/** Stage 1 done in full, so that W1 measures it: 1,450.3 kg. */
const strippedAndWeighed = () =>
  changed((records) => {
    for (const change of records.changes) if (change.stageId === 's1') Object.assign(change, { state: 'done', doneAt: '2026-03-01T10:00:00Z' })
  })

describe('goals', () => {
  test.each([
    ['atMost', 10, null, 10, true],
    ['atMost', 10, null, 10.1, false],
    ['atLeast', 10, null, 9.9, false],
    ['between', 10, 12, 11, true],
    ['between', 10, 12, 12.1, false],
  ] as const)('%s %d %s of %d', (sense, value, highValue, found, expected) => {
    expect(satisfies({ sense, value, highValue }, found)).toBe(expected)
  })
  it('shares out all chance between below, between and above', () => {
    const distribution = { shape: 'normal', floor: 0, mean: 11, sd: 2 } as const
    const parts = [
      chanceOf({ sense: 'atMost', value: 10 }, distribution),
      chanceOf({ sense: 'between', value: 10, highValue: 12 }, distribution),
      chanceOf({ sense: 'atLeast', value: 12 }, distribution),
    ]
    expect(parts.reduce((sum, part) => sum + part)).toBeCloseTo(1, 12)
  })
})

describe('verdict of a target', () => {
  test.each([
    ['met when measured', { value: 1460 }, 'met', false],
    ['met within doubt', { value: 1453.5 }, 'met', true],
    ['missed when measured', { value: 1440 }, 'missed', false],
  ] as const)('%s', (_, more, word, withinDoubt) => {
    expect(targetVerdict(values(), target(more), TODAY)).toMatchObject({ word, withinDoubt })
  })
  it('looks at the latest measured stage from the due one on, and says since when it is missed again', () => {
    const records = strippedAndWeighed()
    const atLeast = target({ sense: 'atLeast', value: 1452 })
    expect(targetVerdict(values(records), atLeast, TODAY)).toMatchObject({ word: 'missed', verdictPosition: 1, missedSincePosition: 1 })
  })
  it('never gives a verdict from a stage before the due one', () => {
    expect(targetVerdict(values(), target({ dueStageId: 's2', value: 1600 }), TODAY)).toMatchObject({ word: 'on course', verdictPosition: 2 })
    expect(targetVerdict(values(), target({ dueStageId: 's2', value: 1400 }), TODAY)).toMatchObject({ word: 'unlikely' })
  })
  it('plans a front share from the last weighing, and has none where there was no weighing', () => {
    const share = target({ metric: 'frontShare', sense: 'between', value: 0.5, highValue: 0.55, dueStageId: 's2' })
    expect(targetVerdict(values(), share, TODAY)?.word).toBe('on course')
    const unweighed = values(changed((all) => all.weighings.splice(0)))
    expect(targetVerdict(unweighed, share, TODAY)?.word).toBe('no plan')
  })
})

describe('verdict of a limit', () => {
  test.each([
    ['holds by the surest measured stage', { value: 1200, fromStageId: 's0' }, 'holds'],
    ['would hold where nothing is measured', { value: 1200, fromStageId: 's2' }, 'would hold'],
    ['broken by the scales', { value: 1460, fromStageId: 's0' }, 'broken'],
    ['would break at a planned stage', { value: 1456, fromStageId: 's2' }, 'would break'],
  ] as const)('%s', (_, more, word) => {
    expect(limitVerdict(values(), limit(more))?.word).toBe(word)
  })
  it('holds where every stage it covers is measured', () => {
    const records = strippedAndWeighed()
    Object.assign(records, { stages: records.stages.slice(0, 2), changes: records.changes.slice(0, 5) })
    expect(limitVerdict(values(records), limit({}))?.word).toBe('holds')
  })
})

describe('state of a stage', () => {
  it('goes from planned over underway and built to proven', () => {
    const state = (records: BuildRecords, position: number) => stageState(values(records), position, TODAY).state
    expect(state(workedExample(), 0)).toBe('proven')
    expect(state(workedExample(), 1)).toBe('underway')
    expect(state(workedExample(), 2)).toBe('planned')
    expect(state(strippedAndWeighed(), 1)).toBe('proven')
    const unweighed = strippedAndWeighed()
    unweighed.weighings = unweighed.weighings.slice(0, 1)
    expect(state(unweighed, 1)).toBe('built')
  })
  it('marks dates out of order and late', () => {
    const records = changed((all) => {
      for (const [i, date] of ['2026-02-01', '2026-05-01', '2026-03-01'].entries()) Object.assign(all.stages[i] ?? {}, { date })
    })
    expect(stageState(values(records), 2, TODAY)).toMatchObject({ isDateOutOfOrder: true, isLate: true })
    expect(stageState(values(records), 1, TODAY)).toMatchObject({ isDateOutOfOrder: false, isLate: false })
  })
})

describe('the Board', () => {
  it('has a row for each goal and for each base metric without one', () => {
    const { rows } = makeBoard(openCar(workedExample()), TODAY)
    expect(rows.map((row) => [row.metric, row.goal.kind])).toEqual([
      ['massReady', 'target'],
      ['wheelPower', 'none'],
      ['powerToMass', 'none'],
    ])
  })
  test.each([
    ['no mass at all', (all: BuildRecords) => Object.assign(all, { weighings: [] }), 'no-mass'],
    ['a limit that is broken', (all: BuildRecords) => all.limits.push(limit({ value: 1460 })), 'limit-broken'],
    ['a limit that would break', (all: BuildRecords) => all.limits.push(limit({ value: 1456, fromStageId: 's2' })), 'limit-would-break'],
    [
      'a target without a measurement',
      (all: BuildRecords) => Object.assign(all, { sessions: [], targets: [target({ metric: 'wheelPower' })] }),
      'measure-target',
    ],
    ['a guess that carries the doubt', () => {}, 'weigh-part'],
    ['power touched and nothing expected', (all: BuildRecords) => Object.assign(all.changes[5] ?? {}, { touchesPower: true }), 'power-without-expectation'],
    [
      'a part weighed twice with other results',
      (all: BuildRecords) => all.changes[0]?.values.push({ massKg: 21, sdKg: null, proof: 'measured', at: '2026-03-05T10:00:00Z', instrument: null }),
      'part-weighings-disagree',
    ],
  ] as const)('says what next for %s', (_, edit, code) => {
    expect(makeBoard(openCar(changed((all) => void edit(all))), TODAY).next.map((action) => action.code)).toContain(code)
  })
  it('says that scales and ledger disagree when nothing explains it', () => {
    const records = strippedAndWeighed()
    for (const change of records.changes) for (const value of change.values) Object.assign(value, { proof: 'measured' })
    const pad = records.weighings[1]?.pads.LF
    if (pad) pad.massKg -= 30
    expect(makeBoard(openCar(records), TODAY).next[0]?.code).toBe('scales-and-ledger-disagree')
  })
  it('keeps standing when one stage cannot be', () => {
    const broken = changed((all) => {
      const value = all.changes[5]?.values[0]
      if (value) Object.assign(value, { massKg: 4000 })
    })
    const board = makeBoard(openCar(broken), TODAY)
    expect(board.problems[0]).toMatch(/Stage 2.*More comes off/)
    expect(board.rows[0]?.cells.map((cell) => cell === null)).toEqual([false, false, true])
  })
})
