import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../../test/worked-example.ts'
import { type BoardCell, makeBoard } from '../../board/board.ts'
import { curvePeakTorque } from '../../dyno/curve.ts'
import type { Part } from '../../records/part-kinds.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { lifeOf, partsAtStage, partsOfKind, ratedLimit, stageOfPart, wholeCost, wholeMassKg } from './parts.ts'
import { weakestTorque } from './rating-limits.ts'

const part = (fields: object): Part => buildRecordsSchema.shape.parts.parse([{ id: 'p', kind: 'gearbox', name: 'box', ...fields }])[0] as Part
const withParts = (...parts: Part[]): BuildRecords => changed((records) => records.parts.push(...parts))
const rating = (limit: number, more: object = {}) => ({ of: 'crankTorque', limit, known: 'catalogue', ...more })

describe('parts in the car at a stage', () => {
  const old = part({ id: 'old', status: 'fitted' })
  const next = part({ id: 'next', kind: 'Gearbox', status: 'ordered', stageId: 's1' })
  const thought = part({ id: 'thought', status: 'wanted' })
  const worn = part({ id: 'worn', status: 'wornOut', stageId: 's1' })
  const clutch = part({ id: 'clutch', kind: 'clutch', status: 'fitted' })
  test.each([
    [0, ['old', 'clutch']],
    [1, ['next', 'clutch']],
    [2, ['next', 'clutch']],
  ])('stage %d', (position, ids) => {
    expect(partsAtStage(withParts(old, next, thought, worn, clutch), position).map(({ id }) => id)).toEqual(ids)
  })
  it('two of one kind at one stage are both there', () => {
    expect(partsAtStage(withParts(next, part({ id: 'twin', status: 'here', stageId: 's1' })), 1)).toHaveLength(2)
  })
  it('are, of any parts, those that none of their kind comes after, the worn-out ones only where nothing fresh stands beside them', () => {
    const stages = workedExample().stages
    const drawn = fc.record({
      kind: fc.constantFrom('gearbox', ' GearBox', 'clutch'),
      status: fc.constantFrom('wanted', 'ordered', 'here', 'fitted', 'wornOut'),
      stageId: fc.constantFrom(null, ...stages.map(({ id }) => id)),
    })
    fc.assert(
      fc.property(fc.array(drawn, { maxLength: 12 }), fc.nat({ max: stages.length - 1 }), (list, position) => {
        const parts = list.map((fields, i) => part({ id: `part ${i}`, ...fields }))
        const at = (each: Part) => stageOfPart({ stages }, each)
        const rivals = (each: Part) => parts.filter((other) => other !== each && partsOfKind([other], each.kind).length > 0 && at(other) <= position)
        const isThere = (each: Part) =>
          at(each) <= position &&
          rivals(each).every((other) => at(other) <= at(each)) &&
          !(each.status === 'wornOut' && rivals(each).some((other) => other.status !== 'wornOut' && at(other) === at(each)))
        return (
          partsAtStage({ parts, stages }, position)
            .map(({ id }) => id)
            .join() ===
          parts
            .filter(isThere)
            .map(({ id }) => id)
            .join()
        )
      }),
      { numRuns: 400 },
    )
  })
})

describe('a part', () => {
  it('costs and weighs with what has to be bought with it', () => {
    const made = part({
      count: 4,
      cost: 800,
      mass: { massKg: 0.25, proof: 'measured' },
      extras: [
        { name: 'plugs', cost: 60 },
        { name: 'loom', massKg: 1.5, cost: 90 },
      ],
    })
    expect([wholeCost(made), wholeMassKg(made)]).toEqual([950, 2.5])
    expect([wholeCost(part({})), wholeMassKg(part({}))]).toEqual([null, null])
  })
  it('carries the sum of its pieces where the rating is of each', () => {
    const made = part({ count: 6, ratings: [rating(100, { isEach: true }), rating(100)] })
    expect(made.ratings.map((entry) => ratedLimit(made, entry))).toEqual([600, 100])
  })
  it('uses up its life, and one without a life has none', () => {
    const made = part({ life: { amount: 4, unit: 'days' } })
    const uses = [1, 1.5, 2].map((amount, i) => ({
      id: `u${i}`,
      partId: i === 2 ? 'other' : 'p',
      sessionId: null,
      at: `2026-03-0${i + 1}T10:00:00Z`,
      kind: 'use' as const,
      amount,
      note: null,
    }))
    expect(lifeOf(made, uses)).toEqual({ used: 2.5, left: 1.5, share: 0.625 })
    const rebuilt = { ...(uses[0] as (typeof uses)[number]), id: 'r', kind: 'rebuilt' as const, at: '2026-03-01T20:00:00Z', amount: 9 }
    expect(lifeOf(made, [...uses, rebuilt])?.used).toBe(1.5)
    expect(lifeOf(part({}), uses)).toBeNull()
  })
})

