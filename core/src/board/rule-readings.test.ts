import { describe, expect, it, test } from 'vitest'
import { changed } from '../../test/worked-example.ts'
import type { BuildRecords } from '../records/records.ts'
import { ruleBookKind, ruleSchema } from '../records/rule-kinds.ts'
import { bookAtStage, bookLimits } from '../stages/book-limits.ts'
import { openCar } from '../stages/car.ts'
import { z } from '../zod.ts'
import { makeBoard } from './board.ts'
import { makeRules } from './rule-readings.ts'

const rule = (key: string, more: object) => ruleSchema.parse({ key, text: key, sense: 'atLeast', ...more })
const book = (id: string, rules: ReturnType<typeof rule>[]) => z.object(ruleBookKind.fields).parse({ id, name: id, rules })

/** The worked example, whose first book holds from the first stage on and whose second from the last. */
function carWith(first: ReturnType<typeof rule>[], second: ReturnType<typeof rule>[] | null = null, more: (all: BuildRecords) => void = () => undefined) {
  return openCar(
    changed((all) => {
      all.ruleBooks.push(book('one', first), ...(second ? [book('two', second)] : []))
      Object.assign(all.stages[0] as object, { ruleBookId: 'one' })
      if (second) Object.assign(all.stages[2] as object, { ruleBookId: 'two' })
      more(all)
    }),
  )
}

describe('which book a stage races by', () => {
  it('its own, else that of the stage before', () => {
    const car = carWith([], [])
    expect([0, 1, 2].map((position) => bookAtStage(car, position)?.id)).toEqual(['one', 'one', 'two'])
  })
})

describe('a rule against the car', () => {
  // The car at stage 1 weighs 1,469.1 kg with 80 kg of driver and 20 L at 0.745 kg/L.
  const MASS = 1469.1
  test.each([
    ['as the build counts it', null, MASS],
    ['with 5 L less', { driverIn: true, fuelL: 15 }, MASS - 5 * 0.745],
    ['without the driver', { driverIn: false, fuelL: null }, MASS - 80],
  ])('%s', (_, basis, value) => {
    const [standing] = makeRules(carWith([rule('mass', { metric: 'massReady', value: 1400, basis })])).stages[1]?.books[0]?.readings ?? []
    expect(standing?.value).toBeCloseTo(value, 1)
    expect(standing?.kgInHand).toBeCloseTo(value - 1400, 1)
  })
  it('is one verdict with the limit that it is at the reference', () => {
    for (const limit of [1380, 1390, 1400, 1460, 1470]) {
      const car = carWith([rule('mass', { metric: 'massReady', value: limit, basis: { driverIn: false, fuelL: 10 } })])
      const rules = makeRules(car)
      const row = makeBoard(car, '2026-04-02').rows.find(({ goal }) => goal.kind === 'limit')
      const worst = rules.stages.map(({ books }) => books[0]?.readings[0]?.word)
      const isKept = worst.every((word) => word === 'holds' || word === 'would hold')
      const verdict = row?.goal.kind === 'limit' ? row.goal.verdict?.word : undefined
      expect(verdict === 'holds' || verdict === 'would hold').toBe(isKept)
    }
  })
  it('in words is to be kept; one that nothing shows says so', () => {
    const [words, unseen] =
      makeRules(carWith([rule('cell', { sense: 'must' }), rule('wing', { metric: 'wingOverRoof', sense: 'atMost', value: 0 })])).stages[1]?.books[0]
        ?.readings ?? []
    expect([words?.word, unseen?.word, unseen?.problem]).toEqual(['to be kept', 'not shown', 'Nothing shows it at this stage.'])
  })
  it('mass over power is held with its modifiers, and says what is in hand both ways', () => {
    const ratio = rule('ratio', { metric: 'ruleRatio', value: 0.012, modifiers: [{ name: 'slicks', kgPerW: -0.0002 }] })
    const [standing] = makeRules(carWith([ratio])).stages[1]?.books[0]?.readings ?? []
    // 1,469.1 kg over 118 kW, less 0.2 kg/kW.
    expect(standing?.value).toBeCloseTo(1469.1 / 118_000 - 0.0002, 6)
    expect(standing?.kgInHand).toBeCloseTo(1469.1 - 0.0122 * 118_000, 0)
  })
  it('an average outside of the pulls is refused in words', () => {
    const average = { around: 'peak', offsetsRpm: [9000], pulls: 'mean' }
    const [standing] = makeRules(carWith([rule('ratio', { metric: 'ruleRatio', value: 0.012, average })])).stages[1]?.books[0]?.readings ?? []
    expect(standing).toMatchObject({ word: 'not shown', problem: expect.stringMatching(/the pulls end at/) })
  })
})

