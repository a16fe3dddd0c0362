import { expect, test } from 'vitest'
import { type GarageState, ownerAdvice } from './owner-advice.ts'

const TODAY = '2026-11-30'
const fine: GarageState = { ownerCount: 2, openInvitations: [], copyCheckedOn: TODAY }

test.each([
  ['nothing presses', fine, []],
  ['one owner alone', { ...fine, ownerCount: 1 }, ['one-owner']],
  ['an invitation of six days', { ...fine, openInvitations: [{ id: 'a', madeOn: '2026-11-24' }] }, []],
  ['an invitation of seven days', { ...fine, openInvitations: [{ id: 'a', madeOn: '2026-11-23' }] }, ['invitation-unused']],
  ['a copy of seven days', { ...fine, copyCheckedOn: '2026-11-23' }, []],
  ['a copy of eight days', { ...fine, copyCheckedOn: '2026-11-22' }, ['no-fresh-copy']],
  ['no copy', { ...fine, copyCheckedOn: null }, ['no-fresh-copy']],
  ['copies that others keep', { ownerCount: 2, openInvitations: [] }, []],
] satisfies [string, GarageState, string[]][])('%s', (_name, garage, codes) => {
  expect(ownerAdvice(garage, TODAY).map(({ code }) => code)).toEqual(codes)
})

test('forgotten invitations are told together, by the oldest', () => {
  const openInvitations = ['2026-11-20', '2026-11-10', '2026-11-29'].map((madeOn) => ({ id: madeOn, madeOn }))
  expect(ownerAdvice({ ...fine, openInvitations }, TODAY)).toEqual([{ code: 'invitation-unused', count: 2, madeOn: '2026-11-10' }])
})
