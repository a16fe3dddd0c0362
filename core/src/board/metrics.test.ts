import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../test/worked-example.ts'
import { METRICS, type Metric } from '../records/metric-keys.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import { powerAtStage } from '../rooms/power/power-at-stage.ts'
import { massOf } from '../rooms/weight/mass-at-stage.ts'
import { makeWeightRoom } from '../rooms/weight/weight-room.ts'
import { openCar } from '../stages/car.ts'
import type { MetricDeclaration } from '../stages/define-metric.ts'
import { type StageValue, WAITING } from '../stages/stage-value.ts'
import { chanceAtMost, normalDistribution } from '../stats/distribution.ts'
import { makeBoard } from './board.ts'
import { METRIC_VALUES, PROOFS } from './metric-values.ts'
import { MEASUREMENTS, METRIC_INFO } from './metrics.ts'
import { ALL_METRICS, type MetricSet } from './stage-values.ts'
import { makeWorking, WORKING_SUBJECTS } from './working.ts'

const TODAY = '2026-04-02'
const target = (more: object) => ({ id: 't', sense: 'atLeast', value: 0, highValue: null, dueStageId: 's2', ...more }) as unknown as Target
const limit = (more: object) => ({ id: 'l', sense: 'atMost', value: 0, source: 'own', fromStageId: 's0', untilStageId: null, ...more }) as unknown as Limit

describe('what is declared of a metric', () => {
  it.each(METRICS)('%s has a word, a room, a working and what proves it', (key) => {
    const { word, room, working, provedBy, calculation } = METRIC_INFO[key]
    expect([word, room, calculation].every((text) => text.length > 0)).toBe(true)
    expect(WORKING_SUBJECTS).toContain(working)
    for (const base of provedBy) expect(MEASUREMENTS.map((entry) => entry.key)).toContain(base)
    expect(METRIC_VALUES[key].at).toEqual(expect.any(Function))
  })
  it.each(MEASUREMENTS.map((entry) => [entry.key, entry] as const))('%s is a measurement of a metric that it proves', (key, { metric }) => {
    expect(METRIC_INFO[metric].provedBy).toEqual([key])
    expect(PROOFS[key]).toBeDefined()
  })
})

/** A metric of the tests alone, beside those of the product. */
function withMetric(at: (position: number) => StageValue | typeof WAITING | undefined, more: Partial<MetricDeclaration> = {}): MetricSet {
  const info = { ...METRIC_INFO.massReady, key: 'trial' as Metric, word: 'Trial', kind: 'length', isAlwaysShown: false, ...more } as MetricDeclaration
  return { info: { ...ALL_METRICS.info, trial: info }, work: { ...ALL_METRICS.work, trial: { at: (_, position) => at(position) } } }
}
const known = (value: number, proof: StageValue['proof'] = 'calculated', sd = 0.01): StageValue => ({
  value,
  sd,
  proof,
  distribution: normalDistribution(value, sd),
  fromPosition: null,
})
const withGoals = (...goals: (Target | Limit)[]) =>
  changed((all) => {
    for (const goal of goals) ('source' in goal ? all.limits : (all.targets as unknown[])).push(goal as never)
  })

