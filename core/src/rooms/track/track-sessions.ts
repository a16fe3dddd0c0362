import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { DynoSetting } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { DriftRun, LapKind, TrackLap } from '../../records/track/lap-kinds.ts'
import type { Track } from '../../records/track/track-kinds.ts'
import type { LogWindow, TrackLog } from '../../records/track/track-log-kinds.ts'
import type { TrackSession } from '../../records/track/track-session-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { LAP_SCHOOLS, type LapSchool, sessionLap } from '../../stats/best-laps.ts'
import { betweenShare } from '../../stats/between-sessions.ts'
import { lengthOfTrack } from '../../track/track.ts'
import { TIMING_SD_S } from '../drivetrain/stage-yardsticks.ts'
import { stageOfPart } from '../parts/parts.ts'
import { standingSetting } from '../power/power-at-stage.ts'
import { isSameSetting } from '../power/visits.ts'
import { massOf } from '../weight/mass-at-stage.ts'

/** What a kilogram costs on a kilometre until the car's own model says it, s (common practice, no source). */
const FUEL_S_PER_KG_KM = 0.006
/** How much one outing differs from the next of the same day, and of another, a share of the lap (common practice, no source). */
const BETWEEN_SHARE = { sameDay: 0.0015, otherDay: 0.005 } as const
/** Lines that together weigh less than this share of the car leave a lap what it was (common practice, no source). */
const LIGHT_SHARE = 0.01
/** Two days confirm a lap that both know better than this (common practice, no source). */
export const USEFUL_LAP_SHARE = 0.01

/** A lap of a session as the room shows it. */
export interface RoomLap {
  readonly id: string
  readonly version: number
  readonly position: number
  readonly lapS: number
  /** With the fuel of the reference; equal to the lap where no fuel was noted. */
  readonly correctedS: number
  readonly sectorS: readonly number[]
  readonly kind: LapKind
  readonly isClean: boolean
  readonly setAside: string | null
  /** The log that it was read from, and where in it it begins; null: typed. */
  readonly logId: string | null
  readonly fromS: number | null
}

/** A log as a session lists it. */
export type RoomLog = TrackLog & { readonly version: number }
/** A window of one of its logs, with the day it is of. */
export type RoomWindow = LogWindow & { readonly version: number; readonly trackSessionId: string; readonly day: string }
export type RoomRun = DriftRun & { readonly version: number }

/** A session with what came of it. */
export interface RoomTrackSession {
  readonly record: TrackSession & { readonly version: number }
  readonly position: number
  readonly trackName: string
  readonly laps: readonly RoomLap[]
  readonly runs: readonly RoomRun[]
  readonly logs: readonly RoomLog[]
  readonly windows: readonly RoomWindow[]
  /** By the build's school, with the spread of laps, timing and outing; null without a clean lap. */
  readonly value: { readonly lapS: number; readonly sdS: number; readonly timingSdS: number; readonly lapSdS: number; readonly clean: number } | null
  /** Why it stands for no stage; null where it stands for its own. */
  readonly whyNot: string | null
  /** How outings on its track differ beyond their laps. */
  readonly between: BetweenShares
}

/** Shares of a lap that two outings differ by beyond their own laps, of one day and of two, and whether sessions of the build say so. */
export interface BetweenShares {
  readonly sameDay: number
  readonly otherDay: number
  readonly isOwn: { readonly sameDay: boolean; readonly otherDay: boolean }
}

const versionOf = (record: object): number => (record as { readonly version?: number }).version ?? 1

/** By which number sessions of a build are quoted. */
export function lapSchoolOf({ records: { build } }: Car): LapSchool {
  const { school = null } = build.lapBasis ?? {}
  return school ?? (build.discipline === 'timeAttack' ? 'best' : LAP_SCHOOLS[1])
}

/**
 * The control track of a build: the one it names, else the one most driven, else the first drawn; undefined without tracks.
 * @example controlTrack(CAR) // undefined
 */
export function controlTrack({ records }: { readonly records: Pick<BuildRecords, 'build' | 'tracks' | 'trackSessions'> }): Track | undefined {
  const { build, tracks, trackSessions } = records
  const named = tracks.find(({ id }) => id === build.lapBasis?.trackId)
  if (named) return named
  const driven = (track: Track) => trackSessions.filter(({ trackId }) => trackId === track.id).length
  return [...tracks].sort((a, b) => driven(b) - driven(a))[0]
}

/** The track that a goal of laps is of; null, or one that is gone: the control track. */
export const trackOf = (car: Car, trackId: string | null | undefined): Track | undefined =>
  car.records.tracks.find(({ id }) => id === trackId) ?? controlTrack(car)

