import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { changed, workedExample } from '../../test/worked-example.ts'
import { estimateBias } from '../mass/estimate-bias.ts'
import { type BuildRecords, buildRecordsSchema } from '../records/records.ts'
import type { Change } from '../records/weight-kinds.ts'
import { massOf } from '../rooms/weight/mass-at-stage.ts'
import { unexplainedBetween } from '../rooms/weight/unexplained.ts'
import { openCar } from '../stages/car.ts'
import { StageValues } from './stage-values.ts'
import { targetVerdict } from './verdict.ts'

const masses = (records: BuildRecords) => {
  const values = new StageValues(openCar(records))
  return values.car.stages.map((_, position) => massOf(values.car, position)?.value)
}
const sds = (records: BuildRecords) => {
  const values = new StageValues(openCar(records))
  return values.car.stages.map((_, position) => massOf(values.car, position)?.sd ?? 0)
}
const mass = fc.double({ min: 0.2, max: 200, noNaN: true })
const change = (id: string, kind: 'off' | 'on', massKg: number, proof: 'guess' | 'measured', extra: Partial<Change> = {}): Change =>
  ({
    ...(workedExample().changes[5] as Change),
    id,
    kind,
    values: [{ massKg, sdKg: null, proof, at: '2026-04-05T10:00:00Z', instrument: null }],
    ...extra,
  }) as Change

describe('invariants of the car at a stage', () => {
  it('does not depend on the order of entry', () => {
    const original = masses(workedExample())
    fc.assert(
      fc.property(fc.shuffledSubarray(workedExample().changes, { minLength: 6 }), (changes) => {
        const shuffled = masses(changed((records) => Object.assign(records, { changes })))
        for (const [i, value] of shuffled.entries()) expect(value).toBeCloseTo(original[i] as number, 9)
      }),
    )
  })

  it('does not change when a measured line is split in two', () => {
    fc.assert(
      fc.property(mass, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (massKg, share) => {
        const whole = masses(changed((records) => records.changes.push(change('x', 'on', massKg, 'measured'))))
        const split = masses(
          changed((records) => records.changes.push(change('x', 'on', massKg * share, 'measured'), change('y', 'on', massKg * (1 - share), 'measured'))),
        )
        for (const [i, value] of whole.entries()) expect(split[i]).toBeCloseTo(value as number, 6)
      }),
    )
  })

  it('does not change when a line that scales and stage both hold is edited', () => {
    fc.assert(
      fc.property(mass, (massKg) => {
        const edited = changed((records) => {
          const value = records.changes[0]?.values[0]
          if (value) value.massKg = massKg
        })
        const [, atOne] = masses(edited)
        expect(atOne).toBeCloseTo(masses(workedExample())[1] as number, 9)
      }),
    )
  })

  it('treats dropping like deleting', () => {
    for (const { id } of workedExample().changes) {
      const changes = workedExample().changes.map((entry) => (entry.id === id ? { ...entry, state: 'dropped' as const } : entry))
      const dropped = changed((records) => Object.assign(records, { changes }))
      const deleted = changed((records) => Object.assign(records, { changes: records.changes.filter((entry) => entry.id !== id) }))
      expect(masses(dropped)).toEqual(masses(deleted))
    }
  })

  it('never gets surer when a guess of the same sign is added', () => {
    fc.assert(
      fc.property(mass, (massKg) => {
        const onlyOn = (records: BuildRecords) => {
          records.changes = records.changes.filter((entry) => entry.id !== 'c6')
        }
        const before = sds(changed(onlyOn))
        const after = sds(
          changed((records) => {
            onlyOn(records)
            records.changes.push(change('x', 'on', massKg, 'guess'))
          }),
        )
        expect(after[2]).toBeGreaterThanOrEqual((before[2] as number) - 1e-9)
      }),
    )
  })

  it('never gets less sure by a second weighing that agrees', () => {
    fc.assert(
      fc.property(fc.double({ min: -1.5, max: 1.5, noNaN: true }), fc.boolean(), (shift, otherScales) => {
        const again = changed((records) => {
          const [first] = records.weighings
          if (!first) return
          const pads = { ...first.pads, LF: { massKg: (first.pads.LF?.massKg ?? 0) + shift, sdKg: null } }
          records.weighings.push({ ...first, id: 'again', at: '2026-02-04T10:00:00Z', pads, scales: otherScales ? 'other' : null })
        })
        const values = new StageValues(openCar(again))
        expect(massOf(values.car, 0)?.proof).toBe('confirmed')
        expect(massOf(values.car, 0)?.sd).toBeLessThanOrEqual((sds(workedExample())[0] as number) + 1e-9)
      }),
    )
  })

  it('adds unexplained mass over intervals', () => {
    fc.assert(
      fc.property(fc.double({ min: 1200, max: 1500, noNaN: true }), (total) => {
        const records = changed((all) => {
          const [first] = all.weighings
          const pad = { massKg: total / 4, sdKg: null }
          if (first) all.weighings.push({ ...first, id: 'w2', at: '2026-05-01T10:00:00Z', pads: { LF: pad, RF: pad, LR: pad, RR: pad } })
        })
        const car = openCar(records)
        const [i, j, k] = car.weighings
        if (!i || !j || !k) throw new Error('three weighings expected')
        expect(unexplainedBetween(car, i, k).massKg).toBeCloseTo(unexplainedBetween(car, i, j).massKg + unexplainedBetween(car, j, k).massKg, 9)
      }),
    )
  })

  it('survives being written and read again', () => {
    const again = buildRecordsSchema.parse(JSON.parse(JSON.stringify(workedExample())))
    expect(masses(again)).toEqual(masses(workedExample()))
  })
})

