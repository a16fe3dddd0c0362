import { describe, expect, it, test } from 'vitest'
import { parsePaddockLine } from './paddock-line.ts'

const OPTIONS = { mark: '.', pressureUnit: 'bar', temperatureUnit: '°C', speedUnit: 'km/h' } as const

describe('the paddock line', () => {
  test.each([
    ['1:24.90', { is: 'laps', laps: [{ lapS: 84.9, kind: 'clean' }] }],
    ['84.9 traffic', { is: 'laps', laps: [{ lapS: 84.9, kind: 'traffic' }] }],
    ['1:24.90 1:25.1 spin 1:24.7', { is: 'laps', laps: [{ lapS: 84.9 }, { lapS: 85.1, kind: 'mistake' }, { lapS: 84.7, kind: 'clean' }] }],
    ['ease 4', { is: 'ease', ease: 4 }],
    ['pair', { is: 'pair' }],
    ['set rear bar soft', { is: 'set', what: 'rear bar', to: 'soft' }],
    ['set front ride height 62 mm', { is: 'set', what: 'front ride height', to: '62 mm' }],
    ['set camber -2.5 deg', { is: 'set', what: 'camber', to: '-2.5 deg' }],
    ['set brake bar to two turns front', { is: 'set', what: 'brake bar', to: 'two turns front' }],
    ['set 3-way damper soft', { is: 'set', what: '3-way damper', to: 'soft' }],
    ['say "pushes wide"', { is: 'say', words: 'pushes wide' }],
  ])('%s', (line, expected) => {
    expect(parsePaddockLine(line, OPTIONS)).toMatchObject(expected)
  })
  it('takes pressures, treads and runs in the units typed', () => {
    const hot = parsePaddockLine('hot 1.98 1.96 1.90 1.88 bar', OPTIONS)
    expect(hot).toMatchObject({ is: 'pressures', when: 'hot' })
    expect(hot.is === 'pressures' && hot.pa.map(Math.round)).toEqual([198_000, 196_000, 190_000, 188_000])
    const psi = parsePaddockLine('cold 22 22 21 21 psi', OPTIONS)
    expect(psi.is === 'pressures' && psi.pa[0]).toBeCloseTo(22 * 6894.757, 0)
    const tread = parsePaddockLine('tread LF 71 74 78', OPTIONS)
    expect(tread.is === 'tread' && tread.treadK[2]).toBeCloseTo(351.15, 6)
    const run = parsePaddockLine('run 94 km/h 38 deg 3rd straightened', OPTIONS)
    expect(run).toMatchObject({ is: 'run', gear: 3, straightened: 1 })
    expect(run.is === 'run' && run.entryMps).toBeCloseTo(94 / 3.6, 6)
  })
  test.each([
    ['3', /no lap/],
    ['hot 1.98 1.96', /4 numbers/],
    ['tread XX 1 2 3', /LF, RF/],
    ['ease 7', /1 to 5/],
    ['fuel 20', /no word of the paddock/],
    ['run fast', /nothing of a run/],
    ['set bar', /what and to what/],
    ['1:24.90 fast', /no lap/],
  ])('refuses %s with the cure', (line, words) => {
    expect(() => parsePaddockLine(line, OPTIONS)).toThrow(words)
  })
})
