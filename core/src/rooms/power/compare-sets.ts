import { attempt } from '../../attempt.ts'
import { bandMean } from '../../dyno/band-mean.ts'
import { comparePulls, type PullComparison } from '../../dyno/compare-pulls.ts'
import { BOOST_SCHOOL_WORDS, type BoostSchool } from '../../dyno/correction.ts'
import { curvePeak, type GridCurve, gridSpeedRpm, meanCurve, scaleCurve } from '../../dyno/curve.ts'
import { type Drift, driftOf } from '../../dyno/drift.ts'
import { torqueFromPowerNm } from '../../dyno/power-torque.ts'
import { type Powerband, powerband } from '../../dyno/powerband.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import type { DynoSession, DynoSetting, Pull } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { doneAtMs } from '../../stages/car.ts'
import { mean, sampleSd } from '../../stats/moments.ts'
import { studentTQuantile } from '../../stats/student-t.ts'
import { schoolOf, settingOf, standardFactor } from './session-power.ts'
import { visitKey } from './visits.ts'

export interface SpeedBand {
  readonly fromRpm: number
  readonly toRpm: number
}

/** Pulls of a session: those named, else all that are not set aside. */
export interface PullSet {
  readonly sessionId: string
  /** Of one setting; where pulls are named, theirs; else the last that was run. */
  readonly settingId?: string | undefined
  readonly pullIds?: readonly string[] | undefined
}

/** The pulls of one side, on the build's basis. */
export interface RestatedSet {
  readonly session: DynoSession
  readonly setting: DynoSetting
  readonly pullIds: readonly string[]
  /** Of each pull. */
  readonly curves: readonly GridCurve[]
  readonly meanCurve: GridCurve
  readonly band90: Powerband
  readonly pulls: readonly Pull[]
  /** From what was printed to the basis. */
  readonly factor: number
}

/** Two sets of pulls that may be compared. */
export interface ComparableSets {
  readonly first: RestatedSet
  readonly second: RestatedSet
  /** What all pulls cover. */
  readonly covered: SpeedBand
  /** Whether both were read by one dyno; numbers of two say as much of the dynos as of the car. */
  readonly isSameDyno: boolean
  /** One dyno, one day, one printed standard: both stand as printed, whatever the build counts in. */
  readonly isOneVisit: boolean
  /** How boost is corrected on both sides; null without boost. */
  readonly school: BoostSchool | null
  /** Changes that touch power and were done between the two visits. */
  readonly changesBetween: readonly { readonly changeId: string; readonly name: string }[]
  readonly warnings: readonly string[]
}

/** One side of a comparison over a band. */
export interface ComparedSet {
  /** Mean power of each pull over the band. */
  readonly bandMeansW: readonly number[]
  readonly meanW: number
  /** Least over greatest torque inside the band. */
  readonly torqueFlatness: number
  /** Null with fewer than four pulls. */
  readonly drift: Drift | null
  /** Means over the band; null where the pulls did not record it. */
  readonly beside: BesideMeans
}

export interface BesideMeans {
  readonly intakeK: number | null
  readonly lambda: number | null
  /** Of the pulls' own channel, else of the session's record. */
  readonly boostPa: number | null
  /** Boost that each watt of the band's mean takes. */
  readonly boostPaPerW: number | null
}

/**
 * Boost that a power takes at the rate of a set's band mean, Pa; null where no boost is known. Source: ratio.
 * @example boostForPowerPa({ boostPaPerW: 0.5 }, 1000) // 500
 */
export const boostForPowerPa = ({ boostPaPerW }: BesideMeans, powerW: number): number | null => (boostPaPerW === null ? null : boostPaPerW * powerW)

export interface SetComparison {
  readonly band: SpeedBand
  readonly first: ComparedSet
  readonly second: ComparedSet
  /** Of mean power in the band, which leads. */
  readonly power: PullComparison
  /** Of the pulls' greatest powers; said too where it judges otherwise. */
  readonly peak: PullComparison
  /** Gain at each speed of the band, with the interval its pulls give; null where a side has one pull alone. */
  readonly gainBySpeed: readonly { readonly speedRpm: number; readonly gainW: number; readonly lowW: number | null; readonly highW: number | null }[]
}

