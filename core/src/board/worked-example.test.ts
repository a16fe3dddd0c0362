import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../test/worked-example.ts'
import type { Target } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import type { Change } from '../records/weight-kinds.ts'
import { powerAtStage } from '../rooms/power/power-at-stage.ts'
import { ledgerScore } from '../rooms/weight/ledger-score.ts'
import { massOf } from '../rooms/weight/mass-at-stage.ts'
import { unexplainedAt } from '../rooms/weight/unexplained.ts'
import { openCar } from '../stages/car.ts'
import { StageValues } from './stage-values.ts'
import { targetVerdict } from './verdict.ts'

// Every expected number: the worked example of the rules (invented numbers, worked by hand).
const values = (records: BuildRecords) => new StageValues(openCar(records))
const target = (records: BuildRecords) => records.targets[0] as Target
const line = (records: BuildRecords, id: string) => records.changes.find((change) => change.id === id) as Change

describe('worked example', () => {
  const car = openCar(workedExample())
  const stages = new StageValues(car)

  test.each([
    ['W0 at the reference', car.weighings[0]?.reference.massKg, 1453.01, 2],
    ['its spread', car.weighings[0]?.reference.sdKg, 1.79, 2],
    ['W1 at the reference', car.weighings[1]?.reference.massKg, 1450.3, 2],
    ['its spread', car.weighings[1]?.reference.sdKg, 1.25, 2],
    ['V(0)', massOf(car, 0)?.value, 1453.01, 2],
    ['V(1)', massOf(car, 1)?.value, 1469.1, 2],
    ['V(1) spread', massOf(car, 1)?.sd, 1.82, 2],
    ['V(2)', massOf(car, 2)?.value, 1454.89, 2],
    ['V(2) spread', massOf(car, 2)?.sd, 3.08, 2],
    ['power at stage 1', powerAtStage(car, 1)?.value, 118_000, 0],
    ['power spread', (powerAtStage(car, 1)?.sd ?? 0) / 1000, 1.37, 2],
    ['power to weight', stages.value('powerToMass', 1)?.value, 80.3, 1],
    ['its spread', stages.value('powerToMass', 1)?.sd, 0.9, 1],
  ] as const)('%s', (_, found, expected, digits) => {
    expect(found).toBeCloseTo(expected, digits)
  })

  test.each([
    ['outKg', 48.8],
    ['bankedKg', 18.6],
    ['foundKg', 42.3],
    ['onGuessKg', 23.7],
    ['waitsKg', 0],
    ['addedDoneKg', 41],
    ['addedPlannedKg', 12],
    ['netKg', 10.7],
    ['toComeKg', 0],
  ] as const)('score %s is exact', (key, expected) => {
    expect(ledgerScore(car, 1)[key]).toBe(expected)
  })

  it('knows how sure each number is', () => {
    expect(massOf(car, 0)?.proof).toBe('measured')
    expect(massOf(car, 1)?.proof).toBe('calculated')
    expect(massOf(car, 2)?.proof).toBe('guess')
    expect(powerAtStage(car, 1)?.proof).toBe('measured')
    expect(stages.value('powerToMass', 1)?.proof).toBe('calculated')
  })

  it('names unexplained mass and does not flag it inside its spread', () => {
    const found = unexplainedAt(car, 'w1')
    expect(found?.ledgerSaidKg).toBeCloseTo(1447.1, 1)
    expect(found?.massKg).toBeCloseTo(3.2, 1)
    expect(found?.sdKg).toBeCloseTo(7.8, 1)
    expect(found?.isFlagged).toBe(false)
    expect(unexplainedAt(car, 'w0')).toBeUndefined()
  })

  it('gives a chance, and knowing more can lower it', () => {
    const before = targetVerdict(stages, target(car.records), '2026-04-02')
    expect(before).toMatchObject({ word: 'doubtful', isLate: false })
    expect(before?.chance).toBeCloseTo(0.51, 2)
    const weighed = changed((records) => {
      line(records, 'c3').values.push({ massKg: 7.4, sdKg: 0.1, proof: 'measured', at: '2026-04-02T10:00:00Z', instrument: null })
    })
    const after = values(weighed)
    expect(ledgerScore(after.car, 1)).toMatchObject({ foundKg: 41.4, bankedKg: 41.4 })
    expect(massOf(after.car, 2)?.value).toBeCloseTo(1455.49, 2)
    expect(massOf(after.car, 2)?.sd).toBeCloseTo(2.84, 2)
    expect(targetVerdict(after, target(weighed), '2026-04-02')?.chance).toBeCloseTo(0.43, 2)
  })

  it('expects power where nothing measured it', () => {
    const records = changed((all) => {
      all.expectations.push({ id: 'e', stageId: 's2', partId: null, metric: 'wheelPower', mode: 'to', value: 165_000, sd: 8000, proof: 'guess' })
      all.targets.push({ id: 't2', metric: 'wheelPower', sense: 'atLeast', value: 160_000, highValue: null, dueStageId: 's2' })
    })
    const verdict = targetVerdict(values(records), records.targets[1] as Target, '2026-04-02')
    expect(verdict?.word).toBe('doubtful')
    expect(verdict?.chance).toBeCloseTo(0.73, 2)
  })

  it('becomes late, never missed, when its date passes', () => {
    const records = changed((all) => {
      if (all.stages[2]) all.stages[2].date = '2026-03-31'
    })
    expect(targetVerdict(values(records), target(records), '2026-04-02')).toMatchObject({ word: 'doubtful', isLate: true })
  })
})
