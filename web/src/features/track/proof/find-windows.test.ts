import type { RoomLog } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { lap } from '../session-fixture.ts'
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
