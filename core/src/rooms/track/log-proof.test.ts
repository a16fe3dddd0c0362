import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { WAITING } from '../../stages/stage-value.ts'
import { TRACK_ADVICE } from './advice.ts'
import { cornerGripAt } from './corner-grip.ts'
import { lapStage } from './lap-inputs.ts'
import { logCarOf, powerProofAt } from './log-proof.ts'
import { plannedGripValue, TRACK_VALUES } from './metrics.ts'
import { lapAtStage } from './stage-lap.ts'
import { makeTrackRoom } from './track-room.ts'
import { TRACK_WORKINGS } from './workings.ts'

const gannet: BuildRecords = buildRecordsSchema.parse(JSON.parse(readFileSync(new URL('../../../../demo/gannet/build.json', import.meta.url), 'utf8')))
type Window = BuildRecords['logWindows'][number]
const proofWith = (more: Partial<BuildRecords>, position = 2) => powerProofAt(openCar({ ...gannet, ...more }), position)
const scaled = (factor: number): Window[] =>
  gannet.logWindows.map((window) => ({ ...window, points: window.points?.map((point) => ({ ...point, powerW: factor * point.powerW })) ?? null }))

describe('power on the road', () => {
  const own = proofWith({})
  it('is held against the dyno of its stage, and says what would confirm it', () => {
    expect(own).toMatchObject({ windows: 72, agrees: true, proof: 'calculated', causes: [] })
    expect(Math.abs((own?.ratio ?? 0) - 1)).toBeLessThan(0.02)
    expect(own?.lacks).toEqual([expect.stringMatching(/slope of the road is not known/)])
    expect(own?.bins.length).toBeGreaterThan(5)
  })
  it('is confirmed once nothing is lacking', () => {
    const tracks = gannet.tracks.map((track) => ({ ...track, segments: track.segments.map((segment) => ({ ...segment, grade: 0.001 })) }))
    expect(proofWith({ tracks })).toMatchObject({ proof: 'confirmed', lacks: [] })
  })
  it('scales with what was logged, and where it disagrees names causes, the likely one first', () => {
    const less = proofWith({ logWindows: scaled(0.85) })
    expect(less?.ratio).toBeCloseTo(0.85 * (own?.ratio ?? 0), 9)
    expect(less).toMatchObject({ agrees: false })
    expect(less?.causes.map(({ cause }) => cause).sort()).toEqual(['drag', 'mass', 'slope'])
    expect(less?.causes[0]?.leftN).toBeLessThanOrEqual(less?.causes[2]?.leftN ?? 0)
  })
  test.each<[string, Partial<BuildRecords>, RegExp]>([
    ['air', { trackSessions: gannet.trackSessions.map((session) => ({ ...session, ambient: null })) }, /air of the day is missing/],
    ['a coast-down', { aeroTests: [], aeroRuns: [] }, /drag is not out of a coast-down/],
  ])('without %s it says so', (_, more, words) => {
    expect(proofWith(more)?.lacks.join('\n')).toMatch(words)
  })
  it('counts neither windows nor sessions that are set aside, and is of its own stage alone', () => {
    expect(proofWith({ logWindows: gannet.logWindows.map((window) => ({ ...window, setAside: 'wind' })) })).toBeNull()
    expect(proofWith({ trackSessions: gannet.trackSessions.map((session) => ({ ...session, setAside: 'rain' })) })).toBeNull()
    expect(proofWith({}, 3)).toBeNull()
  })
  it('is reckoned with the air of the session, else with that of the build', () => {
    const lap = makeTrackRoom(openCar(gannet)).stages[2]?.lap
    const session = gannet.trackSessions.find(({ ambient }) => ambient?.pressureKind === 'station')
    if (!lap || !session) throw new Error('the demo has both')
    expect(logCarOf(lap, session.ambient)?.car.airDensityKgM3).toBeCloseTo(1.2317, 3)
    expect(logCarOf(lap, null)?.car.airDensityKgM3).toBe(gannet.build.airDensityKgM3)
    expect(logCarOf({ ...lap, car: null }, null)).toBeNull()
  })
})

