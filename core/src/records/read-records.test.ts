import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../test/worked-example.ts'
import { makeBoard } from '../board/board.ts'
import { openCar } from '../stages/car.ts'
import { readBuildRecords } from './read-records.ts'
import type { BuildRecords } from './records.ts'

const copy = (edit: (records: BuildRecords) => void) => changed(edit)

describe('stored records', () => {
  it('come through whole where nothing is broken', () => {
    const { records, broken, leftOut } = readBuildRecords(workedExample())
    expect(broken).toEqual([])
    expect(leftOut.size).toBe(0)
    expect(makeBoard(openCar(records), '2026-11-01')).toEqual(makeBoard(openCar(workedExample()), '2026-11-01'))
  })

  test.each([
    [
      'a line without a value',
      (all: BuildRecords) => Object.assign(all.changes[1] as object, { values: [{ massKg: -1, proof: 'guess', at: '2026-03-01T10:00:00Z' }] }),
      { list: 'changes', id: 'c2', name: 'tailgate' },
      /^values.0.massKg is too small/,
    ],
    [
      'a line of a stage that is gone',
      (all: BuildRecords) => Object.assign(all.changes[0] as object, { stageId: 'gone' }),
      { list: 'changes', id: 'c1', name: 'bench' },
      /stage is not there/,
    ],
    [
      'a weighing without a time',
      (all: BuildRecords) => Object.assign(all.weighings[1] as object, { at: 'soon' }),
      { list: 'weighings', id: 'w1' },
      /^at cannot be read/,
    ],
    [
      'a pull without power',
      (all: BuildRecords) => Object.assign(all.pulls[2] as object, { peakPowerW: 0 }),
      { list: 'pulls', id: 'p2', name: '3' },
      /^peakPowerW is too small/,
    ],
    [
      'a target of no metric',
      (all: BuildRecords) => Object.assign(all.targets[0] as object, { metric: 'loudness' }),
      { list: 'targets', id: 't1', name: 'loudness' },
      /^metric is none of/,
    ],
  ])('%s is left out and named', (_, edit, named, reason) => {
    const { records, broken } = readBuildRecords(copy(edit))
    expect(broken).toEqual([expect.objectContaining({ ...named, reason: expect.stringMatching(reason) })])
    expect(() => makeBoard(openCar(records), '2026-11-01')).not.toThrow()
  })

  it('lose the parts of a deleted record without calling them broken', () => {
    const { records, broken, leftOut } = readBuildRecords(copy((all) => all.sessions.pop()))
    expect(broken).toEqual([])
    expect(records.pulls).toEqual([])
    expect([...leftOut]).toEqual(['p0', 'p1', 'p2'])
  })

  it('stay the same list while no revision touches it, and are looked at again once what they name is gone', () => {
    const first = workedExample()
    const before = readBuildRecords(first).records
    const { records: next } = readBuildRecords({ ...first, changes: first.changes.slice(1) })
    expect(next.pulls).toBe(before.pulls)
    expect(next.changes).toHaveLength(before.changes.length - 1)
    const { records: without, leftOut } = readBuildRecords({ ...first, sessions: [] })
    expect(without.pulls).toEqual([])
    expect([...leftOut]).toEqual(before.pulls.map(({ id }) => id))
    expect(readBuildRecords(first).records.pulls).toEqual(before.pulls)
  })

  it('open a build whose own numbers cannot be, with each of them named', () => {
    const { records, broken } = readBuildRecords(
      copy((all) => void Object.assign(all.build, { wheelbaseM: 0.001, trackRearM: -1, baselineMass: { massKg: 'heavy' } })),
    )
    expect(broken.map(({ list, reason }) => [list, reason.split(' ')[0]])).toEqual([
      ['build', 'wheelbaseM'],
      ['build', 'trackRearM'],
      ['build', 'baselineMass.massKg'],
    ])
    expect(records.build).toMatchObject({ wheelbaseM: 2.6, trackRearM: 1.5, baselineMass: null, name: 'Worked example' })
  })

  test.each([
    ['the build has no name', (all: BuildRecords) => Object.assign(all.build, { name: '' }), /name/],
    ['there is no stage', (all: BuildRecords) => all.stages.splice(0), /no stage/],
  ])('are refused where %s', (_, edit, sentence) => {
    expect(() => readBuildRecords(copy((all) => void edit(all)))).toThrow(sentence)
  })
})
