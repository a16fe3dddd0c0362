import { describe, expect, it } from 'vitest'
import { lateValue } from '../../board/late-value.ts'
import { EXAMPLE_AIRFIELD } from '../../calculations/examples/example-lap.ts'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { WAITING } from '../../stages/stage-value.ts'
import { lapOf } from '../../track/lap.ts'
import { asReference, sectorSeconds } from '../../track/lap-fit.ts'
import { lapMisses, TRACK_ADVICE } from './advice.ts'
import { lapStage } from './lap-inputs.ts'
import { drivenPairs, lapAtStage, lapPlan, workLap } from './stage-lap.ts'
import { makeTrackRoom, planOfRoom } from './track-room.ts'
import { trackSessions } from './track-sessions.ts'

const ENDS_M = [900, 1800]
const TRACK = {
  id: 'field',
  name: 'Field',
  segments: EXAMPLE_AIRFIELD.segments.map(({ lengthM, curvaturePerM }) => ({ lengthM, curvaturePerM })),
  marks: ENDS_M.map((atM, i) => ({ kind: 'sector', name: `Sector ${i + 1}`, atM })),
}
const session = (id: string, more: object = {}) => ({ id, stageId: 'bought', trackId: 'field', at: '2026-01-10T10:00:00Z', timing: 'beacon', ...more })
const laps = (trackSessionId: string, times: readonly number[], sectorS: readonly number[] = []) =>
  times.map((lapS, position) => ({ id: `${trackSessionId} ${position}`, trackSessionId, position, lapS, sectorS: sectorS.length > 0 ? sectorS : [] }))
const build = (more: object): BuildRecords => buildRecordsSchema.parse({ ...EXAMPLE_RECORDS, tracks: [TRACK], ...more })
const choice = (more: object) => ({ id: 'fit', trackId: 'field', trackSessionIds: [], factors: 'grip', ...more })
const LONG_MS = 60_000