it('what next tells that road and dyno do not agree, and what the rest looks like', () => {
  const advised = (factor: number) =>
    TRACK_ADVICE.flatMap(({ find }) => [...(find(openCar({ ...gannet, logWindows: scaled(factor) }), '2026-10-20') as readonly { code: string }[])])
  expect(advised(1).some(({ code }) => code === 'road-and-dyno')).toBe(false)
  const [told] = advised(0.85).filter(({ code }) => code === 'road-and-dyno') as unknown as { position: number; ratio: number; cause: string }[]
  expect(told).toMatchObject({ position: 2, cause: expect.stringMatching(/mass|slope|drag/) })
  expect(told?.ratio).toBeCloseTo(0.85, 1)
})

describe('grip that corners show', () => {
  const grips = gannet.logWindows.flatMap(({ grip }) => (grip === null ? [] : [grip])).sort((a, b) => a - b)
  it('is the middle of the latest day, no surer than two days differ', () => {
    const found = cornerGripAt(openCar(gannet), 2)
    expect(found).toMatchObject({ proof: 'measured', laps: 12 })
    expect(found?.value).toBeCloseTo(((grips[5] ?? 0) + (grips[6] ?? 0)) / 2, 9)
    expect(found?.sd).toBeGreaterThan(0.02 * (found?.value ?? 0))
  })
  test.each([
    ['another day that agrees confirms', '2026-10-11T10:00:00Z', 1, 'confirmed'],
    ['another session of the same day does not', '2026-10-10T16:00:00Z', 1, 'measured'],
    ['a day that disagrees widens', '2026-10-11T10:00:00Z', 1.2, 'measured'],
  ] as const)('%s', (_, at, factor, proof) => {
    const session = gannet.trackSessions.find(({ id }) => gannet.trackLogs.some(({ trackSessionId }) => trackSessionId === id))
    const log = gannet.trackLogs.find(({ trackSessionId }) => trackSessionId === session?.id)
    if (!session || !log) throw new Error('the demo has both')
    const windows = gannet.logWindows.filter(({ logId, of }) => logId === log.id && of === 'grip')
    const car = openCar({
      ...gannet,
      trackSessions: [...gannet.trackSessions, { ...session, id: 'other', at }],
      trackLogs: [...gannet.trackLogs, { ...log, id: 'log', trackSessionId: 'other' }],
      logWindows: [...gannet.logWindows, ...windows.map((window, i) => ({ ...window, id: `w${i}`, logId: 'log', grip: factor * (window.grip ?? 0) }))],
    })
    expect(cornerGripAt(car, 2)?.proof).toBe(at.includes('10-10') ? 'measured' : proof)
    if (factor > 1) expect(cornerGripAt(car, 2)?.sd).toBeGreaterThan(0.1)
  })
  it('is carried to later stages as calculated, never as measured, and has a working that names its laps', () => {
    const car = openCar(gannet)
    // Before it, what the fit of its lap says, later: the friction of its tyres times the fitted factor.
    expect(TRACK_VALUES.cornerGrip.at(car, 1)).toBe(WAITING)
    const [planned, friction] = [plannedGripValue(car, 1), lapStage(car, 1).inputs.find(({ key }) => key === 'friction')?.value ?? 0]
    expect(planned?.value).toBeCloseTo(friction * (lapAtStage(car, 1)?.fit?.gripFactor ?? 0), 12)
    expect(['calculated', 'guess']).toContain(planned?.proof)
    expect(planned?.fromPosition).toBe(2)
    expect(TRACK_VALUES.cornerGrip.at(car, 4)).toMatchObject({ fromPosition: 2 })
    expect(['calculated', 'guess']).toContain((TRACK_VALUES.cornerGrip.at(car, 4) as { proof: string }).proof)
    expect(
      TRACK_WORKINGS.cornerGrip(car, gannet.stages.find(({ position }) => position === 2)?.id ?? '')?.lines.filter(({ label }) => /lap from/.test(label)),
    ).toHaveLength(12)
  })
})
