import { describe, expect, it, test } from 'vitest'
import { type Check, checkKind } from '../../records/check-kinds.ts'
import { z } from '../../zod.ts'
import { readCheckLine } from './check-line.ts'
import { readStopLine } from './stop-line.ts'

const check = (fields: object): Check => z.object(checkKind.fields).parse({ kind: 'look', rounds: ['between'], ...fields })

describe('a line of a check', () => {
  const options = {
    today: '2027-03-01',
    mark: '.',
    units: { temperature: '°C', pressure: 'bar', torque: 'N·m', length: 'mm' },
    geometry: { wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 },
  } as const
  test.each([
    [
      'bolt front caliper LF 2 x 85 Nm p.41 @front between',
      {
        kind: 'bolt',
        name: 'Front caliper LF',
        bolt: { count: 2, torqueNm: 85, from: 'p.41' },
        zone: 'front',
        rounds: ['between'],
        place: { xM: 0, yM: 0.75, zM: 0.3 },
      },
    ],
    [
      'bolt hub nut 1 x with 32 mm hub socket every 2 events',
      { kind: 'bolt', name: 'Hub nut', tool: '32 mm hub socket', every: { amount: 2, unit: 'events' }, rounds: ['event'] },
    ],
    [
      'belts expire 30 Apr 2027',
      { kind: 'gear', name: 'Belts', gear: { standard: null, madeOn: null, expiresOn: '2027-04-30' }, rounds: ['event', 'scrutineering'] },
    ],
    ['take 32 mm hub socket', { kind: 'take', name: '32 mm hub socket', take: { count: 1 } }],
    ['take wheel nuts 10', { kind: 'take', name: 'Wheel nuts', take: { count: 10 } }],
    ['level engine oil before run event', { kind: 'level', name: 'Engine oil', level: { fluid: 'engine oil' }, rounds: ['beforeRun', 'event'] }],
    ['look brake pipes @"engine bay" safety between', { kind: 'look', name: 'Brake pipes', isSafety: true, zone: 'engine bay' }],
    [
      'reading coolant temperature warn 100 stop 105 °C',
      { kind: 'reading', reading: { quantity: 'temperature', role: 'coolant', warnHigh: 373.15, stopHigh: 378.15 } },
    ],
    [
      'reading oil pressure warn under 4 stop under 3.2 bar between',
      { kind: 'reading', reading: { quantity: 'pressure', role: 'oilPressure', warnLow: 4e5, stopLow: 3.2e5, warnHigh: null, forS: 0.1 } },
    ],
    ['gap downpipe to brake pipe 32 mm', { kind: 'gap', name: 'Downpipe to brake pipe', gap: { neighbour: 'brake pipe', nature: 'hot' } }],
    ['gap pipe to half shaft 26 mm', { kind: 'gap', gap: { neighbour: 'half shaft', nature: 'moving' } }],
  ])('%s', (line, wanted) => {
    const { check: read } = readCheckLine(line, options)
    expect(read).toMatchObject(wanted)
    expect(z.object(checkKind.fields).safeParse({ id: 'x', ...read }).success).toBe(true)
  })
  it('keeps what a gap measured', () => expect(readCheckLine('gap downpipe to brake pipe 32 mm', options).readM).toBeCloseTo(0.032, 12))
  test.each([
    ['caliper 85 Nm', /Begin with bolt, level/],
    ['gap downpipe to brake pipe 32', /32 what\? A gap is typed with its unit/],
    ['gap downpipe 32 mm', /Say what the gap is to/],
    ['belts expire soon', /“soon” is no day/],
    ['reading gearbox is heat warn 100', /“heat” is nothing that is read here/],
  ])('refuses %s', (line, words) => expect(() => readCheckLine(line, options)).toThrow(words))
})

describe('what is called out at a stop', () => {
  const reading = (name: string, quantity: string, role: string | null) => check({ id: name, name, kind: 'reading', reading: { quantity, role } })
  const checks = [
    reading('Coolant', 'temperature', 'coolant'),
    reading('Engine oil', 'temperature', 'oilTemperature'),
    reading('Oil pressure', 'pressure', 'oilPressure'),
    reading('Front discs', 'temperature', null),
  ]
  const options = { mark: '.', units: { temperature: '°C', pressure: 'bar' } } as const
  it('is names and numbers in turn', () => {
    const found = readStopLine('coolant 93 oil 121 press 3.9 discs 448', checks, options)
    expect(found.map(({ name, value }) => [name, value])).toEqual([
      ['Coolant', expect.closeTo(366.15, 9)],
      ['Engine oil', expect.closeTo(394.15, 9)],
      ['Oil pressure', expect.closeTo(3.9e5, 6)],
      ['Front discs', expect.closeTo(721.15, 9)],
    ])
  })
  test.each([
    ['coolant ninety', /was not understood/],
    ['gearbox 88', /Nothing that is read is called “gearbox”/],
    ['coolant 93 water 94', /Coolant stands twice/],
    ['coolant -300', /absolute zero/],
  ])('refuses %s', (line, words) => expect(() => readStopLine(line, checks, options)).toThrow(words))
})
