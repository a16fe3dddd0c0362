import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_AIRFIELD } from '../../calculations/examples/example-lap.ts'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { RecordRefusal } from '../../records/define-record.ts'
import { kindOf } from '../../records/kinds.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { WAITING } from '../../stages/stage-value.ts'
import { lockingAt, TRACK_ADVICE } from './advice.ts'
import { driftAt } from './drift-days.ts'
import { lapStage } from './lap-inputs.ts'
import { secondsLedger } from './lap-ledger.ts'
import { lapTimeValue, TRACK_VALUES } from './metrics.ts'
import { brakeShareAt } from './stage-brakes.ts'
import { lapAtStage, lapChance, lapPlan, workLap } from './stage-lap.ts'
import { makeTrackRoom, planOfRoom } from './track-room.ts'
import { controlTrack, lapSchoolOf, trackSessions } from './track-sessions.ts'

const TRACK = { id: 'field', name: 'Field', segments: EXAMPLE_AIRFIELD.segments.map(({ lengthM, curvaturePerM }) => ({ lengthM, curvaturePerM })) }
const session = (more: object) => ({ id: 's1', stageId: 'bought', trackId: 'field', at: '2026-01-10T10:00:00Z', timing: 'beacon', ...more })
const laps = (trackSessionId: string, times: readonly number[]) =>
  times.map((lapS, position) => ({ id: `${trackSessionId} ${position}`, trackSessionId, position, lapS }))
const build = (more: object): BuildRecords => buildRecordsSchema.parse({ ...EXAMPLE_RECORDS, tracks: [TRACK], ...more })
const open = (more: object) => openCar(build(more))
/** A fit and a forecast are some sixty laps: on a machine that does other things too they take their time. */
const LONG_MS = 30_000
const TIMES = [96.2, 95.9, 96.4, 95.8, 96.1]

describe('sessions', () => {
  it('are quoted by the school of the build, corrected to the fuel of the reference', () => {
    const full = open({ trackSessions: [session({ fuelStartL: 40, fuelEndL: 30 })], laps: laps('s1', TIMES) })
    const [own] = trackSessions(full)
    const { fuelL, fuelKgPerL } = full.records.build.reference
    // The first lap had a tenth of what was burnt gone at its middle: 39 L.
    const heavyKg = (39 - fuelL) * fuelKgPerL
    expect(own?.laps[0]?.correctedS).toBeCloseTo(96.2 - 0.006 * heavyKg * 2.73402, 3)
    const best = open({ build: { ...build({}).build, lapBasis: { trackId: 'field', school: 'best' } }, trackSessions: [session({})], laps: laps('s1', TIMES) })
    const median = open({
      build: { ...build({}).build, lapBasis: { trackId: 'field', school: 'median' } },
      trackSessions: [session({})],
      laps: laps('s1', TIMES),
    })
    expect(trackSessions(best)[0]?.value?.lapS).toBeCloseTo(95.8, 9)
    expect(trackSessions(median)[0]?.value?.lapS).toBeCloseTo(96.1, 9)
    expect([lapSchoolOf(best), lapSchoolOf(median)]).toEqual(['best', 'median'])
  })
  it('do not count laps in traffic, set aside or of a wet day', () => {
    const marked = laps('s1', [80, ...TIMES]).map((lap, i) => (i === 0 ? { ...lap, kind: 'traffic' } : lap))
    expect(trackSessions(open({ trackSessions: [session({})], laps: marked }))[0]?.value?.clean).toBe(5)
    const wet = open({ trackSessions: [session({ surface: 'wet' })], laps: laps('s1', TIMES) })
    expect(trackSessions(wet)[0]?.whyNot).toMatch(/wet/)
    expect(TRACK_VALUES.lapTime.at(wet, 0)).not.toMatchObject({ proof: 'measured' })
  })
})

