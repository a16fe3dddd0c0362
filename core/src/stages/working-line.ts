import type { StageValues } from '../board/stage-values.ts'
import { BOOST_SCHOOL_WORDS } from '../dyno/correction.ts'
import type { Proof } from '../proof/quantity.ts'
import type { QuantityKind } from '../units/units.ts'

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

export const stageName = (values: StageValues, position: number) => `stage ${position}, ${values.car.stages[position]?.name ?? ''}`
export const day = (instant: string) => instant.slice(0, 10)

export function guessFactor(values: StageValues, logSd: number | undefined): number {
  const { mu, s, v } = values.car.bias
  return Math.exp(mu + (logSd ?? s) ** 2 / 2 + v / 2)
}

export function schoolRemark(values: StageValues): string[] {
  const { place, standard, boostSchool } = values.car.records.build.powerBasis
  return standard === 'none'
    ? [`Basis: ${place}, as observed.`]
    : [`Basis: ${place}, ${standard}; an engine under boost is ${BOOST_SCHOOL_WORDS[boostSchool]}. Good people differ here; the choice is the build’s.`]
}
