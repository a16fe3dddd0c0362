import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { upgradeRecord } from '../../records/earlier-editions.ts'
import { type DynoSetting, pullKind, sessionKind } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { comparableSets, compareSets } from './compare-sets.ts'
import { ladderOf, ladderVisits, settingChanges } from './ladder.ts'
import { curveAtStage, powerAtStage } from './power-at-stage.ts'
import { makePowerRoom } from './power-room.ts'
import { isSameSetting, powerRuns, visitKey } from './visits.ts'

// An afternoon at the dyno; every expected number is worked by hand (invented numbers).
const HP = 745.699871582
const setting = (id: string, more: object = {}) => ({ id, name: id, ...more })
const session = (id: string, more: object = {}) =>
  z.object(sessionKind.fields).parse({
    id,
    stageId: 's0',
    at: '2026-06-14T10:00:00Z',
    dynoName: 'hub dyno',
    place: 'hub',
    printedStandard: 'SAE J1349',
    settings: [
      setting('spring', { boostControl: 'gauge', boostPa: 135_000 }),
      setting('boost', { boostControl: 'gauge', boostPa: 150_000 }),
      setting('cams', { boostControl: 'gauge', boostPa: 150_000, wasSet: 'cams advanced 4 deg' }),
    ],
    boostSchool: 'asNaturallyAspirated',
    ...more,
  })
const pull = (id: string, sessionId: string, settingId: string | null, horsepower: number, position: number, more: object = {}) =>
  z.object(pullKind.fields).parse({
    id,
    sessionId,
    settingId,
    position,
    label: id,
    peakPowerW: horsepower * HP,
    peakPowerSpeedRpm: 6500,
    peakTorqueNm: 700,
    curve: { stepRpm: 50, firstSpeedRpm: 3000, powerW: [0.5, 0.6, 0.7, 0.8, 0.9, 1].map((share) => share * horsepower * HP) },
    ...more,
  })
const afternoon = (edit: (records: BuildRecords) => void = () => {}) =>
  changed((records) => {
    Object.assign(records.build.powerBasis, { boostSchool: 'asNaturallyAspirated' })
    records.sessions = [session('day')]
    records.pulls = [pull('a', 'day', 'spring', 650, 0), pull('b', 'day', 'boost', 670, 1), pull('c', 'day', 'cams', 790, 2)]
    edit(records)
  })
const power = (records: BuildRecords, position = 0) => powerAtStage(openCar(records), position)