describe('the lap of a stage', () => {
  const driven = { trackSessions: [session({})], laps: laps('s1', TIMES) }
  it('is what was driven with its car, and a fact by the clock alone', () => {
    const found = TRACK_VALUES.lapTime.at(open({ ...driven, build: { ...build({}).build, lapBasis: { trackId: 'field', school: 'best' } } }), 0)
    expect(found).toMatchObject({ value: 95.8, sd: 0.005, proof: 'measured' })
  })
  it('is confirmed by a second day that agrees', () => {
    const again = open({
      trackSessions: [session({}), session({ id: 's2', at: '2026-01-18T10:00:00Z' })],
      laps: [
        ...laps('s1', TIMES),
        ...laps(
          's2',
          TIMES.map((lap) => lap + 0.1),
        ),
      ],
    })
    expect(TRACK_VALUES.lapTime.at(again, 0)).toMatchObject({ proof: 'confirmed' })
  })
  it(
    'is carried to another stage by the difference that the model sees, later',
    () => {
      const car = open(driven)
      expect(TRACK_VALUES.lapTime.at(car, 1)).toBe(WAITING)
      const before = lapAtStage(car, 0)
      const after = lapAtStage(car, 1)
      if (!after || !before) throw new Error('no lap')
      expect(after.how).toBe('fitted')
      expect(after.fromPosition).toBe(0)
      // The same difference as the ledger's, and a doubt far under that of a guess.
      const cars = [0, 1].map((position) => {
        const own = lapStage(car, position).car
        return { position, car: own && { ...own, gripFactor: after.fit?.gripFactor ?? 1, reference: after.car?.reference ?? null } }
      })
      expect(after.lapS - before.lapS).toBeCloseTo(secondsLedger(EXAMPLE_AIRFIELD, cars)[0]?.totalS ?? Number.NaN, 6)
      expect(after.sdS).toBeLessThan((after.beforeFitSdS ?? 0) / 2)
      expect(lapTimeValue(car, 1)?.value).toBe(after.lapS)
    },
    LONG_MS,
  )
  it('is a guess of whole seconds where nothing was driven, and nothing without power', () => {
    const guess = lapAtStage(open({}), 1)
    expect(guess).toMatchObject({ how: 'guess', proof: 'guess', fit: null })
    expect(guess?.sdS).toBeGreaterThan(1)
    const dead = open({ sessions: [], pulls: [], standings: [], expectations: [] })
    expect(lapStage(dead, 1).missing.map(({ what }) => what)[0]).toMatch(/^its power/)
    expect(lapAtStage(dead, 1)).toBeUndefined()
    expect(TRACK_VALUES.lapTime.at(dead, 1)).toBeUndefined()
  })
  it(
    'comes out of the room’s own answer as out of the car',
    () => {
      const car = open(driven)
      const room = JSON.parse(JSON.stringify(makeTrackRoom(car))) as ReturnType<typeof makeTrackRoom>
      const plan = planOfRoom(room, 1, 'field')
      const track = controlTrack(car)
      if (!plan || !track) throw new Error('no plan')
      expect(workLap(plan)?.lapS).toBeCloseTo(workLap(lapPlan(car, 1, track))?.lapS ?? 0, 9)
    },
    LONG_MS,
  )
  it(
    'as a forecast knows nothing of what was driven at the stage itself',
    () => {
      const room = makeTrackRoom(
        open({
          ...driven,
          trackSessions: [session({}), session({ id: 's2', stageId: 'strip', at: '2026-09-01T10:00:00Z' })],
          laps: [...laps('s1', TIMES), ...laps('s2', TIMES)],
        }),
      )
      const plan = planOfRoom(room, 1, 'field', true)
      expect(plan).toMatchObject({ driven: null, anchor: { driven: { position: 0 } } })
      expect(planOfRoom(room, 0, 'field', true)).toBeNull()
      expect(plan && workLap(plan)?.how).toBe('fitted')
    },
    LONG_MS,
  )
  it('has a chance that is half at its own value', () => {
    expect(lapChance({ lapS: 90, sdS: 0.4 }, 90)).toBeCloseTo(0.5, 9)
    expect(lapChance({ lapS: 90, sdS: 0 }, 89.9)).toBe(0)
  })
  it('adds up in the ledger: lines and together make the whole change', () => {
    const car = open(driven)
    const cars = [0, 1].map((position) => ({ position, car: lapStage(car, position).car }))
    const [stage] = secondsLedger(EXAMPLE_AIRFIELD, cars)
    const sum = (stage?.lines ?? []).reduce((total, { seconds }) => total + seconds, stage?.togetherS ?? 0)
    expect(sum).toBeCloseTo(stage?.totalS ?? Number.NaN, 9)
    expect(stage?.lines.map(({ part }) => part)).toContain('mass')
  })
})

