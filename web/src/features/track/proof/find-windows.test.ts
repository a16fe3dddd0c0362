import type { LogSamples } from '@bold-ballast/contract'
import type { RoomLog } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { lap, session } from '../session-fixture.ts'
import { airSamples, airWords, airWrites } from './air-windows.ts'
import { partsOf, windowWrites } from './find-windows.ts'

const log = { id: 'log', durationS: 3600, rowCount: 180_000 } as RoomLog

describe('a log read for windows', () => {
  it('is taken lap by lap, else in pieces that are read whole, which cover it', () => {
    const logged = { lap: { ...lap(0, 84.9), fromS: 22 }, log }
    expect(partsOf(log, [logged])).toEqual([{ fromS: 22, toS: 106.9, logged }])
    const pieces = partsOf(log, [])
    expect(pieces).toHaveLength(10)
    expect(pieces[0]?.fromS).toBe(0)
    expect(pieces.at(-1)?.toS).toBe(3600)
    for (const [i, { fromS, toS }] of pieces.entries()) {
      expect((toS - fromS) * 50).toBeLessThanOrEqual(18_000)
      if (i > 0) expect(fromS).toBe(pieces[i - 1]?.toS)
    }
  })
  it('is written as one entry: what it had goes, what was found comes, other logs stay', () => {
    const power = [{ fromS: 3, toS: 5, gear: 3, points: [{ speedRpm: 5000, powerW: -4, sdW: 2, speedMps: 30, accelerationMps2: 2 }] }]
    const before = [
      { id: 'old', version: 4, logId: 'log' },
      { id: 'else', version: 1, logId: 'another' },
    ]
    const writes = windowWrites({ log, power, grip: [{ fromS: 22, toS: 107, grip: 1.1, lap: 1 }], told: [] }, before, () => 'new')
    expect(writes.map(({ kind }) => kind)).toEqual(['remove', 'create', 'create'])
    expect(writes[0]).toMatchObject({ id: 'old', version: 4 })
    // What is stored is power at a speed, never less than nothing.
    expect(writes[1]).toMatchObject({ body: { of: 'power', gear: 3, points: [{ speedRpm: 5000, powerW: 0, sdW: 2 }] } })
    expect(writes[2]).toMatchObject({ body: { of: 'grip', grip: 1.1, fromS: 22, toS: 107 } })
  })
})

describe('drag and load handed to Aero', () => {
  const piece = (timeS: number[], speed: number[], more: Record<string, number[]> = {}) =>
    ({
      timeS,
      channels: Object.entries({ speed, ...more }).map(([role, least]) => ({ role, least, most: least })),
    }) as unknown as LogSamples
  it('joins pieces that overlap, each time once, and leaves out channels that no piece has', () => {
    const { samples, travel } = airSamples([piece([0, 1, 2], [30, 29, 28], { throttle: [0, 0, 0] }), piece([1, 2, 3], [29, 28, 27])])
    expect(travel).toBeNull()
    expect(samples.timeS).toEqual([0, 1, 2, 3])
    expect(samples.speedMps).toEqual([30, 29, 28, 27])
    expect(samples.throttle).toEqual([0, 0, 0, Number.NaN])
    expect(samples.brakePa).toBeNull()
  })
  it('reads heights of both axles as the car sinks', () => {
    const heights = { heightFront: [0.09, 0.08, 0.07], heightRear: [0.12, 0.12, 0.11] }
    expect(airSamples([piece([0, 1, 2], [30, 29, 28], heights)]).travel).toEqual({
      reading: 'height',
      frontM: [-0.09, -0.08, -0.07],
      rearM: [-0.12, -0.12, -0.11],
    })
  })
  const run = { timeS: [0, 1], speedMps: [30, 29] }
  const pairs = [1, 2].map(() => ({ out: run, back: run, fit: {} as never }))
  const points = [{ fromS: 4, speedMps: 30, frontM: 0.01, rearM: 0.02, decelerationMps2: 0.1 }]
  const found = { coasting: { pairs, left: 1 }, loads: { reading: 'damper', points }, noLoads: null } as const
  it('is a test of each kind with the session’s car and air, coasting with a run for each pair', () => {
    let count = 0
    const inputs = { car: { massKg: 1342, massSdKg: 3 } } as never
    const writes = airWrites(found, session({ kind: 'straight' }), inputs, () => `id ${++count}`)
    expect(writes.map((write) => 'resource' in write && write.resource)).toEqual(['aero-tests', 'aero-runs', 'aero-runs', 'aero-tests', 'aero-runs'])
    expect(writes[0]).toMatchObject({ kind: 'create', body: { id: 'id 1', kind: 'coastDown', placeName: 'Field', massKg: 1342, massSdKg: 3, stageId: 'now' } })
    expect(writes[1]).toMatchObject({ body: { testId: 'id 1', position: 0, steady: null, coast: { out: run, back: run } } })
    const { fromS: _, ...point } = points[0] as (typeof points)[number]
    expect(writes[3]).toMatchObject({ body: { id: 'id 4', kind: 'steady' } })
    expect(writes[4]).toMatchObject({ body: { testId: 'id 4', position: 0, coast: null, steady: { reading: 'damper', points: [point] } } })
    expect(airWrites({ ...found, coasting: { pairs: [], left: 0 }, loads: null }, session({}), inputs, () => 'id')).toEqual([])
  })
  it('says what was found and why the rest was not', () => {
    expect(airWords(found)).toEqual({
      handed: 'Aero has 2 pairs of coasting and 1 second of load on the axles to test with now. 1 more found no run the other way.',
      told: [],
    })
    const none = airWords({ coasting: { pairs: [], left: 0 }, loads: null, noLoads: 'No dampers.' })
    expect(none.handed).toBeNull()
    expect(none.told).toEqual([expect.stringContaining('on no straight of it'), 'No dampers.'])
  })
})
