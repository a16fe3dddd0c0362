import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../../test/worked-example.ts'
import { itemAt } from '../../item-at.ts'
import type { Expectation } from '../../records/plan-kinds.ts'
import type { DynoSession, Pull } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { curveAtStage, powerAtStage } from './power-at-stage.ts'
import { makePowerRoom } from './power-room.ts'
import { basisFactor } from './session-power.ts'

const power = (records: BuildRecords, position: number) => powerAtStage(openCar(records), position)
const expectation = (stageId: string, more: Partial<Expectation>): Expectation => ({
  id: stageId + more.mode,
  stageId,
  partId: null,
  metric: 'wheelPower',
  mode: 'to',
  value: 0,
  sd: null,
  proof: 'guess',
  ...more,
})
const session = (more: Partial<DynoSession>): DynoSession => ({ ...(workedExample().sessions[0] as DynoSession), ...more })
const pull = (id: string, sessionId: string, kilowatts: number): Pull => ({
  ...(workedExample().pulls[0] as Pull),
  id,
  sessionId,
  peakPowerW: kilowatts * 1000,
})
const air = { pressurePa: 97_500, pressureKind: 'station', temperatureK: 303.15, relativeHumidity: 0.45 } as const
const touchPower = (records: BuildRecords, state: 'planned' | 'done' = 'planned', doneAt: string | null = null) => {
  const change = records.changes[5]
  if (change) Object.assign(change, { touchesPower: true, state, doneAt })
}

describe('power at a stage', () => {
  it('is carried with its proof where nothing touches it', () => {
    expect(power(workedExample(), 2)).toMatchObject({ value: 118_000, proof: 'measured', fromPosition: 0, isMeasuredHere: false })
  })

  it('becomes a guess with 5 % where a change touches it and nothing is expected', () => {
    const found = power(changed(touchPower), 2)
    expect(found).toMatchObject({ value: 118_000, sd: 5900, proof: 'guess' })
  })

  test.each([
    ['to', 165_000, 8000, 165_000, 8000],
    ['by', 20_000, 3000, 138_000, Math.hypot(1368.8, 3000)],
    ['times', 1.2, 0.05, 141_600, Math.hypot(1368.8 * 1.2, 118_000 * 0.05)],
  ] as const)('applies an expectation %s', (mode, value, sd, expected, expectedSd) => {
    const found = power(
      changed((records) => records.expectations.push(expectation('s2', { mode, value, sd, proof: 'catalogue' }))),
      2,
    )
    expect(found?.value).toBeCloseTo(expected, 6)
    expect(found?.sd).toBeCloseTo(expectedSd, -1)
    expect(found?.proof).toBe('catalogue')
  })

  it('has no value to add to where there is none', () => {
    const bare = changed((records) => Object.assign(records, { sessions: [], pulls: [], expectations: [expectation('s2', { mode: 'by', value: 1000 })] }))
    expect(power(bare, 2)).toBeUndefined()
    expect(power({ ...bare, expectations: [expectation('s1', { value: 150_000 })] }, 2)).toMatchObject({ value: 150_000, sd: 7500, fromPosition: null })
  })

  it('is confirmed by a second visit that agrees, and widened by one that does not', () => {
    const second = (kilowatts: number) =>
      changed((records) => {
        records.sessions.push(session({ id: 'd1', at: '2026-02-10T10:00:00Z', dynoName: 'other hub dyno' }))
        records.pulls.push(pull('q', 'd1', kilowatts))
      })
    expect(power(second(119), 0)).toMatchObject({ proof: 'confirmed' })
    const apart = power(second(130), 0)
    expect(apart).toMatchObject({ proof: 'measured', value: 130_000 })
    expect(apart?.sd).toBeCloseTo(12_000 / Math.SQRT2, 0)
    expect(makePowerRoom(openCar(second(130))).sessions.map((entry) => entry.role)).toEqual(['disagrees', 'stands'])
  })

  it('lets the session a person picked stand, with the pulls that were picked', () => {
    const records = changed((all) => {
      all.sessions.push(session({ id: 'd1', at: '2026-02-10T10:00:00Z' }))
      all.pulls.push(pull('q', 'd1', 130))
      all.standings.push({ id: 's', stageId: 's0', sessionId: 'd0', settingId: null, pullIds: ['p2'] })
    })
    expect(power(records, 0)?.value).toBe(119_200)
  })

  it('leaves out pulls that were set aside', () => {
    const records = changed((all) => {
      const first = all.pulls[0]
      if (first) first.setAside = 'wrong gear'
    })
    expect(power(records, 0)?.value).toBeCloseTo(118_600, 6)
  })

  it('takes a session of another engine as a start value only', () => {
    const early = changed((records) => {
      touchPower(records, 'done', '2026-06-01T10:00:00Z')
      records.sessions.push(session({ id: 'd1', stageId: 's2', at: '2026-05-01T10:00:00Z' }))
      records.pulls.push(pull('q', 'd1', 140))
    })
    expect(power(early, 2)).toMatchObject({ value: 140_000, sd: 7000, proof: 'guess', isMeasuredHere: false })
    expect(makePowerRoom(openCar(early)).sessions[1]?.role).toBe('start')
    const later = session({ id: 'd1', stageId: 's2', at: '2026-06-02T10:00:00Z' })
    expect(power({ ...early, sessions: [...early.sessions.slice(0, 1), later] }, 2)).toMatchObject({ value: 140_000, proof: 'measured', isMeasuredHere: true })
  })

  it('scales the curve of the stage it starts from, and says so', () => {
    const records = changed((all) => all.expectations.push(expectation('s2', { value: 177_000 })))
    const found = curveAtStage(openCar(records), 2)
    expect(found?.scaledFromPosition).toBe(0)
    expect(found?.curve.powerW.map(Math.round)).toEqual([90_000, 177_000])
    expect(curveAtStage(openCar(records), 0)?.scaledFromPosition).toBeNull()
  })
})

describe('what counts on the basis of a build', () => {
  const { build } = workedExample()
  it('takes the same place and standard as it is', () => {
    expect(basisFactor(session({}), itemAt(session({}).settings, 0), build)).toBe(1)
  })
  it('restates another standard with its own air record', () => {
    // 300 kW STD is 290.65829 kW J1349 in this air (published check value B-conv-std-j1349).
    expect(300 * basisFactor(session({ printedStandard: 'STD J607', ambient: air }), itemAt(session({}).settings, 0), build)).toBeCloseTo(290.65829, 4)
  })
  test.each([
    ['another place', { place: 'roller' }, /roller.*hub/],
    ['no air record', { printedStandard: 'STD J607' }, /air record/],
    ['pressure reduced to sea level', { printedStandard: 'STD J607', ambient: { ...air, pressureKind: 'seaLevel' } }, /sea level/],
    [
      'a boosted engine printed with a correction the build does not use',
      { settings: [{ id: 'b', name: 'b', fuel: null, ethanolShare: null, boostControl: 'absolute', boostPa: null, wasSet: null }] },
      /boost/,
    ],
  ] as const)('refuses %s with the reason', (_, more, sentence) => {
    const made = session(more as Partial<DynoSession>)
    expect(() => basisFactor(made, itemAt(made.settings, 0), build)).toThrow(sentence)
    const room = makePowerRoom(openCar(changed((records) => Object.assign(records, { sessions: [made] }))))
    expect(room.sessions[0]).toMatchObject({ role: 'notCounted', power: null })
  })
})
