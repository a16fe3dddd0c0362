import { UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { placeDefaults, readPlace } from '../../shared/fields/place-fields.ts'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { turnWords } from './balance/turn-words.ts'
import { aimBody, aimDefaults, siteBody, siteDefaults } from './ballast/ballast-forms.ts'
import { type LineContext, lineBody, type OpenBox, readLine } from './ledger/entry-body.ts'
import { lineInstant, TODAY } from './ledger/line-dates.ts'
import { readPasted } from './ledger/paste-lines.ts'
import { deadOf, METHODS, type Method, methodOf, stepsOf, weighingBody, weighingDefaults } from './scales/weighing-form.ts'

const NOW = '2026-03-01T10:00:00.000Z'
const reader = (values: FormValues, mark: '.' | ',' = '.') => new FormReader(values, UNIT_SETS.metric, mark)

describe('a place', () => {
  it('is all three or none', () => {
    const place = { xM: 1.25, yM: -0.4, zM: 0.31 }
    expect(readPlace(reader(placeDefaults('at', place, 'mm')), 'at')).toEqual(place)
    expect(readPlace(reader({}), 'at')).toBeNull()
    const half = reader({ atX: '1250', atZ: '310' })
    readPlace(half, 'at')
    expect(half.errors).toEqual({ atY: 'A place needs all three. Type the missing one, or empty the others.' })
  })
})

describe('a place for ballast', () => {
  const good = { name: 'nose', limit: '10 kg', plates: '6 x 5 kg, 4 x 2.5 kg', placeX: '-200', placeY: '0', placeZ: '300' }
  it('reads its plates and fills the form again with the same', () => {
    const read = reader(good)
    const body = siteBody(read) as never as Parameters<typeof siteDefaults>[0]
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({ limitKg: 10, place: { xM: -0.2, yM: 0, zM: 0.3 } })
    expect(body.plates).toEqual([
      { massKg: 5, count: 6 },
      { massKg: 2.5, count: 4 },
    ])
    const units = { mass: 'lb', length: 'in', share: '%' }
    const again = siteBody(reader(siteDefaults(body, units))) as never as typeof body
    expect(again.plates[1]?.massKg).toBeCloseTo(2.5, 6)
    expect(again.place.xM).toBeCloseTo(-0.2, 6)
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['plates without a number', { plates: '5 kg' }, 'plates', /"5 kg" cannot be read\. Type number x size/],
    ['plates of nothing', { plates: '0 x 5' }, 'plates', /cannot be read/],
    ['plates of no mass', { plates: '3 x 0 kg' }, 'plates', /cannot be read/],
    ['a limit of zero', { limit: '0' }, 'limit', /may carry nothing is none/],
    ['no place', { placeX: '', placeY: '', placeZ: '' }, 'placeX', /Ballast needs its place/],
    ['no name', { name: '' }, 'name', /Name is empty/],
  ])('refuses %s', (_, more, field, message) => {
    const read = reader({ ...good, ...more })
    siteBody(read)
    expect(read.errors[field]).toMatch(message)
  })
  it('a decimal comma and a list of plates do not get in each other’s way', () => {
    const read = reader({ ...good, plates: '4 x 2,5 kg, 2 x 1,25 kg; 1 x 10 kg and 3 × 0,5 kg' }, ',')
    expect((siteBody(read) as { plates: object[] }).plates).toEqual([
      { massKg: 2.5, count: 4 },
      { massKg: 1.25, count: 2 },
      { massKg: 10, count: 1 },
      { massKg: 0.5, count: 3 },
    ])
  })
})

describe('what ballast shall reach', () => {
  const good = { minimum: '600 kg', objective: 'nearestShares', front: '46.5', frontWithin: '1 %', left: '50' }
  it('reads shares as percentages and fills the form again with the same', () => {
    const read = reader(good)
    const body = aimBody(read) as never as NonNullable<Parameters<typeof aimDefaults>[0]>
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({ minimumKg: 600, mostOverKg: null, loadFactorG: null, front: { within: 0.01 }, crossRfLr: null })
    expect(body.front?.value).toBeCloseTo(0.465, 12)
    const again = aimBody(reader(aimDefaults(body, undefined, { mass: 'kg', length: 'mm', share: '%' })))
    expect(again).toEqual(body)
  })
  test.each<[FormValues, string, RegExp]>([
    [{ minimum: '0' }, 'minimum', /more than zero/],
    [{ front: '12' }, 'front', /from 20 to 80 %/],
    [{ frontWithin: '0' }, 'frontWithin', /over 0 and up to 20 %/],
    [{ loadFactor: '0' }, 'loadFactor', /over 0 and up to 200/],
    [{ loadFactor: 'twenty' }, 'loadFactor', /twenty/],
  ])('refuses %o', (more, field, message) => {
    const read = reader({ ...good, ...more })
    aimBody(read)
    expect(read.errors[field]).toMatch(message)
  })
  it('starts from the limit of the class where there is one', () => {
    expect(aimDefaults(undefined, 600, { mass: 'kg', length: 'mm', share: '%' })).toEqual({ objective: 'nearestShares', minimum: '600 kg' })
  })
})

describe('a weighing', () => {
  const common = { at: '2026-03-01T10:00', driver: '82 kg', fuel: '20 L ± 1' }
  const pads = { LF: '312', RF: '298', LR: '276', RR: '294' }
  const body = (values: FormValues, method: Method = 'one', dead: 'LF' | 'RF' | 'LR' | 'RR' = 'LR') => {
    const read = reader({ ...common, ...values })
    return { body: weighingBody(read, method, dead) as Record<string, never>, errors: read.errors }
  }
  it('keeps readings as typed, with their spread, and conditions only where noted', () => {
    const found = body({ ...pads, RR: '648 lb ± 1' })
    expect(found.errors).toEqual({})
    expect(found.body).toMatchObject({
      pads: { LF: { massKg: 312, typed: '312' }, RR: { typed: '648 lb ± 1' } },
      conditions: null,
      fuelSdL: 1,
      secondPlacement: null,
    })
    expect(body({ ...pads, isLevel: 'false' }).body).toMatchObject({ conditions: { isLevel: false, barsDisconnected: null } })
  })
  test.each<[string, FormValues, Method, string, RegExp]>([
    ['no pad at all', {}, 'one', 'LF', /No pad was read/],
    ['a pad under zero', { ...pads, LF: '-2' }, 'one', 'LF', /reads under zero\. Zero the pads/],
    ['a pad of six tonnes', { ...pads, RF: '6000' }, 'one', 'RF', /over 5 000 kg/],
    ['a corner never read on a good pad', { LF: '312', RF: '298', RR: '294' }, 'cornerSwapped', 'secondLR', /read on a good pad/],
    ['an axle left out', { LF: '312', RF: '298', secondRR: '294' }, 'axlesOnBlocks', 'secondLR', /read on a good pad/],
    ['a bare floor without the height of the pads', { LF: '1', RF: '1', secondLR: '1', secondRR: '1' }, 'otherAxleOnFloor', 'padHeight', /is empty/],
    ['something extra without its mass', { ...pads, extraName: 'tool bag' }, 'one', 'extraMass', /is empty/],
    ['a tyre pressure of zero', { ...pads, tyrePressure: '0' }, 'one', 'tyrePressure', /more than zero/],
  ])('refuses %s', (_, values, method, field, message) => expect(body(values, method).errors[field]).toMatch(message))
  test.each(['LF', 'RF', 'LR', 'RR'] as const)('with %s dead and corners swapped, that pad is never read first and always read second', (dead) => {
    const [first, second] = stepsOf('cornerSwapped', dead)
    expect(first?.pads).not.toContain(dead)
    expect(second?.pads).toContain(dead)
  })
  test.each(METHODS.flatMap((method) => (['LF', 'RR'] as const).map((dead) => [method, dead] as const)))(
    '%s with %s dead fills the form again with the same, in either units, with every spread',
    (method, dead) => {
      const readings = Object.fromEntries(
        stepsOf(method, dead).flatMap(({ pads: named, isSecond }) => named.map((pad) => [isSecond ? `second${pad}` : pad, '300.5 ± 0.4'])),
      )
      const wholes = { total: '1241 ± 3', axleFront: '640.5', axleRear: '601 ± 2' }
      const more = { padHeight: '85 mm', blockError: '3 mm', nitrous: '4.5 kg', tyrePressure: '190 kPa', rideHeightFront: '112 mm', driverName: 'Ilse' }
      const { body: first, errors } = body({ ...readings, ...wholes, ...more, extraName: 'tool bag', extraMass: '6 kg ± 0.5', isLevel: 'true' }, method, dead)
      expect(errors).toEqual({})
      const stored = first as unknown as Parameters<typeof weighingDefaults>[0]
      expect([methodOf(stored), method === 'cornerSwapped' ? deadOf(stored) : dead]).toEqual([method, dead])
      for (const set of ['metric', 'imperial'] as const) {
        const again = new FormReader(weighingDefaults(stored, UNIT_SETS[set]), UNIT_SETS[set], '.')
        const second = weighingBody(again, method, dead)
        expect(again.errors).toEqual({})
        const rounded = (value: unknown) =>
          JSON.parse(JSON.stringify(value, (key, each) => (key === 'typed' ? null : typeof each === 'number' ? Number(each.toPrecision(5)) : each)))
        expect(rounded(second)).toEqual(rounded(first))
      }
    },
  )
  test.each(['axlesOnBlocks', 'otherAxleOnFloor'] as const)('%s reads each corner once', (method) => {
    expect(stepsOf(method, 'LR').flatMap((step) => step.pads)).toEqual(['LF', 'RF', 'LR', 'RR'])
  })
})

test.each<[number, string]>([
  [0, 'leave it'],
  [0.25, '¼ turn up'],
  [-0.5, '½ turn down'],
  [1, '1 turn up'],
  [1.75, '1¾ turns up'],
  [-3, '3 turns down'],
  [-10.25, '10¼ turns down'],
])('%d turns are "%s"', (turns, words) => expect(turnWords(turns)).toBe(words))

describe('a typed line as a record', () => {
  const off = (id: string, name: string, stageId = 's') => ({ id, name, stageId, kind: 'off' })
  const at: LineContext = {
    stageId: 's',
    box: null,
    lines: [off('t', 'tailgate'), off('f', 'front seats', 'before'), off('r', 'rear seats'), off('o', 'glass')],
  }
  const made = (text: string, context = at) => lineBody('i', readLine(text, 'kg', '.', context), context, NOW)
  it.each<[string, object]>([
    ['off bench 18.6 kg', { state: 'done', doneAt: NOW, fromChangeId: null }],
    ['on cage 44.8 kg guess', { state: 'planned', doneAt: null }],
    ['on cage 44.8 kg weighed', { state: 'done', doneAt: NOW }],
    ['transfer seals 3.1 kg guess', { kind: 'transfer', fromChangeId: 'o', state: 'planned' }],
    ['off deadening ?', { values: [], state: 'done' }],
    ['transfer latch 6.5 kg guess from Tailgate', { fromChangeId: 't' }],
    ['on shells 2 x 4 kg guess replaces front', { count: 2, replacesChangeId: 'f', fromChangeId: null, state: 'planned' }],
    ['off doors 2 x 31 kg waits', { count: 2, waits: true, values: [{ massKg: 31 }] }],
    ['on unlisted 153.8 kg worked out', { state: 'done', doneAt: NOW, values: [{ proof: 'calculated' }] }],
    [
      'off bench 20 kg guess 18.6 kg',
      {
        values: [
          { massKg: 20, proof: 'guess' },
          { massKg: 18.6, proof: 'measured' },
        ],
      },
    ],
  ])('%s', (text, expected) => expect(made(text)).toMatchObject(expected))
  it('a part that is named and not there, or that two may be, is refused by name', () => {
    expect(readLine('transfer latch 6.5 kg from bonnet', 'kg', '.', at).refusal).toMatch(/No part that comes off is called "bonnet"/)
    expect(readLine('on shells 4 kg replaces seats', 'kg', '.', at).refusal).toMatch(/may be front seats or rear seats/)
  })
  it('lines get the date that was picked', () => {
    const weighings = [{ id: 'w', at: '2026-09-20T09:00:00Z' }]
    const now = new Date('2026-11-01T12:00:00Z')
    expect(lineInstant(TODAY, weighings, now)).toBe('2026-11-01T12:00:00.000Z')
    expect(lineInstant({ kind: 'beforeWeighing', weighingId: 'w' }, weighings, now)).toBe('2026-09-20T08:59:00.000Z')
    expect(lineInstant({ kind: 'beforeWeighing', weighingId: 'gone' }, weighings, now)).toBe('2026-11-01T12:00:00.000Z')
    expect(new Date(lineInstant({ kind: 'day', day: '2026-09-18' }, weighings, now)).getDate()).toBe(18)
  })
  it('in a box the difference is the mass, and the reading is kept', () => {
    const box: OpenBox = { id: 'b', name: 'crate', instrument: null, readingSdKg: 0.05, lastKg: 4, count: 1 }
    expect(readLine('off clip set 4.9 kg', 'kg', '.', { ...at, box }).differenceKg).toBeCloseTo(0.9, 12)
    expect(made('off clip set 4.9 kg', { ...at, box })).toMatchObject({ boxId: 'b', values: [{ massKg: 0.9, box: { position: 2, readingKg: 4.9 } }] })
    expect(readLine('off clip set 3.9 kg', 'kg', '.', { ...at, box }).refusal).toMatch(/reads no more than before/)
  })
  it('nothing typed is no fault', () => expect(readLine('  ', 'kg', '.', at)).toEqual({ read: null, differenceKg: null, other: null, refusal: '' }))
})

describe('pasted rows', () => {
  const paste = (text: string, massUnit = 'kg', decimalMark: '.' | ',' = '.') => readPasted(text, { stageId: 's', massUnit, decimalMark, at: NOW, lines: [] })
  it('reads columns by their headings, whatever their order', async () => {
    const lines = await paste('Mass (lb)\tWhere\tPart\tKind\tQty\n41\tcabin\trear bench\toff\t\n2.2\trear\tlamp\toff\t2')
    expect(lines.map(({ line, refusal }) => [line, refusal])).toEqual([
      [2, null],
      [3, null],
    ])
    expect(lines[0]?.body).toMatchObject({
      kind: 'off',
      name: 'rear bench',
      zone: 'cabin',
      count: 1,
      values: [{ massKg: expect.closeTo(18.59728717, 8), proof: 'measured', typed: '41' }],
    })
    expect(lines[1]?.body).toMatchObject({ count: 2 })
  })
  it('takes the direction from the sign where there is no kind', async () => {
    const lines = await paste('part;mass\nbench;-18,6\ncage;44,8', 'kg', ',')
    expect(lines[0]?.body).toMatchObject({ kind: 'off', values: [{ massKg: 18.6 }] })
    expect(lines[1]?.refusal).toMatch(/must be off, on or transfer/)
  })
  it('takes the mass of all pieces together apart', async () => {
    const [line] = await paste('kind,part,count,"mass, all pieces (kg)"\noff,wheel,4,37.2 ± 0.4')
    expect(line?.body).toMatchObject({ count: 4, values: [{ massKg: 9.3, sdKg: 0.1 }] })
  })
  it('reads typed lines, and one that cannot be read stops no other', async () => {
    const lines = await paste('off bench 18.6 kg\nbench without a direction\noff deadening ?')
    expect(lines.map(({ body }) => body !== null)).toEqual([true, false, true])
    expect(lines[1]).toMatchObject({ line: 2, text: 'bench without a direction' })
    expect(lines[1]?.refusal).toMatch(/Start with off, on or transfer/)
  })
  it.each<[string, RegExp]>([
    ['off,,3', /has no name/],
    ['sideways,bench,3', /The kind is "sideways"/],
    ['off,bench,0', /more than zero/],
    ['off,bench,3 parsec', /parsec/],
    ['off,bench,9000', /over 5 000 kg/],
    ['off,bench,seat 3 kg', /cannot be read as a mass/],
  ])('refuses "%s" with its reason', async (row, message) => {
    const [line] = await paste(`kind,part,mass\n${row}`)
    expect(line).toMatchObject({ line: 2, body: null })
    expect(line?.refusal).toMatch(message)
  })
  it('reads a cell as a typed line is read, and typed lines may name each other', async () => {
    const table = await paste('kind,part,mass,how known\noff,doors,2 x 31 kg,\noff,bench,16 lb 5 oz,weighed\noff,engine,800-900 lb,\noff,horn,2 kg,maybe')
    expect(table.map(({ body }) => body && [body.count, (body.values as { proof: string }[])[0]?.proof])).toEqual([
      [2, 'measured'],
      [1, 'measured'],
      [1, 'guess'],
      null,
    ])
    expect(table[3]?.refusal).toMatch(/How it is known says "maybe"/)
    const [tailgate, latch] = await paste('off tailgate 30.2 kg\ntransfer latch 6.5 kg guess from tailgate')
    expect(latch?.body?.fromChangeId).toBe(tailgate?.body?.id)
  })
  it('an unknown mass, by word or empty, is a line without one', async () => {
    const lines = await paste('kind,part,mass\noff,deadening,?\noff,carpet,')
    expect(lines.map(({ body }) => body?.values)).toEqual([[], []])
  })
})
