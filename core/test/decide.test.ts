import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Criterion, decide, type Option } from '../src/jobs/decide.ts'

// The worked example of the room: where to put the cooler (invented), worked apart.
const CRITERIA: Criterion[] = [
  { name: 'cost', better: 'less', price: 1, must: null },
  { name: 'mass', better: 'less', price: 42, must: null },
  { name: 'hours', better: 'less', price: 15, must: null },
  { name: 'air share', better: 'more', price: 4000, must: 0.15 },
]
const option = (name: string, ...values: [number, number][]): Option => ({ name, values: values.map(([value, sd]) => ({ value, sd })) })
const OPTIONS = [
  option('thicker core', [620, 30], [11.5, 0.6], [15.5, 4], [0.28, 0.04]),
  option('laid back', [840, 40], [13.2, 0.8], [36.1, 9.3], [0.36, 0.05]),
  option('boot', [980, 0], [19, 0], [44.6, 0], [0.16, 0]),
  option('scoop', [300, 0], [4, 0], [6, 0], [0.12, 0]),
]

describe('a decision', () => {
  const found = decide(CRITERIA, OPTIONS)
  const of = (name: string) => found.options.find((verdict) => verdict.name === name)
  it('comes to what the worked example says', () => {
    expect([of('thicker core')?.total, of('thicker core')?.sd]).toEqual([expect.closeTo(215.5, 1), expect.closeTo(175.3, 1)])
    expect([of('laid back')?.total, of('laid back')?.sd]).toEqual([expect.closeTo(495.9, 1), expect.closeTo(249.4, 1)])
    expect([of('boot')?.dominatedBy, of('scoop')?.missesMust]).toEqual(['thicker core', 'air share'])
    expect(found.best).toBe('thicker core')
    expect(found.beats).toEqual([{ name: 'laid back', chance: expect.closeTo(0.8212, 4) }])
    expect(found.turnsAt).toEqual([
      { criterion: 'hours', name: 'laid back', price: expect.closeTo(1.388, 3) },
      { criterion: 'air share', name: 'laid back', price: expect.closeTo(7505, 0) },
    ])
  })
  it('turns at the price that it says', () => {
    const dearer = CRITERIA.map((criterion) => (criterion.name === 'air share' ? { ...criterion, price: 7506 } : criterion))
    expect(decide(dearer, OPTIONS).best).toBe('laid back')
  })
  it('by musts alone where nothing is priced: none is best, and what is dominated is said', () => {
    const bare = decide(
      CRITERIA.map((criterion) => ({ ...criterion, price: null })),
      OPTIONS,
    )
    expect([bare.best, bare.options.map(({ total }) => total)]).toEqual([null, [null, null, null, null]])
    expect(bare.options.map(({ dominatedBy }) => dominatedBy)).toEqual([null, null, 'thicker core', null])
  })
  it('names what nobody knows, and gives no total for it', () => {
    const [first] = decide(CRITERIA, [{ name: 'a', values: [{ value: 1, sd: 0 }, null, { value: 1, sd: 0 }, { value: 0.3, sd: 0 }] }]).options
    expect([first?.total, first?.missing]).toEqual([null, ['mass']])
  })
  it('a new option changes no total of the others, nor who of them stands before whom', () => {
    const any = fc
      .tuple(...[1000, 30, 60, 1].map((most) => fc.double({ min: 0, max: most, noNaN: true })))
      .map((values) => option('new', ...values.map((value): [number, number] => [value, 0])))
    fc.assert(
      fc.property(any, (added) => {
        const more = decide(CRITERIA, [...OPTIONS, added]).options
        expect(more.slice(0, OPTIONS.length).map(({ total }) => total)).toEqual(found.options.map(({ total }) => total))
      }),
    )
  })
  it('is refused where an option has a number too few', () => {
    expect(() => decide(CRITERIA, [option('a', [1, 0])])).toThrow('a has 1 numbers for 4 criteria')
  })
})
