/**
 * The engine plan that holds at a stage: its own, else that of the latest stage before; undefined without one.
 * @example planAtStage(WITH_PLAN, 1).position // 1
 */
export function planAtStage<Plan extends { readonly stageId: string }>(
  { stages, enginePlans }: { readonly stages: readonly { readonly id: string }[]; readonly enginePlans: readonly Plan[] },
  position: number,
): { readonly plan: Plan; readonly position: number } | undefined {
  for (let at = position; at >= 0; at--) {
    const plan = enginePlans.find(({ stageId }) => stageId === stages[at]?.id)
    if (plan) return { plan, position: at }
  }
  return undefined
}
