import { CalculationError, requireWithin } from '../errors.ts'
import { INCH_M } from '../units/factors.ts'

export const TYRE_CONSTRUCTIONS = ['radial', 'bias'] as const
export type TyreConstruction = (typeof TYRE_CONSTRUCTIONS)[number]

/** How far a loaded tyre rolls in one turn, over its free diameter (tyre-standard factor, from memory). */
const ROLL_OUT_OVER_DIAMETER: Record<TyreConstruction, number> = { radial: 3.05, bias: 3.02 }
/** Catalogue diameters differ by so much from tyre to tyre (common practice, no source). */
export const CODE_RELATIVE_SD = 0.015

const METRIC = /^(\d{2,3})\s*\/\s*(\d{1,3})\s*(?:Z?R|-|B|D)\s*(\d{1,2}(?:\.5)?)$/i
const INCHES = /^(\d{2}(?:\.\d+)?)\s*[x×]\s*(\d{1,2}(?:\.\d+)?)\s*(?:R|-)\s*(\d{1,2}(?:\.5)?)$/i

export interface TyreSize {
  readonly widthM: number
  readonly rimM: number
  /** Free diameter, without load. */
  readonly diameterM: number
}

const unreadable = (code: string): never => {
  throw new CalculationError('unreadable', 'code', `"${code}" is no tyre code. Type it as 245/40R17, as 250/640R18 with a diameter in mm, or as 26x10-15.`)
}

/** The sizes that a code can be of; what lies outside is named. */
function requireSizes(code: string, { widthM, rimM, diameterM }: TyreSize): TyreSize {
  const outside = (text: string): never => {
    throw new CalculationError('out-of-range', 'code', `${code}: ${text}`)
  }
  if (widthM < 0.1 || widthM > 0.46) return outside('a width lies from 100 to 460 mm.')
  if (rimM < 8 * INCH_M || rimM > 26 * INCH_M) return outside('a rim lies from 8 to 26 inches.')
  if (diameterM < 0.3 || diameterM > 1) return outside('a diameter lies from 300 to 1 000 mm.')
  if (diameterM <= rimM) return outside('the tyre would be no larger than its rim.')
  return { widthM, rimM, diameterM }
}

/**
 * Sizes of a tyre by its code, m: `245/40R17` by rim and side walls, `250/640R18` with the diameter in mm, `26x10-15` in inches.
 * Source: size designation rule (from memory); race codes are common practice. Rejects what is no code, and an aspect from 1 to 24: that is no tyre.
 * @example tyreSize('245/40R17').diameterM // 0.6278
 */
export function tyreSize(code: string): TyreSize {
  const text = code.trim()
  const metric = METRIC.exec(text)
  if (metric) {
    const [width, second, rim] = metric.slice(1).map(Number) as [number, number, number]
    if (second < 25) throw new CalculationError('out-of-range', 'code', `An aspect of ${second} is no tyre: 25 to 95, or a diameter in mm above.`)
    const [widthM, rimM] = [width / 1000, rim * INCH_M]
    return requireSizes(text, { widthM, rimM, diameterM: second > 95 ? second / 1000 : rimM + (2 * widthM * second) / 100 })
  }
  const inches = INCHES.exec(text)
  if (!inches) return unreadable(text)
  const [diameter, width, rim] = inches.slice(1).map((number) => Number(number) * INCH_M) as [number, number, number]
  return requireSizes(text, { widthM: width, rimM: rim, diameterM: diameter })
}

export interface Rolling {
  readonly rollOutM: number
  /** One radius for speed and for force: two would make power out of nothing. */
  readonly radiusM: number
  readonly radiusSdM: number
  readonly turnsPerKm: number
  readonly isMeasured: boolean
}

/**
 * How a tyre rolls: by its roll-out where that was measured (0.9 to 3.2 m), else by its code. r = roll-out/2π; by the code 3.05 D/2π (bias 3.02), sd 1.5 %.
 * Source: definition; the factors are from memory. Rejects a tyre with neither.
 * @example tyreRolling({ code: '245/40R17', circumferenceM: null, construction: 'radial' }).radiusM // 0.304748
 */
export function tyreRolling(tyre: {
  readonly code: string | null
  readonly circumferenceM: number | null
  readonly circumferenceSdM?: number | null
  readonly construction: TyreConstruction
}): Rolling {
  const { code, circumferenceM, circumferenceSdM, construction } = tyre
  const isMeasured = circumferenceM !== null
  if (!isMeasured && code === null) throw new CalculationError('missing', 'code', 'The tyre has no size. Type its code, such as 245/40R17, or its roll-out.')
  const rollOutM = isMeasured
    ? requireWithin(circumferenceM, 0.9, 3.2, 'circumferenceM')
    : ROLL_OUT_OVER_DIAMETER[construction] * tyreSize(code as string).diameterM
  const radiusM = rollOutM / (2 * Math.PI)
  const sdM = isMeasured ? (circumferenceSdM ?? USUAL_ROLL_OUT_SD_M) : CODE_RELATIVE_SD * rollOutM
  return { rollOutM, radiusM, radiusSdM: sdM / (2 * Math.PI), turnsPerKm: 1000 / rollOutM, isMeasured }
}

/** Spread of a roll-out by tape over one turn (common practice, no source). */
export const USUAL_ROLL_OUT_SD_M = 0.003
