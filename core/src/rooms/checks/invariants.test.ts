import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asked, check, mark, records, TODAY } from '../../../test/checked.ts'
import { roundTime } from '../../checks/round-time.ts'
import { sparesNeeded } from '../../checks/spares.ts'
import type { Check, Mark } from '../../records/check-kinds.ts'
import { partKind } from '../../records/part-kinds.ts'
import { taskKind } from '../../records/workshop-kinds.ts'
import { z } from '../../zod.ts'
import { lineOfLog } from './log-line.ts'
import { dueAt, inWalkOrder, roundOf } from './states.ts'
import { readStopLine } from './stop-line.ts'
import { takeAlong } from './take.ts'

const ZONES = ['front', 'rear', 'cabin'] as const
const day = fc.integer({ min: 1, max: 20 }).map((on) => `2027-03-${String(on).padStart(2, '0')}`)
const own = fc.record({
  kind: fc.constantFrom('bolt', 'look', 'gear', 'take'),
  zone: fc.constantFrom(...ZONES),
  isSafety: fc.boolean(),
  isOfPart: fc.boolean(),
  tool: fc.constantFrom(null, '32 mm hub socket', 'torque wrench'),
  every: fc.constantFrom(null, { amount: 1, unit: 'days' }, { amount: 3, unit: 'events' }, { amount: 1, unit: 'months' }),
  expiresOn: fc.constantFrom('2027-03-15', '2027-03-27', '2028-01-01'),
  place: fc.option(fc.record({ xM: fc.double({ min: -1, max: 4, noNaN: true }), yM: fc.double({ min: -0.9, max: 0.9, noNaN: true }) }), { nil: null }),
  marks: fc.array(fc.tuple(day, fc.constantFrom('ok', 'bad', 'fixed', 'skipped', 'damage')), { maxLength: 4 }),
})
type Own = typeof own extends fc.Arbitrary<infer Each> ? Each : never

const checkOf = (each: Own, id: string): Check =>
  check({
    id,
    name: each.kind === 'take' && each.tool ? each.tool : `thing ${id}`,
    kind: each.kind,
    zone: each.zone,
    isSafety: each.isSafety,
    partId: each.isOfPart ? 'box' : null,
    tool: each.kind === 'take' ? null : each.tool,
    every: each.every,
    rounds: ['between'],
    place: each.place && { ...each.place, zM: 0 },
    ...(each.kind === 'gear' ? { gear: { expiresOn: each.expiresOn } } : {}),
    ...(each.kind === 'take' ? { take: { count: 1 } } : {}),
  })

const carOf = (list: readonly Own[], worked: readonly string[], more: readonly Mark[] = [], extra: readonly Check[] = []) =>
  records((all) => {
    all.parts.push(z.object(partKind.fields).parse({ id: 'box', kind: 'gearbox', name: 'gearbox', status: 'fitted' }) as never)
    const checks = list.map((each, i) => checkOf(each, `c${i}`))
    // A name stands once: the first of it is kept.
    all.checks.push(...checks.filter(({ name }, i) => checks.findIndex((other) => other.name === name) === i), ...extra)
    const there = new Set(all.checks.map(({ id }) => id))
    for (const [i, { marks }] of list.entries()) if (there.has(`c${i}`)) all.marks.push(...marks.map(([on, result]) => mark(`c${i}`, on, result)))
    all.marks.push(...more)
    for (const [i, on] of worked.entries())
      all.tasks.push(
        z
          .object(taskKind.fields)
          .parse({ id: `t${i}`, stageId: 's1', position: i + 1, name: 'work', guessH: 1, partIds: ['box'], state: 'done', doneAt: `${on}T18:00:00Z` }) as never,
      )
  })
const cars = fc.tuple(fc.array(own, { minLength: 1, maxLength: 8 }), fc.array(day, { maxLength: 2 }))
const stopping = (all: Parameters<typeof dueAt>[0]) =>
  dueAt(all, asked)
    .filter(({ stops }) => stops)
    .map(({ check: { id } }) => id)

describe('what is due', () => {
  it('what is no safety never decides whether it may go out', () => {
    fc.assert(
      fc.property(cars, own, ([list, worked], each) => {
        const plain = checkOf({ ...each, isSafety: false, kind: 'look' }, 'plain')
        const marks = each.marks.map(([on, result]) => mark('plain', on, result))
        expect(stopping(carOf(list, worked, marks, [plain]))).toEqual(stopping(carOf(list, worked)))
      }),
    )
  })
  it('nothing stops it once all that is due was found in order, but what runs out by its last day', () => {
    fc.assert(
      fc.property(cars, ([list, worked]) => {
        const before = carOf(list, worked)
        const marks = dueAt(before, asked).map(({ check: { id } }) => mark(id, TODAY, 'ok'))
        for (const id of stopping(carOf(list, worked, marks))) {
          const left = before.checks.find((each) => each.id === id)
          expect(left?.gear?.expiresOn ?? (left?.every?.unit === 'days' ? '0' : '9')).toSatisfy((on: string) => on < '2027-03-28')
        }
      }),
    )
  })
  it('a mark in order takes from the list and never adds to it', () => {
    fc.assert(
      fc.property(cars, fc.nat(7), ([list, worked], at) => {
        const before = carOf(list, worked)
        const { id } = before.checks[at % before.checks.length] as Check
        const names = (all: Parameters<typeof dueAt>[0]) => dueAt(all, asked).map((due) => due.check.id)
        const [then, now] = [names(before), names(carOf(list, worked, [mark(id, TODAY, 'ok')]))]
        expect(now.filter((each) => !then.includes(each))).toEqual([])
      }),
    )
  })
})