/** Each lap with the fuel that the reference has: what was on board when it was driven, by even burning. */
function correctedLaps({ records }: Car, session: TrackSession, track: Track | undefined, laps: readonly TrackLap[]): RoomLap[] {
  const { fuelStartL, fuelEndL } = session
  const { reference } = records.build
  const km = track ? lengthOfTrack(track.segments) / 1000 : 0
  const onBoard = (i: number) => {
    if (fuelStartL === null) return reference.fuelL
    const burnt = fuelEndL === null ? 0 : fuelStartL - fuelEndL
    return fuelStartL - (burnt * (i + 0.5)) / laps.length
  }
  return laps.map((lap, i): RoomLap => {
    const heavyKg = (onBoard(i) - reference.fuelL) * reference.fuelKgPerL
    const { id, position, lapS, sectorS, kind, setAside, logId, fromS } = lap
    const isClean = kind === 'clean' && setAside === null
    return { id, version: versionOf(lap), position, lapS, correctedS: lapS - FUEL_S_PER_KG_KM * heavyKg * km, sectorS, kind, isClean, setAside, logId, fromS }
  })
}

/** The setting that a session names, where it is not the one that stands for its stage: another engine. */
function otherSetting(car: Car, { dynoSessionId, dynoSettingId }: TrackSession, position: number): DynoSetting | undefined {
  const ran = car.records.sessions.find(({ id }) => id === dynoSessionId)?.settings.find(({ id }) => id === dynoSettingId)
  const stands = ran && standingSetting(car, position)
  return ran && stands && !isSameSetting(ran, stands) ? ran : undefined
}

/** Why the car of a moment was not that of its stage; null where it was: all lines in, nothing later, but for what is light and no drive part. */
function whyNotOf(car: Car, session: TrackSession, position: number): string | null {
  if (session.setAside !== null) return session.setAside
  if (session.surface !== 'dry') return `It was ${session.surface}: it stands for no stage.`
  const setting = otherSetting(car, session, position)
  if (setting) return `It ran on ${setting.name}, which is not what stands for its stage: another engine.`
  const at = Date.parse(session.at)
  const odd = car.lines.filter((line) => (line.doneAtMs !== null && line.doneAtMs <= at) !== line.stagePosition <= position)
  const massKg = massOf(car, position)?.value ?? Number.POSITIVE_INFINITY
  const oddKg = odd.reduce((sum, line) => sum + Math.abs(line.mass.massKg ?? 0) * line.change.count, 0)
  const aero = new Set(car.records.aeroDevices.flatMap(({ changeId, offChangeId }) => [changeId, offChangeId]))
  const telling = odd.find(({ change }) => change.touchesPower || aero.has(change.id))
  if (telling) return `${telling.change.name} was ${telling.stagePosition <= position ? 'not yet in' : 'in already'}: the car of that day was none of a stage.`
  if (oddKg >= LIGHT_SHARE * massKg) return `The car of that day was ${oddKg.toFixed(0)} kg from its stage.`
  return null
}

function sessionOf(car: Car, session: TrackSession, lapsOf: ReadonlyMap<string, TrackLap[]>, runsOf: ReadonlyMap<string, DriftRun[]>): RoomTrackSession {
  const track = car.records.tracks.find(({ id }) => id === session.trackId)
  const position = stageIndex(car, session.stageId)
  const laps = correctedLaps(car, session, track, lapsOf.get(session.id) ?? [])
  const clean = laps.filter(({ isClean }) => isClean).map(({ correctedS }) => correctedS)
  const own = clean.length > 0 ? attempt(() => sessionLap(clean, lapSchoolOf(car))) : undefined
  const timingSdS = TIMING_SD_S[session.timing]
  const logs = car.records.trackLogs.filter(({ trackSessionId }) => trackSessionId === session.id).map((log) => ({ ...log, version: versionOf(log) }))
  const value =
    own && !(own instanceof CalculationError)
      ? { lapS: own.lapS, sdS: Math.hypot(own.sdS, timingSdS), timingSdS, lapSdS: own.lapSdS, clean: clean.length }
      : null
  return {
    record: { ...session, version: versionOf(session) },
    position,
    trackName: track?.name ?? '',
    laps,
    runs: (runsOf.get(session.id) ?? []).map((run) => ({ ...run, version: versionOf(run) })),
    logs,
    windows: car.records.logWindows
      .filter(({ logId }) => logs.some(({ id }) => id === logId))
      .map((window) => ({ ...window, version: versionOf(window), trackSessionId: session.id, day: session.at.slice(0, 10) })),
    value,
    whyNot: whyNotOf(car, session, position),
    between: USUAL_BETWEEN,
  }
}

