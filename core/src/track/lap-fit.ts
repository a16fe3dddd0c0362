import { CalculationError, requirePositive } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { type Lap, type LapOptions, lapOf } from './lap.ts'
import type { LapCar } from './lap-car.ts'
import type { TrackLine } from './track.ts'

/** What a fitted grip may be; beyond it the record is wrong, not the tyre. */
export const GRIP_FACTOR_RANGE = { least: 0.7, most: 1.3 } as const

/** What a driven lap says of the grip. */
export interface GripFit {
  readonly gripFactor: number
  /** s for a whole unit of the factor: negative. */
  readonly slopeS: number
  /** Of the factor, from the spread of what was driven. */
  readonly gripFactorSd: number
}

const withGrip = (car: LapCar, gripFactor: number): LapCar => ({ ...car, gripFactor })

/** The car that was measured: its loads at rest are those that friction is counted against. */
export const asReference = (car: LapCar): LapCar => ({ ...car, reference: { massKg: car.massKg, frontShare: car.frontShare } })

/**
 * The grip factor with which the model drives the lap that was driven, by halving; what a unit of it is worth there, by one spread either side.
 * Source: the room's page. Refuses a lap that no factor from 0.7 to 1.3 drives, and what `lapOf` rejects.
 * @example fitGrip({ track: SKARVHOLM, car: LAP_CAR, drivenS: 82.6, drivenSdS: 0.15 }).gripFactor // 0.94794
 */
export function fitGrip({
  track,
  car,
  drivenS,
  drivenSdS,
  options = {},
}: {
  track: TrackLine
  car: LapCar
  drivenS: number
  drivenSdS: number
  options?: LapOptions
}): GripFit {
  requirePositive(drivenS, 'drivenS')
  requirePositive(drivenSdS, 'drivenSdS')
  const fine = (factor: number) => lapOf(track, withGrip(car, factor), options).lapS
  const found = bracketGrip((factor) => lapOf(track, withGrip(car, factor), { ...options, stepM: COARSER * (options.stepM ?? 1) }).lapS, drivenS)
  const factor = refineGrip((factor) => fine(factor) - drivenS, found)
  const step = 0.005
  const slopeS = (fine(factor + step) - fine(factor - step)) / (2 * step)
  return { gripFactor: factor, slopeS, gripFactorSd: drivenSdS / Math.abs(slopeS) }
}

/** Coarse cells miss by milliseconds: a few laps in fine ones take that away, by the slope that the last two of them show. */
function refineGrip(missS: (factor: number) => number, { factor: begun, slopeS }: { readonly factor: number; readonly slopeS: number }): number {
  let [factor, slope] = [begun, slopeS]
  let miss = missS(factor)
  for (let round = 0; round < 10 && Math.abs(miss) > 1e-8; round++) {
    const next = factor - miss / slope
    const missThere = missS(next)
    const shown = (missThere - miss) / (next - factor)
    // More grip is never slower: a slope that says so is a jump between two gears.
    if (shown < 0) slope = shown
    ;[factor, miss] = [next, missThere]
  }
  return factor
}

/** Cells of the search are so many times longer than those of the answer. */
const COARSER = 3

/** The factor at which a lap takes as long as was driven, and its slope there: by chords of the time, kept within the bracket. */
function bracketGrip(time: (factor: number) => number, drivenS: number): { factor: number; slopeS: number } {
  let [low, high]: [number, number] = [GRIP_FACTOR_RANGE.least, GRIP_FACTOR_RANGE.most]
  let [slow, fast] = [time(low), time(high)]
  if (drivenS > slow || drivenS < fast) {
    const words = `From ${low} to ${high} of the tyres’ friction the model laps in ${fast.toFixed(1)} to ${slow.toFixed(1)} s; ${drivenS.toFixed(2)} s was driven. Check power, mass, tyre and track.`
    throw new CalculationError('implausible', 'drivenS', words)
  }
  let factor = 1
  for (let round = 0; round < 60; round++) {
    factor = low + ((high - low) * (slow - drivenS)) / (slow - fast)
    // A chord that stays at one end is helped along by halving.
    if (round % 3 === 2) factor = 0.5 * (low + high)
    const found = time(factor)
    if (Math.abs(found - drivenS) < 1e-4 || high - low < 1e-7) break
    if (found > drivenS) {
      low = factor
      slow = found
    } else {
      high = factor
      fast = found
    }
  }
  const step = 0.005
  return { factor, slopeS: (time(factor + step) - time(factor - step)) / (2 * step) }
}

/** Seconds of a lap between marks, the line at both ends. */
export function sectorSeconds(lap: Pick<Lap, 'cells' | 'timeS' | 'lapS'>, marksM: readonly number[]): readonly number[] {
  const timeAt = (atM: number) => {
    const i = lap.cells.findIndex((cell) => cell.atM + cell.lengthM >= atM)
    if (i < 0) return lap.lapS
    const cell = itemAt(lap.cells, i)
    const share = (atM - cell.atM) / cell.lengthM
    return itemAt(lap.timeS, i) * (1 - share) + itemAt(lap.timeS, i + 1) * share
  }
  const times = [0, ...marksM.map(timeAt), lap.lapS]
  return times.slice(1).map((time, i) => time - itemAt(times, i))
}

