import { expect, test } from 'vitest'
import { changedFields } from './changed-fields.ts'

const began = { version: 3, name: 'bench', massKg: 18.6, place: { xM: 1, yM: 0 }, values: [1, 2], typed: '18.6 kg', note: null }
test.each([
  ['nothing', {}, null],
  ['one field', { name: 'rear bench' }, { name: 'rear bench', version: 3 }],
  ['a number and what was typed for it', { massKg: 19, typed: '19 kg' }, { massKg: 19, typed: '19 kg', version: 3 }],
  ['a field inside a place', { place: { xM: 1.2, yM: 0 } }, { place: { xM: 1.2, yM: 0 }, version: 3 }],
  ['a list', { values: [1, 3] }, { values: [1, 3], version: 3 }],
  ['a field that is emptied', { name: null }, { name: null, version: 3 }],
  ['a field the form did not have before', { extra: 1 }, { extra: 1, version: 3 }],
])('of a form that changed %s, so much is sent', (_, changes, expected) => {
  expect(changedFields({ ...began, ...changes }, began)).toEqual(expected)
})