/** Until sessions of the build say it. */
export const USUAL_BETWEEN: BetweenShares = { ...BETWEEN_SHARE, isOwn: { sameDay: false, otherDay: false } }

/** Sessions of one track with one car, tyre and driver, one behind the other with nothing turned between. */
function unchangedRuns(sessions: readonly RoomTrackSession[]): RoomTrackSession[][] {
  const runs = new Map<string, RoomTrackSession[][]>()
  for (const session of sessions) {
    const { record, position, value, whyNot } = session
    if (record.kind !== 'laps' || whyNot !== null || value === null) continue
    const key = [record.trackId, position, record.driver, record.frontTyresPartId, record.rearTyresPartId].join(' ')
    const own = runs.get(key) ?? []
    const last = own.at(-1)
    if (last && record.turned.length === 0) last.push(session)
    else own.push([session])
    runs.set(key, own)
  }
  return [...runs.values()].flat()
}

const dayOf = ({ record }: RoomTrackSession) => record.at.slice(0, 10)

/** What sessions of an unchanged car say of outings on each track; the usual where none has three. */
function betweenOf(sessions: readonly RoomTrackSession[], trackId: string): BetweenShares {
  const runs = unchangedRuns(sessions.filter(({ record }) => record.trackId === trackId))
  const outcomes = (group: readonly RoomTrackSession[]) => group.flatMap(({ value }) => (value ? [{ lapS: value.lapS, sdS: value.sdS }] : []))
  const days = (run: readonly RoomTrackSession[]) => [...new Set(run.map(dayOf))].map((day) => run.filter((session) => dayOf(session) === day))
  const sameDay = betweenShare(runs.flatMap((run) => days(run).map(outcomes)))
  // Of several a day the first: of two days each has one.
  const otherDay = betweenShare(runs.map((run) => outcomes(days(run).flatMap(([first]) => first ?? []))))
  return {
    sameDay: sameDay ?? BETWEEN_SHARE.sameDay,
    otherDay: otherDay ?? BETWEEN_SHARE.otherDay,
    isOwn: { sameDay: sameDay !== null, otherDay: otherDay !== null },
  }
}

/** The same sessions, each as sure as outings on its track repeat. */
function withBetween(sessions: readonly RoomTrackSession[]): RoomTrackSession[] {
  const shares = new Map([...new Set(sessions.map(({ record }) => record.trackId))].map((trackId) => [trackId, betweenOf(sessions, trackId)]))
  return sessions.map((session) => {
    const between = shares.get(session.record.trackId) ?? USUAL_BETWEEN
    const { value } = session
    return { ...session, between, value: value && { ...value, sdS: Math.hypot(value.sdS, between.sameDay * value.lapS) } }
  })
}

function bySession<Entry extends { readonly trackSessionId: string; readonly position: number }>(entries: readonly Entry[]): Map<string, Entry[]> {
  const found = new Map<string, Entry[]>()
  for (const entry of entries) {
    const list = found.get(entry.trackSessionId)
    if (list) list.push(entry)
    else found.set(entry.trackSessionId, [entry])
  }
  for (const list of found.values()) list.sort((a, b) => a.position - b.position)
  return found
}

const work = rememberByIndex((car: Car): readonly RoomTrackSession[] => {
  const [laps, runs] = [bySession(car.records.laps), bySession(car.records.driftRuns)]
  const inOrder = [...car.records.trackSessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
  return withBetween(inOrder.map((session) => sessionOf(car, session, laps, runs)))
})

/**
 * Every session on track of a build with what came of it, earliest first.
 * @example trackSessions(CAR) // []
 */
export const trackSessions = (car: Car): readonly RoomTrackSession[] => work(car, 0)

/** Sessions of laps on a track that stand for a stage. */
export const standingSessions = (car: Car, position: number, trackId: string): RoomTrackSession[] =>
  trackSessions(car).filter(
    ({ record, position: at, whyNot, value }) => at === position && record.trackId === trackId && record.kind === 'laps' && whyNot === null && value !== null,
  )

/** Whether a stage alters what is driven: a line, an expectation, a part of the driveline, or brakes. */
export function touchesLaps(car: Car, position: number): boolean {
  const stageId = car.stages[position]?.id
  if (car.lists[position] || car.records.brakeSystems.some((entry) => entry.stageId === stageId)) return true
  return car.records.parts.some((part) => part.drive && stageOfPart(car.records, part) === position)
}
