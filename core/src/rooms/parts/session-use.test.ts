import { describe, expect, it } from 'vitest'
import { type Part, type PartUse, partKind, partUseKind } from '../../records/part-kinds.ts'
import { z } from '../../zod.ts'
import { type Ran, sessionUses } from './session-use.ts'

const part = (id: string, more: object = {}): Part =>
  z.object(partKind.fields).parse({ id, kind: 'hub', name: id, status: 'fitted', life: { amount: 20, unit: 'hours' }, ...more })
const use = (partId: string, more: object = {}): PartUse =>
  z.object(partUseKind.fields).parse({ id: `u ${partId}`, partId, at: '2026-10-10T08:00:00Z', amount: 1, note: null, ...more })
const RAN = { at: '2026-10-10T10:00:00Z', hours: 0.3, laps: 11, runs: 0, tyrePartIds: [] }
const amounts = (parts: Part[], partUses: PartUse[] = [], ran: Partial<Ran> = {}, logged: PartUse[] = []) =>
  sessionUses({ parts, partUses }, { ...RAN, ...ran }, logged).map(({ part: { id }, amount }) => [id, amount])

describe('what a session on track uses up', () => {
  it('is counted in the unit of each life', () => {
    const parts = (['hours', 'days', 'events', 'laps', 'runs'] as const).map((unit) => part(unit, { life: { amount: 20, unit } }))
    expect(amounts(parts)).toEqual([
      ['hours', 0.3],
      ['days', 1],
      ['events', 1],
      ['laps', 11],
    ])
    expect(amounts(parts, [], { laps: 0, runs: 6 })).toContainEqual(['runs', 6])
  })
  it('takes a day once, however many sessions it had', () => {
    const shaft = part('shaft', { life: { amount: 4, unit: 'days' } })
    expect(amounts([shaft], [use('shaft')])).toEqual([])
    expect(amounts([shaft], [use('shaft', { at: '2026-10-11T08:00:00Z' })])).toEqual([['shaft', 1]])
    expect(amounts([shaft], [use('shaft', { kind: 'pulled' })])).toEqual([['shaft', 1]])
  })
  it('leaves what is not fitted, does not wear, was logged, or was not on', () => {
    expect(amounts([part('new', { status: 'here' }), part('bracket', { life: null })])).toEqual([])
    expect(amounts([part('hub')], [], {}, [use('hub')])).toEqual([])
    const tyre = (id: string) => part(id, { life: { amount: 200, unit: 'laps' }, drive: { role: 'tyre', code: '245/40R17' } })
    expect(amounts([tyre('soft'), tyre('hard')], [], { tyrePartIds: ['soft'] })).toEqual([['soft', 11]])
    expect(amounts([tyre('soft'), tyre('hard')])).toHaveLength(2)
  })
})
