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
  /** The first step that contradicts what was measured: the engine makes this power, so an assumption of that step is wrong. */
  readonly contradictedBy: PlanStepKey | null
}

/**
 * A plan from its target to the parts: power, fuel, air, pressure, temperatures, injectors, pumps (one of them failed), mean pressure, piston and heat.
 * Each step says what it found, what is usual and where that comes from; a step that physics refuses says so, and those that need it wait. Power up to
 * `measuredW` (W at the plan's place) was measured and is refused by nothing: the step that contradicts it has a wrong assumption.
 * Inputs SI as in the plan's record; it never throws for what is in the record. Source: the registered calculation each step names.
 * @example workEnginePlan(PLAN, lossOf(EXAMPLE.build)).steps.map((step) => step.key).slice(0, 3) // ['power', 'fuel', 'air']
 */
export function workEnginePlan(plan: EnginePlan, loss: DrivelineLoss, measuredW = 0): WorkedPlan {
  const point = attempt(() => enginePoint(plan, loss, plan.target.powerW))
  const path = point instanceof CalculationError ? point : attempt(() => airPath(plan, point))
  const input = { plan, loss, point: () => need(point), path: () => need(path) }
  const isMeasured = plan.target.powerW <= measuredW
  const sayRefusal = (message: string) =>
    isMeasured ? `The engine makes this power: it was measured. So a number here is not as assumed. ${message}` : message
  const steps = ENGINE_PLAN_STEPS.map(({ key, word, calculation, usual, usualFrom = PRACTICE, work }): PlanStep => {
    const head = { key, word, calculation, usual: usual(input), usualFrom, waitsFor: null, refusal: null, notGiven: null }
    const said = attempt(() => work(input))
    if (!(said instanceof CalculationError)) return { ...head, warnings: [], ...said }
    const owner = said === point ? ownerOf(said) : said === path ? 'pressure' : key
    const why = owner !== key ? { waitsFor: owner } : said.code === 'missing' ? { notGiven: said.message } : { refusal: sayRefusal(said.message) }
    return { ...head, figures: [], warnings: [], ...why }
  })
  const first = steps.find(({ refusal }) => refusal !== null)?.key ?? null
  return isMeasured ? { steps, refusedBy: null, contradictedBy: first } : { steps, refusedBy: first, contradictedBy: null }
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
