import { combineMeasurements } from '../../proof/combine-measurements.ts'
import type { Proof } from '../../proof/quantity.ts'
import type { FitFactors } from '../../records/track/lap-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { bestOfSpread, type LapSchool } from '../../stats/best-laps.ts'
import { sectorMedians } from '../../stats/sector-medians.ts'
import { lapStage } from './lap-inputs.ts'
import { lapSchoolOf, type RoomTrackSession, standingSessions, USEFUL_LAP_SHARE } from './track-sessions.ts'

/** What the sectors of a session come to, s, and where on the track they end. */
export interface DrivenSectors {
  readonly endsM: readonly number[]
  readonly secondsS: readonly number[]
  readonly sdS: number
}

/** A lap that was driven with the car of a stage. */
export interface DrivenLap {
  readonly position: number
  readonly lapS: number
  /** Of the lap as a fact: the clock alone for a best lap. */
  readonly factSdS: number
  /** Of what it says of the car: laps, clock and outing. */
  readonly sdS: number
  readonly proof: Proof
  readonly sessionIds: readonly string[]
  readonly clean: number
  readonly day: string
  /** The middle of each sector over its clean laps, where they have as many as the track; null: they have not. */
  readonly sectors: DrivenSectors | null
}

/** What one day's sessions come to: the best of them, or the median of the latest. */
function ofDay(sessions: readonly RoomTrackSession[], school: LapSchool): RoomTrackSession {
  const byLap = [...sessions].sort((a, b) => (a.value?.lapS ?? 0) - (b.value?.lapS ?? 0))
  return (school === 'best' ? byLap[0] : sessions.at(-1)) as RoomTrackSession
}

/** √(π/2): how much more a median scatters than a mean. */
const MEDIAN_SPREAD = Math.sqrt(Math.PI / 2)

/** Sectors as the session is quoted: of its best lap, or the middle of each. Each scatters by its share of the lap's variance. */
function sectorsOf(car: Car, { record, laps, value }: RoomTrackSession): DrivenSectors | null {
  const track = car.records.tracks.find(({ id }) => id === record.trackId)
  const endsM = (track?.marks ?? []).filter(({ kind }) => kind === 'sector').map(({ atM }) => atM)
  const clean = laps.filter(({ isClean, sectorS }) => isClean && sectorS.length === endsM.length + 1).sort((a, b) => a.correctedS - b.correctedS)
  const isBest = lapSchoolOf(car) === 'best'
  const secondsS = isBest ? clean[0]?.sectorS : sectorMedians(clean.map(({ sectorS }) => sectorS))
  if (!value || !secondsS) return null
  const spread = isBest ? bestOfSpread(clean.length) : MEDIAN_SPREAD / Math.sqrt(clean.length)
  const sdS = Math.hypot((value.lapSdS * spread) / Math.sqrt(secondsS.length), value.timingSdS)
  return { endsM: [...endsM].sort((a, b) => a - b), secondsS, sdS }
}

/** What sessions of one stage and track come to: of the latest day, confirmed by others. */
function drivenOf(car: Car, position: number, sessions: readonly RoomTrackSession[]): DrivenLap | undefined {
  const school = lapSchoolOf(car)
  const days = new Map<string, RoomTrackSession[]>()
  for (const session of sessions) {
    const day = session.record.at.slice(0, 10)
    days.set(day, [...(days.get(day) ?? []), session])
  }
  const ordered = [...days]
    .sort(([a], [b]) => (a < b ? 1 : -1))
    .map(([day, sessions]) => ({ day, session: ofDay(sessions, school), ids: sessions.map(({ record }) => record.id) }))
  const [head, ...rest] = ordered.map(({ session }) => ({ value: session.value?.lapS ?? 0, sd: session.value?.sdS ?? 0, instrument: session.record.timing }))
  const first = ordered[0]
  if (!head || !first?.session.value) return undefined
  const { value, sd, proof } = combineMeasurements([head, ...rest], (lapS) => USEFUL_LAP_SHARE * lapS)
  return {
    position,
    lapS: value,
    factSdS: school === 'best' ? first.session.value.timingSdS : sd,
    sdS: sd,
    proof,
    sessionIds: ordered.flatMap(({ ids }) => ids),
    clean: first.session.value.clean,
    day: first.day,
    sectors: sectorsOf(car, first.session),
  }
}

/** What was driven on a track with the car of a stage itself; undefined where no session stands for it. */
export const drivenAt = (car: Car, position: number, trackId: string): DrivenLap | undefined =>
  drivenOf(car, position, standingSessions(car, position, trackId))

/** By what the laps of a track are fitted. */
export const fitFactorsOf = (car: Car, trackId: string): FitFactors => car.records.lapFits.find((fit) => fit.trackId === trackId)?.factors ?? 'grip'

/** What the model of a stage is fitted to: of the sessions that stand, the chosen ones where some of them are; undefined where none stands. */
export function drivenToFit(car: Car, position: number, trackId: string): DrivenLap | undefined {
  const standing = standingSessions(car, position, trackId)
  const chosen = car.records.lapFits.find((fit) => fit.trackId === trackId)?.trackSessionIds ?? []
  const own = standing.filter(({ record }) => chosen.includes(record.id))
  return drivenOf(car, position, own.length > 0 ? own : standing)
}

/** The latest stage before one that was driven and whose car is known: what its own lap was forecast from; undefined where none was. */
export function drivenBefore(car: Car, position: number, trackId: string): DrivenLap | undefined {
  for (let at = position - 1; at >= 0; at--) {
    const driven = drivenToFit(car, at, trackId)
    if (driven && lapStage(car, at).car) return driven
  }
  return undefined
}

/** The stage whose driven laps a stage's own lap is carried from: the latest up to it, else the next later; undefined where none was driven. */
export function anchorOf(car: Car, position: number, trackId: string): DrivenLap | undefined {
  const order = [...Array.from({ length: position + 1 }, (_, i) => position - i), ...car.stages.map((_, i) => i).filter((i) => i > position)]
  for (const at of order) {
    const driven = drivenToFit(car, at, trackId)
    if (driven && lapStage(car, at).car) return driven
  }
  return undefined
}
