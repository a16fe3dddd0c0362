import type { DynoSession, DynoSetting, Pull } from '../../records/power-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { peakFigures, settingOf, settingPower } from './session-power.ts'

/** How far two settings may differ and still be one (common practice, no source). */
const ETHANOL_TOLERANCE = 0.05
const BOOST_TOLERANCE_PA = 5000

const NITROUS_SHARE = 0.05

const isSameShot = (a: number, b: number) => Math.abs(a - b) <= NITROUS_SHARE * Math.max(a, b)
const within = (a: number | null, b: number | null, tolerance: number) => (a === null || b === null ? a === b : Math.abs(a - b) <= tolerance + 1e-9)
const words = (text: string | null) => (text ?? '').trim().toLowerCase().replace(/\s+/g, ' ')

/**
 * Whether two settings are one engine: ethanol within 0.05, boost within 5 kPa under the same control, the same shot of nitrous within 5 %, and what was set reads the same. One without an ethanol
 * share is like none but another without.
 * @example isSameSetting(EXAMPLE.sessions[0].settings[0], { ...EXAMPLE.sessions[0].settings[0], wasSet: 'new plugs' }) // false
 */
export const isSameSetting = (a: DynoSetting, b: DynoSetting): boolean =>
  within(a.ethanolShare, b.ethanolShare, ETHANOL_TOLERANCE) &&
  a.boostControl === b.boostControl &&
  within(a.boostPa, b.boostPa, BOOST_TOLERANCE_PA) &&
  isSameShot(a.nitrousShot?.powerW ?? 0, b.nitrousShot?.powerW ?? 0) &&
  words(a.wasSet) === words(b.wasSet)

/** The day of an instant where this runs, as people there count days. */
function localDay(instant: string): string {
  const at = new Date(instant)
  return `${at.getFullYear()}-${at.getMonth() + 1}-${at.getDate()}`
}

/**
 * One dyno, one day: its sessions are one visit, and never confirm or contradict each other.
 * @example visitKey({ dynoName: 'Hall', place: 'hub', at: '2026-06-14T12:00:00Z' }) // 'hall hub 2026-6-14'
 */
export const visitKey = ({ dynoName, place, at }: Pick<DynoSession, 'dynoName' | 'place' | 'at'>): string =>
  `${dynoName.trim().toLowerCase()} ${place} ${localDay(at)}`

/** A pull with the factor that brings it to the build's basis. */
export interface RestatedPull {
  readonly pull: Pull
  readonly factor: number
}

/** The pulls of one setting at one visit, on the build's basis. */
export interface PowerRun {
  /** The latest of the visit's sessions at this setting. */
  readonly session: DynoSession
  readonly sessionIds: readonly string[]
  readonly setting: DynoSetting
  readonly visit: string
  readonly pulls: readonly RestatedPull[]
  readonly value: number
  readonly sd: number
  readonly pullSd: number
  /** When its last pull was run: by session, then by the order within. */
  readonly order: readonly [number, number]
}

interface Piece {
  readonly session: DynoSession
  readonly setting: DynoSetting
  readonly pulls: readonly RestatedPull[]
}

const lastPosition = (pulls: readonly RestatedPull[]) => Math.max(...pulls.map(({ pull }) => pull.position))

/** Some pieces of one visit and one setting, the earliest first, put together. */
function runOf(pieces: readonly [Piece, ...Piece[]], setting: DynoSetting): PowerRun {
  const last = pieces.at(-1) ?? pieces[0]
  const pulls = pieces.flatMap((piece) => piece.pulls)
  return {
    session: last.session,
    sessionIds: pieces.map(({ session }) => session.id),
    setting,
    visit: visitKey(last.session),
    pulls,
    ...peakFigures(pulls.map(({ pull, factor }) => pull.peakPowerW * factor)),
    order: [Date.parse(last.session.at), lastPosition(last.pulls)],
  }
}

const isLater = (a: PowerRun, b: PowerRun) => a.order[0] - b.order[0] || a.order[1] - b.order[1]

/**
 * The runs of some sessions that count on the build's basis, the earliest first: the pulls of one setting at one visit are one run. Settings are grouped to
 * the earliest that they are the same as, never in a chain.
 */
export function powerRuns(records: BuildRecords, sessions: readonly DynoSession[]): PowerRun[] {
  const leaders: DynoSetting[] = []
  const pieces = new Map<string, [Piece, ...Piece[]]>()
  const leaderOf = new Map<string, DynoSetting>()
  for (const session of [...sessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    for (const setting of session.settings) {
      const power = settingPower(records, session, setting)
      if (!power.ok) continue
      const known = leaders.findIndex((leader) => isSameSetting(leader, setting))
      const at = known < 0 ? leaders.push(setting) - 1 : known
      const key = `${at} ${visitKey(session)} ${records.build.powerBasis.standard === 'asPrinted' ? session.printedStandard : ''}`
      const piece = { session, setting, pulls: power.pulls.map((pull) => ({ pull, factor: power.factor })) }
      const there = pieces.get(key)
      pieces.set(key, there ? [...there, piece] : [piece])
      leaderOf.set(key, leaders[at] ?? setting)
    }
  }
  return [...pieces].map(([key, list]) => runOf(list, leaderOf.get(key) ?? list[0].setting)).sort(isLater)
}

/** A run cut down to the pulls that somebody picked to stand. */
export function pickedRun(records: BuildRecords, session: DynoSession, settingId: string | null, pullIds: readonly string[]): PowerRun | undefined {
  const first = records.pulls.find(({ id }) => pullIds.includes(id))
  const setting = settingOf(session, settingId ?? first?.settingId ?? null)
  const power = settingPower(records, session, setting, pullIds)
  return power.ok ? runOf([{ session, setting, pulls: power.pulls.map((pull) => ({ pull, factor: power.factor })) }], setting) : undefined
}
