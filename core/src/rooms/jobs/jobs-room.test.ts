import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { costWorth, forecastCost } from '../../jobs/cost.ts'
import { USUAL_OPTIMISM } from '../../jobs/optimism.ts'
import { summariseRoad } from '../../jobs/summary.ts'
import { partKind } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { eventKind, handKind, taskKind } from '../../records/workshop-kinds.ts'
import { type Car, openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { makeJobsRoom, stageRoads } from './jobs-room.ts'
import { moneyToStage } from './money.ts'
import { realPairsOf, workedHours } from './real-pairs.ts'
import { roadOf } from './road-of-car.ts'

const TODAY = '2027-03-01'
const made = <Kind extends { fields: Parameters<typeof z.object>[0] }>(kind: Kind, rows: object[]) =>
  rows.map((row) => z.object(kind.fields).parse(row) as never)
const task = (id: string, more: object = {}) => ({ id, stageId: 's2', position: 0, name: id, guessH: 4, ...more })
const part = (id: string, more: object = {}) => ({ id, kind: id, name: id, stageId: 's2', ...more })

function carWith(lists: { tasks?: object[]; hands?: object[]; events?: object[]; parts?: object[]; build?: object }, laterRoad?: 'now'): Car {
  const records = changed((all: BuildRecords) => {
    all.tasks.push(...made(taskKind, lists.tasks ?? []))
    all.hands.push(...made(handKind, lists.hands ?? []))
    all.events.push(...made(eventKind, lists.events ?? []))
    all.parts.push(...made(partKind, lists.parts ?? []))
    Object.assign(all.build, lists.build ?? {})
  })
  return openCar(records, laterRoad ? { laterRoad: summariseRoad } : {})
}

describe('the road of a car', () => {
  it('lists open jobs by stage and place, whoever made them first', () => {
    const car = carWith({
      tasks: [
        task('c', { position: 3 }),
        task('a', { stageId: 's1', position: 9 }),
        task('b', { position: -2 }),
        task('x', { state: 'done' }),
        task('y', { state: 'dropped' }),
      ],
    })
    expect(roadOf(car, TODAY).road.jobs.map(({ id, stage }) => `${id} ${stage}`)).toEqual(['a 1', 'b 2', 'c 2'])
  })
  it('says that one person is assumed where nobody is listed', () => {
    const room = makeJobsRoom(carWith({ tasks: [task('a')] }), TODAY)
    expect([room.isHandAssumed, room.road.hands[0]?.hoursByWeekday]).toEqual([true, [0, 3, 0, 3, 0, 6, 0]])
    const own = carWith({ hands: [{ id: 'i', name: 'Ilse', hoursByWeekday: [1, 0, 0, 0, 0, 0, 0], away: [{ from: '2027-02-20', to: '2027-03-02' }] }] })
    expect(makeJobsRoom(own, TODAY).road.hands).toEqual([{ id: 'i', name: 'Ilse', hoursByWeekday: [1, 0, 0, 0, 0, 0, 0], away: [{ fromDay: -9, toDay: 1 }] }])
  })
  it('shares out the hours of those who work together, and takes those of others whole', () => {
    const worked = [
      { on: TODAY, handId: 'i', hours: 3 },
      { on: TODAY, handId: 't', hours: 3 },
      { on: TODAY, handId: 'w', hours: 1 },
      { on: TODAY, handId: null, hours: 2 },
    ]
    expect(workedHours({ worked, whoIds: ['i', 't'] })).toBe(6)
  })
  it('does without what a job names and is not there any more', () => {
    const [job] = roadOf(carWith({ tasks: [task('a', { whoIds: ['gone'], afterIds: ['gone'], partIds: ['gone'] })] }), TODAY).road.jobs
    expect([job?.handIds, job?.afterIds]).toEqual([[], []])
    expect(roadOf(carWith({ tasks: [task('a', { partIds: ['gone'] })] }), TODAY).road.parts).toEqual([])
  })
  test.each([
    ['by its typed lead', { leadDays: 10, orderedOn: '2027-02-22' }, 10, 7],
    ['by what was promised', { orderedOn: '2027-02-22', promisedOn: '2027-03-06' }, 12, 7],
    ['by the usual lead', {}, 14, null],
    ['to be ordered on a day to come', { leadDays: 5, orderedOn: '2027-03-04' }, 5, -3],
  ])('a part comes %s', (_, days, leadDays, orderedDaysAgo) => {
    const { parts } = roadOf(carWith({ tasks: [task('a', { partIds: ['p'] })], parts: [part('p', { status: 'ordered', ...days })] }), TODAY).road
    expect(parts).toEqual([{ id: 'p', name: 'p', leadDays, orderedDaysAgo }])
  })
  it('waits for no part that is here', () => {
    const parts = [part('here', { status: 'here' }), part('came', { status: 'ordered', cameOn: '2027-02-28' }), part('wanted')]
    const { road } = roadOf(carWith({ tasks: [task('a', { partIds: ['here', 'came', 'wanted'] })], parts }), TODAY)
    expect(road.parts.map(({ id }) => id)).toEqual(['wanted'])
  })
  it('takes the first coming event of a stage, or the day the car leaves for it, before the stage’s own date', () => {
    const event = (id: string, startsOn: string, more: object = {}) => ({ id, name: id, startsOn, stageId: 's2', ...more })
    const deadlines = (events: object[]) => roadOf(carWith({ events }), TODAY).deadlines.map(({ stage, day, name }) => [stage, day, name])
    expect(deadlines([event('late', '2027-04-30'), event('soon', '2027-03-27'), event('over', '2027-02-01')])).toEqual([[2, 26, 'soon']])
    expect(deadlines([event('soon', '2027-03-27', { leavesOn: '2027-03-25' })])).toEqual([[2, 24, 'soon']])
    expect(roadOf(carWith({ events: [event('soon', '2027-03-27', { leavesOn: '2027-03-25', days: 2 })] }), TODAY).road.gone).toEqual([
      { fromDay: 24, toDay: 27 },
    ])
    const dated = changed((all) => Object.assign(all.stages[2] as object, { date: '2027-05-08' }))
    expect(roadOf(openCar(dated), TODAY).deadlines).toEqual([{ stage: 2, day: 68, on: '2027-05-08', eventId: null, name: null }])
  })
  it('tells hours that stand on open lines which no job does', () => {
    const records = (tasks: object[]) =>
      changed((all) => {
        Object.assign(all.changes.find(({ id }) => id === 'c6') as object, { hours: 3 })
        all.tasks.push(...made(taskKind, tasks))
      })
    expect(makeJobsRoom(openCar(records([])), TODAY).hoursOnLines).toEqual([0, 0, 3])
    expect(makeJobsRoom(openCar(records([task('a', { changeIds: ['c6'] })])), TODAY).hoursOnLines).toEqual([0, 0, 0])
  })
})

describe('what Board and rail tell of a road', () => {
  const lists = { tasks: [task('a', { guessH: 10 })], events: [{ id: 'e', name: 'Test hour', startsOn: '2027-03-09', stageId: 's2' }] }
  it('is being worked out until somebody did, then says day and chance', () => {
    expect(stageRoads(carWith(lists), TODAY)).toBe('waiting')
    const roads = stageRoads(carWith(lists, 'now'), TODAY)
    expect(roads[2]).toMatchObject({ wantedOn: '2027-03-09', eventName: 'Test hour' })
    expect(makeBoard(carWith(lists, 'now'), TODAY).stages[2]?.road).toEqual(roads[2])
    expect(makeBoard(carWith(lists), TODAY).isWaiting).toBe(true)
  })
  it('asks for nothing where no job is open', () => {
    expect(stageRoads(carWith({ events: lists.events }), TODAY)).toEqual([])
    expect(makeBoard(carWith({ events: lists.events }), TODAY).isWaiting).toBeUndefined()
  })
  it('tells what is sooner missed than met, with what helps, and what has to be ordered', () => {
    const ordered = {
      ...lists,
      tasks: [task('a', { guessH: 10, partIds: ['p'] })],
      parts: [part('p', { leadDays: 3 })],
      hands: [{ id: 'i', name: 'Ilse', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0] }],
    }
    const { next } = makeBoard(carWith(ordered, 'now'), TODAY)
    expect(next.find(({ code }) => code === 'not-ready')).toMatchObject({
      position: 2,
      wantedOn: '2027-03-09',
      help: { text: 'p a week sooner' },
    })
    expect(next.find(({ code }) => code === 'order-part')).toMatchObject({ name: 'p' })
  })
})

