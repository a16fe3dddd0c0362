import { CalculationError } from '../errors.ts'
import { type LapOptions, lapOf } from './lap.ts'
import type { LapCar } from './lap-car.ts'
import type { TrackLine } from './track.ts'

/** A number that is not known exactly, with what moving it by so many spreads does to a car. */
export interface UnsureLapInput {
  readonly key: string
  readonly isGuess: boolean
  /** Whether both cars have it from one record: then what it does to both cancels. */
  readonly isShared: boolean
  /** Whether it only scales all friction, as the fitted factor does: shared, the fit takes it in whole. */
  readonly isGrip?: boolean
  readonly moved: (car: LapCar, spreads: number) => LapCar
}

/** What one unsure number leaves of the lap's doubt. */
export interface LapDoubt {
  readonly key: string
  readonly isGuess: boolean
  /** With nothing driven, s. */
  readonly aloneS: number
  /** After the fit, s. */
  readonly leftS: number
}

export interface LapForecast {
  readonly lapS: number
  readonly sdS: number
  /** Model of the car that was driven, s. */
  readonly beforeS: number
  readonly doubts: readonly LapDoubt[]
  /** What the spread of the driven lap leaves, and what the model itself does, s. */
  readonly fitSdS: number
  readonly modelSdS: number
  /** All inputs together, with nothing driven and after the fit, s. */
  readonly inputsAloneSdS: number
  readonly inputsLeftSdS: number
}

/** What the model is trusted of a change that it forecasts, until forecasts were driven (common practice, no source). */
export const USUAL_MODEL_SHARE = 0.2
const GRIP_STEP = 0.005

/** Half the difference over one spread either way; where one way cannot be driven, the other's. */
function halfDifference(time: (car: LapCar) => number, car: LapCar, input: UnsureLapInput, baseS: number): number {
  const at = (spreads: number) => {
    try {
      return time(input.moved(car, spreads))
    } catch (error) {
      if (error instanceof CalculationError) return null
      throw error
    }
  }
  const [up, down] = [at(1), at(-1)]
  if (up !== null && down !== null) return (up - down) / 2
  return up === null ? (down === null ? 0 : baseS - down) : up - baseS
}

/**
 * A lap carried from a car that was driven to another: the model's lap of the other with the fitted grip, and its doubt. What both cars share moves both, less
 * what the fit takes in: [dT_n/dy − (dT_n/df)(dT_k/dy)/(dT_k/df)]; what is new counts whole; then the spread of the fit, and a share of the change for the
 * model. `before` and `after` both carry the fitted grip factor. Source: the room's page. Rejects what `lapOf` rejects.
 * @example forecastLap({ track: SKARVHOLM, before: FITTED_CAR, after: LIGHTER_CAR, gripFactorSd: 0.00498, inputs: [] }).sdS // 0.1593
 */
export function forecastLap({
  track,
  before,
  after,
  gripFactorSd,
  inputs,
  modelShare = USUAL_MODEL_SHARE,
  options = {},
}: {
  track: TrackLine
  before: LapCar
  after: LapCar
  gripFactorSd: number
  inputs: readonly UnsureLapInput[]
  modelShare?: number
  options?: LapOptions
}): LapForecast {
  const time = (car: LapCar) => lapOf(track, car, options).lapS
  const [beforeS, lapS] = [time(before), time(after)]
  const byGrip = (car: LapCar) =>
    (time({ ...car, gripFactor: car.gripFactor + GRIP_STEP }) - time({ ...car, gripFactor: car.gripFactor - GRIP_STEP })) / (2 * GRIP_STEP)
  const [gripBefore, gripAfter] = [byGrip(before), byGrip(after)]
  const doubts = inputs.map((input): LapDoubt => {
    const aloneS = halfDifference(time, after, input, lapS)
    if (input.isShared && input.isGrip) return { key: input.key, isGuess: input.isGuess, aloneS: Math.abs(aloneS), leftS: 0 }
    const takenS = input.isShared ? (gripAfter * halfDifference(time, before, input, beforeS)) / gripBefore : 0
    return { key: input.key, isGuess: input.isGuess, aloneS: Math.abs(aloneS), leftS: Math.abs(aloneS - takenS) }
  })
  const fitSdS = Math.abs(gripAfter) * gripFactorSd
  const modelSdS = modelShare * Math.abs(lapS - beforeS)
  const inputsLeftSdS = Math.hypot(...doubts.map(({ leftS }) => leftS))
  return {
    lapS,
    sdS: Math.hypot(inputsLeftSdS, fitSdS, modelSdS),
    beforeS,
    doubts,
    fitSdS,
    modelSdS,
    inputsAloneSdS: Math.hypot(...doubts.map(({ aloneS }) => aloneS)),
    inputsLeftSdS,
  }
}

/**
 * The doubt of a lap that nothing was driven for: each unsure number alone, and together, s. Source: the room's page. Rejects what `lapOf` rejects.
 * @example guessLap({ track: SKARVHOLM, car: LAP_CAR, inputs: [] }).sdS // 0
 */
export function guessLap({ track, car, inputs, options = {} }: { track: TrackLine; car: LapCar; inputs: readonly UnsureLapInput[]; options?: LapOptions }): {
  lapS: number
  sdS: number
  doubts: readonly LapDoubt[]
} {
  const time = (each: LapCar) => lapOf(track, each, options).lapS
  const lapS = time(car)
  const doubts = inputs.map((input): LapDoubt => {
    const aloneS = Math.abs(halfDifference(time, car, input, lapS))
    return { key: input.key, isGuess: input.isGuess, aloneS, leftS: aloneS }
  })
  return { lapS, sdS: Math.hypot(...doubts.map(({ aloneS }) => aloneS)), doubts }
}
