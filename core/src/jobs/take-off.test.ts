import { describe, expect, it, test } from 'vitest'
import { type TakeOffPart, takeOffPlan } from './take-off.ts'

const part = (id: string, minutes: number | null, behindIds: string[] = [], more: Partial<NonNullable<TakeOffPart['takeOff']>> = {}): TakeOffPart => ({
  id,
  name: id,
  takeOff: { minutes, people: 1, behindIds, tools: null, fixings: null, ...more },
})

/** A spring behind the wheel and, on this car, the wing and the trim that stands behind the wing (common practice, no source). */
const CAR = [
  part('spring', 20, ['wheel', 'trim'], { people: 2, tools: 'compressor, 17 mm', fixings: '2 bolts M10' }),
  part('wheel', 6, [], { tools: 'torque wrench; 17 MM' }),
  part('wing', 8, [], { people: 2 }),
  part('trim', 4, ['wing', 'wheel'], { fixings: '6 clips' }),
]

describe('what comes off first', () => {
  it('takes each once, what stands before first, and sums what it takes', () => {
    const plan = takeOffPlan(CAR, 'spring')
    expect(plan.steps.map(({ name }) => name)).toEqual(['wheel', 'wing', 'trim', 'spring'])
    expect(plan).toMatchObject({ minutes: 38, people: 2, unknown: [], tools: ['torque wrench', '17 MM', 'compressor'] })
    expect(plan.fixings).toEqual(['6 clips', '2 bolts M10'])
  })
  it('says whose time nobody knows, and does without a part that is gone', () => {
    const plan = takeOffPlan([part('pump', 12, ['cover', 'gone']), part('cover', null)], 'pump')
    expect(plan).toMatchObject({ minutes: 12, unknown: ['cover'] })
    expect(plan.steps.map(({ id }) => id)).toEqual(['cover', 'pump'])
  })
  it('a part of which nothing is said comes off alone', () => {
    expect(takeOffPlan([{ id: 'a', name: 'a' }], 'a')).toMatchObject({ minutes: 0, people: 1, unknown: ['a'], tools: [], fixings: [] })
  })
  test.each([
    [[part('a', 1, ['a'])], 'a', 'a stands behind itself. Take one out.'],
    [[part('a', 1, ['b']), part('b', 1, ['a'])], 'a', 'a and b stand behind each other. Take one out.'],
    [[part('x', 1, ['a']), part('a', 1, ['b']), part('b', 1, ['c']), part('c', 1, ['a'])], 'x', 'a, b and c stand behind each other. Take one out.'],
    [[part('a', 1)], 'none', 'This part is not in the build. Pick one of its parts.'],
  ])('refuses %#', (parts, id, sentence) => {
    expect(() => takeOffPlan(parts, id)).toThrow(sentence)
  })
  it('whatever the order of the list, nothing comes off before what stands before it', () => {
    for (let turn = 0; turn < CAR.length; turn++) {
      const { steps, minutes } = takeOffPlan([...CAR.slice(turn), ...CAR.slice(0, turn)], 'spring')
      const at = new Map(steps.map(({ id }, i) => [id, i]))
      for (const { id, takeOff } of steps) for (const before of takeOff?.behindIds ?? []) expect(at.get(before)).toBeLessThan(at.get(id) as number)
      expect(minutes).toBe(38)
    }
  })
})
