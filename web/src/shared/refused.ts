import { attempt, CalculationError } from '@bold-ballast/core'

/** Why a sum says nothing, as a worker hands it over. */
export type Refused = { readonly refused: string }

/** The answer of a sum, or the sentence that refuses it. */
export function orRefused<Answer>(work: () => Answer): Answer | Refused {
  const found = attempt(work)
  return found instanceof CalculationError ? { refused: found.message } : (found as Answer)
}
