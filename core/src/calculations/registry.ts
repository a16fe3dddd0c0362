import { CalculationError, type CalculationErrorCode } from '../errors.ts'
import type { SolveMilp } from '../solver/milp.ts'
import { z } from '../zod.ts'

export interface Calculation {
  readonly name: string
  readonly title: string
  readonly formula: string
  readonly sources: readonly string[]
  readonly assumptions: readonly string[]
  /** Where it holds, in words. */
  readonly validRange: string
  /** Choices on which good practitioners differ; empty where there is none. */
  readonly schools: readonly string[]
  /** An input that a form starts with and a test runs. */
  readonly example: unknown
  readonly input: z.ZodType
  readonly output: z.ZodType
  /** Whether `run` asks for the solver among its tools. */
  readonly needsSolver?: boolean
  readonly run: (input: never, tools: CalculationTools) => { value: unknown; warnings?: readonly string[] }
}

/** What is handed in from outside, so that calculations stay pure. */
export interface CalculationTools {
  readonly solveMilp?: SolveMilp
}

export type CalculationAnswer =
  | { readonly ok: true; readonly value: unknown; readonly warnings: readonly string[] }
  | { readonly ok: false; readonly error: { readonly code: CalculationErrorCode; readonly field: string; readonly message: string } }

/** Ties a calculation's `run` to the types of its schemas. */
export function defineCalculation<Input extends z.ZodType, Output extends z.ZodType>(
  definition: Omit<Calculation, 'input' | 'output' | 'run' | 'example'> & {
    example: z.input<Input>
    input: Input
    output: Output
    run: (input: z.output<Input>, tools: CalculationTools) => { value: z.input<Output>; warnings?: readonly string[] }
  },
): Calculation {
  return definition
}

/**
 * Runs a registered calculation on raw input; every refusal is an answer with a code, the field and a sentence.
 * @example runCalculation(findCalculation('dyno.power-torque'), { speedRpm: 0, torqueNm: 400 }).error.code // 'out-of-range'
 */
export function runCalculation(calculation: Calculation, input: unknown, tools: CalculationTools = {}): CalculationAnswer {
  const read = calculation.input.safeParse(input)
  if (!read.success) {
    const issue = read.error.issues[0]
    const unknownKeys = issue?.code === 'unrecognized_keys' ? issue.keys.join(', ') : ''
    const field = [...(issue?.path ?? []), ...(unknownKeys ? [unknownKeys] : [])].join('.') || 'input'
    const message = unknownKeys
      ? `${field} is not a field of ${calculation.name}. Leave it out or correct its name.`
      : `${field}: ${issue?.message ?? 'cannot be read'}.`
    return { ok: false, error: { code: 'bad-input', field, message } }
  }
  try {
    const { value, warnings = [] } = calculation.run(read.data as never, tools)
    return { ok: true, value, warnings }
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    return { ok: false, error: { code: error.code, field: error.field, message: error.message } }
  }
}

/**
 * A calculation as data: what lists, the command line and the API show.
 * @example describeCalculation(findCalculation('air.density')).input.type // 'object'
 */
export function describeCalculation(calculation: Calculation) {
  const { name, title, formula, sources, assumptions, validRange, schools, example } = calculation
  const schema = (type: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(type, { io })
  const words = { name, title, formula, sources, assumptions, validRange, schools, example }
  return { ...words, input: schema(calculation.input, 'input'), output: schema(calculation.output, 'output') }
}
