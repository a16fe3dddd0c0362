import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import type { DynoSession } from '../../records/power-kinds.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { comparableSets, compareSets, type PullSet, type SpeedBand } from './compare-sets.ts'
import { usualSessions } from './usual-sessions.ts'

const SPEEDS = Array.from({ length: 81 }, (_, i) => 3000 + 50 * i)

function compareSessions(records: BuildRecords, first: PullSet, second: PullSet, band?: SpeedBand) {
  const { school, changesBetween, warnings, ...sets } = comparableSets(records, first, second)
  return { school, changesBetween, warnings, ...compareSets({ school, changesBetween, warnings, ...sets }, band) }
}

const boosted = (session: DynoSession, boostPa: number | null) =>
  session.settings.map((setting) => ({ ...setting, boostControl: 'absolute' as const, boostPa }))

/** Two sessions of some pulls each: `gainW` on top of a curve that rises and bends, each pull off by its own noise. */
function twoSessions(gainW: number, noise: readonly [readonly number[], readonly number[]], edit: (records: BuildRecords) => void = () => {}): BuildRecords {
  return buildRecordsSchema.parse(
    changed((records) => {
      const first = records.sessions[0] as DynoSession
      records.sessions.push({ ...first, id: 'd1', at: '2026-05-01T10:00:00Z' })
      records.pulls.splice(0)
      noise.forEach((list, side) => {
        list.forEach((off, i) => {
          const powerW = SPEEDS.map((n) => 118_000 * Math.sin((Math.PI / 2) * (n / 6800)) + off + (side === 1 ? gainW : 0))
          records.pulls.push({
            id: `s${side}p${i}`,
            sessionId: side === 0 ? 'd0' : 'd1',
            settingId: null,
            position: i,
            label: String(i + 1),
            peakPowerW: Math.max(...powerW),
            peakPowerSpeedRpm: 6800,
            peakTorqueNm: 200,
            curve: { stepRpm: 50, firstSpeedRpm: 3000, powerW },
            rowCount: 100,
            cutRowCount: 0,
            alongside: { intakeK: powerW.map(() => 310 + side), lambda: powerW.map((_, at) => (at < 40 ? null : 0.8)) },
            setAside: null,
          })
        })
      })
      edit(records)
    }),
  )
}
const AIR = { pressurePa: 97_000, pressureKind: 'station', temperatureK: 300, relativeHumidity: 0.4 } as const
const CALM = [
  [-400, 0, 400],
  [-300, 100, 200],
] as const

