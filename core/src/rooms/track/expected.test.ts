import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { expectationKind } from '../../records/plan-kinds.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { expectedOf } from './expected.ts'
import type { LapInputKey } from './lap-input.ts'
import { lapStage } from './lap-inputs.ts'
import { TRACK_VALUES } from './metrics.ts'
import { makeTrackRoom } from './track-room.ts'

const gannet: BuildRecords = buildRecordsSchema.parse(JSON.parse(readFileSync(new URL('../../../../demo/gannet/build.json', import.meta.url), 'utf8')))
const stageId = (position: number) => gannet.stages.find((stage) => stage.position === position)?.id ?? ''
type Said = Partial<BuildRecords['expectations'][number]> & Pick<BuildRecords['expectations'][number], 'metric' | 'mode' | 'value'>
const said = (entry: Said, i = 0) => ({ id: `e${i}`, stageId: stageId(3), partId: null, sd: null, proof: 'calculated' as const, typed: null, ...entry })
const withSaid = (...entries: Said[]) => openCar({ ...gannet, expectations: [...gannet.expectations, ...entries.map(said)] })
const inputAt = (car: ReturnType<typeof openCar>, position: number, key: LapInputKey) => lapStage(car, position).inputs.find((input) => input.key === key)

describe('what a stage is expected to give of a lap', () => {
  const plain = withSaid()
  test.each<[Said, LapInputKey, (before: number) => number]>([
    [{ metric: 'brakingUse', mode: 'to', value: 0.92 }, 'brakingUse', () => 0.92],
    [{ metric: 'shiftTime', mode: 'to', value: 0.12 }, 'shiftS', () => 0.12],
    [{ metric: 'dragArea', mode: 'by', value: -0.03 }, 'dragAreaM2', (before) => before - 0.03],
    [{ metric: 'downforceFront', mode: 'by', value: 0.1 }, 'downforceFrontM2', (before) => before + 0.1],
    [{ metric: 'downforceRear', mode: 'by', value: 0.1 }, 'downforceRearM2', (before) => before + 0.1],
    [{ metric: 'grip', mode: 'times', value: 1.03 }, 'friction', (before) => before * 1.03],
  ])('%j moves %s from its stage on', (entry, key, by) => {
    const car = withSaid(entry)
    const before = inputAt(plain, 3, key)
    expect(inputAt(car, 2, key)).toEqual(inputAt(plain, 2, key))
    const after = inputAt(car, 3, key)
    expect(after?.value).toBeCloseTo(by(before?.value ?? 0), 9)
    expect(after?.source).not.toBe(before?.source)
    expect(after?.sd).toBeGreaterThan(0)
  })
  it('a new tyre says its grip itself, and a wished part gives nothing to a stage', () => {
    const tyre = gannet.parts.find(({ drive }) => drive?.role === 'tyre')
    if (!tyre) throw new Error('the demo has a tyre')
    const fitted = { ...gannet, parts: [...gannet.parts, { ...tyre, id: 'new', stageId: stageId(3), status: 'ordered' as const }] }
    const grip = said({ metric: 'grip', mode: 'times', value: 1.5 })
    const [without, withIt] = [openCar(fitted), openCar({ ...fitted, expectations: [...gannet.expectations, grip] })]
    expect(inputAt(withIt, 3, 'friction')?.value).toBe(inputAt(without, 3, 'friction')?.value)
    const wished = gannet.parts.find(({ status, stageId: at }) => status === 'wanted' && at === null) ?? { ...tyre, id: 'wish' }
    const car = withSaid({ metric: 'grip', mode: 'times', value: 1.5, partId: wished.id })
    expect(inputAt(car, 3, 'friction')).toEqual(inputAt(plain, 3, 'friction'))
  })
  it('a wished part moves a car by all that is expected of it', () => {
    const lapCar = makeTrackRoom(plain).stages[3]?.lap.car ?? null
    const peak = Math.max(...(lapCar?.curve.powerW ?? []))
    const of = (...entries: Said[]) => expectedOf(withSaid(...entries.map((entry) => ({ ...entry, partId: 'p' }))), 'p', lapCar)
    expect(of({ metric: 'wheelPower', mode: 'times', value: 1.1 }).powerW).toBeCloseTo(0.1 * peak, 6)
    expect(of({ metric: 'wheelPower', mode: 'to', value: peak + 5000 }, { metric: 'wheelPower', mode: 'by', value: 1000 }).powerW).toBeCloseTo(6000, 6)
    expect(of({ metric: 'grip', mode: 'times', value: 1.02 }, { metric: 'downforceRear', mode: 'by', value: 0.2 })).toEqual({
      gripFactor: 1.02,
      downforceRearM2: 0.2,
    })
    expect(of({ metric: 'shiftTime', mode: 'to', value: 0.1 }).shiftS).toBeCloseTo(0.1 - (lapCar?.gears?.shiftS ?? 0), 9)
    expect(of({ metric: 'brakingUse', mode: 'to', value: 0.9 }).brakingUse).toBeCloseTo(0.9 - (lapCar?.brakingUse ?? 0), 9)
    expect(of({ metric: 'tyresPerDay', mode: 'to', value: 8 })).toEqual({})
    expect(expectedOf(plain, 'p', lapCar)).toEqual({})
  })
  it('a drift day is as expected until it was driven', () => {
    const car = withSaid({ metric: 'entrySpeed', mode: 'to', value: 27, sd: 1 }, { metric: 'tyresPerDay', mode: 'to', value: 12 })
    expect(TRACK_VALUES.entrySpeed.at(car, 3)).toMatchObject({ value: 27, sd: 1, proof: 'calculated', fromPosition: null })
    expect(TRACK_VALUES.tyresPerDay.at(car, 4)).toMatchObject({ value: 12, fromPosition: 3 })
    expect(TRACK_VALUES.entrySpeed.at(car, 2)).toBeUndefined()
  })
})

test.each([
  [{ metric: 'grip', mode: 'to', value: 1.3 }, /Of the grip of the tyres it is said to be multiplied/],
  [{ metric: 'dragArea', mode: 'times', value: 0.9 }, /Of the drag area it is said to change by so much/],
  [{ metric: 'shiftTime', mode: 'to', value: 0 }, /must be more than zero/],
  [{ metric: 'brakingUse', mode: 'to', value: 1.2 }, /type up to 100 %/],
] as const)('refuses %j', async (entry, words) => {
  const [rule] = expectationKind.rules
  await expect(async () => rule?.({ ...entry }, { live: async () => [], now: '', before: undefined })).rejects.toThrow(words)
})