describe('verdicts and anchors at the edges', () => {
  it('has no plan without any mass, and takes the baseline mass when there is one', () => {
    const bare = changed((records) => Object.assign(records, { weighings: [] }))
    const values = new StageValues(openCar(bare))
    expect(targetVerdict(values, bare.targets[0] as never, '2026-01-01')?.word).toBe('no plan')
    bare.build.baselineMass = { massKg: 1450, sdKg: null, proof: 'catalogue', hasDriver: true, hasFuel: true }
    expect(massOf(openCar(bare), 0)).toMatchObject({ value: 1450, proof: 'catalogue' })
  })

  it('takes a part of a later stage off again when it was fitted early', () => {
    const early = changed((records) => {
      const glass = records.changes[5]
      if (glass) Object.assign(glass, { state: 'done', doneAt: '2026-03-01T10:00:00Z' })
    })
    const values = new StageValues(openCar(early))
    // W1 was entered at stage 1 and held the glass of stage 2: it goes back in.
    const atOne = massOf(values.car, 1)
    expect(atOne?.anchor.kind).toBe('ownStage')
    expect(atOne?.openLines.map(({ line, part }) => [line.change.id, part.sign])).toEqual([
      ['c3', 1],
      ['c4', 1],
      ['c6', 1],
    ])
    expect(massOf(values.car, 2)?.anchor.kind).toBe('subset')
  })

  it('lets scales replace the ledger when a weighing held exactly the stage', () => {
    const done = changed((records) => {
      records.changes = records.changes.map((entry) => (entry.stageId === 's1' ? { ...entry, state: 'done' as const, doneAt: '2026-03-01T10:00:00Z' } : entry))
    })
    const values = new StageValues(openCar(done))
    expect(massOf(values.car, 1)).toMatchObject({ proof: 'measured', openLines: [] })
    expect(massOf(values.car, 1)?.value).toBeCloseTo(1450.3, 2)
    expect(values.value('frontShare', 1)?.value).toBeCloseTo(0.52, 6)
  })

  it('learns from five pairs and falls back below', () => {
    const pair = { guessKg: 10, measuredKg: 11 }
    expect(estimateBias(Array(4).fill(pair))).toMatchObject({ isDefault: true, pairCount: 4, mu: 0.03 })
    expect(estimateBias([...Array(4).fill(pair), { guessKg: 10, measuredKg: 10.5 }])).toMatchObject({ isDefault: false, pairCount: 5 })
  })
})
