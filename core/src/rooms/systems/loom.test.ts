import fc from 'fast-check'
import { expect, it } from 'vitest'
import { circuitKind } from '../../records/systems-kinds.ts'
import { z } from '../../zod.ts'
import { loomView } from './loom.ts'

const circuit = (name: string, ends: readonly object[], more: object = {}) => z.object(circuitKind.fields).parse({ id: name, name, currentA: 5, ends, ...more })

it('says what is on each pin, in the order of the pins, in any case of the letters', () => {
  const { connectors, splices } = loomView([
    circuit('lamp', [{ connector: 'bulkhead', pin: '10', colour: 'brown', splice: null }]),
    circuit('radio', [{ connector: 'Bulkhead', pin: '9', colour: null, splice: 's1' }]),
    circuit('horn', [{ connector: 'BULKHEAD', pin: '9', colour: 'green', splice: 'S1' }]),
  ])
  expect(connectors).toEqual([
    {
      name: 'bulkhead',
      pins: [
        { pin: '9', colour: 'green', circuits: ['radio', 'horn'] },
        { pin: '10', colour: 'brown', circuits: ['lamp'] },
      ],
    },
  ])
  expect(splices).toEqual([{ name: 's1', circuits: ['radio', 'horn'] }])
})

it('a strip leaves in what is vital and what hangs on it, from joint to joint; ends of no named pin join nothing', () => {
  const end = (connector: string, pin: string | null, splice: string | null = null) => ({ connector, pin, colour: null, splice })
  const view = loomView([
    circuit('horn', [end('A', null)]),
    circuit('gauge', [end('B', '4')]),
    circuit('dash', [end('B', '4'), end('A', '1', 'S2')]),
    circuit('unit', [end('A', '2', 'S2'), end('A', null)], { isVital: true }),
  ])
  expect(view.stays).toEqual([
    { name: 'unit', with: null },
    { name: 'dash', with: 'unit' },
    { name: 'gauge', with: 'dash' },
  ])
  expect(view.goes).toEqual(['horn'])
})

it('every circuit either stays or goes, and one more joint never lets more come out', () => {
  const ends = fc.array(
    fc.record({
      connector: fc.constantFrom('A', 'B'),
      pin: fc.constantFrom('1', '2', '3', null),
      colour: fc.constant(null),
      splice: fc.constantFrom('S1', 'S2', null, null),
    }),
    { maxLength: 3 },
  )
  const list = fc.array(fc.tuple(ends, fc.boolean()), { minLength: 2, maxLength: 7 })
  fc.assert(
    fc.property(list, (all) => {
      const circuits = all.map(([own, isVital], i) => circuit(`c${i}`, own, { isVital }))
      const { stays, goes } = loomView(circuits)
      expect([...stays.map(({ name }) => name), ...goes].sort()).toEqual(circuits.map(({ name }) => name).sort())
      const joined = circuits.map((each, i) => (i < 2 ? { ...each, ends: [...each.ends, { connector: 'Z', pin: '9', colour: null, splice: null }] } : each))
      expect(loomView(joined).goes.filter((name) => !goes.includes(name))).toEqual([])
    }),
  )
})
