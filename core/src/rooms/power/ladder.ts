import { bandMean } from '../../dyno/band-mean.ts'
import { comparePulls } from '../../dyno/compare-pulls.ts'
import { type GridCurve, gridSpeedRpm, meanCurve } from '../../dyno/curve.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import type { DynoSession, DynoSetting, Pull } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { mean, sampleSd } from '../../stats/moments.ts'
import type { SpeedBand } from './compare-sets.ts'
import { settingOf } from './session-power.ts'
import { isSameSetting, visitKey } from './visits.ts'

/** Pull to pull spread of a dyno that nobody has pulls of yet, as a share (common practice, no source). */
export const PULL_TO_PULL = 0.01
/** 19 times in 20 of a normal spread. */
const NINETEEN_IN_TWENTY = 1.96

/** What was changed from one setting to the next. */
export type SettingChange =
  | { readonly kind: 'boost' }
  | { readonly kind: 'fuel' }
  | { readonly kind: 'nitrous' }
  | { readonly kind: 'set'; readonly text: string }

/** A difference with what lies within it 19 times in 20. */
export interface Gain {
  readonly differenceW: number
  readonly lowW: number
  readonly highW: number
  readonly isReal: boolean
}

export interface Rung {
  readonly sessionId: string
  readonly setting: DynoSetting
  readonly pullIds: readonly string[]
  /** Mean of its pulls' peaks, as printed. */
  readonly peakW: number
  readonly peakSpeedRpm: number | null
  /** Mean power in the band; null for peaks alone. */
  readonly meanW: number | null
  /** Of its pulls, as printed; null for peaks alone. */
  readonly curve: GridCurve | null
  /** Since the rung before; none on the first. */
  readonly changes: readonly SettingChange[]
  readonly onBefore: { readonly peak: Gain; readonly mean: Gain | null } | null
  readonly onFirst: { readonly peak: Gain; readonly changeCount: number } | null
  /** The smallest difference to the rung before that these pulls would show as real. */
  readonly smallestRealW: number | null
}

export interface Ladder {
  readonly visit: string
  readonly session: DynoSession
  readonly rungs: readonly Rung[]
  /** Where all curves have pulls; null without two curves. */
  readonly band: SpeedBand | null
  /** Pull to pull spread that single pulls are judged by, and from how many earlier pulls it comes; 0: the default. */
  readonly spread: { readonly share: number; readonly pullCount: number }
}

interface Group {
  readonly session: DynoSession
  readonly setting: DynoSetting
  readonly pulls: readonly Pull[]
}

const setParts = ({ wasSet }: DynoSetting) =>
  (wasSet ?? '')
    .split(/[;,\n]/)
    .map((part) => part.trim())
    .filter(Boolean)

/**
 * What was changed from one setting to another: boost, fuel, and each thing set that was not set before.
 * @example settingChanges(EXAMPLE.sessions[0].settings[0], EXAMPLE.sessions[0].settings[0]) // []
 */
export function settingChanges(before: DynoSetting, after: DynoSetting): SettingChange[] {
  const plain = { ...before, wasSet: null }
  const known = setParts(before).map((part) => part.toLowerCase())
  const boost = { boostControl: after.boostControl, boostPa: after.boostPa }
  const fuelDiffers = !isSameSetting(plain, { ...plain, ethanolShare: after.ethanolShare }) || (before.fuel ?? '') !== (after.fuel ?? '')
  return [
    ...(isSameSetting(plain, { ...plain, ...boost }) ? [] : [{ kind: 'boost' as const }]),
    ...(isSameSetting(plain, { ...plain, nitrousShot: after.nitrousShot }) ? [] : [{ kind: 'nitrous' as const }]),
    ...(fuelDiffers ? [{ kind: 'fuel' as const }] : []),
    ...setParts(after).flatMap((text) => (known.includes(text.toLowerCase()) ? [] : [{ kind: 'set' as const, text }])),
  ]
}

