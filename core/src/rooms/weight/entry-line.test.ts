import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { boxState, boxValue } from './box.ts'
import { boxDifferenceKg, parseEntryLine } from './entry-line.ts'

const read = (text: string, massUnit = 'kg', decimalMark: '.' | ',' = '.') => parseEntryLine(text, { massUnit, decimalMark })

describe('one typed line', () => {
  test.each<[string, object]>([
    ['off rear bench 18.6 kg', { kind: 'off', name: 'rear bench', count: 1, zone: null, guess: null, mass: { massKg: 18.6, proof: 'measured', sdKg: null } }],
    ['off rear bench 18.6', { mass: { massKg: 18.6, typed: '18.6' } }],
    ['OFF rear bench 18.6 KG Weighed @Cabin', { kind: 'off', zone: 'Cabin', mass: { proof: 'measured' } }],
    ['on cage 44.8 kg catalogue @cabin, rear half', { kind: 'on', zone: 'cabin, rear half', mass: { proof: 'catalogue' } }],
    ['transfer plastic windows 3.1 kg guess', { kind: 'transfer', mass: { massKg: 3.1, proof: 'guess' } }],
    ['off 4 x wheel 9.2 kg', { count: 4, name: 'wheel', mass: { massKg: 9.2 } }],
    ['off 12 × clip 14 g', { count: 12, name: 'clip', mass: { massKg: 0.014 } }],
    ['off bench 41 lb', { mass: { massKg: 18.59728717 } }],
    ['off bench 20 kg guess 18.6 kg', { name: 'bench', guess: { massKg: 20, proof: 'guess' }, mass: { massKg: 18.6, proof: 'measured' } }],
    ['off bench 20 kg guess 18.6 kg ± 0.3 weighed', { guess: { massKg: 20 }, mass: { massKg: 18.6, sdKg: 0.3 } }],
    ['off sound deadening ?', { name: 'sound deadening', mass: null, guess: null }],
    ['off sound deadening? @cabin', { name: 'sound deadening', mass: null, zone: 'cabin' }],
    ['on seat 2 7.1 kg', { name: 'seat 2', mass: { massKg: 7.1 } }],
    ['on bolt M10 0.3 kg', { name: 'bolt M10', mass: { massKg: 0.3 } }],
    ['on intake 3" pipe 1.2 kg', { name: 'intake 3" pipe', mass: { massKg: 1.2 } }],
    ['on fuel cell, 45 L 13.5 kg guess', { name: 'fuel cell, 45 L', mass: { massKg: 13.5, proof: 'guess' } }],
    ['off bench 18.6 kg +/- 0.2', { mass: { sdKg: 0.2 } }],
    ['off bench 18600 g @ rear', { zone: 'rear', mass: { massKg: 18.6 } }],
    // Counts before and behind the mass, and behind the name.
    ['off doors 2 x 31 kg', { name: 'doors', count: 2, mass: { massKg: 31, typed: '31 kg' } }],
    ['off doors 2x31 kg waits', { name: 'doors', count: 2, waits: true, mass: { massKg: 31 } }],
    ['off shells 8 kg x 2', { name: 'shells', count: 2, mass: { massKg: 8 } }],
    ['off seat x 2 8 kg', { name: 'seat', count: 2, mass: { massKg: 8 } }],
    ['off 2 doors 31 kg each', { name: 'doors', count: 2, mass: { massKg: 31 } }],
    ['off 2 x doors 31 kg each', { name: 'doors', count: 2, mass: { massKg: 31 } }],
    ['off wheel 15 x 7 9 kg', { name: 'wheel 15 x 7', count: 1, mass: { massKg: 9 } }],
    ['off wheel 15x7 9 kg', { name: 'wheel 15x7', count: 1, mass: { massKg: 9 } }],
    // Pounds and ounces, ranges, roughly.
    ['off bench 16 lb 5 oz', { mass: { massKg: 16.3125 * 0.45359237, sdKg: null, proof: 'measured', typed: '16 lb 5 oz' } }],
    ['off bench 1 kg 250 g', { mass: { massKg: 1.25, typed: '1 kg 250 g' } }],
    ['off engine 800 to 900 lb', { mass: { massKg: 850 * 0.45359237, sdKg: expect.closeTo((50 * 0.45359237) / Math.sqrt(3), 12), proof: 'guess' } }],
    ['off engine 800-900 lb', { name: 'engine', mass: { proof: 'guess', typed: '800-900 lb' } }],
    ['off engine 360 – 400', { name: 'engine', mass: { massKg: 380, sdKg: 20 / Math.sqrt(3), proof: 'guess' } }],
    ['off bench about 12 kg', { name: 'bench', mass: { massKg: 12, sdKg: null, proof: 'guess', typed: 'about 12 kg' } }],
    ['off bench ~12', { mass: { massKg: 12, proof: 'guess' } }],
    ['off bench ca. 12 kg catalogue', { mass: { massKg: 12, proof: 'catalogue' } }],
    ['off seat about 2 x 8 kg', { count: 2, mass: { massKg: 8, proof: 'guess' } }],
    // Words behind the mass, in any order, and the other part.
    ['off ballast 914 kg worked out', { mass: { massKg: 914, proof: 'calculated' } }],
    ['off doors ? waits', { name: 'doors', mass: null, waits: true }],
    ['transfer latch 6.5 kg guess from tailgate', { name: 'latch', from: 'tailgate', mass: { massKg: 6.5, proof: 'guess' } }],
    ['transfer latch from old tailgate 6.5 kg guess @rear', { name: 'latch', from: 'old tailgate', zone: 'rear', mass: { massKg: 6.5, proof: 'guess' } }],
    ['on shells 2 x 4 kg guess replaces front seats', { name: 'shells', count: 2, replaces: 'front seats', mass: { massKg: 4, proof: 'guess' } }],
    ['off hose from tank 1.2 kg', { name: 'hose from tank', from: null, mass: { massKg: 1.2 } }],
  ])('%s', (text, expected) => expect(read(text)).toMatchObject(expected))

  it('a comma is a decimal mark where the reader writes it so', () => {
    expect(read('off bench 18,6 kg', 'kg', ',').mass?.massKg).toBe(18.6)
    expect(read('off bench 9,25', 'lb', ',').mass?.massKg).toBeCloseTo(4.1957, 4)
  })

  test.each<[string, string, RegExp]>([
    ['', 'kind', /Start with off, on or transfer/],
    ['bench 18.6 kg', 'kind', /A line is:/],
    ['off', 'mass', /No mass was read/],
    ['off bench', 'mass', /or \? where nobody knows it/],
    ['off 18.6 kg', 'name', /Put the name of the part before its mass/],
    ['off ?', 'name', /No name was read/],
    ['off bench 0 kg', 'mass', /more than zero/],
    ['off bench -3 kg', 'mass', /off or on says which way it goes/],
    ['off bench 5001 kg', 'mass', /over 5 000 kg cannot be/],
    ['off bench 3 furlong', 'mass', /Nobody here knows the unit "furlong"/],
    ['off 0 x bench 3 kg', 'count', /1 or more/],
    ['off bench 18.6 kg seat 4 kg', 'mass', /A second mass stands in this line: 18\.6 kg\. Type "off bench seat 4 kg" or "off bench seat 18\.6 kg"/],
    ['off bench 18.6 kg 2', 'mass', /A second mass/],
    ['off bench 18.6 kg @cabin 4 kg', 'mass', /A second mass/],
    ['off 2 doors 31 kg', 'count', /Type "off 2 x doors 31 kg" for 31 kg each, or "off doors 31 kg" for all as one/],
    ['off door 2 pcs 31 kg', 'count', /one or of all/],
    ['off pair of doors 31 kg', 'count', /one or of all/],
    ['off 3 x seat 2 x 8 kg', 'count', /Two counts stand in this line: 3 and 2/],
    ['off seat 2 x 8 kg x 3', 'count', /Two counts/],
    ['off doors 31 kg each', 'count', /31 kg each of how many/],
    ['off engine 1 389.4 kg', 'mass', /can be one number or two/],
    ['off bench 800 to 900 lb weighed', 'proof', /no reading of a scale/],
    ['off bench about 12 kg weighed', 'proof', /no reading of a scale/],
    ['off bench 12 kg guess weighed', 'proof', /says guess and weighed/],
    ['on wing 9 kg waits', 'waits', /Only what comes off can wait/],
    ['off 2000 x clip 3 g', 'count', /at most 1000 pieces/],
  ])('%s is refused for its %s', (text, field, message) => {
    expect(() => read(text)).toThrow(message)
    try {
      read(text)
    } catch (error) {
      expect(error).toMatchObject({ field })
    }
  })

  it('no text makes it fall over: it reads, or it is refused in words', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 60 }),
          fc.string({ maxLength: 40 }).map((rest) => `off ${rest}`),
        ),
        (text) => {
          try {
            const line = read(text)
            expect(line.name).not.toBe('')
            if (line.mass) expect(line.mass.massKg).toBeGreaterThan(0)
          } catch (error) {
            expect(error).toMatchObject({ name: 'CalculationError' })
          }
        },
      ),
      { numRuns: 500, seed: 4600 },
    )
  })

  it('takes no number for another: every digit typed is read, or stands in a name that is shown', () => {
    const number = fc.oneof(
      fc.integer({ min: 0, max: 2000 }).map(String),
      fc.float({ min: 0, max: 99, noNaN: true }).map((value) => value.toFixed(1)),
    )
    const piece = fc.oneof(
      number,
      fc.constantFrom(
        'kg',
        'lb',
        'oz',
        'g',
        'x',
        '×',
        '-',
        'to',
        'about',
        '~',
        'each',
        'guess',
        'weighed',
        'waits',
        '±',
        'doors',
        'seat',
        'from',
        '?',
        '@rear',
        'pcs',
      ),
    )
    const digits = (text: string) => (text.match(/\d+/g) ?? []).sort()
    fc.assert(
      fc.property(fc.constantFrom('off', 'on', 'transfer'), fc.array(piece, { minLength: 1, maxLength: 8 }), (kind, pieces) => {
        const text = `${kind} ${pieces.join(' ')}`
        let line: ReturnType<typeof read>
        try {
          line = read(text)
        } catch (error) {
          expect(error).toMatchObject({ name: 'CalculationError' })
          return
        }
        const { name, zone, mass, guess, from, replaces, count } = line
        const kept = [name, zone, mass?.typed, guess?.typed, from, replaces].map((part) => part ?? '').join(' ')
        const counted = count > 1 ? [String(count)] : []
        // A count may have been typed twice alike, or as 1; leading zeros of it are not numbers of their own.
        const rest = digits(text).filter((token) => Number(token) !== count)
        expect([...digits(kept).filter((token) => Number(token) !== count)]).toEqual(rest)
        expect(counted.length === 0 || digits(text).some((token) => Number(token) === count)).toBe(true)
        if (mass) expect(read(`off part ${mass.typed}`).mass?.massKg).toBe(mass.massKg)
      }),
      { numRuns: 3000, seed: 4600 },
    )
  })

  it('a name and a mass come back as they were put together', () => {
    const word = fc.constantFrom('bench', 'rear', 'seat', 'loom', 'left', 'door card', 'M8 bolts', 'sill')
    const name = fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.join(' '))
    fc.assert(
      fc.property(
        name,
        fc.integer({ min: 1, max: 4_999_999 }),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom('off', 'on', 'transfer'),
        (part, grams, count, kind) => {
          const line = read(`${kind} ${count} x ${part} ${grams / 1000} kg @zone ${count}`)
          expect(line).toMatchObject({ kind, count, name: part, zone: `zone ${count}` })
          expect(line.mass?.massKg).toBeCloseTo(grams / 1000, 9)
        },
      ),
      { numRuns: 200, seed: 4600 },
    )
  })
})

