import { PAD_NAMES, type PadName } from '../mass/corners.ts'
import { type CornerPlaces, type CornerRates, type PerCorner, perCorner } from '../mass/suspension.ts'
import type { BuildRecord } from '../records/plan-kinds.ts'

const axleOf = (name: PadName) => (PAD_NAMES.indexOf(name) < 2 ? 'front' : 'rear')

/**
 * Wheel and tyre rates of the build's corners, bars disconnected; undefined until somebody typed them.
 * @example ratesOf(EXAMPLE.build) // undefined
 */
export function ratesOf({ suspension }: BuildRecord): CornerRates | undefined {
  if (!suspension) return undefined
  const tyres = perCorner((name) => suspension[axleOf(name)].tyreRateNPerM)
  const wheelRateNPerM = perCorner((name) => suspension[axleOf(name)].wheelRateNPerM)
  return PAD_NAMES.every((name) => tyres[name] !== null) ? { wheelRateNPerM, tyreRateNPerM: tyres as PerCorner<number> } : { wheelRateNPerM }
}

/**
 * Motion ratios and thread pitches of the build's corners.
 * @example perchesOf(EXAMPLE.build) // undefined
 */
export function perchesOf({ suspension }: BuildRecord): { motionRatio: PerCorner<number>; threadPitchM: PerCorner<number> } | undefined {
  if (!suspension) return undefined
  return {
    motionRatio: perCorner((name) => suspension[axleOf(name)].motionRatio),
    threadPitchM: perCorner((name) => suspension[axleOf(name)].threadPitchM),
  }
}

/**
 * Wheelbase and tracks of the build, m.
 * @example placesOf(EXAMPLE.build) // { wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 }
 */
export const placesOf = ({ wheelbaseM, trackFrontM, trackRearM }: BuildRecord): CornerPlaces => ({ wheelbaseM, trackFrontM, trackRearM })