describe('three settings of one afternoon', () => {
  it('stand at the last one run, 790 ± 11.2, and are neither averaged nor a quarrel', () => {
    const found = power(afternoon())
    expect((found?.value ?? 0) / HP).toBeCloseTo(790, 9)
    expect((found?.sd ?? 0) / HP).toBeCloseTo(11.17, 2)
    expect(found).toMatchObject({ proof: 'measured', isMeasuredHere: true })
    const room = makePowerRoom(openCar(afternoon()))
    expect(room.sessions.map(({ settingId, role }) => [settingId, role])).toEqual([
      ['spring', 'otherSetting'],
      ['boost', 'otherSetting'],
      ['cams', 'stands'],
    ])
    expect(room.stages[0]).toMatchObject({ stands: { name: 'cams', isPicked: false, isOneOfSeveral: true } })
    expect(room.stages[0]?.otherSettings.map(({ name }) => name)).toEqual(['spring', 'boost'])
  })

  it('stand at the one that was picked', () => {
    const records = afternoon((all) => all.standings.push({ id: 'x', stageId: 's0', sessionId: 'day', settingId: 'boost', pullIds: ['b'] }))
    expect((power(records)?.value ?? 0) / HP).toBeCloseTo(670, 9)
    expect(makePowerRoom(openCar(records)).stages[0]?.stands).toMatchObject({ name: 'boost', isPicked: true })
  })

  it('climb a ladder of +20 (1.7 to 38.3) and +120 (99.7 to 140.3), 19 times in 20', () => {
    const [spring, boost, cams] = ladderOf(afternoon(), visitKey(session('day'))).rungs
    const hp = ({ differenceW, lowW, highW }: { differenceW: number; lowW: number; highW: number }) => [differenceW, lowW, highW].map((watts) => watts / HP)
    expect(spring?.onBefore).toBeNull()
    hp(boost?.onBefore?.peak as never).forEach((value, i) => {
      expect(value).toBeCloseTo([20, 1.7, 38.3][i] as number, 1)
    })
    hp(cams?.onBefore?.peak as never).forEach((value, i) => {
      expect(value).toBeCloseTo([120, 99.7, 140.3][i] as number, 1)
    })
    expect(boost).toMatchObject({ changes: [{ kind: 'boost' }], onBefore: { peak: { isReal: true } } })
    expect(cams).toMatchObject({ changes: [{ kind: 'set', text: 'cams advanced 4 deg' }], onFirst: { changeCount: 2 } })
    expect((cams?.onFirst?.peak.differenceW ?? 0) / HP).toBeCloseTo(140, 9)
    // A nearly straight line over its whole band: its middle.
    expect(Math.abs((boost?.meanW ?? 0) / HP - 0.75 * 670)).toBeLessThan(0.5)
  })

  it('judge single pulls by the spread of the dyno’s own earlier pulls where there are some', () => {
    const records = afternoon((all) => {
      all.sessions.push(session('before', { at: '2026-05-01T10:00:00Z', settings: [setting('first')] }))
      all.pulls.push(pull('x', 'before', null, 594, 0), pull('y', 'before', null, 606, 1))
    })
    const { spread, rungs } = ladderOf(records, visitKey(session('day')))
    // Of 594 and 606: sd 8.485 of 600.
    expect(spread).toMatchObject({ share: expect.closeTo(Math.SQRT2 / 100, 6), pullCount: 2 })
    expect(rungs[1]?.onBefore?.peak.isReal).toBe(false)
  })

  it('compare as printed, whatever the build counts in, and start where both have pulls', () => {
    const records = afternoon((all) => Object.assign(all.build.powerBasis, { standard: 'ISO 1585' }))
    expect(power(records)).toBeUndefined()
    const sets = comparableSets(records, { sessionId: 'day', pullIds: ['a'] }, { sessionId: 'day', pullIds: ['b'] })
    expect(sets).toMatchObject({ isOneVisit: true, first: { factor: 1, setting: { id: 'spring' } } })
    expect(compareSets(sets).band).toEqual({ fromRpm: 3000, toRpm: 3250 })
    expect(() => comparableSets(records, { sessionId: 'day', pullIds: ['a', 'b'] }, { sessionId: 'day', pullIds: ['c'] })).toThrow(/never one set/)
  })
})

describe('visits', () => {
  const again =
    (at: string, more: object = {}) =>
    (all: BuildRecords) => {
      all.sessions.push(
        session('again', { at, settings: [setting('cams', { boostControl: 'gauge', boostPa: 153_000, wasSet: 'Cams  advanced 4 deg' })], ...more }),
      )
      all.pulls.push(pull('d', 'again', null, 794, 0))
    }
  it('of one setting confirm each other', () => {
    expect(power(afternoon(again('2026-06-28T10:00:00Z')))).toMatchObject({ proof: 'confirmed' })
  })
  it('of one day are one visit: pooled, and no confirmation', () => {
    const found = power(afternoon(again('2026-06-14T15:00:00Z')))
    expect(found).toMatchObject({ proof: 'measured' })
    expect((found?.value ?? 0) / HP).toBeCloseTo(792, 9)
  })
  test.each([
    ['another boost', { boostPa: 160_000 }],
    ['another control', { boostControl: 'absolute' }],
    ['an ethanol share where there was none', { ethanolShare: 0.85 }],
    ['something else set', { wasSet: 'spark 2 deg later' }],
  ])('with %s are another engine', (_, more) => {
    const changedSetting = setting('cams', { boostControl: 'gauge', boostPa: 150_000, wasSet: 'cams advanced 4 deg', ...more })
    const found = makePowerRoom(openCar(afternoon(again('2026-06-28T10:00:00Z', { settings: [changedSetting] }))))
    expect(found.stages[0]?.proof).toBe('measured')
    expect(found.sessions.map(({ role }) => role)).toEqual(['otherSetting', 'otherSetting', 'otherSetting', 'stands'])
  })
  it('group settings to the earliest, never in a chain', () => {
    const records = afternoon((all) => {
      all.sessions = [0, 4, 8].map((kPa, i) =>
        session(`v${i}`, { at: `2026-06-0${i + 1}T10:00:00Z`, settings: [setting('s', { boostControl: 'gauge', boostPa: 100_000 + kPa * 1000 })] }),
      )
      all.pulls = all.sessions.map(({ id }, i) => pull(id, id, null, 500, i))
    })
    const runs = powerRuns(records, records.sessions)
    expect(runs.map(({ setting: { boostPa } }) => boostPa)).toEqual([100_000, 100_000, 108_000])
    const [first, , last] = records.sessions.map(({ settings }) => settings[0] as DynoSetting)
    expect(isSameSetting(first as DynoSetting, last as DynoSetting)).toBe(false)
  })
})

