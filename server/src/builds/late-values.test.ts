import { type BuildRecords, type RoadAsked, WAITING } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import type { WorkPool } from '../workers/pool.ts'
import type { KeptResults } from './kept-results.ts'
import { LateValues } from './late-values.ts'

const RECORDS = { build: { id: 'b' } } as unknown as BuildRecords
/** Keeps nothing. */
const NOTHING_KEPT = { hashOf: () => Buffer.alloc(32), of: (_place: unknown, work: () => Promise<unknown>) => work() } as unknown as KeptResults
const soon = () => new Promise((resolve) => setTimeout(resolve, 0))

/** A pool that answers with what it is told, in turn. */
function poolOf(...answers: (unknown[] | Error)[]) {
  const asked: unknown[] = []
  const run = async (_job: string, input: unknown) => {
    asked.push(input)
    const answer = answers[Math.min(asked.length, answers.length) - 1]
    if (answer instanceof Error) throw answer
    return answer
  }
  return { asked, pool: { run } as unknown as WorkPool }
}

describe('values that come later', () => {
  it('wait at first, are asked once for all stages, and are there when they are asked for again', async () => {
    const { asked, pool } = poolOf([{ value: 1 }, undefined, { value: 3 }])
    const later = new LateValues(pool, NOTHING_KEPT).of(RECORDS)
    expect([later('zeroTo100', 0), later('zeroTo100', 2)]).toEqual([WAITING, WAITING])
    await soon()
    expect([later('zeroTo100', 0), later('zeroTo100', 1), later('zeroTo100', 2)]).toEqual([{ value: 1 }, undefined, { value: 3 }])
    expect(asked).toEqual([{ records: RECORDS, metric: 'zeroTo100' }])
  })
  it('are tried again after the pool was busy', async () => {
    const { pool } = poolOf(new Error('queue'), [{ value: 1 }])
    const later = new LateValues(pool, NOTHING_KEPT).of(RECORDS)
    later('topSpeed', 0)
    await soon()
    expect(later('topSpeed', 0)).toBe(WAITING)
    await soon()
    expect(later('topSpeed', 0)).toEqual({ value: 1 })
  })
  it('are none after three tries, so that nobody waits for ever', async () => {
    const { asked, pool } = poolOf(new Error('too long'))
    const later = new LateValues(pool, NOTHING_KEPT).of(RECORDS)
    for (let i = 0; i < 6; i++) {
      later('topSpeed', 0)
      await soon()
    }
    expect(later('topSpeed', 0)).toBeUndefined()
    expect(asked).toHaveLength(3)
  })
})

describe('values and roads that somebody waits for', () => {
  it('are there once they are worked out, worked out once for all who ask', async () => {
    const { asked, pool } = poolOf([{ value: 1 }])
    const late = new LateValues(pool, NOTHING_KEPT)
    late.of(RECORDS)('topSpeed', 0)
    expect(await Promise.all([late.values(RECORDS, 'topSpeed'), late.values(RECORDS, 'topSpeed')])).toEqual([[{ value: 1 }], [{ value: 1 }]])
    expect(asked).toHaveLength(1)
  })
  it('are tried three times, then none', async () => {
    const { asked, pool } = poolOf(new Error('too long'))
    expect(await new LateValues(pool, NOTHING_KEPT).values(RECORDS, 'topSpeed')).toEqual([])
    expect(asked).toHaveLength(3)
  })
  it('are a road, found by whoever asks later', async () => {
    const found = [{ stages: [], help: null, orderBy: [] }]
    const { asked, pool } = poolOf(found)
    const late = new LateValues(pool, NOTHING_KEPT)
    const question = { road: {}, deadlines: [] } as unknown as RoadAsked
    expect(late.roadOf('b')(question)).toBe(WAITING)
    expect(await late.road('b', question)).toBe(found)
    expect(late.roadOf('b')(question)).toBe(found)
    expect(asked).toHaveLength(1)
  })
  it('are none where the road cannot be worked out', async () => {
    const { pool } = poolOf(new Error('too long'))
    expect(await new LateValues(pool, NOTHING_KEPT).road('b', { road: {}, deadlines: [] } as unknown as RoadAsked)).toBeUndefined()
  })
})