describe('the choice of what a lap is fitted to', () => {
  const two = {
    trackSessions: [session('a'), session('b', { at: '2026-01-12T10:00:00Z' })],
    laps: [...laps('a', [96.2, 95.9, 96.4]), ...laps('b', [97.2, 96.9, 97.4])],
  }
  it(
    'is of the chosen sessions where some of a stage are chosen; what was driven stays a fact',
    () => {
      const all = openCar(build(two))
      const chosen = openCar(build({ ...two, lapFits: [choice({ trackSessionIds: ['a'] })] }))
      const [byAll, byChosen] = [lapAtStage(all, 0), lapAtStage(chosen, 0)]
      expect(byChosen?.lapS).toBe(byAll?.lapS)
      // The quicker session of the first day alone asks for more grip.
      expect(byChosen?.fit?.gripFactor ?? 0).toBeGreaterThan(byAll?.fit?.gripFactor ?? 0)
      const carried = lapAtStage(chosen, 1)
      expect(carried?.how).toBe('fitted')
      // Sessions of no stage that is asked leave it as it is.
      const stray = openCar(build({ ...two, lapFits: [choice({ trackSessionIds: ['gone'] })] }))
      expect(lapAtStage(stray, 0)?.fit).toEqual(byAll?.fit)
    },
    LONG_MS,
  )
  it(
    'tells the use of the brakes by three sectors, of laps that were driven with it',
    () => {
      const own = lapStage(openCar(build({})), 0).car
      if (!own) throw new Error('no car')
      const driver = { ...asReference(own), gripFactor: 0.93, brakingUse: 0.74 }
      const driven = lapOf(EXAMPLE_AIRFIELD, driver)
      const sectors = sectorSeconds(driven, ENDS_M)
      const made = {
        trackSessions: [session('a')],
        laps: laps('a', [driven.lapS, driven.lapS + 0.001], sectors),
        lapFits: [choice({ factors: 'gripAndBraking' })],
      }
      const lap = lapAtStage(openCar(build(made)), 0)
      expect(lap?.fit?.gripFactor).toBeCloseTo(0.93, 2)
      // Sectors that are far surer than the usual 0.85 +- 0.07 say 0.74; weighed with it they are surer still, and the lap is still the driven one.
      expect(lap?.brakes?.brakingUse).toBeGreaterThan(0.735)
      expect(lap?.brakes?.brakingUse).toBeLessThan(0.8)
      expect(lap?.brakes?.odd).toEqual([])
      expect(lap?.brakes?.brakingUseSd ?? 1).toBeLessThan(0.07)
      expect(lapOf(EXAMPLE_AIRFIELD, lap?.car ?? driver).lapS).toBeCloseTo(driven.lapS, 2)
      // Carried on, the fitted use stands in place of the usual guess.
      const next = lapAtStage(openCar(build(made)), 1)
      expect(next?.car?.brakingUse).toBeCloseTo(lap?.brakes?.brakingUse ?? 0, 9)
      expect(next?.doubts.find(({ key }) => key === 'brakingUse')?.isGuess).toBe(false)
      // A sector that traffic cost half a second is named.
      const held = sectors.map((sector, i) => (i === 1 ? sector + 0.6 : sector))
      const odd = lapAtStage(openCar(build({ ...made, laps: laps('a', [driven.lapS + 0.6, driven.lapS + 0.601], held) })), 0)
      expect(odd?.brakes?.odd).toContain(1)
    },
    LONG_MS,
  )
  it('says why it is by the grip alone where sectors are missing', () => {
    const plain = openCar(build({ trackSessions: [session('a')], laps: laps('a', [96.2, 95.9]), lapFits: [choice({ factors: 'gripAndBraking' })] }))
    expect(lapAtStage(plain, 0)).toMatchObject({ brakes: null, whyNoBrakes: expect.stringMatching(/sectors/) })
  })
  it('goes along in the room’s own answer', () => {
    const car = openCar(build({ ...two, lapFits: [choice({ trackSessionIds: ['b'], factors: 'gripAndBraking' })] }))
    const room = JSON.parse(JSON.stringify(makeTrackRoom(car))) as ReturnType<typeof makeTrackRoom>
    const plain = (plan: unknown) => JSON.parse(JSON.stringify(plan))
    expect(plain(planOfRoom(room, 1, 'field')?.anchor)).toEqual(plain(lapPlan(car, 1, car.records.tracks[0] as never).anchor))
  })
})

describe('how outings differ', () => {
  const sessionsOf = (values: readonly number[], more: (i: number) => object = () => ({})) =>
    openCar(
      build({
        trackSessions: values.map((_, i) => session(`s${i}`, { at: `2026-01-10T1${i}:00:00Z`, ...more(i) })),
        laps: values.flatMap((value, i) => laps(`s${i}`, [value, value + 0.02, value + 0.04])),
      }),
    )
  const first = (car: ReturnType<typeof openCar>) => trackSessions(car)[0]?.between
  it('is said by three sessions of one day with nothing turned, and usual before', () => {
    expect(first(sessionsOf([96, 96.3]))).toMatchObject({ sameDay: 0.0015, isOwn: { sameDay: false } })
    const own = first(sessionsOf([96, 96.3, 96.6]))
    expect(own?.isOwn).toEqual({ sameDay: true, otherDay: false })
    expect(own?.sameDay).toBeGreaterThan(0.002)
    expect(own?.sameDay).toBeLessThan(0.0035)
  })
  it.each([
    ['another driver', (i: number) => ({ driver: i === 1 ? 'Wen' : 'Ilse' })],
    ['something turned', (i: number) => ({ turned: i === 1 ? [{ what: 'rear bar', to: 'soft' }] : [] })],
    ['a damp track', (i: number) => ({ surface: i === 1 ? 'damp' : 'dry' })],
  ])('is not said across %s', (_, more) => {
    expect(first(sessionsOf([96, 96.3, 96.6], more))?.isOwn.sameDay).toBe(false)
  })
  it('of different days is said by days', () => {
    const days = first(sessionsOf([96, 97, 98], (i) => ({ at: `2026-01-1${i}T10:00:00Z` })))
    expect(days?.isOwn).toEqual({ sameDay: false, otherDay: true })
    expect(days?.otherDay).toBeGreaterThan(0.008)
  })
})