/**
 * Two sets of pulls of a build, both restated to its basis by their own air records, and what was changed in between. Different places are refused, never
 * converted. Rejects unknown sessions, one without a pull that counts, a pull on both sides, and two schools of boost correction.
 * @example comparableSets(EXAMPLE, { sessionId: 'visit', pullIds: ['pull'] }, { sessionId: 'gone', pullIds: ['pull'] }) // throws unknown
 */
export function comparableSets(records: BuildRecords, firstSet: PullSet, secondSet: PullSet): ComparableSets {
  const isOneVisit = areOneVisit(records, firstSet.sessionId, secondSet.sessionId)
  const [a, b] = [restated(records, firstSet, isOneVisit), restated(records, secondSet, isOneVisit)]
  if (a.pullIds.some((id) => b.pullIds.includes(id)))
    throw new CalculationError('inconsistent', 'second', 'A pull stands on both sides. Pick other pulls for one of them.')
  if (a.session.place !== b.session.place)
    throw new CalculationError(
      'inconsistent',
      'second',
      `One was measured at the ${a.session.place}, the other at the ${b.session.place}: the two are never compared.`,
    )
  const [schoolA, schoolB] = [schoolOf(a.session, a.setting, records.build), schoolOf(b.session, b.setting, records.build)]
  if (schoolA !== undefined && schoolB !== undefined && schoolA !== schoolB)
    throw new CalculationError(
      'inconsistent',
      'boostSchool',
      `One is ${BOOST_SCHOOL_WORDS[schoolA]}, the other ${BOOST_SCHOOL_WORDS[schoolB]}: schools are never mixed. Give both sessions the same school.`,
    )
  const changesBetween = powerChangesBetween(records, a.session, b.session)
  return {
    first: a,
    second: b,
    covered: commonBand([...a.curves, ...b.curves]),
    isSameDyno: a.session.dynoName === b.session.dynoName,
    school: schoolA ?? schoolB ?? null,
    changesBetween,
    isOneVisit,
    warnings: warningsOf(records, a, b, changesBetween.length),
  }
}

/**
 * Two sets over a band: mean power, whether the difference is real, and the gain by speed. `band` left out: where both have pulls, so that spool counts.
 * Rejects a band outside what both cover. Source: as dyno.compare and dyno.band-mean.
 * @example compareSets(comparableSets(RULES, { sessionId: 'd0', pullIds: ['p0'] }, { sessionId: 'd0', pullIds: ['p2'] }), { fromRpm: 3000, toRpm: 3050 }) // throws inconsistent
 */
export function compareSets({ first: a, second: b, covered }: ComparableSets, wanted?: SpeedBand, confidence = 0.95): SetComparison {
  const band = wanted ?? covered
  if (!(band.toRpm > band.fromRpm) || band.fromRpm < covered.fromRpm || band.toRpm > covered.toRpm)
    throw new CalculationError('out-of-range', 'band', `All these pulls cover ${covered.fromRpm} to ${covered.toRpm} rpm. Pick a band inside it.`)
  const [first, second] = [a, b].map((side) => compared(side, band)) as [ComparedSet, ComparedSet]
  const judged = { confidence, isSameSession: visitKey(a.session) === visitKey(b.session) }
  const peaks = (side: RestatedSet) => side.curves.map((curve) => curvePeak(curve).powerW)
  return {
    band,
    first,
    second,
    power: comparePulls({ first: first.bandMeansW, second: second.bandMeansW, ...judged }),
    peak: comparePulls({ first: peaks(a), second: peaks(b), ...judged }),
    gainBySpeed: gains(a.curves, b.curves, band, confidence),
  }
}

/** Whether two sessions are one visit that printed in one standard. */
function areOneVisit(records: BuildRecords, firstId: string, secondId: string): boolean {
  const [first, second] = [firstId, secondId].map((id) => records.sessions.find((entry) => entry.id === id))
  return first !== undefined && second !== undefined && visitKey(first) === visitKey(second) && first.printedStandard === second.printedStandard
}

