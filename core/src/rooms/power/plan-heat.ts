import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { lossOf } from './driveline-loss.ts'
import { planAtStage } from './engine-plan-at-stage.ts'
import { workEnginePlan } from './work-engine-plan.ts'

/** Heat to the coolant at full power by the engine plan that holds at a stage, W, and whose plan it is; undefined where there is none, or it does not get that far. */
export const planHeatAtStage = rememberByIndex((car: Car, position: number): { readonly heatW: number; readonly position: number } | undefined => {
  const found = planAtStage({ stages: car.stages, enginePlans: car.records.enginePlans }, position)
  if (!found) return undefined
  const heat = workEnginePlan(found.plan, lossOf(car.records.build)).steps.find(({ key }) => key === 'heat')?.figures[0]?.value
  return heat === undefined ? undefined : { heatW: heat, position: found.position }
})
