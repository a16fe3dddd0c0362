import { describe, expect, it, test } from 'vitest'
import { changed } from '../../test/worked-example.ts'
import { makeBoard } from '../board/board.ts'
import { makeRules } from '../board/rule-readings.ts'
import { decisionKind } from '../records/decision-kind.ts'
import { partKind } from '../records/part-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import { ruleBookKind } from '../records/rule-kinds.ts'
import { handKind, taskKind } from '../records/workshop-kinds.ts'
import { makeJobsRoom } from '../rooms/jobs/jobs-room.ts'
import { roadOf } from '../rooms/jobs/road-of-car.ts'
import { makeWeightRoom } from '../rooms/weight/weight-room.ts'
import { openCar } from '../stages/car.ts'
import { z } from '../zod.ts'
import { buildStory } from './build-story.ts'
import { shownOn } from './shown-on.ts'
import { techSheet } from './tech-sheet.ts'
import { tickList, workOrder } from './tick-list.ts'

const TODAY = '2026-11-01'
type Kind = { fields: Parameters<typeof z.object>[0] }
const made = (kind: Kind, rows: object[]) => rows.map((row) => z.object(kind.fields).parse(row) as never)

const RULES = [
  { key: 'mass', text: 'Least mass', from: '3.1, p. 6', sense: 'atLeast', metric: 'massReady', value: 1200 },
  { key: 'wing', text: 'Wing level with the roof', sense: 'atMost', metric: 'wingOverRoof', value: 0 },
  { key: 'cell', text: 'A fuel cell', from: '6.3', sense: 'must' },
]
const task = (id: string, more: object = {}) => ({ id, stageId: 's2', position: 0, name: id, guessH: 4, ...more })

const records = (more: (all: BuildRecords) => void = () => undefined): BuildRecords =>
  changed((all) => {
    all.ruleBooks.push(...made(ruleBookKind, [{ id: 'open', name: 'Open', edition: '2027', rules: RULES }]))
    Object.assign(all.stages[0] as object, { ruleBookId: 'open' })
    all.hands.push(...made(handKind, [{ id: 'i', name: 'Ilse', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0] }]))
    more(all)
  })

const storyOf = (all: BuildRecords) => {
  const car = openCar(all)
  return buildStory(all, makeBoard(car, TODAY), makeWeightRoom(car), makeJobsRoom(car, TODAY))
}

describe('the day a number was read on', () => {
  it('is that of the latest measurement at the stage, else at the latest one before it', () => {
    const all = records((each) => {
      const [first] = each.weighings
      each.weighings.push({ ...(first as (typeof each.weighings)[number]), id: 'again', at: '2027-01-05T09:00:00Z' })
    })
    const at = all.stages.findIndex(({ id }) => id === all.weighings[0]?.stageId)
    expect(shownOn(all, 'massReady', at)).toEqual(['2027-01-05'])
    expect(shownOn(all, 'massReady', all.stages.length - 1)).not.toEqual([])
    // A later stage's weighing says nothing of an earlier one.
    const before = all.weighings.filter(({ stageId }) => all.stages.find(({ id }) => id === stageId)?.position === 0)
    expect(shownOn(all, 'massReady', 0).length).toBe(before.length > 0 ? 1 : 0)
  })
  it('of a number that rests on two bases are both, and of one that nothing proves none', () => {
    const all = records()
    const last = all.stages.length - 1
    expect(shownOn(all, 'powerToMass', last)).toEqual([...new Set([...shownOn(all, 'massReady', last), ...shownOn(all, 'wheelPower', last)])].sort())
    expect(shownOn(all, 'driveHeadroom', last)).toEqual([])
    expect(shownOn(all, 'wingOverRoof', last)).toEqual([])
  })
})

describe('a tech sheet', () => {
  it('holds every rule, shows a reading with its day, and says what is not shown', () => {
    const all = records()
    const car = openCar(all)
    const sheet = techSheet(all, makeRules(car), 'open', 0)
    expect(sheet?.rows.map(({ rule, shows }) => [rule.key, shows])).toEqual([
      ['mass', 'reading'],
      ['wing', 'nothing'],
      ['cell', 'look'],
    ])
    expect(sheet?.rows[0]?.readOn).toEqual(['2026-02-02'])
    expect(sheet?.readCount).toBe(1)
    expect(sheet?.notShown.map(({ rule }) => rule.key)).toEqual(['wing'])
  })
  it('takes no planned number for a reading, and gives it no day', () => {
    const all = records((each) => {
      each.weighings.length = 0
    })
    const sheet = techSheet(all, makeRules(openCar(all)), 'open', 1)
    expect(sheet?.rows.every(({ shows }) => shows !== 'reading')).toBe(true)
    expect(sheet?.rows.flatMap(({ readOn }) => readOn)).toEqual([])
    expect(sheet?.readCount).toBe(0)
  })
  test.each([
    ['a book that is not there', 'none', 1],
    ['a stage that is not there', 'open', 99],
  ])('of %s there is none', (_, id, position) => {
    const all = records()
    expect(techSheet(all, makeRules(openCar(all)), id, position)).toBeUndefined()
  })
})

