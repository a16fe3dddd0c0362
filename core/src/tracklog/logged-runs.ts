import { type CoastRun, thinRun } from '../aero/coast-model.ts'
import type { SteadyReading } from '../aero/steady-readings.ts'
import { itemAt } from '../item-at.ts'
import { mean } from '../stats/moments.ts'
import { type LogColumn, logColumns, readerOf } from './log-channels.ts'
import type { LogRole } from './log-roles.ts'

/** A run that a logger told: which way it went, and its rows in the order of the logger's channels; null: not sampled then. */
export interface LoggedRun {
  readonly way: 'out' | 'back'
  readonly rows: readonly { readonly timeS: number; readonly values: readonly (number | null)[] }[]
}

/** A speed that was held, with what was read at the axles meanwhile. */
export interface HeldSpeed {
  readonly speedMps: number
  readonly frontM: number
  readonly rearM: number
  readonly pitotPa: number | null
}

/** What the runs of a logger come to for a test. */
export interface LoggedTest {
  /** Out and back in the order they were driven; null where one of the two is missing. */
  readonly pairs: readonly { readonly out: CoastRun | null; readonly back: CoastRun | null }[]
  readonly held: { readonly out: readonly HeldSpeed[]; readonly back: readonly HeldSpeed[] }
  /** What was read at the axles; null: nothing was. */
  readonly reading: SteadyReading | null
  /** Travels are from the car at rest, as bump rubbers want it: every run began standing. */
  readonly isFromRest: boolean
}

/** A speed counts as held that stays within this for this long. */
const WITHIN_MPS = 1
const LEAST_HELD_S = 2
/** Left out at both ends of it: the car has only just come to it, or leaves it. */
const MARGIN_S = 0.5

/**
 * Stretches of a run at which the speed was held, first to last row; pulling away and slowing down are left out.
 * @example heldStretches([0, 1, 2, 3, 4], [20, 20.1, 20, 20.1, 20]) // [{ from: 1, to: 3 }]
 */
export function heldStretches(timeS: readonly number[], speedMps: readonly number[]): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = []
  /** The last row up to which the speed stays as it was at a row. */
  const reach = (start: number) => {
    let [least, most] = [itemAt(speedMps, start), itemAt(speedMps, start)]
    for (let i = start + 1; i < timeS.length; i++) {
      ;[least, most] = [Math.min(least, itemAt(speedMps, i)), Math.max(most, itemAt(speedMps, i))]
      if (most - least > WITHIN_MPS) return i - 1
    }
    return timeS.length - 1
  }
  let start = 0
  while (start < timeS.length) {
    const end = reach(start)
    // One that reaches further without its first row begins behind it: that row was still on the way.
    const isOnItsWay = end + 1 < timeS.length && reach(start + 1) > end
    if (isOnItsWay || itemAt(timeS, end) - itemAt(timeS, start) < LEAST_HELD_S) {
      start++
      continue
    }
    const [begins, ends] = [itemAt(timeS, start) + MARGIN_S, itemAt(timeS, end) - MARGIN_S]
    const from = timeS.findIndex((time) => time >= begins)
    const to = timeS.findLastIndex((time) => time <= ends)
    if (to > from) found.push({ from, to })
    start = end + 1
  }
  return found
}

interface Channel {
  readonly index: number
  readonly toSi: (value: number) => number
}

function channelsOf(channels: readonly { readonly name: string; readonly unit: string }[]): (role: LogRole) => Channel | undefined {
  const columns = logColumns(
    channels.map(({ name }) => name),
    channels.map(({ unit }) => unit),
    [],
  )
  return (role) => {
    const column = columns.find((each: LogColumn) => each.role === role)
    if (!column) return undefined
    const { factor, offset } = readerOf(column).toRecord
    return { index: column.index, toSi: (value) => value * factor + offset }
  }
}

type Values = readonly (number | null)[]
type Travel = (values: Values) => number | null

