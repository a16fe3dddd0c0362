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
