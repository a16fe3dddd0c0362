import fc from 'fast-check'
import { expect, it } from 'vitest'
import { copiesToLetGo } from './rotate.ts'
import { nameOf, takenAtOf } from './take.ts'

const DAY_MS = 86_400_000
const FIRST = Date.UTC(2026, 0, 1, 3)
const daily = (days: number) => Array.from({ length: days }, (_, i) => nameOf(new Date(FIRST + i * DAY_MS)))

// Counted by hand: of 40 days eight are young, then 1 Feb and 25 Jan as the latest of their weeks, January by 31 Jan; of 400 eight, two weeks, ten months.
it.each([
  [0, 0],
  [1, 0],
  [8, 0],
  [40, 29],
  [400, 380],
])('of one a day for %i days, %i go', (days, gone) => {
  expect(copiesToLetGo(daily(days))).toHaveLength(gone)
})

it('neither the newest nor one of its last week goes; beside them at most 4 of weeks and 12 of months stay, in whatever order they are named', () => {
  const times = fc.array(fc.integer({ min: 0, max: 800 * 24 * 3600 }), { minLength: 1, maxLength: 120 })
  fc.assert(
    fc.property(times, (seconds) => {
      const names = [...new Set(seconds.map((each) => nameOf(new Date(FIRST + each * 1000))))].sort()
      const gone = copiesToLetGo(names)
      const kept = names.filter((name) => !gone.includes(name))
      const newest = takenAtOf(names.at(-1) as string).getTime()
      const isYoung = (name: string) => newest - takenAtOf(name).getTime() <= 7 * DAY_MS
      expect(gone.filter(isYoung)).toEqual([])
      expect(kept.filter((name) => !isYoung(name)).length).toBeLessThanOrEqual(16)
      expect(copiesToLetGo([...names].reverse())).toEqual(gone)
      // Letting go twice lets go of no more.
      expect(copiesToLetGo(kept)).toEqual([])
    }),
  )
})

it('a name tells when a copy was taken, to the second', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 4e9 }), (seconds) => {
      expect(takenAtOf(nameOf(new Date(seconds * 1000))).getTime()).toBe(seconds * 1000)
    }),
  )
})
