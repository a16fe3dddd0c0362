import { describe, expect, it } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { decisionKind } from '../../records/decision-kind.ts'
import { partKind } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { taskKind } from '../../records/workshop-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { decisionView, paidPerKg } from './decisions.ts'

const TODAY = '2027-03-01'
const criteria = (['cost', 'mass', 'hours', 'arrival'] as const).map((name) => ({ name, from: name }))
const decision = (options: object[], more: object = {}) =>
  z.object(decisionKind.fields).parse({ id: 'd', question: 'Which?', stageId: 's2', criteria, options, ...more })
const car = (more: (all: BuildRecords) => void) => openCar(changed(more))

describe('the numbers of an option', () => {
  const own = car((all) => {
    all.parts.push(
      z.object(partKind.fields).parse({
        id: 'core',
        kind: 'cooler',
        name: 'core',
        count: 2,
        cost: 300,
        costKnown: 'catalogue',
        leadDays: 7,
        mass: { massKg: 4, sdKg: null, proof: 'catalogue' },
      }) as never,
      z.object(partKind.fields).parse({ id: 'here', kind: 'cooler', name: 'here', cost: 90, paid: 100, status: 'here' }) as never,
    )
    all.tasks.push(z.object(taskKind.fields).parse({ id: 't', stageId: 's2', position: 1, name: 'fit', guessH: 4, partIds: ['core'] }) as never)
    Object.assign(all.changes.find(({ id }) => id === 'c6') as object, { hours: 2 })
  })
  const numbers = (option: object) => decisionView(own, decision([{ name: 'a', ...option }]), TODAY).values[0]?.map(({ number }) => number)
  it('come from its parts, lines and jobs, as guesses run', () => {
    const [cost, mass, hours, arrival] = numbers({ partIds: ['core', 'here'] }) ?? []
    expect(cost).toEqual({ value: 400, sd: 15 })
    expect(mass).toEqual({ value: 8, sd: expect.closeTo(0.8, 9) })
    // 4 h guessed: mu 0.40, s 0.45, v 0.0675.
    expect(hours?.value).toBeCloseTo(4 * Math.exp(0.4 + 0.2025 / 2 + 0.0675 / 2), 6)
    // 7 days of lead come to 8.13: here on the ninth.
    expect(arrival).toEqual({ value: 9, sd: 0 })
  })
  it('of a line: its mass with its sign, and hours that no job does', () => {
    const [cost, mass, hours, arrival] = numbers({ changeIds: ['c6'] }) ?? []
    expect([cost, arrival]).toEqual([null, null])
    expect(mass?.value).toBeLessThan(-13)
    expect(hours?.value).toBeGreaterThan(2)
  })
  it('a typed number stands before them', () => {
    const view = decisionView(own, decision([{ name: 'a', partIds: ['core'], values: [{ of: 'Cost', value: 250, sd: 10 }] }]), TODAY)
    expect(view.values[0]?.[0]).toEqual({ number: { value: 250, sd: 10 }, isTyped: true })
  })
  it('of a part that a line of it puts in count once, with the line', () => {
    const twice = car((all) => {
      all.parts.push(z.object(partKind.fields).parse({ id: 'core', kind: 'cooler', name: 'core', mass: { massKg: 4, sdKg: null, proof: 'measured' } }) as never)
      Object.assign(all.changes.find(({ id }) => id === 'c4') as object, { partId: 'core', values: [] })
    })
    const view = decisionView(twice, decision([{ name: 'a', partIds: ['core'], changeIds: ['c4'] }]), TODAY)
    expect(view.values[0]?.[1]?.number?.value).toBeCloseTo(4, 6)
  })
})

describe('what is told of decisions', () => {
  it('one that is due within a week and open is a thing to do', () => {
    const next = (dueOn: string, chosen: string | null) =>
      makeBoard(
        car((all) => void all.decisions.push(decision([{ name: 'a' }], { dueOn, chosen }) as never)),
        TODAY,
      ).next.filter(({ code }) => code === 'decision-due').length
    expect([next('2027-03-07', null), next('2027-03-07', 'a'), next('2027-03-20', null)]).toEqual([1, 0, 0])
  })
  it('a kilogram has cost what was paid over what came off; nothing where nothing was paid', () => {
    expect(paidPerKg(car(() => undefined))).toBeNull()
  })
})
