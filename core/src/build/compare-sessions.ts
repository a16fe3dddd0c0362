import { bandMean } from '../dyno/band-mean.ts'
import { comparePulls, type PullComparison } from '../dyno/compare-pulls.ts'
import { type GridCurve, gridSpeedRpm, meanCurve, scaleCurve } from '../dyno/curve.ts'
import { type Drift, driftOf } from '../dyno/drift.ts'
import { torqueFromPowerNm } from '../dyno/power-torque.ts'
import { type Powerband, powerband } from '../dyno/powerband.ts'
import { CalculationError } from '../errors.ts'
import { sampleSd } from '../stats/moments.ts'
import { studentTQuantile } from '../stats/student-t.ts'
import { attempt } from './attempt.ts'
import { makeCar } from './car.ts'
import type { BuildRecords, DynoSession } from './records.ts'
import { basisFactor } from './session-power.ts'

export interface SpeedBand {
  readonly fromRpm: number
  readonly toRpm: number
}

/** One side of a comparison, on the build's basis. */
export interface ComparedSession {
  readonly sessionId: string
  readonly pullIds: readonly string[]
  /** Mean power of each pull over the band. */
  readonly bandMeansW: readonly number[]
  readonly meanCurve: GridCurve
  readonly band90: Powerband
  /** Least over greatest torque inside the band. */
  readonly torqueFlatness: number
  /** Null with fewer than four pulls. */
  readonly drift: Drift | null
}

export interface SessionComparison {
  readonly band: SpeedBand
  readonly first: ComparedSession
  readonly second: ComparedSession
  readonly power: PullComparison
  /** Gain at each speed of the band, with the interval its pulls give; null where a side has one pull alone. */
  readonly gainBySpeed: readonly { readonly speedRpm: number; readonly gainW: number; readonly lowW: number | null; readonly highW: number | null }[]
  /** Changes that touch power and were done between the two visits. */
  readonly changesBetween: readonly { readonly changeId: string; readonly name: string }[]
  readonly warnings: readonly string[]
}

/**
 * Two dyno sessions of a build, both restated to its basis by their own air records: mean power over a band, whether the difference is real, the gain
 * by speed, and what was changed in between. Different places are refused, never converted. `band` left out: what both cover, from 60 % of the top speed.
 * Rejects unknown sessions, one without a pull that counts, and a band outside what both cover. Source: as dyno.compare and dyno.band-mean.
 */
export function compareSessions(records: BuildRecords, firstId: string, secondId: string, wanted?: SpeedBand, confidence = 0.95): SessionComparison {
  const [a, b] = [firstId, secondId].map((id) => curvesOf(records, id)) as [SessionCurves, SessionCurves]
  if (a.session.place !== b.session.place)
    throw new CalculationError(
      'inconsistent',
      'second',
      `One was measured at the ${a.session.place}, the other at the ${b.session.place}: the two are never compared.`,
    )
  const covered = commonBand([...a.curves, ...b.curves])
  const band = wanted ?? { fromRpm: Math.max(covered.fromRpm, Math.ceil((0.6 * covered.toRpm) / 50) * 50), toRpm: covered.toRpm }
  if (!(band.toRpm > band.fromRpm) || band.fromRpm < covered.fromRpm || band.toRpm > covered.toRpm)
    throw new CalculationError('out-of-range', 'band', `All these pulls cover ${covered.fromRpm} to ${covered.toRpm} rpm. Pick a band inside it.`)
  const [first, second] = [a, b].map((side) => compared(side, band)) as [ComparedSession, ComparedSession]
  const changesBetween = powerChangesBetween(records, a.session, b.session)
  return {
    band,
    first,
    second,
    power: comparePulls({ first: first.bandMeansW, second: second.bandMeansW, confidence, isSameSession: firstId === secondId }),
    gainBySpeed: gains(a.curves, b.curves, band, confidence),
    changesBetween,
    warnings: warningsOf(records, a.session, b.session, changesBetween.length),
  }
}

interface SessionCurves {
  readonly session: DynoSession
  readonly pullIds: readonly string[]
  readonly curves: readonly GridCurve[]
}

function curvesOf(records: BuildRecords, sessionId: string): SessionCurves {
  const session = records.sessions.find((entry) => entry.id === sessionId)
  if (!session) throw new CalculationError('unknown', 'session', 'This build has no such session. Pick one that is there.')
  const factor = basisFactor(session, records.build)
  const pulls = records.pulls.filter((pull) => pull.sessionId === sessionId && pull.setAside === null).sort((x, y) => x.position - y.position)
  if (pulls.length === 0)
    throw new CalculationError(
      'missing',
      'session',
      `The session at ${session.dynoName} has no pull that counts. Import one, or take one back that was set aside.`,
    )
  return { session, pullIds: pulls.map(({ id }) => id), curves: pulls.map(({ curve }) => scaleCurve(curve, factor)) }
}

