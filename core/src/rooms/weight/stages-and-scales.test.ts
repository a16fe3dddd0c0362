import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { StageValues } from '../../board/stage-values.ts'
import { limitVerdict, targetVerdict } from '../../board/verdict.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { powerAtStage } from '../../rooms/power/power-at-stage.ts'
import { openCar } from '../../stages/car.ts'
import { massOf } from './mass-at-stage.ts'
import { saidBefore, unexplainedAt, unlistedDifferences } from './unexplained.ts'
import { makeWeightRoom } from './weight-room.ts'

// Papers of 1,451.5 kg and two weighings with nothing listed: every expected number is worked by hand (invented numbers).
const TODAY = '2026-05-01'
const total = (massKg: number) => ({ total: { massKg, sdKg: null }, driverInKg: 80, fuelL: 20, fuelSdL: 0 })
const bare = (edit: (raw: Record<string, object[]>) => void = () => {}): BuildRecords => {
  const { build } = workedExample()
  const raw = {
    build: { ...build, baselineMass: { massKg: 1451.5, sdKg: null, proof: 'catalogue' } },
    stages: ['As bought', 'Strip', 'Engine', 'Body'].map((name, position) => ({ id: `s${position}`, position, name })),
    targets: [{ id: 't', metric: 'massReady', sense: 'atMost', value: 1134, dueStageId: 's3' }],
    changes: [],
    weighings: [
      { id: 'w1', stageId: 's1', at: '2026-03-01T10:00:00Z', ...total(537.5) },
      { id: 'w2', stageId: 's2', at: '2026-04-01T10:00:00Z', ...total(691.3) },
    ],
  }
  edit(raw as never)
  return buildRecordsSchema.parse(raw)
}
const line = (id: string, more: object) => ({
  id,
  stageId: 's1',
  kind: 'off',
  name: id,
  values: [{ massKg: 10, proof: 'measured', at: '2026-02-01T10:00:00Z' }],
  state: 'done',
  doneAt: '2026-02-01T10:00:00Z',
  ...more,
})

describe('weighings of stages that list nothing', () => {
  const car = openCar(bare())
  test.each([
    [0, 1451.5, 'catalogue', null],
    [1, 537.5, 'measured', null],
    [2, 691.3, 'measured', null],
    [3, 691.3, 'calculated', 2],
  ] as const)('V(%i) is %d, %s', (position, value, proof, from) => {
    expect(massOf(car, position)).toMatchObject({ value: expect.closeTo(value, 9), proof, carriedFromPosition: from })
  })

  it('makes no plan of a stage that lists nothing, and no quarrel of two weighings of two cars', () => {
    const values = new StageValues(car)
    expect(targetVerdict(values, car.records.targets[0] as never, TODAY)).toMatchObject({ word: 'no plan', chance: null, isEmptyStage: true })
    const codes = makeBoard(car, TODAY).next.map(({ code }) => code)
    expect(codes).not.toContain('weighings-disagree')
    expect(codes).not.toContain('scales-and-ledger-disagree')
    expect(codes.filter((code) => code === 'stage-lists-nothing')).toHaveLength(2)
  })

  it('holds a limit there only if nothing goes in', () => {
    const records = bare((raw) => raw.targets?.splice(0))
    const limit = { id: 'l', metric: 'massReady', sense: 'atLeast', value: 600, source: 'classRule', fromStageId: 's3', untilStageId: null } as const
    const found = limitVerdict(new StageValues(openCar({ ...records, limits: [limit] })), limit)
    expect(found).toMatchObject({ word: 'holds if nothing goes in' })
  })

  it('says by how much the scales differ, and from what that is worked back', () => {
    const [first, second] = unlistedDifferences(car)
    expect(first).toMatchObject({ position: 1, massKg: expect.closeTo(-914, 9), derivedFrom: ['b', 'w1'] })
    expect(second).toMatchObject({ position: 2, massKg: expect.closeTo(153.8, 9), derivedFrom: ['w1', 'w2'] })
    expect(saidBefore(car, 'w2')).toBeNull()
  })

  it('listed as one line, it is calculated, explains the difference and was said by nobody before', () => {
    const values = [{ massKg: 153.8, sdKg: 7.1, proof: 'calculated', at: '2026-04-01T10:00:00Z', derivedFrom: ['w1', 'w2'] }]
    const listed = openCar(bare((raw) => raw.changes?.push(line('unlisted', { kind: 'on', stageId: 's2', values, doneAt: '2026-04-01T10:00:00Z' }))))
    expect(listed.lines[0]?.mass).toMatchObject({ proof: 'calculated', massKg: 153.8, sdKg: 7.1 })
    expect(massOf(listed, 1)).toMatchObject({ value: expect.closeTo(537.5, 9), proof: 'measured' })
    expect(massOf(listed, 2)).toMatchObject({ value: expect.closeTo(691.3, 9), proof: 'measured' })
    expect(unlistedDifferences(listed).map(({ position }) => position)).toEqual([1])
    expect(unexplainedAt(listed, 'w2')?.massKg).toBeCloseTo(0, 9)
    expect(saidBefore(listed, 'w2')).toBeNull()
    expect(listed.ownPairs).toEqual([])
  })

  it('one planned line at a stage does not bring a quarrel back, and its own weighing stands', () => {
    const planned = openCar(bare((raw) => raw.changes?.push(line('wing', { kind: 'on', stageId: 's2', state: 'planned', doneAt: null }))))
    expect(massOf(planned, 1)).toMatchObject({ value: expect.closeTo(537.5, 9), proof: 'measured' })
    expect(massOf(planned, 2)).toMatchObject({ value: expect.closeTo(701.3, 9), proof: 'calculated', anchor: { kind: 'ownStage' } })
    expect(makeBoard(planned, TODAY).next.map(({ code }) => code)).not.toContain('weighings-disagree')
  })

  it('offers to move a weighing of the last stage to the built one that waits for it', () => {
    const late = openCar(
      bare((raw) => {
        raw.changes?.push(line('bench', {}))
        raw.weighings = [{ id: 'w', stageId: 's3', at: '2026-03-01T10:00:00Z', ...total(1300) }] as never
      }),
    )
    const item = makeBoard(late, TODAY).next.find(({ code }) => code === 'weighing-fits-elsewhere')
    expect(item).toMatchObject({ weighingId: 'w', position: 3, betterPosition: 1 })
  })

  it('proves nothing by three pads', () => {
    const pads = { LF: { massKg: 320 }, RF: { massKg: 290 }, LR: { massKg: 310 }, RR: null }
    const dead = openCar(
      bare((raw) => {
        raw.weighings = [{ id: 'w', stageId: 's1', at: '2026-03-01T10:00:00Z', pads, driverInKg: 0, fuelL: 20 }] as never
      }),
    )
    expect(makeBoard(dead, TODAY).stages[1]).toMatchObject({ state: 'built', toProve: 1, proven: 0 })
    expect(makeBoard(car, TODAY).stages.map(({ state }) => state)).toEqual(['planned', 'proven', 'proven', 'planned'])
  })

  it('puts driver and fuel into papers that were without', () => {
    const dry = bare((raw) => Object.assign((raw as unknown as { build: { baselineMass: object } }).build.baselineMass, { hasDriver: false, hasFuel: false }))
    expect(massOf(openCar(dry), 0)?.value).toBeCloseTo(1451.5 + 80 + 20 * 0.745, 9)
  })
})

