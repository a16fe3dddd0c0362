import { describe, expect, it } from 'vitest'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { CHECKS_ADVICE } from './advice.ts'
import { checkDrifts } from './drifts.ts'

const SEGMENTS = [{ lengthM: 900, curvaturePerM: 0 }]
const at = (i: number) => `2026-0${i + 1}-10T10:00:00Z`
const check = { id: 'oil', name: 'Oil pressure, hot at 6 000', kind: 'reading', reading: { quantity: 'pressure', warnLow: 4.2e5, stopLow: 3.5e5 } }
/** A reading after each session of an hour of laps, or without any laps between. */
const build = (values: readonly number[], hasLaps = true): BuildRecords =>
  buildRecordsSchema.parse({
    ...EXAMPLE_RECORDS,
    checks: [check],
    marks: values.map((value, i) => ({ id: `m${i}`, checkId: 'oil', stageId: 'bought', at: at(i), result: 'ok', value })),
    tracks: [{ id: 'field', name: 'Field', isClosed: false, segments: SEGMENTS }],
    trackSessions: hasLaps ? values.map((_, i) => ({ id: `s${i}`, stageId: 'bought', trackId: 'field', at: at(i) })) : [],
    laps: hasLaps ? values.map((_, i) => ({ id: `l${i}`, trackSessionId: `s${i}`, position: 0, lapS: 3600 })) : [],
  })
const FALLING = [5e5, 4.91e5, 4.8e5, 4.7e5, 4.59e5]

describe('a standard value over the use of the car', () => {
  it('is told by hours of laps before it is where it warns', () => {
    const [found] = checkDrifts(build(FALLING))
    expect(found).toMatchObject({ per: 'hour', drift: { limit: 4.2e5 } })
    expect(found?.drift.useLeft).toBeCloseTo((4.59e5 - 4.2e5) / 0.1e5, 0)
    const advice = CHECKS_ADVICE.flatMap(({ find }) => [...(find(openCar(build(FALLING)), '2026-07-01') as readonly object[])])
    expect(advice).toContainEqual(expect.objectContaining({ code: 'value-drifts', name: check.name, isFalling: true, per: 'hour' }))
  })
  it('is by days where nothing was driven between', () => {
    expect(checkDrifts(build(FALLING, false))[0]).toMatchObject({ per: 'day' })
  })
  it('is nothing while it scatters, rises away from its limit, or has no limit', () => {
    expect(checkDrifts(build([5e5, 4.7e5, 5.1e5, 4.8e5, 5e5]))).toEqual([])
    expect(checkDrifts(build([...FALLING].reverse()))).toEqual([])
    expect(checkDrifts({ ...build(FALLING), marks: [] })).toEqual([])
  })
})
