import type { RecordsAnswer } from '@bold-ballast/contract'
import type { JobsRoom } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import type { RoadView } from './jobs.worker.ts'
import { decisionTable, eventsTable, handsTable, roadTable } from './tables.ts'

const ROOM = {
  today: '2027-03-01',
  road: {
    hands: [{ id: 'i', name: 'Ilse' }],
    parts: [{ id: 'p', name: 'core' }],
    jobs: [
      { id: 'a', name: 'Fit core', stage: 3, kind: 'work', handIds: ['i'], guess: 4, spent: 1, afterIds: [], partIds: ['p'] },
      { id: 'b', name: 'Dries', stage: 3, kind: 'wait', handIds: [], guess: 2, spent: 0, afterIds: ['a'], partIds: [] },
    ],
  },
} as unknown as JobsRoom
const VIEW = {
  jobs: [
    { laid: { length: 5.5 }, halfDay: 8, eightDay: 11 },
    { laid: { length: 2.4 }, halfDay: Number.POSITIVE_INFINITY, eightDay: Number.POSITIVE_INFINITY },
  ],
  ready: null,
} as unknown as RoadView

describe('tables of the jobs', () => {
  it('hold days as days, numbers in full, and nothing for a day that never comes', () => {
    const { head, rows } = roadTable(ROOM, VIEW, null)
    expect(rows.map((row) => row.length)).toEqual([head.length, head.length])
    expect(rows[0]).toEqual(['Fit core', 3, 'work', 'Ilse', 4, 1, 5.5, '', 'core', '2027-03-09', '2027-03-12', null])
    expect(rows[1]?.slice(-5)).toEqual(['Fit core', '', null, null, null])
  })
  it('of a decision hold each option with its spread', () => {
    const decision = { criteria: [{ name: 'cost', better: 'less', price: 1, must: null }], options: [{ name: 'core' }, { name: 'scoop' }] }
    const view = { values: [[{ number: { value: 620, sd: 30 } }], [{ number: null }]] }
    expect(decisionTable(decision as never, view as never)).toEqual({
      head: ['Criterion', 'Better', 'Price', 'Must', 'core', 'core, spread', 'scoop', 'scoop, spread'],
      rows: [['cost', 'less', 1, null, 620, 30, null, null]],
    })
  })
  it('of hands and events name stages and tracks, and keep a day away as one', () => {
    const records = {
      hands: [
        {
          name: 'Ilse',
          hoursByWeekday: [0, 3, 0, 3, 0, 6, 0],
          away: [
            { from: '2027-03-06', to: '2027-03-06' },
            { from: '2027-04-01', to: '2027-04-03' },
          ],
        },
      ],
      events: [
        { name: 'Hour', kind: 'hire', startsOn: '2027-03-27', days: 1, leavesOn: null, stageId: 's', trackId: 'gone', bookedS: 3600, cost: 240, paid: null },
      ],
      stages: [{ id: 's', name: 'Final drive' }],
      tracks: [],
    } as unknown as RecordsAnswer
    expect(handsTable(records).rows).toEqual([['Ilse', 0, 3, 0, 3, 0, 6, 0, '2027-03-06; 2027-04-01 to 2027-04-03']])
    expect(eventsTable(records).rows).toEqual([['Hour', 'hire', '2027-03-27', 1, null, 'Final drive', null, 3600, 240, null]])
  })
})
