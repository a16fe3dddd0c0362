import { expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import type { Change } from '../../records/weight-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { massOf } from './mass-at-stage.ts'
import { whyTooMuchOff } from './too-much-off.ts'

const records = changed((all) => {
  // A light car: papers of 500 kg and nothing on the scales (invented).
  all.weighings = []
  all.build.baselineMass = { massKg: 500, sdKg: 5, proof: 'catalogue', typed: null, hasDriver: true, hasFuel: true }
  all.changes = []
})
const line = (id: string, massKg: number, more: Partial<Change> = {}): Change => ({
  ...(changed(() => {}).changes[0] as Change),
  id,
  name: id,
  kind: 'off',
  stageId: 's1',
  count: 1,
  state: 'planned',
  doneAt: null,
  fromChangeId: null,
  values: [{ massKg, sdKg: null, proof: 'measured', at: '2026-02-01T10:00:00Z', instrument: null }],
  ...more,
})
const withLines = (...changes: Change[]) => openCar({ ...records, changes })

test.each<[string, Change[], Change[], RegExp | null]>([
  ['a line heavier than the car', [], [line('block', 600)], /block would take 600 kg off a car of 500 kg/],
  ['pieces that are together heavier', [], [line('block', 130, { count: 4 })], /take 520 kg off/],
  ['a sum that leaves less than nothing', [line('shell', 300)], [line('rest', 250)], /more would come off than the car weighs at stage 1/],
  ['a line that stands in place of itself', [line('shell', 300)], [line('shell', 490)], null],
  ['a heavy line that still leaves a car', [], [line('shell', 400)], null],
  ['one that goes on', [], [line('ballast', 900, { kind: 'on' })], null],
  ['one that was dropped', [], [line('block', 900, { state: 'dropped' })], null],
])('%s', (_, there, lines, sentence) => {
  const why = whyTooMuchOff(withLines(...there), lines)
  if (sentence) expect(why?.message).toMatch(sentence)
  else expect(why).toBeNull()
})

it('holds nothing against a car nobody weighed', () => {
  const car = openCar({ ...records, build: { ...records.build, baselineMass: null } })
  expect(massOf(car, 0)).toBeUndefined()
  expect(whyTooMuchOff(car, [line('block', 4000)])).toBeNull()
})
