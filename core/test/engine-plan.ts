import { EXAMPLE_PLAN } from '../src/calculations/examples/example-plan.ts'
import type { EnginePlan } from '../src/records/engine-plan-kind.ts'
import { buildRecordsSchema } from '../src/records/records.ts'

export const LOSS = { ...EXAMPLE_PLAN.loss, isUsual: false }

/** The example's engine plan as a record, after an edit. */
export function plan(edit: (plan: EnginePlan) => void = () => {}): EnginePlan {
  const { loss: _, ...fields } = structuredClone(EXAMPLE_PLAN)
  const made = buildRecordsSchema.shape.enginePlans.parse([{ id: 'plan', stageId: 's2', ...fields }])[0] as EnginePlan
  edit(made)
  return made
}
