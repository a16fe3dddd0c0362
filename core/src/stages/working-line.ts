import { BOOST_SCHOOL_WORDS } from '../dyno/correction.ts'
import { CalculationError } from '../errors.ts'
import type { GuessSide } from '../mass/estimate-bias.ts'
import type { Proof } from '../proof/quantity.ts'
import type { QuantityKind } from '../units/units.ts'
import { type Car, stageIndex } from './car.ts'
import type { MetricDeclaration } from './define-metric.ts'
import type { StageValue } from './stage-value.ts'

/** One line of a working: a number, its unit kind, how sure it is and where it came from. */
export interface WorkingLine {
  readonly label: string
  readonly value: number | null
  readonly kind: QuantityKind
  readonly sd?: number | undefined
  readonly proof?: Proof | undefined
  readonly isSigned?: boolean
  readonly note?: string | undefined
  /** What a person typed for it. */
  readonly typed?: string | null | undefined
}

/** The explanation of one number. */
export interface Working {
  readonly title: string
  /** The registered calculation whose formula, sources and assumptions go with it. */
  readonly calculation: string
  readonly result: WorkingLine
  readonly lines: readonly WorkingLine[]
  readonly remarks: readonly string[]
}

/** The maker of a working of one subject: of a record by its id, or of a stage by its id. */
export type WorkingMaker = (car: Car, id: string) => Working | undefined

/** A working of a stage, by its id. Errors: `unknown`. */
export const ofStage =
  (make: (car: Car, position: number) => Working | undefined): WorkingMaker =>
  (car, id) => {
    const position = stageIndex(car, id)
    if (position < 0) throw new CalculationError('unknown', 'id', 'This build has no such stage.')
    return make(car, position)
  }

export const stageName = (car: Car, position: number) => `stage ${position}, ${car.stages[position]?.name ?? ''}`

/** The frame of a metric's working at a stage: what it is called, its formula, and its value with how sure it is. */
export const metricFrame = (
  car: Car,
  position: number,
  { word, kind, calculation }: Pick<MetricDeclaration, 'word' | 'kind' | 'calculation'>,
  { value, sd, proof }: Pick<StageValue, 'value' | 'sd' | 'proof'>,
): Pick<Working, 'title' | 'calculation' | 'result'> => ({
  title: `${word} at ${stageName(car, position)}`,
  calculation,
  result: { label: word.toLowerCase(), value, kind, sd, proof },
})

/** What a working says of a number that is on its way. */
export const BEING_WORKED_OUT = 'It is being worked out. Open it again in a moment.'

export const day = (instant: string) => instant.slice(0, 10)

/** What a guess of one side is multiplied by: the mean of the log-normal that guesses of that side run in. */
export function guessFactor(car: Car, side: GuessSide, logSd?: number): number {
  const { mu, s, v } = car.biases[side]
  return Math.exp(mu + (logSd ?? s) ** 2 / 2 + v / 2)
}

export function schoolRemark(car: Car): string[] {
  const { place, standard, boostSchool } = car.records.build.powerBasis
  if (standard === 'asPrinted') return [`Basis: ${place}, as printed; two visits confirm each other only under one printed standard.`]
  return standard === 'none'
    ? [`Basis: ${place}, as observed.`]
    : [`Basis: ${place}, ${standard}; an engine under boost is ${BOOST_SCHOOL_WORDS[boostSchool]}. Good people differ here; the choice is the build’s.`]
}