/** The settings of some sessions that have pulls, in the order they were first run; pulls of one setting together. */
function groupsOf(records: BuildRecords, sessions: readonly DynoSession[]): Group[] {
  const groups: { session: DynoSession; setting: DynoSetting; pulls: Pull[] }[] = []
  for (const session of [...sessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    const pulls = records.pulls.filter((pull) => pull.sessionId === session.id && pull.setAside === null).sort((a, b) => a.position - b.position)
    for (const pull of pulls) {
      const setting = settingOf(session, pull.settingId)
      const group = groups.find((entry) => isSameSetting(entry.setting, setting))
      if (group) group.pulls.push(pull)
      else groups.push({ session, setting, pulls: [pull] })
    }
  }
  return groups
}

/**
 * The visits that ran more than one setting, the latest first, each by its key with one of its sessions.
 * @example ladderVisits(EXAMPLE) // []
 */
export function ladderVisits(records: BuildRecords): { readonly visit: string; readonly session: DynoSession }[] {
  const latestFirst = [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  const visits = new Map(latestFirst.map((session) => [visitKey(session), session]))
  return [...visits].flatMap(([visit, session]) => {
    const sessions = records.sessions.filter((entry) => visitKey(entry) === visit)
    return groupsOf(records, sessions).length > 1 ? [{ visit, session }] : []
  })
}

/** Pull to pull spread of a dyno as a share, pooled over the settings of its earlier visits that have two pulls or more. */
function dynoSpread(records: BuildRecords, { dynoName, place, at }: DynoSession, visit: string): Ladder['spread'] {
  const earlier = records.sessions.filter(
    (session) => session.dynoName === dynoName && session.place === place && Date.parse(session.at) < Date.parse(at) && visitKey(session) !== visit,
  )
  let [squares, freedom, pullCount] = [0, 0, 0]
  for (const session of earlier) {
    for (const { pulls } of groupsOf(records, [session])) {
      if (pulls.length < 2) continue
      const peaks = pulls.map(({ peakPowerW }) => peakPowerW)
      squares += (pulls.length - 1) * (sampleSd(peaks) / mean(peaks)) ** 2
      freedom += pulls.length - 1
      pullCount += pulls.length
    }
  }
  return freedom === 0 ? { share: PULL_TO_PULL, pullCount: 0 } : { share: Math.sqrt(squares / freedom), pullCount }
}

/**
 * Second less first of two sets of numbers of one visit, whose common error cancels: by Welch where both have two pulls or more, else normal with the dyno's own
 * spread, 1.96 sd. Source: closed forms.
 */
function gainOf(first: readonly number[], second: readonly number[], share: number): Gain {
  if (first.length > 1 && second.length > 1) {
    const { difference, low, high, verdict } = comparePulls({ first, second })
    return { differenceW: difference, lowW: low ?? difference, highW: high ?? difference, isReal: verdict === 'real' }
  }
  const differenceW = mean(second) - mean(first)
  const sd = Math.hypot(...[first, second].map((set) => (share * mean(set)) / Math.sqrt(set.length)))
  const half = NINETEEN_IN_TWENTY * sd
  return { differenceW, lowW: differenceW - half, highW: differenceW + half, isReal: Math.abs(differenceW) > half }
}

const speedsOf = (curve: GridCurve) => curve.powerW.map((_, i) => gridSpeedRpm(curve, i))
const curvesOf = ({ pulls }: Group) => pulls.flatMap(({ curve }) => curve ?? [])

function commonBand(groups: readonly Group[]): SpeedBand | null {
  const curves = groups.flatMap(curvesOf)
  if (groups.filter((group) => curvesOf(group).length > 0).length < 2) return null
  const band = {
    fromRpm: Math.max(...curves.map((curve) => curve.firstSpeedRpm)),
    toRpm: Math.min(...curves.map((curve) => gridSpeedRpm(curve, curve.powerW.length - 1))),
  }
  return band.toRpm - band.fromRpm < 100 ? null : band
}

/**
 * The settings of a visit in the order they were run, each with its gain on the one before and on the first, as printed. Rejects a visit that is not there, one
 * with a single setting, sessions of one visit that printed in different standards, and a band outside what the curves share.
 * @example ladderOf(EXAMPLE, 'nowhere') // throws unknown
 */
export function ladderOf(records: BuildRecords, visit: string, wanted?: SpeedBand): Ladder {
  const sessions = records.sessions.filter((session) => visitKey(session) === visit)
  const [first] = sessions
  if (!first) throw new CalculationError('unknown', 'visit', 'This build has no such visit to a dyno. Pick one that is there.')
  if (new Set(sessions.map(({ printedStandard }) => printedStandard)).size > 1)
    throw new CalculationError('inconsistent', 'visit', 'The sessions of this visit printed in different standards, so their powers do not compare as printed.')
  const groups = groupsOf(records, sessions)
  if (groups.length < 2)
    throw new CalculationError('missing', 'visit', 'This visit ran one setting. A ladder needs two: give the session another setting, and pulls on it.')
  const shared = commonBand(groups)
  if (wanted && (!shared || wanted.fromRpm < shared.fromRpm || wanted.toRpm > shared.toRpm || !(wanted.toRpm > wanted.fromRpm)))
    throw new CalculationError(
      'out-of-range',
      'band',
      shared
        ? `All these pulls cover ${shared.fromRpm} to ${shared.toRpm} rpm. Pick a band inside it.`
        : 'These settings have no two curves, so no band. Leave it empty.',
    )
  const band = wanted ?? shared
  const spread = dynoSpread(records, first, visit)
  const peaks = (group: Group) => group.pulls.map(({ peakPowerW }) => peakPowerW)
  const means = (group: Group) =>
    band === null ? [] : curvesOf(group).map((curve) => bandMean({ curve: { speedRpm: speedsOf(curve), powerW: curve.powerW }, ...band }).bySpeedW)
  let changeCount = 0
  const rungs = groups.map((group, at): Rung => {
    const before = at > 0 ? itemAt(groups, at - 1) : null
    const changes = before ? settingChanges(before.setting, group.setting) : []
    changeCount += changes.length
    const own = means(group)
    const meansBefore = before ? means(before) : []
    const peakGain = before && gainOf(peaks(before), peaks(group), spread.share)
    return {
      sessionId: group.session.id,
      setting: group.setting,
      pullIds: group.pulls.map(({ id }) => id),
      peakW: mean(peaks(group)),
      peakSpeedRpm: group.pulls.length === 1 ? (group.pulls[0]?.peakPowerSpeedRpm ?? null) : peakSpeed(group),
      meanW: own.length > 0 ? mean(own) : null,
      curve: meanCurve(curvesOf(group)) ?? null,
      changes,
      onBefore: peakGain && { peak: peakGain, mean: own.length > 0 && meansBefore.length > 0 ? gainOf(meansBefore, own, spread.share) : null },
      onFirst: at === 0 ? null : { peak: gainOf(peaks(itemAt(groups, 0)), peaks(group), spread.share), changeCount },
      smallestRealW: peakGain && peakGain.highW - peakGain.differenceW,
    }
  })
  return { visit, session: first, rungs, band, spread }
}

/** Where the mean curve of several pulls is greatest; null for peaks alone. */
function peakSpeed(group: Group): number | null {
  const curve = meanCurve(curvesOf(group))
  return curve ? gridSpeedRpm(curve, curve.powerW.indexOf(Math.max(...curve.powerW))) : null
}

/**
 * Power of a curve at one speed of its range, between grid points by a straight line; null outside.
 * @example powerAtSpeed({ stepRpm: 50, firstSpeedRpm: 3000, powerW: [60_000, 62_000] }, 3025) // 61000
 */
export function powerAtSpeed(curve: GridCurve, speedRpm: number): number | null {
  const place = (speedRpm - curve.firstSpeedRpm) / curve.stepRpm
  const low = Math.floor(place)
  if (!(place >= 0) || place > curve.powerW.length - 1) return null
  const high = Math.min(low + 1, curve.powerW.length - 1)
  return itemAt(curve.powerW, low) + (place - low) * (itemAt(curve.powerW, high) - itemAt(curve.powerW, low))
}

/**
 * The lowest speed at which a curve reaches a power; null where it never does.
 * @example speedAtPower({ stepRpm: 50, firstSpeedRpm: 3000, powerW: [60_000, 62_000] }, 61_000) // 3025
 */
export function speedAtPower(curve: GridCurve, powerW: number): number | null {
  const at = curve.powerW.findIndex((value) => value >= powerW)
  if (at < 0) return null
  if (at === 0) return curve.firstSpeedRpm
  const [low, high] = [itemAt(curve.powerW, at - 1), itemAt(curve.powerW, at)]
  return gridSpeedRpm(curve, at - 1) + curve.stepRpm * ((powerW - low) / (high - low))
}
