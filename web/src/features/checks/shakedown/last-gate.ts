import type { RecordsAnswer } from '@bold-ballast/contract'
import { sessionsByStep } from '@bold-ballast/core'

type Plan = RecordsAnswer['trackPlans'][number]

/** The last step of a plan that was driven; null: none yet. */
export function lastGate(records: RecordsAnswer, plan: Plan): number | null {
  const driven = [...sessionsByStep(records as never, plan, null).keys()].filter((step) => step < plan.steps.length)
  return driven.length === 0 ? null : Math.max(...driven)
}