describe('the story of a build', () => {
  it('has a chapter a stage, whose masses are those of the Board and whose lines are those of the ledger', () => {
    const all = records()
    const board = makeBoard(openCar(all), TODAY)
    const story = storyOf(all)
    expect(story.map(({ id }) => id)).toEqual(board.stages.map(({ id }) => id))
    for (const { position, figures, lines, offKg, onKg, id } of story) {
      const cell = board.rows.find(({ metric }) => metric === 'massReady')?.cells[position]
      expect(figures.find(({ metric }) => metric === 'massReady')?.cell).toEqual(cell ?? undefined)
      expect(lines.map((line) => line.id)).toEqual(all.changes.filter((line) => line.stageId === id && line.state !== 'dropped').map((line) => line.id))
      const done = lines.filter(({ isDone }) => isDone).reduce((sum, { massKg }) => sum + (massKg ?? 0), 0)
      expect(onKg - offKg).toBeCloseTo(done, 9)
    }
  })
  it('changes add up from the first stage to the last', () => {
    const masses = storyOf(records()).flatMap(({ figures }) => figures.filter(({ metric }) => metric === 'massReady'))
    const sum = masses.reduce((total, { change }) => total + (change ?? 0), 0)
    expect(sum).toBeCloseTo((masses.at(-1)?.cell.value ?? 0) - (masses[0]?.cell.value ?? 0), 9)
  })
  it('tells what was decided and why, what is here and not what is wished for, and hours of done jobs', () => {
    const story = storyOf(
      records((all) => {
        all.decisions.push(
          ...made(decisionKind, [
            { id: 'd', question: 'Where does the cooler go?', stageId: 's1', options: [{ name: 'front' }], chosen: 'front', reason: 'least mass' },
            { id: 'open', question: 'Which gearbox?', stageId: 's1', options: [{ name: 'six' }] },
          ]),
        )
        all.parts.push(
          ...made(partKind, [
            { id: 'p1', kind: 'cooler', name: 'core', stageId: 's1', status: 'here', cost: 620 },
            { id: 'p2', kind: 'cooler', name: 'other core', stageId: 's1', status: 'wanted', cost: 900 },
          ]),
        )
        all.tasks.push(
          ...made(taskKind, [
            task('done', { stageId: 's1', state: 'done', worked: [{ on: '2026-10-01', hours: 2.5 }], doneAt: '2026-10-01T20:00:00Z' }),
            task('open', { stageId: 's1' }),
            task('dropped', { stageId: 's1', state: 'dropped' }),
          ]),
        )
      }),
    )
    const chapter = story.find(({ id }) => id === 's1')
    expect(chapter?.decisions).toEqual([{ id: 'd', question: 'Where does the cooler go?', chosen: 'front', reason: 'least mass', decidedOn: null }])
    expect(chapter?.parts.map(({ name }) => name)).toEqual(['core'])
    expect(chapter?.jobs).toEqual({ done: 1, open: 1, hours: 2.5 })
    expect([chapter?.paid, chapter?.planned]).toEqual([620, 900])
  })
})

describe('what is ticked', () => {
  const all = records((each) => {
    each.hands.push(...made(handKind, [{ id: 't', name: 'Tomas', hoursByWeekday: [0, 0, 3, 0, 0, 6, 0] }]))
    each.parts.push(
      ...made(partKind, [
        { id: 'core', kind: 'cooler', name: 'core', stageId: 's1', status: 'ordered', ratings: [{ of: 'boost', limit: 180_000, known: 'catalogue' }] },
        { id: 'box', kind: 'gearbox', name: 'box', stageId: 's2', status: 'wanted' },
        { id: 'here', kind: 'cooler', name: 'hose', stageId: 's1', status: 'here' },
      ]),
    )
    each.tasks.push(
      ...made(taskKind, [
        task('fit core', { stageId: 's1', whoIds: ['i'], partIds: ['core'] }),
        task('both', { stageId: 's1', position: 1, whoIds: ['i', 't'], changeIds: [] }),
        task('sweep', { stageId: 's1', position: 2 }),
        task('later', { stageId: 's2' }),
        task('done', { stageId: 's1', state: 'done', doneAt: '2026-10-01T20:00:00Z' }),
      ]),
    )
  })
  it('are open jobs up to the stage by hand, anyone last, parts on their way to it, and rules in words', () => {
    const { jobsByHand, parts, rules } = tickList(all, makeRules(openCar(all)), 1)
    expect(jobsByHand.map(({ name, jobs }) => [name, jobs.map((job) => job.name)])).toEqual([
      ['Ilse', ['fit core']],
      ['Ilse and Tomas', ['both']],
      ['Anyone', ['sweep']],
    ])
    expect(parts.map(({ name }) => name)).toEqual(['core'])
    expect(rules.map(({ key }) => key)).toEqual(['cell'])
  })
  it('and of the last stage everything that is open', () => {
    const list = tickList(all, makeRules(openCar(all)), 2)
    expect(list.jobsByHand.flatMap(({ jobs }) => jobs)).toHaveLength(4)
    expect(list.parts.map(({ name }) => name)).toEqual(['core', 'box'])
  })
  it('an order names what goes along, what it has to take, and the day of the stage', () => {
    const order = workOrder(all, 'fit core', roadOf(openCar(all), TODAY).deadlines)
    expect(order?.parts.map(({ name }) => name)).toEqual(['core'])
    expect(order?.ratings.map(({ partId, word }) => [partId, word])).toEqual([['core', 'boost above the air']])
    expect(order?.wantedOn).toBe(all.stages[1]?.date ?? null)
    expect(workOrder(all, 'none', [])).toBeUndefined()
  })
})
