import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { tyresForEvents } from './tyres-for-events.ts'

const TODAY = '2027-03-01'
const [bought] = (EXAMPLE_RECORDS.stages ?? []) as unknown as readonly [{ id: string }]
const tyre = (id: string, axle: string, more: object = {}) => ({
  id,
  name: id,
  kind: 'tyres',
  stageId: bought.id,
  status: 'fitted',
  cost: 180,
  drive: { role: 'tyre', axle },
  ...more,
})
const event = (id: string, more: object = {}) => ({ id, name: id, startsOn: '2027-03-06', days: 2, ...more })
const track = { id: 't', name: 'Yard', segments: [{ lengthM: 100 }] }
const session = (id: string, at: string, more: object = {}) => ({ id, stageId: bought.id, trackId: 't', at, kind: 'runs', ...more })
const runs = (sessionId: string, count: number) =>
  Array.from({ length: count }, (_, i) => ({ id: `${sessionId}${i}`, trackSessionId: sessionId, position: i, typed: 'run' }))

const of = (more: object) => tyresForEvents(buildRecordsSchema.parse({ ...EXAMPLE_RECORDS, ...more }), 0, TODAY)

describe('tyres for the events ahead', () => {
  it('by days of the calendar: two days over a life of four are half a set, and one does', () => {
    const [rear] = of({ parts: [tyre('R', 'rear', { life: { amount: 4, unit: 'days' } })], events: [event('Cup')] })
    expect(rear).toMatchObject({ axles: ['rear'], perDay: null, reason: null })
    expect(rear?.events).toMatchObject([{ takes: 2, mean: 0.5, sets: 1, cost: 90 }])
  })
  it('by runs as they were driven, and pairs as they were counted, before what was typed', () => {
    const parts = [tyre('R', 'rear', { life: { amount: 22, unit: 'runs' } })]
    const days = [session('a', '2026-10-17T10:00:00Z', { rearPairsUsed: 5 }), session('b', '2026-10-18T10:00:00Z', { rearPairsUsed: 5 })]
    const [rear] = of({ parts, tracks: [track], trackSessions: days, driftRuns: [...runs('a', 12), ...runs('b', 18)], events: [event('Cup')] })
    // 30 runs on 10 pairs: three a pair; 15 on a day in the middle: 30 runs are ten pairs, and more to be sure of it.
    expect(rear).toMatchObject({ perDay: 15, life: { amount: 3, unit: 'runs', from: 'pairsUsed' } })
    expect(rear?.events[0]).toMatchObject({ takes: 30, mean: 10, cost: 1800 })
    expect(rear?.events[0]?.sets).toBeGreaterThan(10)
  })
  it('one set for both axles is told once, and its price is asked for, not made up', () => {
    const told = of({
      parts: [tyre('All', 'both', { cost: null, life: { amount: 1, unit: 'events' } })],
      events: [event('Cup'), event('Looked at', { kind: 'scrutineering' })],
    })
    expect(told).toHaveLength(1)
    expect(told[0]).toMatchObject({ axles: ['front', 'rear'], events: [{ mean: 1, cost: null }] })
  })
  test.each([
    ['no life', { parts: [tyre('R', 'rear')] }, 'type a life with the part'],
    ['no day driven', { parts: [tyre('R', 'rear', { life: { amount: 22, unit: 'runs' } })], events: [event('Cup')] }, 'No day of runs was logged yet'],
    ['no event', { parts: [tyre('R', 'rear', { life: { amount: 4, unit: 'days' } })] }, 'No event is in the calendar'],
    [
      'only an event that is over',
      { parts: [tyre('R', 'rear', { life: { amount: 4, unit: 'days' } })], events: [event('Past', { startsOn: '2027-02-01' })] },
      'No event',
    ],
  ])('%s: says what to enter', (_, more, sentence) => {
    expect(of(more)[0]).toMatchObject({ events: [], reason: expect.stringContaining(sentence) })
  })
})
