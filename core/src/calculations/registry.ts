import { CalculationError, type CalculationErrorCode } from '../errors.ts'
import { issueField, sayIssue } from '../say-issue.ts'
import type { SolveMilp } from '../solver/milp.ts'
import { z } from '../zod.ts'
import { requirePlausible } from './plausible.ts'
import { typesetOf } from './typeset/typeset-of.ts'

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
  /** Whether a short input can ask for a long sum. */
  readonly isLong?: boolean
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

/** The number of an input that lies farthest from anything real, by its path; the first field where there is no number. */
function strangestField(input: unknown): string {
  let found = { path: '', size: -1 }
  const look = (value: unknown, path: string): void => {
    if (typeof value === 'number') {
      const size = value === 0 ? 1 : Math.abs(Math.log10(Math.abs(value)))
      if (size > found.size) found = { path, size }
    } else if (value !== null && typeof value === 'object') for (const [key, item] of Object.entries(value)) look(item, path ? `${path}.${key}` : key)
  }
  look(input, '')
  return found.path || Object.keys((input ?? {}) as object)[0] || 'input'
}

/** An input without the word that its numbers are meant as they stand, and whether it stood there. */
function asMeant(input: unknown): { body: unknown; isMeant: boolean } {
  if (input === null || typeof input !== 'object' || Array.isArray(input) || !('asMeant' in input)) return { body: input, isMeant: false }
  const { asMeant: isMeant, ...body } = input
  return { body, isMeant: isMeant === true }
}

/** A refusal from within a sum, told of a field that the sum was given. */
function refused(calculation: Calculation, input: unknown, { code, field, message }: CalculationError): CalculationAnswer {
  const [head = ''] = field.split(/[.[]/)
  const isGiven = !(calculation.input instanceof z.ZodObject) || head in calculation.input.shape
  return { ok: false, error: { code, field: isGiven ? field : strangestField(input), message } }
}

/** What came out is no number that can be shown, or the sum fell over: the input is outside of what it is made for. */
function noNumber(calculation: Calculation, input: unknown): CalculationAnswer {
  const field = strangestField(input)
  const message = `${field}: with this value ${calculation.title.toLowerCase()} gives no number. It holds for: ${calculation.validRange}. Check the value and its unit.`
  return { ok: false, error: { code: 'out-of-range', field, message } }
}

/**
 * Runs a registered calculation on raw input; every refusal is an answer with a code, the field and a sentence, and every number in an answer is finite.
 * Numbers that look like a slip of the unit are refused as `implausible`, and taken where `asMeant: true` stands beside them.
 * @example runCalculation(findCalculation('dyno.power-torque'), { speedRpm: 0, torqueNm: 400 }).error.code // 'out-of-range'
 */
export function runCalculation(calculation: Calculation, input: unknown, tools: CalculationTools = {}): CalculationAnswer {
  const { body, isMeant } = asMeant(input)
  const read = calculation.input.safeParse(body)
  if (!read.success) {
    const issue = read.error.issues[0]
    const field = (issue && issueField(issue)) || 'input'
    return { ok: false, error: { code: 'bad-input', field, message: `${field} ${issue ? sayIssue(issue) : 'cannot be read. Give its fields.'}` } }
  }
  try {
    if (!isMeant) requirePlausible(body)
    const { value, warnings = [] } = calculation.run(read.data as never, tools)
    return calculation.output.safeParse(value).success ? { ok: true, value, warnings } : noNumber(calculation, read.data)
  } catch (error) {
    if (error instanceof CalculationError) return refused(calculation, read.data, error)
    return noNumber(calculation, read.data)
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
  return { ...words, typeset: typesetOf(name), input: schema(calculation.input, 'input'), output: schema(calculation.output, 'output') }
}