/** The setting that a set is of: the one named, else that of its pulls, else the last one run. */
function settingOfSet(records: BuildRecords, session: DynoSession, { settingId, pullIds }: PullSet): DynoSetting {
  if (settingId !== undefined) return settingOf(session, settingId)
  const pulls = records.pulls.filter((pull) => pull.sessionId === session.id && (pullIds?.includes(pull.id) ?? pull.setAside === null))
  const last = [...pulls].sort((x, y) => x.position - y.position).at(-1)
  const settings = new Set(pulls.map((pull) => settingOf(session, pull.settingId)))
  if (pullIds && settings.size > 1)
    throw new CalculationError(
      'inconsistent',
      'pullIds',
      `These pulls ran on ${[...settings].map(({ name }) => name).join(' and ')}: different engines are never one set. Pick pulls of one setting.`,
    )
  return settingOf(session, last?.settingId ?? null)
}

function restated(records: BuildRecords, set: PullSet, isAsPrinted: boolean): RestatedSet {
  const { sessionId, pullIds } = set
  const session = records.sessions.find((entry) => entry.id === sessionId)
  if (!session) throw new CalculationError('unknown', 'session', 'This build has no such session. Pick one that is there.')
  const setting = settingOfSet(records, session, set)
  const factor = isAsPrinted ? 1 : standardFactor(session, setting, records.build)
  const isOfSetting = (pull: Pull) => pull.sessionId === sessionId && settingOf(session, pull.settingId) === setting
  const pulls = records.pulls
    .filter((pull) => isOfSetting(pull) && (pullIds ? pullIds.includes(pull.id) : pull.setAside === null))
    .sort((x, y) => x.position - y.position)
  const drawn = pulls.filter(({ curve }) => curve !== null)
  const curves = drawn.flatMap(({ curve }) => (curve ? [scaleCurve(curve, factor)] : []))
  if (curves.length === 0)
    throw new CalculationError(
      'missing',
      'session',
      pulls.length === 0
        ? `The session at ${session.dynoName} has no pull that counts. Import one, or take one back that was set aside.`
        : `${setting.name} at ${session.dynoName} has peaks alone, which have no band. The ladder compares peaks; import a curve to compare bands.`,
    )
  const mean = meanCurve(curves) as GridCurve
  return {
    session,
    setting,
    pulls: drawn,
    factor,
    pullIds: drawn.map(({ id }) => id),
    curves,
    meanCurve: mean,
    band90: powerband({ speedRpm: speedsOf(mean), value: mean.powerW }),
  }
}

const lastSpeed = (curve: GridCurve) => gridSpeedRpm(curve, curve.powerW.length - 1)

function commonBand(curves: readonly GridCurve[]): SpeedBand {
  const band = { fromRpm: Math.max(...curves.map((curve) => curve.firstSpeedRpm)), toRpm: Math.min(...curves.map(lastSpeed)) }
  if (band.toRpm - band.fromRpm < 100)
    throw new CalculationError('inconsistent', 'band', 'The pulls of the two sessions share no band of speed. They cannot be compared.')
  return band
}

const speedsOf = (curve: GridCurve) => curve.powerW.map((_, i) => gridSpeedRpm(curve, i))
const at = (curve: GridCurve, speedRpm: number) => itemAt(curve.powerW, Math.round((speedRpm - curve.firstSpeedRpm) / curve.stepRpm))

function compared({ setting, pulls, curves, meanCurve: meanOfAll }: RestatedSet, band: SpeedBand): ComparedSet {
  const torques = speedsOf(meanOfAll).flatMap((speed, i) =>
    speed >= band.fromRpm && speed <= band.toRpm ? [torqueFromPowerNm(itemAt(meanOfAll.powerW, i), speed)] : [],
  )
  const bandMeansW = curves.map((curve) => bandMean({ curve: { speedRpm: speedsOf(curve), powerW: curve.powerW }, ...band }).bySpeedW)
  const drift = bandMeansW.length < 4 ? null : attempt(() => driftOf(bandMeansW))
  return {
    bandMeansW,
    meanW: mean(bandMeansW),
    torqueFlatness: Math.min(...torques) / Math.max(...torques),
    drift: drift instanceof CalculationError ? null : drift,
    beside: besideMeans(setting, pulls, band, mean(bandMeansW)),
  }
}