describe('peak torque on the Board', () => {
  const rowOf = (records: BuildRecords, metric = 'peakTorque') => makeBoard(openCar(records), '2026-06-01').rows.find((row) => row.metric === metric)
  const cellOf = (records: BuildRecords, metric?: string) => rowOf(records, metric)?.cells[0] as BoardCell
  it('stands with the spread and proof of the power it rests on', () => {
    const records = changed((all) =>
      all.targets.push({ ...all.targets[0], id: 't2', metric: 'peakTorque', sense: 'atLeast', value: 180, dueStageId: 's0' } as never),
    )
    const row = rowOf(records)
    const power = cellOf(records, 'wheelPower')
    const cell = cellOf(records)
    const curve = { stepRpm: 50, firstSpeedRpm: 3000, powerW: [60_000, 118_000] }
    expect(cell.value).toBeCloseTo(curvePeakTorque(curve).torqueNm, 9)
    expect(cell.proof).toBe('measured')
    expect(cell.sd / cell.value).toBeCloseTo(power.sd / power.value, 9)
    expect(row?.goal).toMatchObject({ kind: 'target', verdict: { word: 'met' } })
  })
  it('is confirmed by a second session that agrees', () => {
    const records = changed((all) => {
      all.targets.push({ ...all.targets[0], id: 't2', metric: 'peakTorque', sense: 'atLeast', value: 180, dueStageId: 's0' } as never)
      all.sessions.push({ ...all.sessions[0], id: 'd1', at: '2026-02-20T10:00:00Z', dynoName: 'other hub dyno' } as never)
      all.pulls.push(...all.pulls.map((pull) => ({ ...pull, id: `${pull.id}b`, sessionId: 'd1' })))
    })
    expect(cellOf(records).proof).toBe('confirmed')
  })
  it('is held against the weakest rating, brought to the wheels by the build’s loss', () => {
    const records = withParts(
      part({ id: 'weak', name: 'five-speed', status: 'fitted', ratings: [rating(250)] }),
      part({ id: 'axle', kind: 'axles', status: 'fitted', ratings: [rating(900)] }),
    )
    records.build.drivelineLoss = { school: 'percentage', lossShare: 0.1, fixedLossW: null, proportionalShare: null, coastDownLossW: null }
    expect(weakestTorque(openCar(records))).toMatchObject({ crankTorqueNm: 250, torqueNm: expect.closeTo(225, 9), part: { name: 'five-speed' } })
    expect(rowOf(records)?.goal).toMatchObject({
      kind: 'limit',
      record: { id: 'weak', source: 'rating', value: expect.closeTo(225, 9) },
      verdict: { word: 'broken' },
    })
    expect(makeBoard(openCar(records), '2026-06-01').next[0]).toMatchObject({ code: 'limit-broken', metric: 'peakTorque' })
  })
  it('leaves a limit that a person has set alone, and needs both a rating and a curve', () => {
    const own = withParts(part({ status: 'fitted', ratings: [rating(250)] }))
    own.limits.push({ id: 'l', metric: 'peakTorque', sense: 'atMost', value: 400, source: 'own', fromStageId: null, untilStageId: null, typed: null })
    expect(makeBoard(openCar(own), '2026-06-01').rows.filter((row) => row.metric === 'peakTorque')).toHaveLength(1)
    expect(rowOf(workedExample())).toBeUndefined()
    const noPulls = withParts(part({ status: 'fitted', ratings: [rating(250)] }))
    noPulls.pulls.splice(0)
    expect(weakestTorque(openCar(noPulls))).toBeUndefined()
  })
})
