import type { Check, CheckKind, GapNature, Round } from '../../records/check-kinds.ts'
import type { Place } from '../../records/common-fields.ts'
import type { BuildRecord } from '../../records/plan-kinds.ts'

/** What a check of a kind takes, min (common practice, no source). */
const USUAL_MINUTES: Readonly<Record<CheckKind, number>> = { bolt: 0.25, look: 0.5, gear: 0.5, take: 0.2, reading: 0.2, level: 1, gap: 2 }

/** Words of what is safety where nobody said otherwise: brakes, steering, wheels, belts (common practice, no source). */
const SAFETY_WORDS = /\b(brakes?|calipers?|steering|wheels?|belts?|harness|pads?|discs?)\b/i

/** Room that a gap wants by what it is to, m (common practice, no source). */
const USUAL_NEED: Readonly<Record<GapNature, number>> = { moving: 0.025, hot: 0.05, fixed: 0.003, service: 0.04 }

/**
 * Minutes of a check: its own, else what its kind usually takes; each of several bolts takes its time.
 * @example minutesOf({ kind: 'level', minutes: null, bolt: null }) // 1
 */
export const minutesOf = ({ kind, minutes, bolt }: Pick<Check, 'kind' | 'minutes' | 'bolt'>): number => minutes ?? USUAL_MINUTES[kind] * (bolt?.count ?? 1)

/**
 * Whether an event is not fit without it: as it says, else gear, and bolts of brakes, steering, wheels and belts.
 * @example isSafety({ kind: 'bolt', name: 'Front caliper LF', isSafety: null }) // true
 */
export const isSafety = ({ kind, name, isSafety: own }: Pick<Check, 'kind' | 'name' | 'isSafety'>): boolean =>
  own ?? (kind === 'gear' || (kind === 'bolt' && SAFETY_WORDS.test(name)))

/**
 * Whether it is due when something near was worked on: as it says, else bolts, looks and gaps.
 * @example isDueWhenTouched({ kind: 'gap', whenTouched: null }) // true
 */
export const isDueWhenTouched = ({ kind, whenTouched }: Pick<Check, 'kind' | 'whenTouched'>): boolean =>
  whenTouched ?? (kind === 'bolt' || kind === 'look' || kind === 'gap')

/**
 * What a gap has to keep, m: as it says, else what its nature usually wants.
 * @example needOfGap({ nature: 'moving', needM: null }) // 0.025
 */
export const needOfGap = ({ nature, needM }: { readonly nature: GapNature; readonly needM: number | null }): number => needM ?? USUAL_NEED[nature]

/** A check to start from: what of it is not as usual, and where it sits as shares of wheelbase and half track. */
interface Start extends Partial<Omit<Check, 'place' | 'id' | 'name' | 'kind'>> {
  readonly at?: readonly [along: number, left: number, upM: number]
}
type Line = readonly [kind: CheckKind, name: string, rounds: readonly Round[], more?: Start]

const bolts = (count: number) => ({ count, torqueNm: null, from: null })
const C = 273.15
const limits = (quantity: 'temperature' | 'pressure', own: { stopLow?: number; warnLow?: number; warnHigh?: number; stopHigh?: number }, role: string) => ({
  quantity,
  role,
  stopLow: null,
  warnLow: null,
  warnHigh: null,
  stopHigh: null,
  forS: quantity === 'pressure' ? 0.1 : 2,
  aboveMps: null,
  secondSensor: false,
  sd: null,
  ...own,
})
const RUNS: readonly Round[] = ['beforeRun', 'between', 'event']
const LOOKS: readonly Round[] = ['firstStart', 'between', 'afterRun']

