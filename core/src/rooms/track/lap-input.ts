import type { QuantityKind } from '../../units/units.ts'

export const LAP_INPUT_KEYS = [
  'massKg',
  'frontShare',
  'centreHeightM',
  'power',
  'friction',
  'loadSensitivity',
  'dragAreaM2',
  'downforceFrontM2',
  'downforceRearM2',
  'rollingCoefficient',
  'brakeFrontShare',
  'brakingUse',
  'shiftS',
] as const
/** A number that a lap rests on. */
export type LapInputKey = (typeof LAP_INPUT_KEYS)[number]

export const LAP_INPUT_WORDS: Readonly<Record<LapInputKey, { readonly word: string; readonly kind: QuantityKind; readonly measure: string }>> = {
  massKg: { word: 'mass', kind: 'mass', measure: 'weigh the car' },
  frontShare: { word: 'front share', kind: 'share', measure: 'weigh the car by axles' },
  centreHeightM: { word: 'height of the centre of mass', kind: 'length', measure: 'lift an axle on the scales' },
  power: { word: 'power', kind: 'power', measure: 'book the dyno' },
  friction: { word: 'grip of the tyres', kind: 'ratio', measure: 'drive a session' },
  loadSensitivity: { word: 'grip lost with load', kind: 'share', measure: 'drive a session' },
  dragAreaM2: { word: 'drag area', kind: 'area', measure: 'coast down' },
  downforceFrontM2: { word: 'downforce in front', kind: 'area', measure: 'read the axles at speed' },
  downforceRearM2: { word: 'downforce at the rear', kind: 'area', measure: 'read the axles at speed' },
  rollingCoefficient: { word: 'rolling', kind: 'ratio', measure: 'coast down' },
  brakeFrontShare: { word: 'brakes’ front share', kind: 'share', measure: 'measure the calipers' },
  brakingUse: { word: 'how much of the brakes is used', kind: 'share', measure: 'time three sectors' },
  shiftS: { word: 'time of a shift', kind: 'duration', measure: 'film a run' },
}

/** One number of a lap with its doubt; `source` says which record it is: the same number at two stages is one where that is the same. */
export interface LapInput {
  readonly key: LapInputKey
  readonly value: number
  readonly sd: number
  readonly isGuess: boolean
  readonly source: string
}