describe('two sessions compared', () => {
  it('finds a gain that was put in, everywhere in the band, and calls a large one real', () => {
    const found = compareSessions(twoSessions(9000, CALM), { sessionId: 'd0' }, { sessionId: 'd1' })
    expect(found.power).toMatchObject({ verdict: 'real', difference: expect.closeTo(9000, -1) })
    for (const { gainW, lowW, highW } of found.gainBySpeed) {
      expect(gainW).toBeCloseTo(9000, 6)
      expect(lowW as number).toBeLessThan(9000)
      expect(highW as number).toBeGreaterThan(9000)
    }
    expect(found.band).toEqual({ fromRpm: 3000, toRpm: 7000 })
  })
  it('calls a small one noise, because one visit differs from the next by about a percent', () => {
    expect(compareSessions(twoSessions(1500, CALM), { sessionId: 'd0' }, { sessionId: 'd1' }).power.verdict).toBe('within noise')
  })
  it('says too few of one pull a side, and gives no interval by speed', () => {
    const found = compareSessions(twoSessions(9000, [[0], [0]]), { sessionId: 'd0' }, { sessionId: 'd1' })
    expect(found.power.verdict).toBe('too few pulls')
    expect(found.gainBySpeed.every(({ lowW }) => lowW === null)).toBe(true)
  })
  it('takes any pulls of one visit against others of it, without what one visit differs from the next', () => {
    const records = twoSessions(1500, [[-100, 0, 100, 1400, 1500, 1600], [0]])
    const set = (...numbers: number[]) => ({ sessionId: 'd0', pullIds: numbers.map((i) => `s0p${i}`) })
    const found = compareSessions(records, set(0, 1, 2), set(3, 4, 5))
    expect(found.power).toMatchObject({ verdict: 'real', difference: expect.closeTo(1500, -1) })
    expect(() => compareSessions(records, set(0, 1), set(1, 2))).toThrow(/stands on both sides/)
  })
  it('says what ran beside it, over the band, with the boost that the record says', () => {
    const underBoost = twoSessions(0, CALM, (records) => {
      for (const session of records.sessions) Object.assign(session, { settings: boosted(session, 100_000), ambient: AIR })
    })
    const { first, second, school } = compareSessions(underBoost, { sessionId: 'd0' }, { sessionId: 'd1' })
    expect(first.beside).toMatchObject({ intakeK: 310, lambda: expect.closeTo(0.8, 12), boostPa: 100_000 })
    expect(second.beside.intakeK).toBe(311)
    expect(first.beside.boostPaPerW as number).toBeCloseTo(100_000 / (first.bandMeansW.reduce((sum, value) => sum + value) / 3), 9)
    expect(school).toBe(underBoost.build.powerBasis.boostSchool)
  })
  it('never mixes schools', () => {
    const mixed = twoSessions(0, CALM, (records) => {
      records.sessions.forEach((session, i) => {
        Object.assign(session, { settings: boosted(session, null), boostSchool: i === 0 ? 'none' : 'half', ambient: AIR })
      })
    })
    expect(() => compareSessions(mixed, { sessionId: 'd0' }, { sessionId: 'd1' })).toThrow(/schools are never mixed/)
  })
  it('turns round with its sides', () => {
    const records = twoSessions(4000, CALM)
    expect(compareSessions(records, { sessionId: 'd1' }, { sessionId: 'd0' }).power.difference).toBeCloseTo(
      -compareSessions(records, { sessionId: 'd0' }, { sessionId: 'd1' }).power.difference,
      9,
    )
  })
  it('names what was changed in between, and that more than one change has no owner', () => {
    const found = compareSessions(
      twoSessions(9000, CALM, (records) => {
        for (const change of records.changes.slice(0, 2)) change.touchesPower = true
      }),
      { sessionId: 'd0' },
      { sessionId: 'd1' },
    )
    expect(found.changesBetween.map(({ name }) => name)).toEqual(['bench', 'tailgate'])
    expect(found.warnings.join()).toMatch(/More than one change/)
  })
  it('sees pulls that fade', () => {
    const fading = [
      [0, -500, -1000, -1500, -2100],
      [0, 10, -10, 5, 0],
    ] as const
    const found = compareSessions(twoSessions(0, fading), { sessionId: 'd0' }, { sessionId: 'd1' })
    expect(found.first.drift).toMatchObject({ isDrifting: true })
    expect(found.second.drift?.isDrifting).toBe(false)
  })
  test.each([
    [
      'another kind of dyno',
      (records: BuildRecords) => Object.assign(records.sessions[1] as object, { place: 'roller' }),
      undefined,
      /never converted silently/,
    ],
    ['a session without a pull that counts', (records: BuildRecords) => records.pulls.splice(3), undefined, /no pull that counts/],
    ['a band outside the pulls', () => {}, { fromRpm: 2000, toRpm: 7000 }, /cover 3000 to 7000 rpm/],
  ] as const)('refuses %s', (_, edit, band, sentence) => {
    expect(() => compareSessions(twoSessions(0, CALM, edit as (records: BuildRecords) => void), { sessionId: 'd0' }, { sessionId: 'd1' }, band)).toThrow(
      sentence,
    )
  })
  test.each([
    ['the latest two of the dyno that was visited last', ['a 2026-01-01', 'b 2026-02-01', 'a 2026-03-01', 'b 2026-04-01'], ['b 2026-02-01', 'b 2026-04-01']],
    ['the two latest, where that dyno was visited once', ['a 2026-01-01', 'a 2026-02-01', 'b 2026-03-01'], ['a 2026-02-01', 'b 2026-03-01']],
    ['in any order of the records', ['a 2026-03-01', 'a 2026-01-01', 'a 2026-02-01'], ['a 2026-02-01', 'a 2026-03-01']],
    ['the only one, with itself', ['a 2026-01-01'], ['a 2026-01-01', 'a 2026-01-01']],
  ])('are by themselves %s', (_, visits, expected) => {
    const sessions = visits.map((visit) => ({ dynoName: visit.slice(0, 1), at: `${visit.slice(2)}T10:00:00Z`, place: 'hub' as const, visit }))
    const found = usualSessions(sessions)
    expect([found?.first.visit, found?.second.visit]).toEqual(expected)
  })
  test('none without a session', () => expect(usualSessions([])).toBeUndefined())
})
