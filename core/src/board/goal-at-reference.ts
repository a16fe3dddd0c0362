import type { BuildRecord, Limit, Target } from '../records/plan-kinds.ts'

/**
 * A goal on mass that names a driver, as one for the reference driver that every mass is quoted with; any other goal as it is. A driver the build no longer
 * has counts as the reference driver.
 */
export function goalAtReference<Goal extends Target | Limit>(goal: Goal, { drivers, reference }: BuildRecord): Goal {
  const driver = goal.driverName ? drivers.find(({ name }) => name.toLowerCase() === goal.driverName?.toLowerCase()) : undefined
  if (!driver) return goal
  const lighter = reference.driverKg - driver.massKg
  return { ...goal, value: goal.value + lighter, ...('highValue' in goal && goal.highValue !== null ? { highValue: goal.highValue + lighter } : {}) }
}
