import { BOOST_SCHOOL_WORDS, type BoostSchool, correctionFactor } from '../../dyno/correction.ts'
import { CalculationError } from '../../errors.ts'
import type { DynoSession, Pull, Standing } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { mean, sampleSd } from '../../stats/moments.ts'

/** A session's power on the build's basis, or why it counts for no target. */
export type SessionPower =
  | {
      readonly ok: true
      readonly value: number
      readonly sd: number
      readonly factor: number
      readonly pulls: readonly Pull[]
      readonly pullSd: number
    }
  | { readonly ok: false; readonly reason: string }

/** Two visits to a dyno differ by about 1 % beyond pull to pull (common practice, no source). */
export const BETWEEN_SESSIONS = 0.01

/** The school by which a session's power under boost is corrected: its own choice, else the build's; undefined without boost. */
export const schoolOf = (session: DynoSession, build: BuildRecords['build']): BoostSchool | undefined =>
  session.boostControl === 'none' ? undefined : (session.boostSchool ?? build.powerBasis.boostSchool)

/** As `standardFactor`, and only for a session whose school is the build's: schools are never mixed. Rejects, with the reason, a session where there is none. */
export function basisFactor(session: DynoSession, build: BuildRecords['build']): number {
  const school = schoolOf(session, build)
  const counted = build.powerBasis.boostSchool
  if (session.place === build.powerBasis.place && school !== undefined && school !== counted)
    throw new CalculationError(
      'inconsistent',
      'boostSchool',
      `Its power under boost is ${BOOST_SCHOOL_WORDS[school]} and the build counts power ${BOOST_SCHOOL_WORDS[counted]}; schools are never mixed. Pick the build’s school for it, or another for the build.`,
    )
  return standardFactor(session, build)
}

/** The factor from the printed power of a session to the build's place and standard by the session's own school. Rejects, with the reason, a session where there is none: `inconsistent` or `missing`. */
export function standardFactor(session: DynoSession, build: BuildRecords['build']): number {
  const basis = build.powerBasis
  if (session.place !== basis.place) {
    throw new CalculationError(
      'inconsistent',
      'place',
      `It was measured at the ${session.place} and the build counts power at the ${basis.place}; the two are never converted silently.`,
    )
  }
  const school = schoolOf(session, build)
  const printsAlike = session.printedStandard === basis.standard
  if (printsAlike && (school === undefined || school === 'asNaturallyAspirated' || basis.standard === 'none')) return 1
  const { ambient } = session
  if (!ambient) {
    const what = printsAlike
      ? `the ${basis.standard} correction of an engine under boost cannot be redone`
      : `${session.printedStandard} cannot be restated as ${basis.standard}`
    throw new CalculationError('missing', 'ambient', `Without its air record ${what}. Add pressure, temperature and humidity of that day.`)
  }
  if (ambient.pressureKind === 'seaLevel') {
    throw new CalculationError('inconsistent', 'ambient', 'Its pressure is reduced to sea level. Give the station pressure at the dyno.')
  }
  const printed = correctionFactor({ standard: session.printedStandard, air: ambient }).factor
  return correctionFactor({ standard: basis.standard, air: ambient, boostSchool: school }).factor / printed
}

/**
 * Value of a session: mean of its standing pulls' peaks on the build's basis; sd = √(s²/n + (1 % of P)²), and with one pull s = 1 % of P.
 * Source: common practice, no source.
 */
export function sessionPower(records: BuildRecords, session: DynoSession, standing?: Standing): SessionPower {
  const pulls = records.pulls.filter((pull) => pull.sessionId === session.id && pull.setAside === null && (!standing || standing.pullIds.includes(pull.id)))
  if (pulls.length === 0) return { ok: false, reason: 'It has no pull that stands. Import pulls, or take one back in.' }
  try {
    const factor = basisFactor(session, records.build)
    const peaks = pulls.map((pull) => pull.peakPowerW * factor)
    const value = mean(peaks)
    const pullSd = peaks.length > 1 ? sampleSd(peaks) : BETWEEN_SESSIONS * value
    return { ok: true, value, sd: Math.hypot(pullSd / Math.sqrt(peaks.length), BETWEEN_SESSIONS * value), factor, pulls, pullSd }
  } catch (error) {
    if (error instanceof CalculationError) return { ok: false, reason: error.message }
    throw error
  }
}