/** What driven sectors say of grip and brakes. */
export interface SectorFit {
  readonly gripFactor: number
  readonly brakingUse: number
  /** Of both, from how sure a sector is. */
  readonly gripFactorSd: number
  readonly brakingUseSd: number
  /** Driven less modelled, by sector, s. */
  readonly leftS: readonly number[]
  /** Sectors that the fit does not reach: line, traffic, gears. */
  readonly odd: readonly number[]
}

/** No driver uses less of the brakes on a clean lap, or more than they have. */
export const [LEAST_BRAKING, MOST_BRAKING] = [0.3, 1.1]
/** A sector is named where it is left over by more than this, s, and by 2 of its spreads. */
const ODD_SECTOR_S = 0.1

/**
 * Grip and use of the brakes that drive the sectors best, by least squares (Gauss and Newton, slopes by whole steps); each sector as sure as the other. A
 * sector that is left over by 0.1 s and 2 spreads is named. Three sectors are the least. Source: the room's page. Refuses fewer, and factors out of range.
 * @example fitGripAndBraking({ track: SKARVHOLM, car: LAP_CAR, marksM: [900, 1800], drivenS: [28.65, 27.92, 26.24], sectorSdS: 0.1 }).brakingUse // 0.80
 */
export function fitGripAndBraking({
  track,
  car,
  marksM,
  drivenS,
  sectorSdS,
  options = {},
}: {
  track: TrackLine
  car: LapCar
  marksM: readonly number[]
  drivenS: readonly number[]
  sectorSdS: number
  options?: LapOptions
}): SectorFit {
  requirePositive(sectorSdS, 'sectorSdS')
  if (drivenS.length < 3) throw new CalculationError('missing', 'drivenS', 'Grip and brakes are told apart by three sectors or more. Fit the grip alone.')
  if (drivenS.length !== marksM.length + 1)
    throw new CalculationError('inconsistent', 'drivenS', `The track’s marks make ${marksM.length + 1} sectors; ${drivenS.length} times were given.`)
  const sectors = (f: number, w: number) => sectorSeconds(lapOf(track, { ...car, gripFactor: f, brakingUse: w }, options), marksM)
  let [f, w] = [car.gripFactor, car.brakingUse]
  let leftS: readonly number[] = []
  let [gripFactorSd, brakingUseSd] = [0, 0]
  for (let round = 0; round < 12; round++) {
    const now = sectors(f, w)
    leftS = drivenS.map((driven, i) => driven - itemAt(now, i))
    const [step, part] = [0.01, 0.02]
    const [moreGrip, lessGrip] = [sectors(f + step, w), sectors(f - step, w)]
    const [moreBrake, lessBrake] = [sectors(f, w + part), sectors(f, w - part)]
    const byGrip = now.map((_, i) => (itemAt(moreGrip, i) - itemAt(lessGrip, i)) / (2 * step))
    const byBrake = now.map((_, i) => (itemAt(moreBrake, i) - itemAt(lessBrake, i)) / (2 * part))
    const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, value, i) => sum + value * itemAt(b, i), 0)
    const [gg, gb, bb] = [dot(byGrip, byGrip), dot(byGrip, byBrake), dot(byBrake, byBrake)]
    const [g, b] = [dot(byGrip, leftS), dot(byBrake, leftS)]
    const determinant = gg * bb - gb * gb
    if (!(determinant > 1e-9 * gg * bb)) throw new CalculationError('ambiguous', 'marksM', 'These sectors do not tell grip from brakes: fit the grip alone.')
    ;[gripFactorSd, brakingUseSd] = [sectorSdS * Math.sqrt(bb / determinant), sectorSdS * Math.sqrt(gg / determinant)]
    let [df, dw] = [(g * bb - b * gb) / determinant, (b * gg - g * gb) / determinant]
    // At the end of what brakes can do, the grip alone goes on.
    if ((w >= MOST_BRAKING && dw > 0) || (w <= LEAST_BRAKING && dw < 0)) [df, dw] = [g / gg, 0]
    f = Math.min(GRIP_FACTOR_RANGE.most, Math.max(GRIP_FACTOR_RANGE.least, f + Math.max(-0.1, Math.min(0.1, df))))
    w = Math.min(MOST_BRAKING, Math.max(LEAST_BRAKING, w + Math.max(-0.15, Math.min(0.15, dw))))
    if (Math.abs(df) < 1e-7 && Math.abs(dw) < 1e-7) break
  }
  if (f === GRIP_FACTOR_RANGE.least || f === GRIP_FACTOR_RANGE.most)
    throw new CalculationError('implausible', 'drivenS', `The sectors ask for a grip of ${f} of the tyres’ friction: check power, mass, tyre and track.`)
  const odd = leftS.flatMap((left, i) => (Math.abs(left) > ODD_SECTOR_S && Math.abs(left) > 2 * sectorSdS ? [i] : []))
  return { gripFactor: f, brakingUse: w, gripFactorSd, brakingUseSd, leftS, odd }
}