describe('a round', () => {
  it('asks what it names and what is bad or was touched, each once, round the car whatever their order', () => {
    fc.assert(
      fc.property(cars, ([list, worked]) => {
        const all = carOf(list, worked)
        const round = roundOf(all, { ...asked, round: 'between' })
        expect(new Set(round.map(({ check: { id } }) => id)).size).toBe(round.length)
        expect(round.length).toBe(all.checks.length)
        const placed = round.filter(({ check: { place } }) => place !== null)
        const again = inWalkOrder([...placed].reverse(), all)
        const angles = new Set(placed.map(({ check: { place } }) => Math.round(1e6 * Math.atan2(place?.yM ?? 0, (place?.xM ?? 0) - all.build.wheelbaseM / 2))))
        if (angles.size === placed.length) expect(again.map(({ check: { id } }) => id)).toEqual(placed.map(({ check: { id } }) => id))
      }),
    )
  })
  it('is shared out whole, nobody idle for longer than the longest check takes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.1, max: 30, noNaN: true }), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 1, max: 4 }),
        (minutes, people) => {
          const { shares, minutes: whole } = roundTime(minutes, people)
          expect(shares.flatMap(({ checks }) => [...checks]).sort((a, b) => a - b)).toEqual(minutes.map((_, i) => i))
          const sum = minutes.reduce((total, each) => total + each, 0)
          expect(whole).toBeGreaterThanOrEqual(sum / people - 1e-9)
          expect(whole).toBeLessThanOrEqual(sum / people + Math.max(...minutes) + 1e-9)
        },
      ),
    )
  })
})

describe('what to take', () => {
  it('names each thing once, what was missing first, and no tool that is packed as one that nobody packs', () => {
    fc.assert(
      fc.property(cars, ([list, worked]) => {
        const all = carOf(list, worked)
        const { items, unpacked } = takeAlong(all, asked)
        expect(new Set(items.map(({ key }) => key)).size).toBe(items.length)
        expect(items.map(({ wasMissing }) => Number(wasMissing))).toEqual(items.map(({ wasMissing }) => Number(wasMissing)).sort((a, b) => b - a))
        const packs = new Set(all.checks.filter(({ kind }) => kind === 'take').map(({ name }) => name))
        for (const { tool, neededBy } of unpacked) {
          expect(packs.has(tool)).toBe(false)
          expect(neededBy.length).toBeGreaterThan(0)
        }
      }),
    )
  })
  it('spares never fall as more breaks', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 50, noNaN: true }), fc.double({ min: 0, max: 50, noNaN: true }), (a, b) => {
        expect(sparesNeeded({ perEvent: Math.max(a, b) }).spares).toBeGreaterThanOrEqual(sparesNeeded({ perEvent: Math.min(a, b) }).spares)
      }),
    )
  })
})

describe('the readings of a logger', () => {
  const reading = (name: string, quantity: string, role: string, limits: object) =>
    check({ id: name, kind: 'reading', name, reading: { quantity, role, ...limits } })
  const checks = [
    reading('Coolant', 'temperature', 'coolant', { stopHigh: 378 }),
    reading('Engine oil', 'temperature', 'oilTemperature', { stopHigh: 403 }),
    reading('Oil pressure, hot', 'pressure', 'oilPressure', { stopLow: 3e5 }),
  ]
  const channels = [
    { name: 'Oil press', unit: 'psi' },
    { name: 'Coolant', unit: '°C' },
  ]
  it('are a line that reads back as the highest, or as the lowest where only a low limit stands; what it has no channel for is named', () => {
    const row = fc.tuple(fc.double({ min: 10, max: 90, noNaN: true }), fc.option(fc.double({ min: 20, max: 130, noNaN: true }), { nil: null }))
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 20 }), fc.constantFrom('.' as const, ',' as const), (rows, mark) => {
        const options = { mark, units: { temperature: '°C', pressure: 'bar' } }
        const { line, missing } = lineOfLog(checks, channels, rows, options)
        const hot = rows.flatMap(([, coolant]) => coolant ?? [])
        expect(missing).toEqual(hot.length === 0 ? ['Coolant', 'Engine oil'] : ['Engine oil'])
        const read = new Map(readStopLine(line, checks, options).map(({ checkId, value }) => [checkId, value]))
        expect(Math.abs((read.get('Oil pressure, hot') ?? 0) / 6894.757 - Math.min(...rows.map(([psi]) => psi)))).toBeLessThan(0.8)
        if (hot.length > 0) expect(Math.abs((read.get('Coolant') ?? 0) - 273.15 - Math.max(...hot))).toBeLessThan(0.06)
      }),
    )
  })
  it('a channel in a unit that is none of the reading, or a name two readings share, is left to be typed', () => {
    const twins = [...checks, reading('Coolant, rear', 'temperature', 'coolant', { stopHigh: 378 })]
    const options = { mark: '.', units: { temperature: '°C', pressure: 'bar' } } as const
    expect(lineOfLog(checks, [{ name: 'Coolant', unit: 'V' }], [[3]], options)).toEqual({ line: '', missing: checks.map(({ name }) => name) })
    expect(lineOfLog(twins, channels, [[50, 90]], options).line).toContain('Coolant, rear 90')
  })
})
