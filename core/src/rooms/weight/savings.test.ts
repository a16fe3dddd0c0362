import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { StageValues } from '../../board/stage-values.ts'
import { changeKind } from '../../records/weight-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { ledgerScore, stageSavings } from './ledger-score.ts'
import { massOf, massOffAt } from './mass-at-stage.ts'
import { makeWeightRoom } from './weight-room.ts'

// An evening of stripping with 14.0 kg wanted; every expected number is worked by hand (invented numbers).
const change = z.object(changeKind.fields)
const line = (id: string, kind: 'off' | 'on' | 'transfer', massKg: number | null, more: object = {}) =>
  change.parse({
    id,
    stageId: 's1',
    kind,
    name: id,
    values: massKg === null ? [] : [{ massKg, proof: 'measured', at: '2026-03-01T20:00:00Z' }],
    state: 'done',
    doneAt: '2026-03-01T20:00:00Z',
    ...more,
  })
const guess = (massKg: number) => ({ values: [{ massKg, proof: 'guess', at: '2026-03-01T20:00:00Z' }] })
const evening = (more: readonly ReturnType<typeof line>[] = []) =>
  changed((records) => {
    records.weighings = records.weighings.slice(0, 1)
    records.targets = [{ id: 'goal', metric: 'massOff', sense: 'atLeast', value: 14, highValue: null, dueStageId: 's1' }]
    records.changes = [
      line('seats', 'off', 8, { count: 2 }),
      line('shells', 'on', null, { count: 2, state: 'planned', replacesChangeId: 'seats', ...guess(4) }),
      line('carpet', 'off', 5),
      line('horn', 'off', 2),
      line('doors', 'off', 31, { count: 2, waits: true }),
      ...more,
    ]
  })

describe('the evening’s score', () => {
  it('is 15.0 found, 7.0 of it banked and 8.0 on a guess, 62.0 waits, and the goal passed by 1.0', () => {
    const car = openCar(evening())
    expect(ledgerScore(car, 1)).toMatchObject({ foundKg: 15, bankedKg: 7, onGuessKg: 8, waitsKg: 62, toComeKg: 0, outKg: 85, offLessPiecesKg: 85, netKg: -77 })
    expect(makeWeightRoom(car).goalPassed[1]).toEqual({ wantedKg: 14, foundKg: 15 })
  })

  it('banks a saving once each side is weighed, fitted or not, wherever the side stands', () => {
    const weighed = line('shells', 'on', 3.9, { count: 2, state: 'planned', replacesChangeId: 'seats', stageId: 's2' })
    const records = evening()
    records.changes = records.changes.map((entry) => (entry.id === 'shells' ? weighed : entry))
    expect(ledgerScore(openCar(records), 1)).toMatchObject({ bankedKg: 15.2, onGuessKg: 0, netKg: -85 })
    expect(ledgerScore(openCar(records), 2)).toMatchObject({ foundKg: 0, netKg: 7.8 })
  })

  it('waits while a side is unknown', () => {
    const car = openCar(evening([line('catch', 'transfer', null, { fromChangeId: 'carpet', state: 'planned' })]))
    expect(ledgerScore(car, 1)).toMatchObject({ bankedKg: 2, waitsKg: 67 })
  })

  it('lets what waits come back in part at every later stage: half of it, as doubtful as an even chance', () => {
    const car = openCar(evening())
    const [first, later] = [massOf(car, 1), massOf(car, 2)]
    // Planned shells: 8 kg guessed, corrected by exp(0.03 + 0.15²/2 + 0.15²/6).
    const shells = 8 * Math.exp(0.03 + 0.15 ** 2 / 2 + 0.15 ** 2 / 6)
    expect(first?.value).toBeCloseTo(1453.01 - 85 + shells, 6)
    expect(later).toMatchObject({ carriedFromPosition: 1 })
    const twoStages = openCar(evening([line('wing', 'on', 4, { stageId: 's2', state: 'planned' })]))
    expect(massOf(twoStages, 2)?.value).toBeCloseTo(1453.01 - 85 + shells + 4 + 31, 6)
    expect(massOf(twoStages, 2)?.openLines.filter(({ part }) => part.isComingBack)).toHaveLength(1)
    const variance = (massOf(twoStages, 2)?.sd ?? 0) ** 2 - (massOf(twoStages, 1)?.sd ?? 0) ** 2
    expect(variance).toBeCloseTo(62 ** 2 / 12 + 0.1 ** 2, 4)
  })

  it('knows less of the car than of what was taken off: with one anchor only the lines’ doubt counts', () => {
    const car = openCar(evening())
    const off = massOffAt(car, 1)
    expect(off?.value).toBeCloseTo((massOf(car, 0)?.value ?? 0) - (massOf(car, 1)?.value ?? 0), 9)
    // Lines of 8 (twice), 5, 2, 31 (twice) weighed: 0.1 kg or 0.5 % a piece; and the guessed shells.
    const m = 8 * Math.exp(0.03 + 0.15 ** 2 / 2 + 0.15 ** 2 / 6)
    const guessVariance = m ** 2 * Math.expm1(0.15 ** 2 / 3 + 0.15 ** 2)
    expect(off?.sd).toBeCloseTo(Math.sqrt(0.2 ** 2 + 0.1 ** 2 + 0.1 ** 2 + (2 * 0.155) ** 2 + guessVariance), 6)
    expect(new StageValues(car).value('massOff', 0)).toMatchObject({ value: 0, sd: 0 })
    expect(makeBoard(car, '2026-03-02').rows.find(({ metric }) => metric === 'massOff')?.goal).toMatchObject({ verdict: { word: 'on course' } })
  })

  it('adds up: every saving of a stage stands in one state, to the milligram', () => {
    const mass = fc.integer({ min: 1, max: 90_000 }).map((g) => g / 1000)
    const off = fc.record({ massKg: mass, waits: fc.boolean(), isDone: fc.boolean(), back: fc.option(mass), replaced: fc.option(mass) })
    fc.assert(
      fc.property(fc.array(off, { minLength: 1, maxLength: 12 }), (list) => {
        const lines = list.flatMap(({ massKg, waits, isDone, back, replaced }, i) => [
          line(`o${i}`, 'off', massKg, { waits, state: isDone ? 'done' : 'planned', doneAt: isDone ? '2026-03-01T20:00:00Z' : null }),
          ...(back === null ? [] : [line(`t${i}`, 'transfer', back, { fromChangeId: `o${i}` })]),
          ...(replaced === null ? [] : [line(`r${i}`, 'on', replaced, { replacesChangeId: `o${i}`, stageId: 's2' })]),
        ])
        const car = openCar(changed((records) => Object.assign(records, { changes: lines })))
        const score = ledgerScore(car, 1)
        const all = stageSavings(car, 1).reduce((sum, { savedMg }) => sum + savedMg, 0)
        const states = score.bankedKg + score.onGuessKg + score.waitsKg + score.toComeKg
        expect(Math.round(states * 1e6)).toBe(all)
        const kg = list.reduce((sum, { massKg, back, replaced }) => sum + massKg - (back ?? 0) - (replaced ?? 0), 0)
        expect(states).toBeCloseTo(kg, 6)
        expect(score.netKg).toBeCloseTo(-score.offLessPiecesKg, 9)
      }),
    )
  })
})
