import { BOOST_SCHOOL_WORDS, type BoostSchool, correctionFactor } from '../../dyno/correction.ts'
import { CalculationError } from '../../errors.ts'
import type { DynoSession, DynoSetting, Pull } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { mean, sampleSd } from '../../stats/moments.ts'

/** Two visits to a dyno differ by about 1 % beyond pull to pull (common practice, no source). */
export const BETWEEN_SESSIONS = 0.01

/**
 * The setting that a pull ran on: the one it names, else the first of its session.
 * @example settingOf(EXAMPLE.sessions[0], null).id // 'first'
 */
export const settingOf = ({ settings }: DynoSession, settingId: string | null): DynoSetting =>
  settings.find(({ id }) => id === settingId) ?? (settings[0] as DynoSetting)

/** The school by which power under boost is corrected at a setting: the session's own choice, else the build's; undefined without boost. */
export const schoolOf = (session: DynoSession, setting: DynoSetting, build: BuildRecords['build']): BoostSchool | undefined =>
  setting.boostControl === 'none' ? undefined : (session.boostSchool ?? build.powerBasis.boostSchool)

/**
 * As `standardFactor`, and only for a setting whose school is the build's: schools are never mixed. Rejects, with the reason, a session where there is none.
 * @example basisFactor(EXAMPLE.sessions[0], EXAMPLE.sessions[0].settings[0], EXAMPLE.build) // 1
 */
export function basisFactor(session: DynoSession, setting: DynoSetting, build: BuildRecords['build']): number {
  const school = schoolOf(session, setting, build)
  const { boostSchool: counted, place, standard } = build.powerBasis
  if (standard !== 'asPrinted' && session.place === place && school !== undefined && school !== counted)
    throw new CalculationError(
      'inconsistent',
      'boostSchool',
      `Its power under boost is ${BOOST_SCHOOL_WORDS[school]} and the build counts power ${BOOST_SCHOOL_WORDS[counted]}; schools are never mixed. Pick the build’s school for it, or another for the build.`,
    )
  return standardFactor(session, setting, build)
}

/**
 * The factor from the printed power of a setting to the build's place and standard by the session's own school; 1 where the build counts as printed. Rejects,
 * with the reason, a session where there is none: `inconsistent` or `missing`.
 */
export function standardFactor(session: DynoSession, setting: DynoSetting, build: BuildRecords['build']): number {
  const basis = build.powerBasis
  if (session.place !== basis.place) {
    throw new CalculationError(
      'inconsistent',
      'place',
      `It was measured at the ${session.place} and the build counts power at the ${basis.place}; the two are never converted silently.`,
    )
  }
  if (basis.standard === 'asPrinted') return 1
  const school = schoolOf(session, setting, build)
  const printsAlike = session.printedStandard === basis.standard
  if (printsAlike && (school === undefined || school === 'asNaturallyAspirated' || basis.standard === 'none')) return 1
  const { ambient } = session
  if (!ambient) {
    const what = printsAlike
      ? `the ${basis.standard} correction of an engine under boost cannot be redone`
      : `${session.printedStandard === 'none' ? 'observed power' : session.printedStandard} cannot be restated as ${basis.standard === 'none' ? 'observed' : basis.standard}`
    throw new CalculationError(
      'missing',
      'ambient',
      `Without its air record ${what}. Add pressure, temperature and humidity of that day, or let the build count power as printed.`,
    )
  }
  if (ambient.pressureKind === 'seaLevel') {
    throw new CalculationError('inconsistent', 'ambient', 'Its pressure is reduced to sea level. Give the station pressure at the dyno.')
  }
  const printed = correctionFactor({ standard: session.printedStandard, air: ambient }).factor
  return correctionFactor({ standard: basis.standard, air: ambient, boostSchool: school }).factor / printed
}

/** The peaks of some pulls put together, on the build's basis. */
export interface PeakFigures {
  readonly value: number
  /** √(s²/n + (1 % of P)²). */
  readonly sd: number
  /** Pull to pull, one pull's; 1 % of the value for a single pull. */
  readonly pullSd: number
}

/**
 * Mean of peaks; sd = √(s²/n + (1 % of P)²), and with one pull s = 1 % of P. Source: common practice, no source.
 * @example peakFigures([118_000]).pullSd // 1180
 */
export function peakFigures(peaksW: readonly number[]): PeakFigures {
  const value = mean(peaksW)
  const pullSd = peaksW.length > 1 ? sampleSd(peaksW) : BETWEEN_SESSIONS * value
  return { value, pullSd, sd: Math.hypot(pullSd / Math.sqrt(peaksW.length), BETWEEN_SESSIONS * value) }
}

/** A setting's power of one session on the build's basis, or why it counts for no target. */
export type SettingPower =
  | (PeakFigures & { readonly ok: true; readonly factor: number; readonly pulls: readonly Pull[] })
  | { readonly ok: false; readonly reason: string }

/** The power of one setting of a session: of its pulls that are not set aside, or of the named ones. */
export function settingPower(records: BuildRecords, session: DynoSession, setting: DynoSetting, pullIds?: readonly string[]): SettingPower {
  const pulls = records.pulls.filter(
    (pull) => pull.sessionId === session.id && pull.setAside === null && settingOf(session, pull.settingId) === setting && (pullIds?.includes(pull.id) ?? true),
  )
  if (pulls.length === 0) return { ok: false, reason: 'It has no pull that stands. Import pulls, or take one back in.' }
  try {
    const factor = basisFactor(session, setting, records.build)
    return { ok: true, ...peakFigures(pulls.map((pull) => pull.peakPowerW * factor)), factor, pulls }
  } catch (error) {
    if (error instanceof CalculationError) return { ok: false, reason: error.message }
    throw error
  }
}

/** As `settingPower`, of the pulls that somebody picked to stand where that was done. */
export function standingPower(records: BuildRecords, session: DynoSession, setting: DynoSetting): SettingPower {
  const standing = records.standings.find((entry) => entry.sessionId === session.id && entry.stageId === session.stageId)
  const isPicked = standing !== undefined && (standing.settingId === null || standing.settingId === setting.id)
  const picked = isPicked ? settingPower(records, session, setting, standing.pullIds) : undefined
  return picked?.ok ? picked : settingPower(records, session, setting)
}
