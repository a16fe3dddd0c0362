import { attempt } from '../attempt.ts'
import { CalculationError } from '../errors.ts'
import { lapsNeeded } from '../stats/laps-needed.ts'
import { type LapOptions, lapOf } from './lap.ts'
import type { LapCar } from './lap-car.ts'
import { changedLapCar, keptDownforce, type LapChange } from './lap-change.ts'
import type { TrackLine } from './track.ts'

export const LAP_STEP_KEYS = [
  'mass',
  'power',
  'downforce',
  'downforceFront',
  'downforceRear',
  'drag',
  'grip',
  'finalShorter',
  'finalLonger',
  'shift',
  'centre',
  'brakes',
] as const
/** A step that every car can be asked for. */
export type LapStepKey = (typeof LAP_STEP_KEYS)[number]
export const LAP_STEP_WORDS: Record<LapStepKey, string> = {
  mass: '10 kg less',
  power: '10 kW more',
  downforce: '0.1 m² of downforce, balance kept',
  downforceFront: '0.1 m² at the front',
  downforceRear: '0.1 m² at the rear',
  drag: '0.1 m² less drag',
  grip: '1 % more grip',
  finalShorter: '5 % shorter final drive',
  finalLonger: '5 % longer final drive',
  shift: '50 ms less a shift',
  centre: 'centre of mass 10 mm lower',
  brakes: 'brakes 4 points to the front',
}

/**
 * What a step moves; null where the car has nothing to move: no gears, no split on record.
 * @example lapStep(LAP_CAR, 'mass') // { massKg: -10 }
 */
export function lapStep(car: LapCar, key: LapStepKey): LapChange | null {
  const kept = keptDownforce(car, 0.1)
  const steps: Record<LapStepKey, LapChange | null> = {
    mass: { massKg: -10 },
    power: { powerW: 10_000 },
    downforce: kept,
    downforceFront: { downforceFrontM2: 0.1 },
    downforceRear: { downforceRearM2: 0.1 },
    drag: { dragAreaM2: -Math.min(0.1, car.dragAreaM2) },
    grip: { gripFactor: 1.01 },
    finalShorter: car.gears && { finalFactor: 1.05 },
    finalLonger: car.gears && { finalFactor: 1 / 1.05 },
    shift: car.gears && car.gears.shiftS > 0 ? { shiftS: -Math.min(0.05, car.gears.shiftS) } : null,
    centre: { centreHeightM: -Math.min(0.01, car.centreHeightM) },
    brakes: car.brakeFrontShare === null ? null : { brakeFrontShare: 0.04 },
  }
  return steps[key]
}

/** What one thing is worth on a track. */
export interface LapWorth {
  readonly key: LapStepKey
  /** Less is quicker, s; null where the car has nothing to move. */
  readonly differenceS: number | null
  /** Laps on each side that show it 4 times in 5; null where it moves nothing. */
  readonly lapsASide: number | null
}

/**
 * What each step is worth from a car: whole steps of the whole model, no slope of a line. With the spread of the driver's own laps, how many laps on each side
 * show it. Source: the room's page; H.10 by ranks. Rejects what `lapOf` rejects.
 * @example lapWorth(SKARVHOLM, LAP_CAR, 0.25).find((row) => row.key === 'mass').differenceS // -0.0891
 */
export function lapWorth(track: TrackLine, car: LapCar, lapSdS: number, options: LapOptions = {}): readonly LapWorth[] {
  const base = lapOf(track, car, options).lapS
  return LAP_STEP_KEYS.map((key) => {
    const change = lapStep(car, key)
    const moved = change && attempt(() => lapOf(track, changedLapCar(car, change), options).lapS)
    if (moved === null || moved instanceof CalculationError) return { key, differenceS: null, lapsASide: null }
    const differenceS = moved - base
    return { key, differenceS, lapsASide: Math.abs(differenceS) < 1e-4 ? null : lapsNeeded({ sdS: lapSdS, differenceS, school: 'ranks' }).lapsASide }
  })
}
