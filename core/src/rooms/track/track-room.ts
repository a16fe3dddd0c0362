import { orElse } from '../../attempt.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { BrakeSystem, TrackPlan } from '../../records/brake-kinds.ts'
import type { Limit } from '../../records/plan-kinds.ts'
import type { FitFactors, LapFit } from '../../records/track/lap-kinds.ts'
import type { Track } from '../../records/track/track-kinds.ts'
import type { LoggerMapping } from '../../records/track/track-log-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import type { LapSchool } from '../../stats/best-laps.ts'
import { tyresOf } from '../drivetrain/drive-inputs.ts'
import { driveStage } from '../drivetrain/stage-inputs.ts'
import { lockingAt } from './advice.ts'
import type { LapAnchor } from './anchor-fit.ts'
import { cornerGripAt } from './corner-grip.ts'
import { type DriftDays, driftDaysOf } from './drift-days.ts'
import { type DrivenLap, drivenAt, drivenToFit } from './driven-laps.ts'
import { type LapStage, lapStage } from './lap-inputs.ts'
import type { ClassBounds } from './lever-bounds.ts'
import { type PowerProof, powerProofAt } from './log-proof.ts'
import { brakesAtStage } from './stage-brakes.ts'
import { drivenPairs, type LapPlan } from './stage-lap.ts'
import { controlTrack, lapSchoolOf, type RoomTrackSession, touchesLaps, trackOf, trackSessions } from './track-sessions.ts'
import { tyrePairs, type WheelPair } from './tyre-pairs.ts'
import { type PlannedLapLine, plannedLapLines, type WishedLapPart, wishedLapParts } from './wished.ts'

/** A tyre part, as sessions name it, with what its maker says of heat. */
export interface RoomTyre {
  readonly id: string
  readonly name: string
  readonly count: number
  readonly hotPa: { readonly front: number; readonly rear: number } | null
  readonly windowK: { readonly least: number; readonly most: number } | null
  readonly warmUpLaps: number
}

/** One stage of the Track screen. */
export interface TrackRoomStage {
  readonly lap: LapStage
  /** Driven with the car of this stage, by track. */
  readonly driven: Readonly<Record<string, DrivenLap>>
  /** What its model is fitted to, by track: of the chosen sessions, where some are chosen. */
  readonly toFit: Readonly<Record<string, DrivenLap>>
  readonly touches: boolean
  readonly drift: DriftDays | null
  readonly brakes: BrakeSystem | null
  readonly locking: { readonly axle: 'front' | 'rear'; readonly decelerationG: number; readonly share: number } | null
  /** Power out of logs of its sessions, against its dyno; null without windows. */
  readonly power: PowerProof | null
  /** Grip that its corners showed; null without windows. */
  readonly grip: { readonly value: number; readonly sd: number; readonly proof: Proof; readonly laps: number } | null
  /** What is wanted of a lap by this stage, by track, s; null where no target of that track is due. */
  readonly wantedS: Readonly<Record<string, number | null>>
  /** Names of the lines that change the air, for the ledger. */
  readonly aeroNames: readonly string[]
  /** Class limits that bound a wish: least mass, most power. */
  readonly bounds: ClassBounds
  /** The tyre part of each axle; null: none on record. */
  readonly tyreIds: { readonly front: string | null; readonly rear: string | null }
}

export interface TrackRoom {
  readonly tracks: readonly (Track & { readonly version: number })[]
  readonly controlTrackId: string | null
  readonly school: LapSchool
  readonly stages: readonly TrackRoomStage[]
  /** Earliest first. */
  readonly sessions: readonly RoomTrackSession[]
  readonly loggers: readonly (LoggerMapping & { readonly version: number })[]
  /** Which sessions a track's laps are fitted to, and by what: as a person chose. */
  readonly fits: readonly (LapFit & { readonly version: number })[]
  readonly plans: readonly (TrackPlan & { readonly version: number })[]
  readonly pairs: readonly WheelPair[]
  readonly wished: readonly WishedLapPart[]
  /** Lines that are not done, each with what it moves of a lap. */
  readonly planned: readonly PlannedLapLine[]
  readonly drift: DriftDays | null
  readonly drivers: readonly string[]
  /** Tyre parts that sessions can name. */
  readonly tyres: readonly RoomTyre[]
}

/** The tightest of the limits that hold at a stage. */
function boundOf(car: Car, position: number, metric: Limit['metric'], sense: Limit['sense']): number | null {
  const last = car.stages.length - 1
  const holding = car.records.limits.filter(({ fromStageId, untilStageId, ...limit }) => {
    const from = fromStageId === null ? last : stageIndex(car, fromStageId)
    const until = untilStageId === null ? last : stageIndex(car, untilStageId)
    return limit.metric === metric && limit.sense === sense && position >= from && position <= until
  })
  const values = holding.map(({ value }) => value)
  return values.length === 0 ? null : sense === 'atLeast' ? Math.max(...values) : Math.min(...values)
}

function aeroNamesAt(car: Car, position: number): string[] {
  const own = new Set((car.linesByStage[position] ?? []).map(({ change }) => change.id))
  return car.records.aeroDevices
    .filter(({ changeId, offChangeId }) => (changeId !== null && own.has(changeId)) || (offChangeId !== null && own.has(offChangeId)))
    .map(({ name }) => name)
}