const lastSpeed = (curve: GridCurve) => gridSpeedRpm(curve, curve.powerW.length - 1)

function commonBand(curves: readonly GridCurve[]): SpeedBand {
  const band = { fromRpm: Math.max(...curves.map((curve) => curve.firstSpeedRpm)), toRpm: Math.min(...curves.map(lastSpeed)) }
  if (band.toRpm - band.fromRpm < 100)
    throw new CalculationError('inconsistent', 'band', 'The pulls of the two sessions share no band of speed. They cannot be compared.')
  return band
}

const speedsOf = (curve: GridCurve) => curve.powerW.map((_, i) => gridSpeedRpm(curve, i))
const at = (curve: GridCurve, speedRpm: number) => curve.powerW[Math.round((speedRpm - curve.firstSpeedRpm) / curve.stepRpm)] as number

function compared({ session, pullIds, curves }: SessionCurves, band: SpeedBand): ComparedSession {
  const mean = meanCurve(curves) as GridCurve
  const speedRpm = speedsOf(mean)
  const torques = speedRpm.flatMap((speed, i) => (speed >= band.fromRpm && speed <= band.toRpm ? [torqueFromPowerNm(mean.powerW[i] as number, speed)] : []))
  const bandMeansW = curves.map((curve) => bandMean({ curve: { speedRpm: speedsOf(curve), powerW: curve.powerW }, ...band }).bySpeedW)
  const drift = bandMeansW.length < 4 ? null : attempt(() => driftOf(bandMeansW))
  return {
    sessionId: session.id,
    pullIds,
    bandMeansW,
    meanCurve: mean,
    band90: powerband({ speedRpm, value: mean.powerW }),
    torqueFlatness: Math.min(...torques) / Math.max(...torques),
    drift: drift instanceof CalculationError ? null : drift,
  }
}

function gains(first: readonly GridCurve[], second: readonly GridCurve[], band: SpeedBand, confidence: number): SessionComparison['gainBySpeed'] {
  const speeds = speedsOf(first[0] as GridCurve).filter((speed) => speed >= band.fromRpm && speed <= band.toRpm)
  const enough = first.length > 1 && second.length > 1
  return speeds.map((speedRpm) => {
    const [x, y] = [first.map((curve) => at(curve, speedRpm)), second.map((curve) => at(curve, speedRpm))]
    const average = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length
    const gainW = average(y) - average(x)
    if (!enough) return { speedRpm, gainW, lowW: null, highW: null }
    const half =
      studentTQuantile(1 - (1 - confidence) / 2, x.length + y.length - 2) * Math.hypot(sampleSd(x) / Math.sqrt(x.length), sampleSd(y) / Math.sqrt(y.length))
    return { speedRpm, gainW, lowW: gainW - half, highW: gainW + half }
  })
}

function powerChangesBetween(records: BuildRecords, first: DynoSession, second: DynoSession): SessionComparison['changesBetween'] {
  const [from, to] = [Date.parse(first.at), Date.parse(second.at)].sort((x, y) => x - y) as [number, number]
  return makeCar(records).lines.flatMap(({ change, doneAtMs }) =>
    change.touchesPower && doneAtMs !== null && doneAtMs > from && doneAtMs <= to ? [{ changeId: change.id, name: change.name }] : [],
  )
}

function warningsOf(records: BuildRecords, first: DynoSession, second: DynoSession, changeCount: number): string[] {
  const warnings: string[] = []
  if (first.dynoName !== second.dynoName) warnings.push('Numbers of different dynos are not compared in the trade: same dyno, same day, same gear are.')
  else if (first.gear !== second.gear) warnings.push('The two were run in different gears.')
  if (first.fuel !== second.fuel && first.fuel && second.fuel) warnings.push(`The fuel differs: ${first.fuel} and ${second.fuel}.`)
  if (first.boostPa !== second.boostPa && first.boostPa !== null && second.boostPa !== null) warnings.push('The boost differs.')
  if (changeCount > 1) warnings.push('More than one change lies between the two: the gain belongs to none of them alone.')
  if (records.build.powerBasis.standard !== 'none' && (!first.ambient || !second.ambient))
    warnings.push('Without the air record of both, weather may stand in the difference.')
  return warnings
}