const COMMON: readonly Line[] = [
  ['bolt', 'Wheel nuts, left front', RUNS, { at: [0, 1, 0.3], bolt: bolts(5), zone: 'front' }],
  ['bolt', 'Wheel nuts, left rear', RUNS, { at: [1, 1, 0.3], bolt: bolts(5), zone: 'rear' }],
  ['bolt', 'Wheel nuts, right rear', RUNS, { at: [1, -1, 0.3], bolt: bolts(5), zone: 'rear' }],
  ['bolt', 'Wheel nuts, right front', RUNS, { at: [0, -1, 0.3], bolt: bolts(5), zone: 'front' }],
  ['bolt', 'Front calipers', ['between', 'event'], { at: [-0.02, 0.7, 0.3], bolt: bolts(4), zone: 'front' }],
  ['bolt', 'Rear calipers', ['between', 'event'], { at: [1.04, 0.7, 0.3], bolt: bolts(4), zone: 'rear' }],
  ['bolt', 'Steering rack and column', ['event'], { at: [0.06, 0.25, 0.3], bolt: bolts(6), zone: 'front' }],
  ['bolt', 'Arms and mounts, front', ['event', 'between'], { at: [0.02, -0.5, 0.25], bolt: bolts(8), minutes: 1.5, isSafety: true, zone: 'front' }],
  ['bolt', 'Arms and mounts, rear', ['event'], { at: [0.98, -0.5, 0.25], bolt: bolts(8), minutes: 1.5, isSafety: true, zone: 'rear' }],
  ['bolt', 'Seat and its mounts', ['event', 'scrutineering'], { at: [0.55, 0.4, 0.3], bolt: bolts(4), isSafety: true, zone: 'cabin' }],
  ['level', 'Engine oil', ['firstStart', 'beforeRun', 'event'], { at: [-0.08, -0.2, 0.6], level: { fluid: 'engine oil' }, zone: 'engine bay' }],
  ['level', 'Coolant, cold', ['firstStart', 'event'], { at: [-0.15, 0.3, 0.6], level: { fluid: 'coolant' }, zone: 'engine bay' }],
  ['level', 'Brake fluid', ['firstStart', 'event'], { at: [0.15, 0.5, 0.7], level: { fluid: 'brake fluid' }, isSafety: true, zone: 'engine bay' }],
  ['look', 'Fuel lines, filter, smell', LOOKS, { at: [1.02, 0.1, 0.3], isSafety: true, zone: 'rear' }],
  ['look', 'Oil lines and turbo drain', LOOKS, { at: [-0.1, 0.05, 0.5], zone: 'engine bay' }],
  ['look', 'Coolant hoses and clips', LOOKS, { at: [-0.2, -0.1, 0.5], zone: 'engine bay' }],
  ['look', 'Brake pipes and hoses', LOOKS, { at: [0.12, 0.8, 0.3], isSafety: true, zone: 'front' }],
  ['look', 'Main switch stops the engine', ['scrutineering'], { at: [0.25, 0.95, 0.8], isSafety: true, zone: 'cabin' }],
  ['gear', 'Belts', ['event', 'scrutineering'], { at: [0.6, 0.4, 0.6], zone: 'cabin' }],
  ['gear', 'Helmet and suit', ['scrutineering'], { zone: 'cabin' }],
  ['gear', 'Extinguisher', ['event', 'scrutineering'], { at: [0.45, 0, 0.3], zone: 'cabin' }],
  ['take', 'Torque wrench, 10 to 120 Nm', ['event'], {}],
  [
    'reading',
    'Coolant',
    ['between', 'dyno'],
    { reading: limits('temperature', { warnHigh: C + 100, stopHigh: C + 105 }, 'coolant'), at: [-0.18, 0, 0.6], zone: 'engine bay' },
  ],
  [
    'reading',
    'Engine oil temperature',
    ['between', 'dyno'],
    { reading: limits('temperature', { warnHigh: C + 125, stopHigh: C + 130 }, 'oilTemperature'), at: [-0.05, -0.3, 0.4], zone: 'engine bay' },
  ],
]

const OF_DISCIPLINE: Readonly<Record<BuildRecord['discipline'], readonly Line[]>> = {
  timeAttack: [
    ['bolt', 'Wing mounts and second retention', RUNS, { at: [1.25, 0.3, 1], bolt: bolts(8), isSafety: true, zone: 'rear' }],
    ['bolt', 'Splitter struts and pins', RUNS, { at: [-0.3, 0.4, 0.2], bolt: bolts(4), isSafety: true, zone: 'front' }],
  ],
  track: [
    ['look', 'Tow eyes', ['scrutineering'], { at: [-0.3, 0.3, 0.4], zone: 'front' }],
    ['look', 'Tyres: cuts and wear', RUNS, { at: [0.5, 1, 0.3], isSafety: true }],
  ],
  drift: [
    ['look', 'Steering stops and knuckles', RUNS, { at: [0.02, 0.8, 0.3], isSafety: true, zone: 'front' }],
    ['look', 'Rear lever and its line', RUNS, { at: [0.6, 0.1, 0.5], isSafety: true, zone: 'cabin' }],
  ],
}

/** A check as it is written, without an id. */
export type CheckBody = Omit<Check, 'id'>

/**
 * The usual list that a build starts from: 26 checks by its discipline, in their places (common practice, no source); struck and added to.
 * @example usualChecks({ discipline: 'drift', wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 }).length // 26
 */
export function usualChecks({
  discipline,
  wheelbaseM,
  trackFrontM,
  trackRearM,
}: Pick<BuildRecord, 'discipline' | 'wheelbaseM' | 'trackFrontM' | 'trackRearM'>): CheckBody[] {
  const half = (along: number) => (along < 0.5 ? trackFrontM : trackRearM) / 2
  return [...COMMON, ...OF_DISCIPLINE[discipline]].map(([kind, name, rounds, { at, ...more } = {}]): CheckBody => {
    const place: Place | null = at ? { xM: at[0] * wheelbaseM, yM: at[1] * half(at[0]), zM: at[2] } : null
    return {
      kind,
      name,
      zone: null,
      place,
      partId: null,
      rounds: [...rounds],
      minutes: null,
      tool: null,
      isSafety: null,
      every: null,
      whenTouched: null,
      bolt: null,
      level: null,
      gear: kind === 'gear' ? { standard: null, madeOn: null, expiresOn: null } : null,
      take: kind === 'take' ? { count: 1 } : null,
      reading: null,
      gap: null,
      note: null,
      ...more,
    }
  })
}
