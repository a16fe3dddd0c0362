import { requirePositive } from '../errors.ts'
import { type LapOptions, lapOf } from './lap.ts'
import type { LapCar } from './lap-car.ts'
import { changedLapCar, keptDownforce, type LapChange } from './lap-change.ts'
import type { TrackLine } from './track.ts'

export const LAP_LEVERS = ['power', 'mass', 'grip', 'downforce'] as const
/** A number that alone might reach a lap. */
export type LapLever = (typeof LAP_LEVERS)[number]

/** How far a lever may go, in its own unit, with what bounds it. */
export interface LeverBound {
  /** Power W, mass kg of the whole car, grip as a factor of today's, downforce m2 of both axles. */
  readonly value: number
  /** What stops it there, as a sentence's part: "the class ends". */
  readonly by: string
}

export interface LeverAnswer {
  readonly lever: LapLever
  /** Where it stands now, and where it would have to stand; null where its bound does not reach. */
  readonly from: number
  readonly to: number | null
  readonly bound: LeverBound
  /** The lap at the bound, s. */
  readonly atBoundS: number
}

/** Where a lever stands. */
export function leverNow(car: LapCar, lever: LapLever): number {
  switch (lever) {
    case 'power':
      return Math.max(...car.curve.powerW)
    case 'mass':
      return car.massKg
    case 'grip':
      return 1
    case 'downforce':
      return car.downforceFrontM2 + car.downforceRearM2
  }
}

function leverChange(car: LapCar, lever: LapLever, to: number): LapChange {
  const by = to - leverNow(car, lever)
  switch (lever) {
    case 'power':
      return { powerW: by }
    case 'mass':
      return { massKg: by }
    case 'grip':
      return { gripFactor: to }
    case 'downforce':
      return keptDownforce(car, by)
  }
}

/**
 * What one lever alone would have to become to reach a lap, by halving to its bound; where the bound is not enough, the lap there.
 * Source: the room's page. Rejects what `lapOf` rejects.
 * @example pullLever({ track: SKARVHOLM, car: LAP_CAR, wantedS: 80, lever: 'grip', bound: { value: 1.2, by: 'the next tyre' } }).to // 1.0394
 */
export function pullLever({
  track,
  car,
  wantedS,
  lever,
  bound,
  options = {},
}: {
  track: TrackLine
  car: LapCar
  wantedS: number
  lever: LapLever
  bound: LeverBound
  options?: LapOptions
}): LeverAnswer {
  requirePositive(wantedS, 'wantedS')
  const time = (to: number) => lapOf(track, changedLapCar(car, leverChange(car, lever, to)), options).lapS
  const from = leverNow(car, lever)
  const atBoundS = time(bound.value)
  if (atBoundS > wantedS) return { lever, from, to: null, bound, atBoundS }
  let [not, does] = [from, bound.value]
  for (let round = 0; round < 24; round++) {
    const middle = 0.5 * (not + does)
    if (time(middle) <= wantedS) does = middle
    else not = middle
  }
  return { lever, from, to: does, bound, atBoundS }
}

/** A part or change that might be bought: what it moves and what it costs. */
export interface WishedPart {
  readonly id: string
  readonly name: string
  readonly change: LapChange
  /** Null: nobody knows. */
  readonly cost: number | null
}

export interface WishedSet {
  readonly parts: readonly WishedPart[]
  readonly cost: number
  readonly lapS: number
}

/** More parts make more sets than anybody reads. */
export const MOST_WISHED = 16
/** So many of the cheapest sets are driven in full. */
const DRIVEN_SETS = 10

const joined = (parts: readonly WishedPart[]): LapChange => {
  const sum: { -readonly [Key in keyof LapChange]: LapChange[Key] } = {}
  for (const { change } of parts)
    for (const [key, value] of Object.entries(change) as [keyof LapChange, number][])
      sum[key] = key === 'gripFactor' || key === 'finalFactor' ? (sum[key] ?? 1) * value : (sum[key] ?? 0) + value
  return sum
}

/**
 * The cheapest sets of wished parts that reach a lap: all sets by what their parts do alone, the ten cheapest that seem to reach it driven in full, those that
 * truly do given, cheapest first. Parts without a cost are left out. Source: the room's page. Rejects what `lapOf` rejects; more than 16 parts are cut to the
 * cheapest 16.
 * @example wishedSets({ track: SKARVHOLM, car: LAP_CAR, wantedS: 80.9, parts: [{ id: 'a', name: 'seat', change: { massKg: -30 }, cost: 400 }] })[0].cost // 400
 */
export function wishedSets({
  track,
  car,
  wantedS,
  parts,
  options = {},
}: {
  track: TrackLine
  car: LapCar
  wantedS: number
  parts: readonly WishedPart[]
  options?: LapOptions
}): readonly WishedSet[] {
  requirePositive(wantedS, 'wantedS')
  const priced = parts
    .filter((part): part is WishedPart & { cost: number } => part.cost !== null)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_WISHED)
  const time = (change: LapChange) => lapOf(track, changedLapCar(car, change), options).lapS
  const base = time({})
  const alone = priced.map((part) => time(part.change) - base)
  const reach: { mask: number; cost: number }[] = []
  for (let mask = 1; mask < 1 << priced.length; mask++) {
    let [sum, cost] = [base, 0]
    priced.forEach((part, i) => {
      if (mask & (1 << i)) {
        sum += alone[i] as number
        cost += part.cost
      }
    })
    if (sum <= wantedS) reach.push({ mask, cost })
  }
  return reach
    .sort((a, b) => a.cost - b.cost)
    .slice(0, DRIVEN_SETS)
    .map(({ mask, cost }) => {
      const chosen = priced.filter((_, i) => mask & (1 << i))
      return { parts: chosen, cost, lapS: time(joined(chosen)) }
    })
    .filter(({ lapS }) => lapS <= wantedS)
}
