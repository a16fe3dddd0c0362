import type { RecordsAnswer } from '@bold-ballast/contract'
import { describe, expect, it } from 'vitest'
import type { StoredTask } from '../tab-props.ts'
import { doneWrites, hoursWrites, lineWrites, moveWrites } from './road-writes.ts'

const TODAY = '2027-03-01'
const task = (id: string, more: object = {}) =>
  ({
    id,
    version: 3,
    stageId: 's',
    position: 1,
    name: id,
    kind: 'work',
    guessH: 4,
    guessDays: null,
    whoIds: [],
    afterIds: [],
    partIds: [],
    changeIds: [],
    worked: [],
    state: 'planned',
    ...more,
  }) as unknown as StoredTask
const records = (more: object) => ({ stages: [{ id: 's', position: 1 }], tasks: [], parts: [], changes: [], ...more }) as unknown as RecordsAnswer

describe('what the line of the jobs writes', () => {
  it('puts a new job behind the others of its stage', () => {
    const read = {
      is: 'job',
      name: 'Weld',
      kind: 'work',
      amount: 3,
      whoIds: [],
      holds: null,
      partIds: [],
      afterIds: [],
      notBefore: null,
      isOptional: false,
      stage: null,
    } as const
    expect(lineWrites(read, records({ tasks: [task('a', { position: 7 })] }), 's', TODAY, 'new')).toEqual([
      expect.objectContaining({ kind: 'create', resource: 'tasks', body: expect.objectContaining({ id: 'new', position: 8, guessH: 3, guessDays: null }) }),
    ])
  })
  it('a part that came is here; one that is promised forgets what was guessed, where it was ordered', () => {
    const all = records({ parts: [{ id: 'p', version: 2, orderedOn: '2027-02-22', leadDays: 10 }] })
    const body = (on: string) => (lineWrites({ is: 'arrival', partId: 'p', name: 'p', on }, all, 's', TODAY, 'x')[0] as { body: object }).body
    expect(body('2027-02-28')).toEqual({ version: 2, cameOn: '2027-02-28' })
    expect(body('2027-03-14')).toEqual({ version: 2, promisedOn: '2027-03-14', leadDays: null })
  })
  it('hours are added to those that stand, and are his whose job it is', () => {
    const worked = [{ on: '2027-02-28', handId: 't', hours: 1 }]
    expect(hoursWrites(task('a', { worked, whoIds: ['i'] }), 2, null, TODAY)).toEqual([
      expect.objectContaining({ body: { version: 3, worked: [...worked, { on: TODAY, handId: 'i', hours: 2 }], state: 'underway' } }),
    ])
  })
  it('done closes the job, its open lines and its parts, and nothing else', () => {
    const all = records({
      changes: [
        { id: 'c', version: 1, state: 'planned' },
        { id: 'd', version: 1, state: 'done' },
        { id: 'e', version: 1, state: 'planned' },
      ],
      parts: [
        { id: 'p', version: 5, status: 'here', orderedOn: '2027-02-01', cameOn: '2027-02-20' },
        { id: 'q', version: 6, status: 'fitted' },
      ],
    })
    const writes = doneWrites(task('a', { changeIds: ['c', 'd'], partIds: ['p', 'q'], worked: [{ on: TODAY, handId: null, hours: 2 }] }), 5, all, TODAY) as {
      id: string
      body: object
    }[]
    expect(writes.map(({ id }) => id)).toEqual(['a', 'c', 'p'])
    expect(writes[0]?.body).toMatchObject({ state: 'done', worked: [{ hours: 2 }, { hours: 3 }] })
    expect(writes[2]?.body).toEqual({ version: 5, fittedOn: TODAY, status: 'fitted' })
  })
  it('hours of more than a day are parted, and fewer than were logged put the whole right', () => {
    const hours = (amount: number, worked: object[] = []) =>
      (doneWrites(task('a', { worked }), amount, records({}), TODAY)[0] as unknown as { body: { worked: { hours: number }[] } }).body.worked.map(
        (entry) => entry.hours,
      )
    expect(hours(60)).toEqual([20, 20, 20])
    expect(hours(3, [{ on: TODAY, handId: null, hours: 9 }])).toEqual([3])
  })
  it('two jobs change places, also where both stand at one; the first goes no further up', () => {
    const places = (one: StoredTask, by: 1 | -1, ...open: StoredTask[]) =>
      (moveWrites(one, open, by) as unknown as { id: string; body: { position: number } }[]).map(({ id, body }) => [id, body.position])
    const [a, b, c] = [task('a'), task('b', { position: 2 }), task('c', { position: 2 })]
    expect(places(b, -1, a, b)).toEqual([
      ['b', 1],
      ['a', 2],
    ])
    expect(places(a, -1, a, b)).toEqual([])
    // Two of one place: the moved one passes its neighbour alone, not also the one before it.
    expect(places(c, -1, a, b, c)).toEqual([['b', 3]])
    expect(places(b, 1, a, b, c)).toEqual([['b', 3]])
    expect(places(a, 1, a, b, c)).toEqual([
      ['b', 1],
      ['a', 2],
      ['c', 3],
    ])
  })
})