/** How one axle was read: by height, which falls as it sinks, else by the mean of its dampers. */
function travelOf(of: (role: LogRole) => Channel | undefined, height: LogRole, dampers: readonly LogRole[], by: SteadyReading): Travel | null {
  const read =
    ({ index, toSi }: Channel) =>
    (values: Values) => {
      const value = values[index] ?? null
      return value === null ? null : toSi(value)
    }
  if (by === 'height') {
    const channel = of(height)
    const one = channel && read(channel)
    return one
      ? (values) => {
          const over = one(values)
          return over === null ? null : -over
        }
      : null
  }
  const both = dampers.flatMap((role) => of(role) ?? []).map(read)
  if (both.length === 0) return null
  return (values) => {
    const each = both.map((one) => one(values))
    return each.includes(null) ? null : mean(each as number[])
  }
}

/** Slower than this the car stands. */
const STANDING_MPS = 1

function holdsOf(run: LoggedRun, speed: Channel, axles: { front: Travel; rear: Travel }, pitot: Channel | undefined): { held: HeldSpeed[]; hasRest: boolean } {
  const rows = run.rows.filter(({ values }) => (values[speed.index] ?? null) !== null)
  const speeds = rows.map(({ values }) => speed.toSi(values[speed.index] as number))
  const held = heldStretches(
    rows.map(({ timeS }) => timeS),
    speeds,
  )
  const all = held.flatMap(({ from, to }): HeldSpeed[] => {
    const own = rows.slice(from, to + 1)
    const meanOf = (of: Travel) => {
      const read = own.flatMap(({ values }) => of(values) ?? [])
      return read.length > 0 ? mean(read) : null
    }
    const [frontM, rearM] = [meanOf(axles.front), meanOf(axles.rear)]
    if (frontM === null || rearM === null) return []
    const pitotPa = pitot ? meanOf((values) => (values[pitot.index] === null ? null : pitot.toSi(values[pitot.index] as number))) : null
    return [{ speedMps: mean(speeds.slice(from, to + 1)), frontM, rearM, pitotPa }]
  })
  const rest = all.find(({ speedMps }) => speedMps < STANDING_MPS)
  const moving = all.filter(({ speedMps }) => speedMps >= STANDING_MPS)
  const from = (each: HeldSpeed) => (rest ? { ...each, frontM: each.frontM - rest.frontM, rearM: each.rearM - rest.rearM } : each)
  return { held: moving.map(from), hasRest: rest !== undefined }
}

/**
 * What a test takes out of the runs of a logger: pairs of coasting, a run back behind each run out, and held speeds with how far each axle went down (by
 * height where it is read at both axles, else by dampers; from rest, where the run began standing) and the pitot tube. Channels are found by their names.
 * Rejects (`unknown-unit`) a channel in a unit that nobody here knows.
 * @example loggedTest([{ name: 'Speed', unit: 'm/s' }], []).pairs // []
 */
export function loggedTest(channels: readonly { readonly name: string; readonly unit: string }[], runs: readonly LoggedRun[]): LoggedTest {
  const of = channelsOf(channels)
  const speed = of('speed')
  const coasted = ({ rows }: LoggedRun): CoastRun => {
    const read = speed ? rows.filter(({ values }) => (values[speed.index] ?? null) !== null) : []
    return thinRun({
      timeS: read.map(({ timeS }) => timeS),
      speedMps: read.map(({ values }) => (speed as Channel).toSi(values[(speed as Channel).index] as number)),
    })
  }
  const pairs: { out: CoastRun | null; back: CoastRun | null }[] = []
  for (const run of runs) {
    const last = pairs.at(-1)
    if (run.way === 'back' && last && last.out && !last.back) last.back = coasted(run)
    else pairs.push(run.way === 'out' ? { out: coasted(run), back: null } : { out: null, back: coasted(run) })
  }
  const by = (['height', 'damper'] as const).flatMap((reading) => {
    const front = travelOf(of, 'heightFront', ['damperLF', 'damperRF'], reading)
    const rear = travelOf(of, 'heightRear', ['damperLR', 'damperRR'], reading)
    return front && rear ? [{ reading, front, rear }] : []
  })[0]
  const read = speed && by ? runs.map((run) => ({ way: run.way, ...holdsOf(run, speed, by, of('pitot')) })) : []
  const held = (way: 'out' | 'back') => read.filter((run) => run.way === way).flatMap((run) => run.held)
  return {
    pairs,
    held: { out: held('out'), back: held('back') },
    reading: by?.reading ?? null,
    isFromRest: read.length > 0 && read.every(({ hasRest }) => hasRest),
  }
}