describe('rules as limits', () => {
  it('hold while their book does, from its first stage to its last', () => {
    const limits = bookLimits(carWith([rule('mass', { metric: 'massReady', value: 1400 })], [rule('mass', { metric: 'massReady', value: 1300 })]))
    expect(limits.map(({ value, fromStageId, untilStageId }) => [value, fromStageId, untilStageId])).toEqual([
      [1400, 's0', 's1'],
      [1300, 's2', 's2'],
    ])
  })
  it('stand back behind a typed limit that is as strict, and not behind a looser one', () => {
    const typed = (value: number) => (all: BuildRecords) =>
      void all.limits.push({
        id: 'l',
        metric: 'massReady',
        sense: 'atLeast',
        value,
        source: 'classRule',
        fromStageId: null,
        untilStageId: null,
        typed: null,
      } as never)
    const count = (value: number) => bookLimits(carWith([rule('mass', { metric: 'massReady', value: 1400 })], null, typed(value))).length
    expect([count(1399), count(1400), count(1450)]).toEqual([1, 0, 0])
  })
  it('of a range are two; rules in words are none', () => {
    const found = bookLimits(
      carWith([rule('share', { metric: 'frontShare', sense: 'between', value: 0.48, highValue: 0.52 }), rule('cell', { sense: 'must' })]),
    )
    expect(found.map(({ sense, value }) => [sense, value])).toEqual([
      ['atLeast', 0.48],
      ['atMost', 0.52],
    ])
  })
})

describe('which pulls a rule averages over', () => {
  // Curves of two points: peaks of 116.8, 118 and 125 kW at 3,050 rpm, 60 kW at 3,000.
  const peaks = [116_800, 118_000, 125_000]
  test.each([
    ['mean', (116_800 + 118_000 + 125_000) / 3],
    ['best', 125_000],
    ['median', 118_000],
  ] as const)('%s', (pulls, powerW) => {
    const average = { offsetsRpm: [0], pulls }
    const car = carWith([rule('ratio', { metric: 'ruleRatio', value: 0.005, average })], null, (all) => {
      all.pulls.forEach((pull, i) => {
        Object.assign(pull, { curve: { stepRpm: 50, firstSpeedRpm: 3000, powerW: [60_000, peaks[i]] } })
      })
    })
    const standing = makeRules(car).stages[0]?.books[0]?.readings[0]
    const mass = makeBoard(car, '2026-04-02').rows.find(({ metric }) => metric === 'massReady')?.cells[0] as { value: number }
    expect(standing?.value).toBeCloseTo(mass.value / powerW, 9)
    expect(standing?.mostPowerW).toBeCloseTo(mass.value / 0.005, 3)
    expect(standing?.leastMassKg).toBeCloseTo(0.005 * powerW, 3)
  })
})

describe('another class', () => {
  it('sums what becomes free and what is lost; swapped they change places', () => {
    const blocks = (ids: string[]) => [rule('ban', { sense: 'mustNot', blocks: ids })]
    const there = makeRules(carWith(blocks(['c4', 'c6']), blocks(['c4']))).stages
    const back = makeRules(carWith(blocks(['c4']), blocks(['c4', 'c6']))).stages
    const freed = there[0]?.changes[0]
    expect(freed?.freed).toEqual(['c6'])
    expect(freed?.freedSum).toMatchObject({ names: ['glass'], cost: null, hours: null })
    expect(freed?.freedSum.massKg).toBeLessThan(-12)
    expect(freed?.lostSum).toEqual({ names: [], massKg: null, cost: null, hours: null })
    expect(back[0]?.changes[0]?.lostSum).toEqual(freed?.freedSum)
  })
})

describe('a typed limit of the class beside the book', () => {
  const limit = (more: object) =>
    ({ id: 'l', metric: 'massReady', sense: 'atLeast', value: 1250, source: 'classRule', fromStageId: 's0', untilStageId: null, typed: null, ...more }) as never
  test.each([
    ['another number is told', {}, 1250],
    ['the same number is not', { value: 1200 }, null],
    ['our own limit is not', { source: 'own' }, null],
    ['one on the other side is not', { sense: 'atMost' }, null],
    ['one that is over is not', { untilStageId: 's0' }, null],
  ])('%s', (_, more, value) => {
    const car = carWith([rule('mass', { metric: 'massReady', value: 1200 })], null, (all) => all.limits.push(limit(more)))
    expect(makeRules(car).stages[1]?.books[0]?.readings[0]?.typedLimit).toBe(value)
  })
  it('is told as the rule counts it', () => {
    const car = carWith([rule('mass', { metric: 'massReady', value: 1120, basis: { driverIn: false, fuelL: null } })], null, (all) =>
      all.limits.push(limit({})),
    )
    expect(makeRules(car).stages[1]?.books[0]?.readings[0]?.typedLimit).toBeCloseTo(1170, 9)
  })
})
