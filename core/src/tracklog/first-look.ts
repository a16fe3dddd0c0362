import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import type { LogRole } from './log-roles.ts'
import type { PressureDip } from './pressure-dips.ts'

/** What was gathered of a log while it was read, as far as a first look needs it. */
export interface LogSeen {
  readonly rowCount: number
  readonly durationS: number
  readonly gapCount: number
  readonly firstGap: { readonly atS: number; readonly lengthS: number } | null
  /** Lines whose clock lay before the line above: left out. */
  readonly backCount: number
  readonly firstBack: { readonly line: number; readonly byS: number } | null
  readonly unreadCount: number
  readonly hasPlaces: boolean
  readonly jumpCount: number
  /** Times of too little oil pressure. */
  readonly dips: readonly PressureDip[]
  /** Way by positions, by the speed over ground and by the wheels, m; over the same steps where both are sampled. */
  readonly ways: { readonly placesM: number; readonly speedM: number; readonly wheelM: number }
  readonly channels: readonly {
    readonly role: LogRole | 'east' | 'north'
    readonly name: string
    readonly min: number
    readonly max: number
    readonly count: number
  }[]
}

/** Roles that move while a car is driven. */
const MOVING: readonly string[] = ['speed', 'wheelSpeed', 'engineSpeed', 'throttle', 'brakeFront', 'brakeRear', 'along', 'across', 'steer']
const KELVIN = 273.15
/** Coolant under it keeps an engine on its cold map; over it something is wrong (common practice, no source). */
const COLD_K = 60 + KELVIN
const HOT_K = 110 + KELVIN
const LOW_VOLTAGE_V = 12
const LEAST_WAY_M = 300
/** What mistaken units make of a speed. */
const MISTAKEN = [
  { factor: 3.6, says: 'it is in km/h and was read as m/s' },
  { factor: 1 / 3.6, says: 'it is in m/s and was read as km/h' },
  { factor: 1.609344, says: 'it is in km/h and was read as mph' },
  { factor: 1 / 1.609344, says: 'it is in mph and was read as km/h' },
  { factor: 2.236936, says: 'it is in mph and was read as m/s' },
  { factor: 1 / 2.236936, says: 'it is in m/s and was read as mph' },
] as const

function unitProblem(name: string, byM: number, ofM: number, against: string): string[] {
  if (ofM < LEAST_WAY_M || byM === 0) return []
  const ratio = byM / ofM
  if (ratio > 0.9 && ratio < 1.1) return []
  const found = MISTAKEN.find(({ factor }) => Math.abs(ratio / factor - 1) < 0.08)
  return [`${name} is ${ratio.toFixed(2)} times what ${against} say: ${found ? found.says : 'another unit, or a wrong scale'}. Say its unit in the columns.`]
}

const named = (seen: LogSeen, role: string) => seen.channels.find((channel) => channel.role === role && channel.count > 0)
const celsius = (kelvin: number) => `${(kelvin - KELVIN).toFixed(0)} °C`

/** The worst of the dips, with lap, place and cornering: oil is thrown aside where it happens in corners. */
function dipProblems(dips: readonly PressureDip[]): string[] {
  const worst = [...dips].sort((a, b) => a.leastPa / a.engineRpm - b.leastPa / b.engineRpm)[0]
  if (!worst) return []
  const { leastPa, engineRpm, acrossMps2, lap, fromS, lengthS } = worst
  const where = lap === null ? '' : `, lap ${lap}`
  const corner = acrossMps2 === null ? '' : `, cornering at ${Math.abs(acrossMps2 / STANDARD_GRAVITY_MPS2).toFixed(1)} g`
  return [
    `Oil pressure dipped ${dips.length === 1 ? 'once' : `${dips.length} times`}, at worst to ${(leastPa / 1e5).toFixed(1)} bar at ${engineRpm.toFixed(0)} rpm for ${lengthS.toFixed(1)} s, ${fromS.toFixed(1)} s into the log${where}${corner}. Level, baffle and pick-up first; bearings do not forgive it.`,
  ]
}

function clockProblems({ gapCount, firstGap, backCount, firstBack, unreadCount, rowCount }: LogSeen): string[] {
  const problems: string[] = []
  if (firstGap)
    problems.push(
      `${gapCount === 1 ? 'One gap' : `${gapCount} gaps`}: nothing was recorded for ${firstGap.lengthS.toFixed(1)} s from ${firstGap.atS.toFixed(0)} s on.`,
    )
  if (firstBack)
    problems.push(
      `The clock goes back at line ${firstBack.line} by ${firstBack.byS.toFixed(1)} s: ${backCount === 1 ? 'one line was' : `${backCount} lines were`} left out until it caught up.`,
    )
  if (unreadCount > 0.05 * (rowCount + unreadCount)) problems.push(`${unreadCount} of ${rowCount + unreadCount} lines have no clock or nothing beside it.`)
  return problems
}

function channelProblems(seen: LogSeen): string[] {
  const problems: string[] = []
  const still = ['east', 'north'].every((role) => {
    const channel = named(seen, role)
    return channel !== undefined && channel.max - channel.min < 1
  })
  if (seen.hasPlaces && still) problems.push('The position never moved: the receiver was dead.')
  if (seen.jumpCount > 0) problems.push(`${seen.jumpCount} positions lie over 50 km away and were left out.`)
  const dead = seen.channels.filter(({ role, min, max, count }) => MOVING.includes(role) && (count === 0 || min === max))
  if (dead.length > 0) problems.push(`${dead.map(({ name }) => name).join(', ')} never moved: dead, or not plugged in.`)
  const [coolant, out, voltage] = [named(seen, 'coolant'), named(seen, 'coolantOut'), named(seen, 'voltage')]
  if (coolant && coolant.max < COLD_K) problems.push(`Coolant reached ${celsius(coolant.max)} at most: the engine stayed on its cold map.`)
  for (const each of [coolant, out]) if (each && each.max > HOT_K) problems.push(`${each.name} reached ${celsius(each.max)}.`)
  if (voltage && voltage.min < LOW_VOLTAGE_V) problems.push(`${voltage.name} fell to ${voltage.min.toFixed(1)} V.`)
  return problems
}

/**
 * What to look at before any lap time, as sentences: gaps, a clock that goes back, dead channels, units that cannot be, coolant at both ends, voltage.
 * @example firstLook({ rowCount: 900, durationS: 90, gapCount: 0, firstGap: null, backCount: 0, firstBack: null, unreadCount: 0, hasPlaces: false, jumpCount: 0, dips: [], ways: { placesM: 0, speedM: 0, wheelM: 0 }, channels: [] }) // []
 */
export function firstLook(seen: LogSeen): string[] {
  const { placesM, speedM, wheelM } = seen.ways
  const speed = named(seen, 'speed')
  const wheel = named(seen, 'wheelSpeed')
  return [
    ...dipProblems(seen.dips),
    ...clockProblems(seen),
    ...channelProblems(seen),
    ...(speed ? unitProblem(speed.name, speedM, placesM, 'positions') : []),
    ...(wheel ? unitProblem(wheel.name, wheelM, placesM > 0 ? placesM : speedM, placesM > 0 ? 'positions' : 'the speed over ground') : []),
  ]
}