describe('wanted parts', () => {
  const part = (more: object) => ({ id: 'p', kind: 'battery', name: 'battery', status: 'wanted', ...more })
  const wished = (parts: object[]) => makeTrackRoom(open({ parts })).wished
  it('move what they weigh over those of their kind, and what a tyre grips over the car’s', () => {
    const fitted = part({ id: 'old', name: 'old battery', status: 'fitted', mass: { massKg: 16, sdKg: null, proof: 'measured' } })
    const light = part({ mass: { massKg: 3, sdKg: null, proof: 'catalogue' }, cost: 240 })
    expect(wished([fitted, light])).toEqual([{ id: 'p', name: 'battery', change: { massKg: -13 }, cost: 240, hours: null, unsaid: [] }])
    const tyre = (id: string, status: string, peak: number) =>
      part({ id, kind: 'tyre', name: id, status, drive: { role: 'tyre', friction: { peak, known: 'guess' } } })
    const [soft] = wished([tyre('now', 'fitted', 1.2), tyre('soft', 'wanted', 1.26)])
    expect(soft?.change?.gripFactor).toBeCloseTo(1.05, 9)
  })
  it('move nothing where nothing is on record, and a part of a stage is no wish', () => {
    expect(wished([part({})])[0]?.change).toBeNull()
    expect(wished([part({ stageId: 'strip' })])).toEqual([])
  })
})

describe('brakes and drift', () => {
  const axle = (pistons: number[], padFriction: number, effectiveRadiusM: number) => ({ pistonsOneSideM: pistons, padFriction, effectiveRadiusM })
  const brakes = (barFront: number) => ({
    brakeSystems: [
      {
        id: 'b',
        stageId: 'bought',
        front: axle([0.036, 0.04], 0.45, 0.135),
        rear: axle([0.03, 0.03], 0.42, 0.125),
        masters: { frontM: 0.0175, rearM: 0.0191, barFront },
      },
    ],
  })
  it('a share by the hardware stands at later stages, calculated', () => {
    const car = open(brakes(0.55))
    // The check value of the same hardware.
    expect(brakeShareAt(car, 1)?.value).toBeCloseTo(0.7304965518, 9)
    expect(TRACK_VALUES.brakeShare.at(car, 1)).toMatchObject({ proof: 'calculated' })
    expect(lapStage(car, 1).car?.brakeFrontShare).toBeCloseTo(0.7305, 4)
  })
  it('a bar that is far to the rear is told as a danger, one to the front is not', () => {
    const find = (barFront: number) => TRACK_ADVICE.flatMap(({ find: look }) => [...look(open(brakes(barFront)), '2026-11-01')].map(({ code }) => code))
    expect(find(0.4)).toContain('rear-locks')
    expect(find(0.75)).not.toContain('rear-locks')
    expect(lockingAt(open(brakes(0.75)), 1)?.axle).toBe('front')
  })
  it('which axle locks asks for no power, and for the loads', () => {
    const [whole, powerless] = [open(brakes(0.75)), open({ ...brakes(0.75), sessions: [], pulls: [], standings: [], expectations: [] })]
    expect(lapStage(powerless, 1).car).toBeNull()
    expect(lockingAt(powerless, 1)).toEqual(lockingAt(whole, 1))
    expect(lockingAt(open({ ...brakes(0.75), weighings: [] }), 1)).toBeUndefined()
  })
  it('runs say entry, and pairs say tyres a day', () => {
    const runs = [25, 26, 27].map((entryMps, position) => ({
      id: `r${position}`,
      trackSessionId: 's1',
      position,
      entryMps,
      straightened: position === 1 ? 1 : 0,
    }))
    const car = open({ trackSessions: [session({ kind: 'runs', rearPairsUsed: 2 })], driftRuns: runs })
    expect(driftAt(car, 0)).toMatchObject({ runs: 3, pairsUsed: 2, straightened: 1, entryMps: { value: 26 }, tyresPerDay: { value: 4 } })
    expect(TRACK_VALUES.entrySpeed.at(car, 1)).toMatchObject({ value: 26, proof: 'calculated', fromPosition: 0 })
  })
})

