import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it, test } from 'vitest'
import { type BoxProblem, type BoxRules, type PlacedCircuit, placeCircuits } from '../src/electrics/placing.ts'
import { highsSolver } from '../src/solver/highs-solver.ts'

const SOLVER = highsSolver(await loadHighs())
const circuit = (name: string, currentA: number, group: string, startFactor = 1, isVital = false, pinned: string | null = null): PlacedCircuit => ({
  name,
  currentA,
  group,
  startFactor,
  isVital,
  pinned,
})
const RULES: BoxRules = { loadShare: 0.8, peakShare: 3, keepFree: {}, vitalAlone: true }

/** The worked example: two outputs of 30 A, four of 20, six of 10 (invented numbers). */
const OUTPUTS = [30, 30, 20, 20, 20, 20, 10, 10, 10, 10, 10, 10].map((ratedA, i) => ({ key: `${i + 1}`, ratedA }))
const CIRCUITS = [
  circuit('pump 1', 14.8, 'run', 3, true),
  circuit('pump 2', 14.8, 'run', 3, true),
  circuit('ignition', 11, 'run', 1, true),
  circuit('injectors', 5.5, 'run', 1, true),
  circuit('water pump', 9, 'run', 3),
  circuit('unit', 3, 'key', 1, true),
  circuit('dash', 2.2, 'key'),
  circuit('radio', 1.5, 'key'),
  circuit('fan', 22, 'fan', 3),
  circuit('lamps', 9.2, 'lamps', 3),
  circuit('rain', 2.4, 'rain'),
  circuit('wiper', 6, 'wiper', 4),
]
const place = (more: Partial<BoxRules> = {}, circuits = CIRCUITS, outputs = OUTPUTS) =>
  placeCircuits({ outputs, circuits, rules: { ...RULES, ...more } }, SOLVER)

/** All placings tried, one circuit after another: the least rating used and the best least headroom with it. */
function byTrying({ outputs, circuits, rules }: BoxProblem): { usedA: number; leastHeadroom: number } | null {
  let best: { usedA: number; leastHeadroom: number } | null = null
  const on: PlacedCircuit[][] = outputs.map(() => [])
  const holds = (own: readonly PlacedCircuit[], ratedA: number) => {
    const load = own.reduce((sum, each) => sum + each.currentA, 0)
    return (
      load <= rules.loadShare * ratedA + 1e-9 &&
      own.every(({ group }) => group === own[0]?.group) &&
      !(rules.vitalAlone && own.length > 1 && own.some(({ isVital }) => isVital)) &&
      (rules.peakShare === null || own.every((each) => load + (each.startFactor - 1) * each.currentA <= (rules.peakShare ?? 0) * ratedA + 1e-9))
    )
  }
  const go = (i: number): void => {
    const next = circuits[i]
    if (!next) {
      const used = outputs.filter((_, at) => (on[at]?.length ?? 0) > 0)
      const usedA = used.reduce((sum, { ratedA }) => sum + ratedA, 0)
      const leastHeadroom = Math.min(
        ...outputs.map(({ ratedA }, at) => (on[at]?.length ? 1 - (on[at] ?? []).reduce((sum, each) => sum + each.currentA, 0) / ratedA : 1)),
      )
      if (!best || usedA < best.usedA - 1e-9 || (usedA < best.usedA + 1e-9 && leastHeadroom > best.leastHeadroom)) best = { usedA, leastHeadroom }
      return
    }
    outputs.forEach(({ ratedA, key }, at) => {
      if (next.pinned !== null && next.pinned !== key) return
      on[at]?.push(next)
      if (holds(on[at] ?? [], ratedA)) go(i + 1)
      on[at]?.pop()
    })
  }
  go(0)
  return best
}

describe('circuits on the outputs of a box', () => {
  it('use 190 A of ratings with 0.26 of room on the fullest, proven', () => {
    const placing = place()
    expect(placing.usedA).toBe(190)
    expect(placing.leastHeadroom).toBeCloseTo(0.26, 4)
    expect(placing.isProven).toBe(true)
    expect(placing.outputs.flatMap(({ circuits }) => circuits).sort()).toEqual(CIRCUITS.map(({ name }) => name).sort())
  })
  it('use 160 A where vital ones may share', () => expect(place({ vitalAlone: false }).usedA).toBe(160))
  it('cannot be with one of 20 A kept free, and say what would do', () => {
    expect(() => place({ keepFree: { 20: 1 } })).toThrow(/The outputs do not go round\. It would go with no output kept free\./)
  })
  it('name a circuit that is larger than every output', () => {
    expect(() => place({}, [circuit('winch', 40, 'winch')])).toThrow(
      'winch, 40 A, fits no output under these rules. A larger box, or fewer circuits, is needed.',
    )
  })
  it('name the one rule that stands in the way of a start', () => {
    expect(() => place({ peakShare: 2 }, [circuit('fan', 22, 'fan', 3)])).toThrow(/It would go with starts not checked/)
  })
  it('leave a pinned circuit where it is, and let its group join it', () => {
    const circuits = [circuit('dash', 2, 'key', 1, false, '9'), circuit('radio', 1.5, 'key'), circuit('lamps', 9, 'lamps')]
    const placing = place({}, circuits)
    expect(placing.outputs.find(({ key }) => key === '9')?.circuits).toContain('dash')
    expect(placing.usedA).toBe(30)
  })
  test.each<[string, () => unknown, RegExp]>([
    ['two groups pinned to one output', () => place({}, [circuit('a', 1, 'x', 1, false, '9'), circuit('b', 1, 'y', 1, false, '9')]), /fits no output/],
    ['a pin to nothing', () => place({}, [circuit('a', 1, 'x', 1, false, '99')]), /no output 99/],
    ['an output twice', () => place({}, CIRCUITS, [...OUTPUTS, { key: '1', ratedA: 10 }]), /named twice/],
    ['an empty box', () => place({}, CIRCUITS, []), /no output/],
    ['nothing to place', () => place({}, []), /Nothing is to be placed/],
    ['a circuit of nothing', () => place({}, [circuit('a', 0, 'x')]), /0 A draws nothing/],
  ])('refuse %s', (_, work, sentence) => expect(work).toThrow(sentence))
  it('are placed as well as by trying every way', () => {
    const one = fc.record({
      currentA: fc.integer({ min: 1, max: 14 }),
      group: fc.constantFrom('a', 'b'),
      startFactor: fc.constantFrom(1, 3),
      isVital: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 6 }), fc.array(fc.constantFrom(10, 20, 30), { minLength: 2, maxLength: 5 }), (list, ratings) => {
        const circuits = list.map((each, i) => ({ ...each, name: `c${i}`, pinned: null }))
        const outputs = ratings.map((ratedA, i) => ({ key: `${i}`, ratedA }))
        const problem = { outputs, circuits, rules: RULES }
        const best = byTrying(problem)
        if (!best) {
          expect(() => placeCircuits(problem, SOLVER)).toThrow(/It would go|A larger box/)
          return
        }
        const found = placeCircuits(problem, SOLVER)
        expect(found.isProven).toBe(true)
        expect(found.usedA).toBeCloseTo(best.usedA, 6)
        expect(found.leastHeadroom).toBeCloseTo(best.leastHeadroom, 9)
      }),
      { seed: -72801233, numRuns: 60 },
    )
  })
  it('an output more or a higher load share never makes it impossible', () => {
    expect(() => place({ loadShare: 0.9 })).not.toThrow()
    expect(() => place({}, CIRCUITS, [...OUTPUTS, { key: '13', ratedA: 20 }])).not.toThrow()
  })
})
