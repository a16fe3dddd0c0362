import { describe, expect, it, test } from 'vitest'
import type { FindItem } from '../../shared/define-room.ts'
import { findItems, indexItems, search, withPickedStage } from './find-items.ts'

const item = (label: string, group = 'Parts', hint = ''): FindItem => ({ key: `${group} ${label}`, group, label, hint, to: '/' })
const labels = (items: readonly FindItem[], text: string) => search(indexItems(items), text).map((found) => found.label)

test.each([
  ['/builds/b/track?tab=sessions&do=session', 's', '/builds/b/track?tab=sessions&do=session&stage=s'],
  ['/builds/b/board', 's', '/builds/b/board?stage=s'],
  ['/builds/b/weight?stage=own', 's', '/builds/b/weight?stage=own'],
  ['/builds/other/board', 's', '/builds/other/board'],
  ['/formulas', 's', '/formulas'],
  ['/builds/b/board', null, '/builds/b/board'],
])('%s with stage %s picked leads to %s', (to, picked, expected) => {
  expect(withPickedStage(to, 'b', picked)).toBe(expected)
})

describe('finding', () => {
  const parts = [item('tailgate glass'), item('glass'), item('side glass, left'), item('fibreglass splitter'), item('bench', 'Parts', 'off, stage 1 Strip')]
  test.each([
    ['glass', ['glass', 'tailgate glass', 'side glass, left', 'fibreglass splitter']],
    ['GLASS left', ['side glass, left']],
    ['strip bench', ['bench']],
    ['zebra', []],
  ])('"%s" gives the best first', (text, expected) => {
    expect(labels(parts, text)).toEqual(expected)
  })
  it('shows places and jobs while nothing is typed', () => {
    expect(labels([item('Board', 'Go to'), item('bench'), item('New build', 'Do')], ' ')).toEqual(['Board', 'New build'])
  })
  it('shows at most 40', () => {
    expect(
      labels(
        Array.from({ length: 500 }, (_, i) => item(`bolt ${i}`)),
        'bolt',
      ),
    ).toHaveLength(40)
  })
  it('lists what works without an open build', () => {
    const found = findItems({ buildId: undefined, records: undefined, inRooms: [], garage: [], calculations: [] })
    expect(found.map((entry) => entry.label)).toEqual(expect.arrayContaining(['Garage', 'Formulas', 'New build', 'Open a build file']))
    expect(found.every((entry) => (entry.to === undefined) !== (entry.action === undefined))).toBe(true)
    expect(new Set(found.map((entry) => entry.key)).size).toBe(found.length)
  })
})