/** What a lap of a track is wanted to be by a stage: of the targets due there, or later where none is due before. */
function wantedAt(car: Car, position: number, track: Track): number | null {
  const last = car.stages.length - 1
  const due = car.records.targets
    .filter(({ metric, sense, trackId }) => metric === 'lapTime' && sense === 'atMost' && trackOf(car, trackId)?.id === track.id)
    .map(({ dueStageId, value }) => ({ at: dueStageId === null ? last : stageIndex(car, dueStageId), value }))
    .filter(({ at }) => at >= position)
    .sort((a, b) => a.at - b.at)
  return due[0]?.value ?? null
}

function stageOf(car: Car, position: number): TrackRoomStage {
  const { front, rear } = tyresOf(car, driveStage(car, position).line)
  const byTrack = (of: typeof drivenAt) =>
    Object.fromEntries(
      car.records.tracks.flatMap((track) => {
        const found = of(car, position, track.id)
        return found ? [[track.id, found]] : []
      }),
    )
  return {
    lap: lapStage(car, position),
    driven: byTrack(drivenAt),
    toFit: byTrack(drivenToFit),
    touches: touchesLaps(car, position),
    drift: driftDaysOf(trackSessions(car).filter((session) => session.position === position)) ?? null,
    brakes: brakesAtStage(car, position) ?? null,
    locking: orElse(
      () => lockingAt(car, position) ?? null,
      () => null,
    ),
    power: orElse(
      () => powerProofAt(car, position),
      () => null,
    ),
    grip: cornerGripAt(car, position) ?? null,
    wantedS: Object.fromEntries(car.records.tracks.map((track) => [track.id, wantedAt(car, position, track)])),
    aeroNames: aeroNamesAt(car, position),
    tyreIds: { front: front?.part.id ?? null, rear: rear?.part.id ?? null },
    bounds: { leastKg: boundOf(car, position, 'massReady', 'atLeast'), mostW: boundOf(car, position, 'wheelPower', 'atMost') },
  }
}

const versioned = <Entry extends object>(record: Entry): Entry & { readonly version: number } => ({ version: 1, ...record })

/**
 * Everything that the Track screen shows of a build; laps themselves are driven where they are drawn.
 * @example makeTrackRoom(CAR).sessions // []
 */
export function makeTrackRoom(car: Car): TrackRoom {
  const sessions = trackSessions(car)
  const { records } = car
  return {
    tracks: records.tracks.map(versioned),
    controlTrackId: controlTrack(car)?.id ?? null,
    school: lapSchoolOf(car),
    stages: car.stages.map((_, position) => stageOf(car, position)),
    sessions,
    loggers: records.loggerMappings.map(versioned),
    fits: records.lapFits.map(versioned),
    plans: records.trackPlans.map(versioned),
    pairs: tyrePairs(sessions),
    wished: wishedLapParts(car),
    planned: plannedLapLines(car),
    drift: driftDaysOf(sessions) ?? null,
    drivers: records.build.drivers.map(({ name }) => name),
    tyres: records.parts.flatMap(({ id, name, count, drive }) =>
      drive?.role === 'tyre' ? [{ id, name, count, hotPa: drive.hotPa, windowK: drive.windowK, warmUpLaps: drive.warmUpLaps }] : [],
    ),
  }
}

/**
 * The plan of a stage's lap on a track, out of the room's own answer: as the server makes it of the car. As a forecast it knows nothing of what was driven at
 * the stage itself or later. Null where the room has no such track or stage, and for a forecast where nothing was driven before.
 * @example planOfRoom(makeTrackRoom(CAR), 1, 'none') // null
 */
export function planOfRoom(room: TrackRoom, position: number, trackId: string, isForecast = false): LapPlan | null {
  const track = room.tracks.find(({ id }) => id === trackId)
  const stage = room.stages[position]
  if (!track || !stage) return null
  const back = Array.from({ length: position + 1 }, (_, i) => position - i)
  const order = isForecast ? back.slice(1) : [...back, ...room.stages.map((_, i) => i).filter((i) => i > position)]
  const at = order.find((i) => room.stages[i]?.toFit[trackId] && room.stages[i]?.lap.car)
  const from = at === undefined ? undefined : room.stages[at]
  const driven = from?.toFit[trackId]
  if (isForecast && !driven) return null
  const isUnchanged = at !== undefined && at <= position && room.stages.slice(at + 1, position + 1).every(({ touches }) => !touches)
  const factorsOf = (id: string): FitFactors => room.fits.find((fit) => fit.trackId === id)?.factors ?? 'grip'
  return {
    track,
    stage: stage.lap,
    driven: isForecast ? null : (stage.driven[trackId] ?? null),
    anchor: from && driven ? { driven, stage: from.lap, factors: factorsOf(trackId) } : null,
    isUnchanged,
    pairs: drivenPairs(
      room.tracks.map((each) => ({
        track: each,
        driven: room.stages.slice(0, position).flatMap(({ lap, toFit }): LapAnchor[] => {
          const own = toFit[each.id]
          return own ? [{ driven: own, stage: lap, factors: factorsOf(each.id) }] : []
        }),
      })),
    ),
  }
}