describe('a metric that is worked out later than the Board', () => {
  const goals = withGoals(target({ id: 'late', metric: 'trial', value: 0.1 }), limit({ id: 'cap', metric: 'trial', value: 0.01 }))
  const board = (at: (position: number) => StageValue | typeof WAITING | undefined) => makeBoard(openCar(goals), TODAY, withMetric(at))

  it('shows that it is being worked out, gives no verdict and no beam, and asks for nothing', () => {
    const found = board((position) => (position === 2 ? WAITING : known(0.05)))
    const rows = found.rows.filter((row) => row.metric === ('trial' as Metric))
    expect(rows.map(({ goal, beam }) => [goal.kind === 'none' ? 'none' : goal.verdict, beam])).toEqual([
      [null, null],
      [null, null],
    ])
    expect(rows[0]?.cells.map((cell) => cell === WAITING)).toEqual([false, false, true])
    expect(found.isWaiting).toBe(true)
    expect(found.next.filter((item) => 'metric' in item && item.metric === ('trial' as Metric))).toEqual([])
  })
  it('leaves every other row as it is', () => {
    const others = (rows: ReturnType<typeof makeBoard>['rows']) => rows.filter((row) => row.metric !== ('trial' as Metric))
    expect(others(board(() => WAITING).rows)).toEqual(makeBoard(openCar(workedExample()), TODAY).rows)
  })
  it('arrives by itself: asked again, nothing waits and the verdicts stand', () => {
    const found = board(() => known(0.2))
    expect(found.isWaiting).toBeUndefined()
    expect(found.rows.find((row) => row.id === 'late')?.goal).toMatchObject({ verdict: { word: 'on course' } })
    expect(found.next.find((item) => item.code === 'limit-would-break')).toMatchObject({ limitId: 'cap' })
  })
  it('waits only for the stages that its goal looks at', () => {
    const early = withGoals(limit({ id: 'early', metric: 'trial', value: 1, fromStageId: 's0', untilStageId: 's1' }))
    const found = makeBoard(
      openCar(early),
      TODAY,
      withMetric((position) => (position === 2 ? WAITING : known(0.2))),
    )
    expect(found.rows.find((row) => row.id === 'early')?.goal).toMatchObject({ verdict: { word: 'would hold' } })
  })
  it('asks whoever opened the car, and everything waits where nobody works it out', () => {
    const asked: string[] = []
    const car = openCar(goals, {
      later: (metric, position) => {
        asked.push(`${metric} ${position}`)
        return known(1)
      },
    })
    const set = withMetric(() => undefined)
    const late: MetricSet = { ...set, work: { ...set.work, trial: { at: (of, position) => of.later('trial', position) } } }
    expect(makeBoard(car, TODAY, late).isWaiting).toBeUndefined()
    expect(asked.sort()).toEqual(['trial 0', 'trial 1', 'trial 2'])
    expect(makeBoard(openCar(goals), TODAY, late).isWaiting).toBe(true)
  })
  it('a Board without such a metric never waits', () => {
    expect(makeBoard(openCar(workedExample()), TODAY)).not.toHaveProperty('isWaiting')
  })
})

describe('goals that are signed or nothing', () => {
  const share = (goal: Target, first: number, plan: number, more: Partial<MetricDeclaration> = {}) => {
    const set = withMetric((position) => known(position === 2 ? plan : first), more)
    return makeBoard(openCar(withGoals(goal)), TODAY, set).rows.find((row) => row.id === goal.id)?.beam?.plannedShare
  }
  // Worked by hand: (start − plan)/(start − goal).
  test.each([
    ['over the way from the first value to a goal of nothing', { sense: 'atLeast', value: 0 }, -0.4, -0.1, {}, 0.75],
    ['from below nothing to above it', { sense: 'atLeast', value: 0.2 }, -0.2, 0.1, {}, 0.75],
    ['over the metric’s own span where it starts on a goal of nothing', { sense: 'atLeast', value: 0 }, 0, -0.05, { range: 0.1 }, 0.5],
    ['over its own span also close beside the goal', { sense: 'atMost', value: 0.01 }, 0.011, 0.06, { range: 0.1 }, 0.5],
    ['over a tenth of a goal below nothing', { sense: 'atMost', value: -10 }, -10, -9.5, {}, 0.5],
    ['over a tenth of a large goal, span or not', { sense: 'atMost', value: 10 }, 10, 10.5, { range: 0.1 }, 0.5],
  ] as const)('a beam runs %s', (_, goal, first, plan, more, expected) => {
    expect(share(target({ id: 'goal', metric: 'trial', ...goal }), first, plan, more)).toBeCloseTo(expected, 9)
  })
  test.each([
    ['atLeast', -0.1, -0.05, 'met'],
    ['atLeast', 0, -0.05, 'missed'],
    ['atMost', -0.1, -0.05, 'missed'],
  ] as const)('%s %d of %d is %s', (sense, value, found, word) => {
    const set = withMetric(() => known(found, 'measured', 0.001))
    const board = makeBoard(openCar(withGoals(target({ id: 'goal', metric: 'trial', sense, value }))), TODAY, set)
    expect(board.rows.find((row) => row.id === 'goal')?.goal).toMatchObject({ verdict: { word } })
  })
})

