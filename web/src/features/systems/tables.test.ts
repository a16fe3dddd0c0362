import { circuitKind, loomView, z } from '@bold-ballast/core'
import { expect, it } from 'vitest'
import { coolersTable, pinsTable } from './tables.ts'

it('pins go out with all that is on them, splices behind', () => {
  const circuit = (name: string) =>
    z.object(circuitKind.fields).parse({ id: name, name, currentA: 5, ends: [{ connector: 'Bulkhead', pin: '8', colour: 'brown', splice: 'S1' }] })
  expect(pinsTable(loomView([circuit('radio'), circuit('wiper')])).rows).toEqual([
    ['Bulkhead', '8', 'brown', 'radio; wiper'],
    ['splice S1', null, null, 'radio; wiper'],
  ])
})

it('coolers go out with what is known of them and why nothing is', () => {
  const none = { partId: null, mount: 'other', index: 0, hot: null, chanceUnder: null, massKg: null, frontShare: null, cost: null } as const
  expect(coolersTable([{ ...none, name: 'core', refused: 'No rating.' }]).rows).toEqual([['core', null, null, null, null, null, null, 'No rating.']])
})
