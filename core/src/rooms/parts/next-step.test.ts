import { describe, expect, it, test } from 'vitest'
import { type Part, partKind } from '../../records/part-kinds.ts'
import { z } from '../../zod.ts'
import { nextStep } from './next-step.ts'

const schema = z.object(partKind.fields)
const part = (id: string, fields: object = {}): Part => schema.parse({ id, kind: 'gearbox', name: id, ...fields })
const mass = (massKg: number) => ({ mass: { massKg, sdKg: null, proof: 'measured' } })

// Powers at which each gives up, W; null: not up to the end of the sweep. Invented numbers.
const own = part('own', { status: 'fitted', cost: 100, ...mass(40) })
const step = (others: readonly [Part, number | null | undefined][], ofOwn: { limitPowerW: number | null | undefined } = { limitPowerW: 300_000 }) => {
  const limits = new Map<string, number | null | undefined>([[own.id, ofOwn.limitPowerW], ...others.map(([{ id }, limit]) => [id, limit] as const)])
  return nextStep(own, [own], [own, ...others.map(([other]) => other)], ({ id }) => limits.get(id))
}

describe('the next step for a part', () => {
  test.each<[string, [Part, number | null | undefined][], string | undefined]>([
    ['none where the register has no other', [], undefined],
    ['none where all others give up earlier', [[part('weak'), 200_000]], undefined],
    ['none where another gives up at the same power', [[part('equal'), 300_000]], undefined],
    ['none of another kind', [[part('turbo', { kind: 'turbo' }), null]], undefined],
    ['its kind whatever its case and blanks', [[part('same', { kind: ' Gearbox ' }), 400_000]], 'same'],
    ['none that is worn out', [[part('old', { status: 'wornOut' }), null]], undefined],
    ['none without a rating', [[part('unrated'), undefined]], undefined],
    [
      'the cheapest that carries the whole sweep, though a dearer one does too',
      [
        [part('dear', { cost: 9000 }), null],
        [part('cheap', { cost: 4000 }), null],
        [part('half', { cost: 10 }), 350_000],
      ],
      'cheap',
    ],
    [
      'one with a price before one without',
      [
        [part('unpriced'), null],
        [part('priced', { cost: 9000 }), null],
      ],
      'priced',
    ],
    [
      'the one that carries most, where none carries the whole sweep',
      [
        [part('some', { cost: 10 }), 350_000],
        [part('most', { cost: 9000 }), 420_000],
        [part('more', { cost: 20 }), 380_000],
      ],
      'most',
    ],
  ])('is %s', (_, others, expected) => {
    expect(step(others)?.partId).toBe(expected)
  })

  it('is none where the part itself carries the whole sweep', () => {
    expect(step([[part('other'), null]], { limitPowerW: null })).toBeNull()
  })

  it('is any that is rated, where the part itself is not', () => {
    expect(step([[part('rated'), 120_000]], { limitPowerW: undefined })).toMatchObject({ partId: 'rated', limitPowerW: 120_000 })
  })

  it('counts what comes with it in cost and mass', () => {
    const other = part('kit', { cost: 4000, ...mass(52), extras: [{ name: 'mounts', massKg: 2, cost: 300 }] })
    expect(step([[other, null]])).toEqual({ partId: 'kit', cost: 4300, massDifferenceKg: 14, limitPowerW: null })
  })

  it('does not make up a mass that nobody knows', () => {
    expect(step([[part('unweighed', { cost: 1 }), null]])).toMatchObject({ massDifferenceKg: null })
  })
})