describe('a box that grows', () => {
  const box = { id: 'b', emptyKg: 1.2, instrument: 'hanging scale', readingSdKg: 0.05 }
  it('adds up to its last reading, whatever went in', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 40_000 }), { minLength: 1, maxLength: 30 }), (grams) => {
        const lines: { values: ReturnType<typeof boxValue>[] }[] = []
        let readingKg = box.emptyKg
        for (const step of grams) {
          readingKg = Math.round((readingKg + step / 1000) * 1e6) / 1e6
          const state = boxState(box, lines)
          lines.push({ values: [boxValue({ ...box, ...state }, { readingKg, count: 1, typed: `${readingKg} kg`, at: '2026-01-01T00:00:00Z' })] })
        }
        const sum = lines.reduce((total, { values }) => total + (values[0]?.massKg ?? 0), 0)
        expect(sum).toBeCloseTo(readingKg - box.emptyKg, 4)
        expect(boxState(box, lines)).toEqual({ lastKg: readingKg, count: grams.length })
      }),
      { numRuns: 100, seed: 4600 },
    )
  })
  it('a part is surer by the piece, and its spread is that of a difference', () => {
    const value = boxValue({ ...box, lastKg: 10, count: 3 }, { readingKg: 14, count: 4, typed: '14 kg', at: '2026-01-01T00:00:00Z' })
    expect(value).toMatchObject({ massKg: 1, typed: 'box at 14 kg', instrument: 'hanging scale', box: { position: 4, readingKg: 14 } })
    expect(value.sdKg).toBeCloseTo((0.05 * Math.SQRT2) / 4, 12)
  })
  it('a reading that did not grow is refused', () => {
    expect(() => boxDifferenceKg(10, 10)).toThrow(/reads no more than before/)
    expect(() => boxDifferenceKg(6000, 10)).toThrow(/over 5 000 kg/)
  })
})
