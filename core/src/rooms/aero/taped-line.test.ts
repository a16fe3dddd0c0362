import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { makeRules } from '../../board/rule-readings.ts'
import { readingKind } from '../../records/drive-kinds.ts'
import { ruleBookKind } from '../../records/rule-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { aeroValue } from './stage-aero.ts'
import { parseTapedLine } from './taped-line.ts'

const read = (text: string, mark: '.' | ',' = '.') => parseTapedLine(text, { decimalMark: mark, lengthUnit: 'mm' })

describe('a line of what was read on the car', () => {
  test.each([
    ['wing over roof -12 mm', 'wingOverRoof', -0.012, null],
    ['taped wing -1.2 cm', 'wingOverRoof', -0.012, null],
    ['front 148 ± 3', 'reachFront', 0.148, null],
    ['wing chord 290', 'wingChord', 0.29, null],
    ['span 1,45 m', 'wingSpan', 1.45, null],
    ['elements 2', 'wingElements', 2, null],
    ['ground 2 in', 'groundHeight', 0.0508, null],
    ['noise 98.5 dB at 0.5 m', 'noise', 98.5, 0.5],
    ['sound 84 at 7.5 m', 'noise', 84, 7.5],
  ])('%s', (text, metric, value, atM) => {
    const found = read(text, text.includes('1,45') ? ',' : '.')
    expect(found).toMatchObject({ metric, atM, typed: text })
    expect(found.value).toBeCloseTo(value, 9)
  })
  it('keeps the spread that was typed', () => expect(read('front 148 ± 3').sd).toBeCloseTo(0.003, 9))
  test.each([
    ['boot 12', /Begin with what was read/],
    ['wing', /Begin with what was read/],
    ['noise 98 dB', /how far off/],
    ['noise 398 dB at 1 m', /30 to 150/],
    ['noise 98 dB at 0 m', /over 0 and up to 200/],
    ['elements 1.5', /whole number/],
    ['rear -3 mm', /inside of the body/],
    ['span 9 m', /over 5 m/],
    ['front 12 kg', /kg/],
  ])('refuses %s', (text, sentence) => expect(() => read(text)).toThrow(sentence))
})

const made = (kind: { fields: Parameters<typeof z.object>[0] }, row: object) => z.object(kind.fields).parse(row) as never
const loudCar = (rule: object, reading: object, touchesPower = false) =>
  openCar(
    changed((all) => {
      all.ruleBooks.push(made(ruleBookKind, { id: 'b', name: 'b', rules: [{ key: 'noise', text: 'noise', metric: 'noise', sense: 'atMost', ...rule }] }))
      Object.assign(all.stages[0] as object, { ruleBookId: 'b' })
      all.readings.push(made(readingKind, { id: 'r', stageId: 's0', metric: 'noise', at: '2026-02-02T10:00:00Z', ...reading }))
      if (touchesPower) Object.assign(all.changes[0] as object, { touchesPower: true })
    }),
  )

describe('noise', () => {
  // formulas, free field: 101.5 dB(A) at 0.5 m are 77.98 at 7.5 m.
  it('is carried to the distance of the rule, and the limit to that of the build: one verdict', () => {
    for (const limit of [77, 77.9, 78, 79]) {
      const car = loudCar({ value: limit, basis: { atM: 7.5 } }, { value: 101.5, atM: 0.5 })
      const standing = makeRules(car).stages[0]?.books[0]?.readings[0]
      expect(standing?.value).toBeCloseTo(77.978, 3)
      expect(standing?.inHand).toBeCloseTo(limit - 77.978, 3)
      expect(standing?.word).toBe(limit < 77.978 ? 'breaks' : 'holds')
      const row = makeBoard(car, '2026-04-02').rows.find(({ metric }) => metric === 'noise')
      expect(row?.goal.kind === 'limit' && row.goal.record.value).toBeCloseTo(limit + 23.522, 3)
      expect(row?.goal.kind === 'limit' ? row.goal.verdict?.word : null).toBe(limit < 77.978 ? 'broken' : 'holds')
    }
  })
  it('read farther off is louder where it is quoted', () => {
    expect(aeroValue(loudCar({ value: 98 }, { value: 78, atM: 7.5 }), 0, 'noise')?.value).toBeCloseTo(78 + 20 * Math.log10(15), 9)
  })
  it('stands for later stages until a line of theirs touches power', () => {
    const held = loudCar({ value: 98 }, { value: 97, atM: 0.5 })
    expect(aeroValue(held, 1, 'noise')).toMatchObject({ value: 97, fromPosition: 0 })
    expect(aeroValue(loudCar({ value: 98 }, { value: 97, atM: 0.5 }, true), 1, 'noise')).toBeUndefined()
  })
  it('needs its distance, and nothing else has one', async () => {
    const context = { live: async () => [], now: '2026-01-01T00:00:00Z', before: undefined }
    const rule = readingKind.rules[0]
    expect(() => rule?.({ metric: 'noise', value: 98, atM: null }, context)).toThrow(/how far off/)
    expect(await rule?.({ metric: 'reachFront', value: 0.1, atM: 2 }, context)).toMatchObject({ atM: null })
  })
})