describe('what the model is trusted', () => {
  const anchor = (car: ReturnType<typeof openCar>, driven: number, at: number) => ({
    stage: lapStage(car, at),
    driven: { ...(lapPlan(car, 0, car.records.tracks[0] as never).driven as object), lapS: driven, position: at } as never,
    factors: 'grip' as const,
  })
  it(
    'is learned from five changes that were forecast and driven, and usual before',
    () => {
      const car = openCar(build({ trackSessions: [session('a')], laps: laps('a', [96.2, 95.9, 96.4]) }))
      const track = car.records.tracks[0] as never
      // The car of stage 1 and that of stage 0 by turns: each change is forecast, and driven at once and a half of it.
      const gain = (lapAtStage(car, 1)?.lapS ?? 0) - (lapAtStage(car, 0)?.lapS ?? 0)
      const driven = Array.from({ length: 6 }, (_, i) => anchor(car, 96.2 + (i % 2 === 0 ? 0 : 1.5 * gain), i % 2))
      expect(drivenPairs([{ track, driven: driven.slice(0, 5) }])).toEqual([])
      const pairs = drivenPairs([{ track, driven }])
      expect(pairs).toHaveLength(5)
      const plan = lapPlan(car, 1, track)
      const [usual, learned] = [workLap(plan), workLap({ ...plan, pairs })]
      expect(usual?.model).toMatchObject({ share: 0.2, isLearned: false })
      expect(learned?.model?.isLearned).toBe(true)
      expect(learned?.lapS).toBe(usual?.lapS)
      expect(learned?.modelSdS).toBeCloseTo(((usual?.modelSdS ?? 0) / 0.2) * (learned?.model?.share ?? 0), 9)
      // A stage whose car nobody knows is passed over.
      expect(drivenPairs([{ track, driven: [...driven, { ...anchor(car, 96, 0), stage: { ...lapStage(car, 0), car: null } }] }])).toHaveLength(5)
    },
    LONG_MS,
  )
})

describe('a lap that its forecast does not reach', () => {
  const drivenTwice = (second: number) => ({
    trackSessions: [session('a'), session('b', { stageId: 'strip', at: '2026-06-10T10:00:00Z' })],
    laps: [...laps('a', [96.2, 96.25, 96.3, 96.22]), ...laps('b', [second, second + 0.02, second + 0.05, second + 0.03])],
    changes: build({}).changes.map((change) => ({ ...change, state: 'done', doneAt: '2026-02-01T10:00:00Z' })),
  })
  const advised = (second: number) => {
    const records = build(drivenTwice(second))
    const car = openCar(records, { later: (asked, position) => lateValue(openCar(records), position, asked) })
    return TRACK_ADVICE.flatMap(({ find }) => [...(find(car, '2026-07-01') as readonly { code: string }[])]).filter(({ code }) => code === 'lap-unexplained')
  }
  it(
    'is told once it lies beyond the doubt of both, and waits while the model drives',
    () => {
      const car = openCar(build(drivenTwice(95)))
      expect(lapMisses(car).map(({ miss, position, from }) => [miss, position, from])).toEqual([[WAITING, 1, 0]])
      const forecast = workLap(lapPlan(car, 1, car.records.tracks[0] as never, true))
      expect(forecast?.how).toBe('fitted')
      expect(advised(forecast?.lapS ?? 0)).toEqual([])
      const slow = advised((forecast?.lapS ?? 0) + 6)
      expect(slow).toMatchObject([{ position: 1, from: 0, name: 'Field' }])
      expect((slow[0] as unknown as { missS: number }).missS).toBeGreaterThan(4)
    },
    LONG_MS,
  )
  it('is nothing of a stage that was driven first', () => {
    expect(lapMisses(openCar(build({ trackSessions: [session('a')], laps: laps('a', [96.2, 96.3]) })))).toEqual([])
  })
})