describe('a limit that ends', () => {
  // V is 1,453.0, 1,469.1 and 1,454.5 kg at the three stages.
  test.each([
    ['s0', null, 'would break', 1],
    ['s0', 's0', 'holds', 0],
    ['s0', 's1', 'would break', 1],
    ['s2', null, 'would hold', 2],
  ] as const)('from %s to %s: %s', (fromStageId, untilStageId, word, position) => {
    const board = makeBoard(openCar(withGoals(limit({ metric: 'massReady', value: 1460, fromStageId, untilStageId }))), TODAY)
    expect(board.rows.find((row) => row.id === 'l')?.goal).toMatchObject({ verdict: { word, verdictPosition: position } })
  })
})

it('each metric reads only its own expectations', () => {
  const expectation = (metric: string, partId: string | null) =>
    ({ id: metric, stageId: 's2', partId, metric, mode: 'to', value: 165_000, sd: 8000, proof: 'guess' }) as never
  const power = (metric: string, partId: string | null = null) =>
    powerAtStage(openCar(changed((all) => all.expectations.push(expectation(metric, partId)))), 2)?.value
  expect(power('wheelPower')).toBe(165_000)
  expect(power('dragArea')).toBe(118_000)
  // What a wished part would give counts at no stage.
  expect(power('wheelPower', 'wish')).toBe(118_000)
})

it('what a measurement is missing is asked for where it can be made', () => {
  const bare = changed((all) => Object.assign(all, { weighings: [], sessions: [], pulls: [], targets: [target({ metric: 'powerToMass', value: 100 })] }))
  expect(makeBoard(openCar(bare), TODAY).next.filter((item) => item.code === 'measure-target')).toEqual([
    expect.objectContaining({ base: 'mass' }),
    expect.objectContaining({ base: 'power' }),
  ])
})

describe('one car a revision', () => {
  it('keeps what is worked out of it, and another car of the same records keeps its own', () => {
    const records: BuildRecords = workedExample()
    const [first, second] = [openCar(records), openCar(records)]
    expect(massOf(first, 2)).toBe(massOf(first, 2))
    expect(massOf(second, 2)).not.toBe(massOf(first, 2))
    expect(massOf(second, 2)).toEqual(massOf(first, 2))
  })
  it('shows one mass everywhere, also where the garage teaches it and a part carries least torque', () => {
    const pairs = Array.from({ length: 6 }, (_, i) => ({ guessKg: 10, measuredKg: 12 + 0.1 * i, side: 'on' as const }))
    const records = changed((all) => {
      all.build.guessPairsFrom = 'garage'
      const rating = { of: 'crankTorque', limit: 260, isEach: false, known: 'catalogue', ethanolShare: null }
      all.parts.push({ id: 'box', kind: 'gearbox', name: 'box', count: 1, ratings: [rating], status: 'fitted', stageId: 's0', extras: [] } as never)
    })
    const car = openCar(records, { garagePairs: pairs })
    const board = makeBoard(car, TODAY)
    const cell = board.rows.find((row) => row.metric === 'massReady')?.cells[2]
    expect(board.rows.some((row) => row.metric === 'peakTorque' && row.ratedPart === 'box')).toBe(true)
    expect(cell).toMatchObject({ value: makeWeightRoom(car).forecasts[2]?.meanKg })
    expect(makeWorking(car, 'mass', 's2', TODAY).result.value).toBe(makeWeightRoom(car).forecasts[2]?.meanKg)
    expect(massOf(openCar(records), 2)?.value).not.toBe(massOf(car, 2)?.value)
  })
})

it('a mean that rounding put onto its floor is still a chance', () => {
  expect(chanceAtMost({ shape: 'lognormal', floor: 5, mean: 5, sd: 1e-3 }, 6)).toBe(1)
})