describe('how guesses run', () => {
  it('is learned of done jobs, parts that came, and paid prices, each kind apart', () => {
    const car = carWith({
      tasks: [
        task('w', { guessH: 4, state: 'done', worked: [{ on: TODAY, hours: 6 }] }),
        task('scope', { guessH: 4, state: 'done', teaches: false, worked: [{ on: TODAY, hours: 9 }] }),
        task('dry', { kind: 'wait', guessH: null, guessDays: 2, realDays: 3, state: 'done' }),
        task('open', { worked: [{ on: TODAY, hours: 2 }] }),
      ],
      parts: [
        part('came', { leadDays: 10, orderedOn: '2027-02-01', cameOn: '2027-02-16', cost: 100, paid: 130 }),
        part('listed', { cost: 200, paid: 205, costKnown: 'catalogue' }),
      ],
    })
    expect(realPairsOf(car.records)).toEqual({
      work: [{ guess: 4, real: 6 }],
      wait: [{ guess: 2, real: 3 }],
      arrival: [{ guess: 10, real: 15 }],
      money: [{ guess: 100, real: 130 }],
    })
  })
  it('is learned of the garage too where the build says so', () => {
    const pairs = { work: Array.from({ length: 6 }, () => ({ guess: 1, real: 2 })), wait: [], arrival: [], money: [] }
    const records = (from: 'build' | 'garage') => changed((all) => Object.assign(all.build, { guessPairsFrom: from }))
    const median = (from: 'build' | 'garage') => makeJobsRoom(openCar(records(from), { garageRealPairs: pairs }), TODAY).optimism.work.median
    expect([median('build'), median('garage')]).toEqual([expect.closeTo(Math.exp(0.4), 9), expect.closeTo(2, 9)])
  })
})

