import { describe, expect, it, test } from 'vitest'
import { limit, target } from '../../test/goals.ts'
import { changed, workedExample } from '../../test/worked-example.ts'
import { readBuildRecords } from '../records/read-records.ts'
import { type BuildRecords, buildRecordsSchema } from '../records/records.ts'
import type { Weighing } from '../records/weight-kinds.ts'
import { conditionDifferences } from '../rooms/weight/compare-weighings.ts'
import { isReferenceCorners, referenceCorners } from '../rooms/weight/reference-corners.ts'
import { scoreDetail } from '../rooms/weight/score-detail.ts'
import { openCar } from '../stages/car.ts'
import { makeBoard } from './board.ts'
import { stageState } from './stage-state.ts'
import { StageValues } from './stage-values.ts'
import { targetVerdict } from './verdict.ts'
import { makeWorking } from './working.ts'

// Each of these was planted by hand as a fault and passed every test there was; the name says which rule holds.
const TODAY = '2026-04-02'
const parse = (edit: (records: BuildRecords) => void) => buildRecordsSchema.parse(changed(edit))

describe('the beam of a car that starts on its goal', () => {
  // Start 118 kW, goal 118 kW, plan 112.1 kW: the way is a tenth of the goal, on the side that fails.
  test.each([
    ['atLeast', 0.95, 0.5],
    ['atMost', 0.95, 1.5],
    ['atMost', 1.05, 0.5],
  ] as const)('measures from the side that fails: %s, plan %d of the goal', (sense, factor, share) => {
    const records = parse((all) => {
      all.expectations.push({ id: 'e', stageId: 's2', partId: null, metric: 'wheelPower', mode: 'to', value: 118_000 * factor, sd: 1000, proof: 'guess' })
      all.targets.push(target({ id: 'p', metric: 'wheelPower', sense, value: 118_000, dueStageId: 's2' }))
    })
    const row = makeBoard(openCar(records), TODAY).rows.find((entry) => entry.id === 'p')
    expect(row?.beam?.plannedShare).toBeCloseTo(share, 9)
  })
})

test.each([
  ['2026-04-01', true],
  [TODAY, false],
  ['2026-04-03', false],
])('a stage with the date %s is late on 2 April: %s', (date, isLate) => {
  const records = parse((all) => Object.assign(all.stages[2] as object, { date }))
  expect(stageState(new StageValues(openCar(records)), 2, TODAY).isLate).toBe(isLate)
})

it('what is broken comes before what would break', () => {
  const records = parse((all) => all.limits.push(limit({ id: 'would', value: 1456, fromStageId: 's2' }), limit({ id: 'is', value: 1460 })))
  expect(makeBoard(openCar(records), TODAY).next.map(({ code }) => code)).toEqual(expect.arrayContaining(['limit-broken', 'limit-would-break']))
  expect(makeBoard(openCar(records), TODAY).next[0]).toMatchObject({ code: 'limit-broken', limitId: 'is' })
})

// V(0) is 1,453.01 kg with a spread of 1.79: the normal quantiles of 0.85 and 0.95 above it.
test.each([
  [1453.01 + 1.036 * 1.79, true],
  [1453.01 + 1.645 * 1.79, false],
])('a target of %d kg is met within doubt: %s', (value, withinDoubt) => {
  const verdict = targetVerdict(new StageValues(openCar(workedExample())), target({ value }), TODAY)
  expect(verdict).toMatchObject({ word: 'met', withinDoubt })
})

test.each([
  [0.002, []],
  [0.006, ['rideHeight']],
  [0.03, ['rideHeight']],
])('ride heights %d m apart differ: %j', (apartM, expected) => {
  const weighing = workedExample().weighings[0] as Weighing
  const at = (rideHeightRearM: number) => ({
    ...weighing,
    conditions: { barsDisconnected: null, isLevel: null, tyrePressurePa: null, rideHeightFrontM: 0.11, rideHeightRearM },
  })
  expect(conditionDifferences(at(0.12), at(0.12 + apartM)).map(({ what }) => what)).toEqual(expected)
})

it('what is done and off is no longer in the car, what is done and on is', () => {
  const found = scoreDetail(openCar(workedExample()), 2).stillInCar
  expect(found.map(({ changeId, comesOff }) => [changeId, comesOff])).toEqual([
    ['c5', false],
    ['c6', true],
  ])
})

it('a round of turns goes out of sight with its stage and is not called broken', () => {
  const four = (value: number) => ({ LF: value, RF: value, LR: value, RR: value })
  const records = changed((all) =>
    all.balanceSteps.push({
      id: 'r',
      stageId: 'gone',
      at: '2026-03-01T10:00:00Z',
      school: 'byHand',
      wantedCrossRfLr: 0.5,
      before: four(300),
      turns: four(0),
      after: null,
      note: null,
    }),
  )
  const { broken, leftOut, records: read } = readBuildRecords(records)
  expect([broken, [...leftOut], read.balanceSteps]).toEqual([[], ['r'], []])
})

it('the left share without wheel rates goes by the track where the mass stands', () => {
  // Driver 80 kg at x 0.26, y 0.35 in a car of 1,000 kg with 90 % on the front: the front track counts nine times as much as the rear.
  const { build } = parse((all) => {
    Object.assign(all.build, { trackFrontM: 1, trackRearM: 2, reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 } })
    all.build.driverPlace = { xM: 0.26, yM: 0.35, zM: 0.4 }
  })
  const pad = (massKg: number) => ({ massKg, sdKg: null })
  const weighing = { ...(workedExample().weighings[0] as Weighing), fuelL: 20, pads: { LF: pad(450), RF: pad(450), LR: pad(50), RR: pad(50) } }
  const found = referenceCorners(weighing, build)
  if (!isReferenceCorners(found)) throw new Error('no corners')
  expect(found.frontShare).toBeCloseTo(0.9, 9)
  expect(found.leftShare).toBeCloseTo(0.5 + (80 * 0.35) / 1080 / (0.9 * 1 + 0.1 * 2), 9)
})

it('the working of a score lists the lines of its own stage alone', () => {
  const records = parse((all) =>
    all.changes.push({ ...(all.changes[3] as BuildRecords['changes'][number]), id: 'c7', stageId: 's2', name: 'polycarbonate', fromChangeId: null }),
  )
  const labels = (stageId: string) => makeWorking(openCar(records), 'score', stageId, TODAY).lines.map(({ label }) => label)
  expect(labels('s1')).toEqual(expect.arrayContaining(['on moulded tailgate', 'on cage']))
  expect(labels('s1')).not.toContain('on polycarbonate')
  expect(labels('s2')).toContain('on polycarbonate')
  expect(labels('s2')).not.toContain('on cage')
})
