import { describe, expect, it, test } from 'vitest'
import { carWith, LAST } from '../../../test/aero-car.ts'
import { isOffWanted, setupSheet } from './setup-sheet.ts'

const DEG = Math.PI / 180
const corner = (camber: number) => ({ camberRad: { wanted: camber * DEG, read: null } })
const CORNERS = { LF: corner(-3.2), RF: corner(-3.1), LR: corner(-2), RR: corner(-2) }
const setups = [
  { id: 'first', stageId: 'bought', corners: CORNERS, bars: { front: '2nd hole' } },
  { id: 'su', stageId: 'strip', picks: [{ deviceId: 'wing', notchId: 'hole 4' }] },
]

describe('the set-up sheet of a stage', () => {
  const sheet = setupSheet(carWith({ setups }), LAST)
  const cells = (key: string) => sheet.rows.find((row) => row.key === key)?.cells.map(({ at, cell }) => [at, cell.wanted])
  it('has the corners and bars of the latest set-up that says them, and says whose they are', () => {
    expect(cells('camberRad')).toEqual([
      ['LF', -3.2 * DEG],
      ['RF', -3.1 * DEG],
      ['LR', -2 * DEG],
      ['RR', -2 * DEG],
    ])
    expect(sheet.cornersFrom).toBe(0)
    expect(cells('bars')).toEqual([
      ['front', '2nd hole'],
      ['rear', null],
    ])
  })
  it('has the springs as they stand, with the rate at the wheel, and the notch of each device that has more than one', () => {
    expect(cells('wheelRate')?.[0]?.[1]).toBeCloseTo(52_000, 6)
    expect(cells('wing')).toEqual([['car', 'hole 4']])
    expect(cells('splitter')).toBeUndefined()
  })
  it('leaves out what nobody said', () => {
    expect(cells('toeRad')).toBeUndefined()
    expect(cells('packer')).toBeUndefined()
  })
})

test.each([
  ['pressure', { wanted: 160_000, read: 161_500 }, false],
  ['pressure', { wanted: 160_000, read: 163_000 }, true],
  ['angle', { wanted: -3 * DEG, read: -3.05 * DEG }, false],
  ['angle', { wanted: -3 * DEG, read: -3.2 * DEG }, true],
  [null, { wanted: 8, read: 8 }, false],
  [null, { wanted: 8, read: 9 }, true],
  [null, { wanted: 'off', read: 1 }, false],
  ['angle', { wanted: -3 * DEG, read: null }, false],
] as const)('%s %o is off what is wanted: %s', (kind, cell, expected) => {
  expect(isOffWanted(kind, cell)).toBe(expected)
})