describe('a total and two axle loads', () => {
  const records = bare((raw) => {
    raw.weighings?.push({
      id: 'w3',
      stageId: 's3',
      at: '2026-04-20T10:00:00Z',
      axles: { front: { massKg: 420, sdKg: 2 }, rear: { massKg: 280, sdKg: 2 } },
      driverInKg: 80,
      fuelL: 20,
      fuelSdL: 0,
    } as never)
  })
  const room = makeWeightRoom(openCar(records))
  it('give a mass, the axles a front share, and neither is refused for its pads', () => {
    expect(massOf(openCar(records), 3)).toMatchObject({ value: expect.closeTo(700, 9), sd: expect.closeTo(Math.sqrt(8), 9), proof: 'measured' })
    expect(room.weighings[2]).toMatchObject({
      refusal: null,
      corners: null,
      axleShare: { value: 0.6, sd: expect.closeTo(Math.hypot(280 * 2, 420 * 2) / 700 ** 2, 12) },
    })
    expect(room.weighings[0]).toMatchObject({ refusal: null, axleShare: null, reference: { sdKg: 5 } })
    const values = new StageValues(openCar(records))
    expect(values.value('frontShare', 3)).toMatchObject({ value: 0.6, proof: 'measured' })
    expect(values.value('frontShare', 2)).toBeUndefined()
  })
})

describe('power over a stage that lists nothing', () => {
  it('is carried at most calculated, and with its proof over one whose lines do not touch it', () => {
    const empty = openCar(
      changed((records) => {
        records.changes = records.changes.filter(({ stageId }) => stageId !== 's2')
        records.targets.push({ id: 'tp', metric: 'wheelPower', sense: 'atLeast', value: 100_000, highValue: null, dueStageId: 's2' })
      }),
    )
    expect(powerAtStage(empty, 1)).toMatchObject({ proof: 'measured', isEmptyStage: false })
    expect(powerAtStage(empty, 2)).toMatchObject({ proof: 'calculated', isEmptyStage: true, fromPosition: 0 })
    expect(targetVerdict(new StageValues(empty), empty.records.targets[1] as never, TODAY)).toMatchObject({ word: 'no plan', isEmptyStage: true })
    expect(powerAtStage(openCar(workedExample()), 2)).toMatchObject({ proof: 'measured', isEmptyStage: false })
  })
})