describe('money', () => {
  // The worked example of the room, worked apart with scipy.
  it('comes to what the worked example says, with its chance', () => {
    const found = forecastCost({ paid: 1640, catalogue: [1180, 260], guesses: [900, 380], bias: USUAL_OPTIMISM.money, budget: 4800 })
    expect([found.mean, found.sd, found.chance]).toEqual([expect.closeTo(4532.85, 2), expect.closeTo(287.81, 2), expect.closeTo(0.8263, 4)])
  })
  it('prices a kilogram and a kilowatt of equal worth, and says what buys none', () => {
    const input = { cost: 620, hours: 0, hourWorth: 0, massKg: -14.6, powerW: 0, powerToMassWPerKg: 231.7, lapS: null }
    const found = costWorth(input)
    expect([found.perKg, found.perKw, found.perSecond]).toEqual([expect.closeTo(42.47, 2), expect.closeTo(183.28, 2), null])
    expect(costWorth({ ...input, massKg: 3 })).toMatchObject({ perKg: null, perKw: null })
    expect(costWorth({ ...input, hours: 10, hourWorth: 20 }).whole).toBe(820)
    expect(costWorth({ ...input, lapS: -0.5 }).perSecond).toBe(1240)
  })
  it('never grows surer of more: paying a guess its mean keeps the mean, and the spread falls', () => {
    const bias = USUAL_OPTIMISM.money
    const open = forecastCost({ paid: 0, catalogue: [], guesses: [900, 380], bias })
    const one = forecastCost({ paid: 900 * Math.exp(bias.mu + bias.s ** 2 / 2 + bias.v / 2), catalogue: [], guesses: [380], bias })
    expect(one.mean).toBeCloseTo(open.mean, 6)
    expect(one.sd).toBeLessThan(open.sd)
  })
  it('counts each thing once: paid before cost, a part here at its cost, its extras, no line that names a part, what was sold back', () => {
    const car = openCar(
      changed((all) => {
        all.parts.push(
          ...made(partKind, [
            part('drives', { stageId: 's1', cost: 500, paid: 540, status: 'here', extras: [{ name: 'oil', cost: 60 }] }),
            part('cooler', { cost: 300, costKnown: 'catalogue', status: 'ordered' }),
            part('dream', { stageId: null, cost: 9999 }),
          ]),
        )
        Object.assign(all.changes.find(({ id }) => id === 'c1') as object, { fate: { is: 'sold', words: null, back: 80 } })
        Object.assign(all.changes.find(({ id }) => id === 'c5') as object, { cost: 200 })
        Object.assign(all.changes.find(({ id }) => id === 'c4') as object, { cost: 70, partId: 'drives' })
        all.tasks.push(...made(taskKind, [task('weld', { cost: 100 })]))
        all.events.push(...made(eventKind, [{ id: 'e', name: 'hour', startsOn: '2027-03-27', stageId: 's2', paid: 150, cost: 90 }]))
      }),
    )
    expect(moneyToStage(car, 1)).toMatchObject({ paid: 540 + 60 - 80 + 200, planned: 0, sd: 0 })
    expect(moneyToStage(car, 2)).toMatchObject({ paid: 720 + 150, planned: 400, own: { paid: 150, planned: 400 } })
    // Of parts that are here extras came to 60 on 500; of the cooler nobody said.
    expect(moneyToStage(car, 2).extrasNobodyEntered).toBeCloseTo((60 / 500) * 300, 9)
  })
  it('is measured when all is paid, a guess when guesses carry the doubt, else calculated', () => {
    const cell = (parts: object[]) => {
      const { records } = carWith({ parts })
      records.targets.push({ id: 'm', metric: 'moneyToStage', sense: 'atMost', value: 5000, highValue: null, dueStageId: 's2' } as never)
      return makeBoard(openCar(records), TODAY).rows.find(({ metric }) => metric === 'moneyToStage')?.cells[2]
    }
    expect(cell([part('a', { cost: 100, paid: 120 })])).toMatchObject({ value: 120, proof: 'measured' })
    expect(cell([part('a', { cost: 100 })])).toMatchObject({ proof: 'guess' })
    expect(cell([part('a', { cost: 1000, costKnown: 'catalogue' }), part('b', { cost: 10 })])).toMatchObject({ proof: 'calculated' })
  })
})
