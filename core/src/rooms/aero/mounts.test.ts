import { describe, expect, it, test } from 'vitest'
import { carWith, LAST } from '../../../test/aero-car.ts'
import { makeBoard } from '../../board/board.ts'
import { RecordRefusal, type Row } from '../../records/define-record.ts'
import { mountKind } from '../../records/mount-kind.ts'
import { z } from '../../zod.ts'
import { mountsAtStage } from './mounts.ts'

const FEET = [
  { xM: 3.36, zM: 0.95 },
  { xM: 3.6, zM: 0.95 },
]
const mount = (more: object = {}) => ({ id: 'm', deviceId: 'wing', carriedBy: 'chassis', second: 'tether', feet: FEET, ...more })
const fastAt = (more: object) => carWith({ build: { ...carWith().records.build, aeroBasis: { fastestMps: 70 } }, ...more })
const wingOf = (more: object = {}) => mountsAtStage(fastAt({ mounts: [mount(more)] }), LAST).find(({ deviceId }) => deviceId === 'wing')
const BOLTS = { countPerFoot: 2, tensionN: 3000, shearN: 2000 }

describe('how devices are held', () => {
  it('loads the feet of the wing as the worked example says', () => {
    const found = wingOf()
    expect(found?.load?.downN).toBeCloseTo(2001, 0)
    expect(found?.load?.dragN).toBeCloseTo(143.6, 1)
    expect(found?.feet.map(({ downN }) => Math.round(10 * downN) / 10)).toEqual([978.3, 1022.6])
    expect(found).toMatchObject({ use: null, lacksMount: false, lacksSecond: false, refusal: null })
  })
  it('tells the use of bolts, and twice the factor is four times it', () => {
    const [one, two] = [wingOf({ bolts: BOLTS }), wingOf({ bolts: BOLTS, loadFactor: 4 })]
    expect(one?.use).toBeLessThan(1)
    expect((two?.use ?? 0) / (one?.use ?? 1)).toBeCloseTo(4, 6)
  })
  it('rods carry all of it; a cable carries no push', () => {
    const rods = { count: 2, angleRad: Math.PI / 3, diameterM: 0.006, lengthM: 0.3, ratedN: 500 }
    const splitter = mountsAtStage(fastAt({ mounts: [{ ...mount(), deviceId: 'splitter', feet: [], rods }] }), LAST).find(
      ({ deviceId }) => deviceId === 'splitter',
    )
    const down = 2 * 0.5 * 1.2 * 70 ** 2 * 0.208
    expect(splitter?.rods?.eachN).toBeCloseTo(down / 2 / Math.sin(Math.PI / 3), 6)
    expect(splitter?.rods).toMatchObject({ decides: 'rating' })
    expect(splitter?.use).toBeGreaterThan(1)
  })
  it('three feet on one upright are refused with the worst of any two', () => {
    expect(wingOf({ feet: [...FEET, { xM: 3.5, zM: 0.95 }] })?.refusal).toMatch(/worst of any two is \d+ N/)
  })
  it('names what has no mount or nothing behind it', () => {
    const bare = mountsAtStage(fastAt({}), LAST)
    expect(bare.map(({ name, lacksMount }) => [name, lacksMount])).toEqual([
      ['splitter', true],
      ['wing', true],
    ])
    expect(wingOf({ second: 'none', carriedBy: 'lid' })).toMatchObject({ lacksMount: false, lacksSecond: true })
  })
})

describe('What next of mounts', () => {
  const codes = (mounts: readonly object[]) => makeBoard(fastAt({ mounts }), '2026-06-01').next.filter(({ code }) => code.startsWith('mount'))
  const splitter = { id: 's', deviceId: 'splitter', carriedBy: 'chassis', second: 'secondFixing', feet: FEET }
  it.each([
    ['no mount', [splitter], [{ code: 'mount-unsafe', name: 'wing', lacksMount: true }]],
    ['a lid and no tether', [splitter, mount({ carriedBy: 'lid', second: 'none' })], [{ code: 'mount-unsafe', lacksMount: false, isOnLid: true }]],
    ['bolts that are too weak', [splitter, mount({ bolts: { countPerFoot: 1, tensionN: 10, shearN: 10 } })], [{ code: 'mount-over-load', name: 'wing' }]],
  ])('says %s', (_, mounts, expected) => {
    expect(codes(mounts)).toMatchObject(expected)
  })
  it('says nothing where all is held twice', () => {
    expect(codes([splitter, mount({ bolts: BOLTS })])).toEqual([])
  })
})

test.each([
  ['one foot', { feet: [FEET[0]] }, /carries no moment/],
  ['nothing', { feet: [] }, /Nothing holds it/],
])('a mount on %s is refused', (_, more, message) => {
  const record = z.object(mountKind.fields).parse(mount(more)) as Row
  const refused = () => mountKind.rules.map((rule) => rule(record, {} as never))
  expect(refused).toThrow(RecordRefusal)
  expect(refused).toThrow(message)
})