describe('a build that counts as printed', () => {
  const printed = (standards: readonly string[]) =>
    afternoon((all) => {
      Object.assign(all.build.powerBasis, { standard: 'asPrinted' })
      all.sessions = standards.map((printedStandard, i) => session(`v${i}`, { at: `2026-06-0${i + 1}T10:00:00Z`, printedStandard, settings: [setting('one')] }))
      all.pulls = all.sessions.map(({ id }, i) => pull(id, id, null, 500, i))
    })
  it('counts a figure without an air record, whatever it was printed in', () => {
    expect(power(printed(['STD J607']))).toMatchObject({ value: expect.closeTo(500 * HP, 6), proof: 'measured' })
  })
  it('confirms only under one printed standard', () => {
    expect(power(printed(['STD J607', 'STD J607']))?.proof).toBe('confirmed')
    expect(power(printed(['SAE J1349', 'STD J607']))?.proof).toBe('measured')
  })
  it('tells another basis what would let the figure count', () => {
    const records = afternoon((all) => {
      all.sessions = [session('v', { printedStandard: 'STD J607', settings: [setting('one')] })]
      all.pulls = [pull('p', 'v', null, 500, 0)]
    })
    expect(makePowerRoom(openCar(records)).sessions[0]?.reason).toMatch(/or let the build count power as printed/)
  })
})

describe('a peak alone', () => {
  it('counts, and has no curve, band or torque', () => {
    const records = afternoon((all) => {
      all.pulls = [pull('p', 'day', 'cams', 790, 0, { curve: null, peakTorqueNm: null, peakPowerSpeedRpm: null })]
    })
    expect((power(records)?.value ?? 0) / HP).toBeCloseTo(790, 9)
    expect(curveAtStage(openCar(records), 0)).toBeUndefined()
    expect(() => comparableSets(records, { sessionId: 'day' }, { sessionId: 'day' })).toThrow(/peaks alone/)
  })
  it('stands on a ladder by its peak', () => {
    const records = afternoon((all) => {
      all.pulls = all.pulls.map((entry) => ({ ...entry, curve: null }))
    })
    expect(ladderOf(records, visitKey(session('day')))).toMatchObject({ band: null, rungs: [{}, { meanW: null, onBefore: { mean: null } }, {}] })
  })
})

describe('ladders and what they refuse', () => {
  it('are offered of visits that ran more than one setting, the latest first', () => {
    const records = afternoon((all) => {
      all.sessions.push(session('later', { at: '2026-07-01T10:00:00Z', settings: [setting('one')] }))
      all.pulls.push(pull('z', 'later', null, 700, 0))
    })
    expect(ladderVisits(records).map(({ session: { id } }) => id)).toEqual(['day'])
    expect(() => ladderOf(records, visitKey(session('x', { at: '2026-07-01T10:00:00Z' })))).toThrow(/ran one setting/)
    expect(() => ladderOf(records, visitKey(session('day')), { fromRpm: 2000, toRpm: 3200 })).toThrow(/cover 3000 to 3250/)
  })
  it('name each change once', () => {
    const [a, b] = [
      setting('a', { fuel: 'petrol', ethanolShare: null, boostControl: 'none', boostPa: null, wasSet: 'new plugs' }),
      setting('b', { fuel: 'E85', ethanolShare: 0.8, boostControl: 'none', boostPa: null, wasSet: 'new plugs; spark +4; larger jets' }),
    ] as unknown as [DynoSetting, DynoSetting]
    expect(settingChanges(a, b)).toEqual([{ kind: 'fuel' }, { kind: 'set', text: 'spark +4' }, { kind: 'set', text: 'larger jets' }])
  })
})

describe('records of an earlier edition', () => {
  it('become a session of one setting with nothing set, and stay so', () => {
    const old = { id: 'd', dynoName: 'hall', fuel: 'petrol', ethanolShare: 0.1, boostControl: 'gauge', boostPa: 50_000, tuneNote: 'as usual' }
    const read = upgradeRecord('sessions', old)
    expect(read).toEqual({
      id: 'd',
      dynoName: 'hall',
      tuneNote: 'as usual',
      settings: [{ id: 'first', name: 'as it ran', fuel: 'petrol', ethanolShare: 0.1, boostControl: 'gauge', boostPa: 50_000, wasSet: null }],
    })
    expect(upgradeRecord('sessions', read)).toBe(read)
    expect(upgradeRecord('pulls', old)).toBe(old)
  })
})