function besideMeans(setting: DynoSetting, pulls: readonly Pull[], band: SpeedBand, powerW: number): BesideMeans {
  const meanOf = (key: 'intakeK' | 'lambda' | 'boostPa') => {
    const values = pulls.flatMap(({ alongside, curve }) =>
      (alongside?.[key] ?? []).filter((value, i): value is number => {
        const speed = curve ? gridSpeedRpm(curve, i) : Number.NaN
        return value !== null && speed >= band.fromRpm && speed <= band.toRpm
      }),
    )
    return values.length === 0 ? null : mean(values)
  }
  const boostPa = meanOf('boostPa') ?? (setting.boostControl === 'none' ? null : setting.boostPa)
  return { intakeK: meanOf('intakeK'), lambda: meanOf('lambda'), boostPa, boostPaPerW: boostPa === null ? null : boostPa / powerW }
}

function gains(first: readonly GridCurve[], second: readonly GridCurve[], band: SpeedBand, confidence: number): SetComparison['gainBySpeed'] {
  const speeds = speedsOf(itemAt(first, 0)).filter((speed) => speed >= band.fromRpm && speed <= band.toRpm)
  const enough = first.length > 1 && second.length > 1
  const quantile = enough ? studentTQuantile(1 - (1 - confidence) / 2, first.length + second.length - 2) : 0
  return speeds.map((speedRpm) => {
    const [x, y] = [first.map((curve) => at(curve, speedRpm)), second.map((curve) => at(curve, speedRpm))]
    const gainW = mean(y) - mean(x)
    if (!enough) return { speedRpm, gainW, lowW: null, highW: null }
    const half = quantile * Math.hypot(sampleSd(x) / Math.sqrt(x.length), sampleSd(y) / Math.sqrt(y.length))
    return { speedRpm, gainW, lowW: gainW - half, highW: gainW + half }
  })
}

function powerChangesBetween(records: BuildRecords, first: DynoSession, second: DynoSession): ComparableSets['changesBetween'] {
  const [from, to] = [Date.parse(first.at), Date.parse(second.at)].sort((x, y) => x - y) as [number, number]
  return records.changes.flatMap((change) => {
    const at = doneAtMs(change)
    return change.touchesPower && at !== null && at > from && at <= to ? [{ changeId: change.id, name: change.name }] : []
  })
}

function warningsOf(records: BuildRecords, a: RestatedSet, b: RestatedSet, changeCount: number): string[] {
  const warnings: string[] = []
  const [first, second] = [a.session, b.session]
  if (first.dynoName === second.dynoName && first.gear !== second.gear) warnings.push('The two were run in different gears.')
  if (a.setting.fuel !== b.setting.fuel && a.setting.fuel && b.setting.fuel) warnings.push(`The fuel differs: ${a.setting.fuel} and ${b.setting.fuel}.`)
  const [warm, cold] = [first.ambient?.temperatureK, second.ambient?.temperatureK]
  if (warm !== undefined && cold !== undefined && Math.abs(warm - cold) > 8)
    warnings.push(`The air differed by ${Math.abs(warm - cold).toFixed(0)} K between the two.`)
  if (a.setting.boostPa !== b.setting.boostPa && a.setting.boostPa !== null && b.setting.boostPa !== null) warnings.push('The boost differs.')
  if (changeCount > 1) warnings.push('More than one change lies between the two: the gain belongs to none of them alone.')
  if (visitKey(first) !== visitKey(second) && records.build.powerBasis.standard !== 'none' && (!first.ambient || !second.ambient))
    warnings.push('Without the air record of both, weather may stand in the difference.')
  return warnings
}
