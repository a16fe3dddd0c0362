import { itemAt } from '../item-at.ts'
import type { MilpAnswer, SolveMilp } from '../solver/milp.ts'
import type { BallastModel, Bounds } from './ballast-model.ts'
import type { BallastPlacement } from './ballast-types.ts'

/**
 * The next best placements: any other one has, in at least one place, a plate fewer or a plate more than the best, so the best of those
 * neighbouring problems is the runner-up; the one after it is found the same way with the runner-up's own problem split again.
 */
export function otherPlacements(model: BallastModel, best: MilpAnswer, count: number, solve: SolveMilp, timeLimitS: number): BallastPlacement[] {
  const found: BallastPlacement[] = []
  // Other plates of the same mass in the same places are no other placement.
  const seen = new Set([massesOf(model.placement(best))])
  let open = splitAround(model, model.bounds, best, solve, timeLimitS)
  for (let i = 0; found.length < count && i < MOST_SPLITS; i++) {
    open = open.sort((a, b) => a.answer.objective - b.answer.objective)
    const [next, ...rest] = open
    if (!next) break
    const placement = model.placement(next.answer)
    if (!seen.has(massesOf(placement))) found.push(placement)
    seen.add(massesOf(placement))
    open = [...rest, ...(found.length < count ? splitAround(model, next.bounds, next.answer, solve, timeLimitS) : [])]
  }
  return found
}

const MOST_SPLITS = 8
const massesOf = ({ sites }: BallastPlacement) => sites.map(({ massKg }) => massKg.toFixed(3)).join(' ')

interface Branch {
  readonly bounds: Bounds
  readonly answer: MilpAnswer
}

/** Problems that between them hold every placement but the given one, without overlap, each with its best. */
function splitAround(model: BallastModel, bounds: Bounds, given: MilpAnswer, solve: SolveMilp, timeLimitS: number): Branch[] {
  const branches: Branch[] = []
  let held = bounds.columns
  model.columns.forEach((_, i) => {
    const value = Math.round(itemAt(given.values, i))
    const { low, high } = itemAt(bounds.columns, i)
    for (const range of [
      { low, high: value - 1 },
      { low: value + 1, high },
    ]) {
      if (range.low > range.high) continue
      const columns = held.map((column, k) => (k === i ? range : column))
      // All branches together take no longer than the best itself might.
      const answer = solve(model.problem({ ...bounds, columns }), timeLimitS / (2 * model.columns.length))
      if (answer.status === 'optimal' || answer.status === 'limit') branches.push({ bounds: { ...bounds, columns }, answer })
    }
    held = held.map((column, k) => (k === i ? { low: value, high: value } : column))
  })
  return branches
}
