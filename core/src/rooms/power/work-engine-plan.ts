import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { DrivelineLoss } from './driveline-loss.ts'
import { ENGINE_PLAN_STEPS, type PlanStep, type PlanStepKey, PRACTICE } from './engine-plan-steps.ts'
import { airPath, enginePoint } from './engine-point.ts'

export interface WorkedPlan {
  readonly steps: readonly PlanStep[]
  /** The first step that refuses the target. */
  readonly refusedBy: PlanStepKey | null
}

/**
 * A plan from its target to the parts: power, fuel, air, pressure, temperatures, injectors, pumps (one of them failed), mean pressure, piston and heat.
 * Each step says what it found, what is usual and where that comes from; a step that physics refuses says so, and those that need it wait.
 * Inputs SI as in the plan's record; it never throws for what is in the record. Source: the registered calculation each step names.
 * @example workEnginePlan(PLAN, lossOf(EXAMPLE.build)).steps.map((step) => step.key).slice(0, 3) // ['power', 'fuel', 'air']
 */
export function workEnginePlan(plan: EnginePlan, loss: DrivelineLoss): WorkedPlan {
  const point = attempt(() => enginePoint(plan, loss, plan.target.powerW))
  const path = point instanceof CalculationError ? point : attempt(() => airPath(plan, point))
  const input = { plan, point: () => need(point), path: () => need(path) }
  const steps = ENGINE_PLAN_STEPS.map(({ key, word, calculation, usual, usualFrom = PRACTICE, work }): PlanStep => {
    const head = { key, word, calculation, usual: usual(input), usualFrom, waitsFor: null, refusal: null }
    const said = attempt(() => work(input))
    if (!(said instanceof CalculationError)) return { ...head, warnings: [], ...said }
    const owner = said === point ? ownerOf(said) : said === path ? 'pressure' : key
    return { ...head, figures: [], warnings: [], ...(owner === key ? { refusal: said.message } : { waitsFor: owner }) }
  })
  return { steps, refusedBy: steps.find(({ key, refusal }) => refusal !== null && !isOpen(plan, key))?.key ?? null }
}

/** Whether a step only waits for what is not given yet, which refuses no target. */
function isOpen({ injectors, pump, engine }: EnginePlan, key: PlanStepKey): boolean {
  if (key === 'injectors') return injectors === null
  if (key === 'pumps') return pump === null
  return key === 'piston' && (engine.strokeM === null || engine.rodM === null)
}

/** What an earlier step found; its refusal goes on, so that the step that refused is named once and the others wait for it. */
function need<Found>(found: Found | CalculationError): Found {
  if (found instanceof CalculationError) throw found
  return found
}

/** The step whose input a refusal of the shared part of a plan is about. */
function ownerOf({ field }: CalculationError): PlanStepKey {
  if (field === 'veCurve') return 'air'
  if (['bsfcKgPerJ', 'lambda', 'ethanolShare'].includes(field)) return 'fuel'
  return 'power'
}