describe('what records refuse', () => {
  const hold = async (list: 'tracks' | 'laps' | 'trackSessions' | 'driftRuns', row: object, live: Record<string, object[]> = {}) => {
    const kind = kindOf(list)
    for (const rule of kind.rules)
      await rule(row as never, { before: undefined, now: '2026-11-01T00:00:00Z', live: async (name) => (live[name] ?? []) as never })
  }
  const track = { ...TRACK, isClosed: true, marks: [] }
  test.each([
    ['an open end', 'tracks', { ...track, segments: [...track.segments, { lengthM: 14, curvaturePerM: 0 }] }, {}, /miss each other by 14\.0 m/],
    ['a mark beyond the end', 'tracks', { ...track, marks: [{ atM: 9000, toM: null, kind: 'corner', name: 'Far' }] }, {}, /beyond the end/],
    [
      '8 s on 2.7 km',
      'laps',
      { lapS: 8, sectorS: [], kind: 'clean', trackSessionId: 's' },
      { trackSessions: [{ id: 's', kind: 'laps', trackId: 'field' }], tracks: [track] },
      /1,230 km\/h\. Typed short/,
    ],
    [
      'sectors that do not add up',
      'laps',
      { lapS: 80, sectorS: [20, 20, 30], kind: 'clean', trackSessionId: 's' },
      { trackSessions: [{ id: 's', kind: 'laps', trackId: 'field' }], tracks: [track] },
      /sectors make 70/,
    ],
    [
      'laps in a session of runs',
      'laps',
      { lapS: 80, sectorS: [], kind: 'clean', trackSessionId: 's' },
      { trackSessions: [{ id: 's', kind: 'runs', trackId: 'field' }] },
      /session is one of runs/,
    ],
    ['runs in a session of laps', 'driftRuns', { trackSessionId: 's' }, { trackSessions: [{ id: 's', kind: 'laps' }] }, /session is one of laps/],
    ['fuel that grew', 'trackSessions', { fuelStartL: 20, fuelEndL: 25, corners: null }, {}, /More fuel came back/],
    [
      'a hot tyre under its cold pressure',
      'trackSessions',
      { fuelStartL: null, fuelEndL: null, corners: { LF: { coldPa: 2e5, hotPa: 1.9e5, isBled: false }, RF: null, LR: null, RR: null } },
      {},
      /left front.*bled/,
    ],
  ] as const)('%s', async (_, list, row, live, words) => {
    await expect(hold(list, row, live as never)).rejects.toThrow(words)
    await expect(hold(list, row, live as never)).rejects.toBeInstanceOf(RecordRefusal)
  })
  it('nothing of what is right', async () => {
    await hold('tracks', track)
    await hold(
      'laps',
      { lapS: 80, sectorS: [25, 25, 30.02], kind: 'clean', trackSessionId: 's' },
      { trackSessions: [{ id: 's', kind: 'laps', trackId: 'field' }], tracks: [track] },
    )
  })
})
