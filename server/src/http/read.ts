import { z } from '@bold-ballast/core'
import { AppError, badInput } from './problem.ts'

/** A body or query by its schema, or a refusal that names the fields. */
export function read<Schema extends z.ZodType>(schema: Schema, input: unknown): z.output<Schema> {
  const found = schema.safeParse(input)
  if (!found.success) throw badInput(found.error)
  return found.data
}

const uuid = z.uuid().overwrite((text) => text.toLowerCase())

/** An id from the address; anything that is no UUID names nothing. */
export function readId(value: unknown, what: string): string {
  const found = uuid.safeParse(value)
  if (!found.success) throw new AppError('not-found', `There is no such ${what}.`)
  return found.data
}
