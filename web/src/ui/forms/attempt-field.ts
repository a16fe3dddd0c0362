import { CalculationError } from '@bold-ballast/core'
import type { FormReader } from './form-reader.ts'

/** What is read of a field, or nothing, and the field refused with the sentence of the reading. */
export function attemptField<Value>(read: FormReader, name: string, work: () => Value): Value | null {
  try {
    return work()
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    read.refuse(name, error.message)
    return null
  }
}
