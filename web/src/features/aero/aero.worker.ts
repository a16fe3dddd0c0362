import { attempt, CalculationError, type CoastPair, type CoastPlan, type KeptFit, keepFit, planCoastDown } from '@bold-ballast/core'
import { expose } from 'comlink'

type Refused = { readonly refused: string }
const orRefused = <Answer>(work: () => Answer): Answer | Refused => {
  const found = attempt(work)
  return found instanceof CalculationError ? { refused: found.message } : (found as Answer)
}

const work = {
  /** The fit of each pair, or why it has none. */
  fits(pairs: readonly CoastPair[]): (KeptFit | Refused)[] {
    return pairs.map((pair) => orRefused(() => keepFit(pair)))
  },
  plan(input: Parameters<typeof planCoastDown>[0]): CoastPlan | Refused {
    return orRefused(() => planCoastDown(input))
  },
}
export type AeroWorker = typeof work

expose(work)
