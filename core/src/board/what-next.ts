import { orElse } from '../attempt.ts'
import { AERO_ADVICE } from '../rooms/aero/advice.ts'
import { CHECKS_ADVICE } from '../rooms/checks/advice.ts'
import { DRIVETRAIN_ADVICE } from '../rooms/drivetrain/advice.ts'
import { JOBS_ADVICE } from '../rooms/jobs/advice.ts'
import { PARTS_ADVICE } from '../rooms/parts/advice.ts'
import { POWER_ADVICE } from '../rooms/power/advice.ts'
import { SYSTEMS_ADVICE } from '../rooms/systems/advice.ts'
import { TRACK_ADVICE } from '../rooms/track/advice.ts'
import { WEIGHT_ADVICE } from '../rooms/weight/advice.ts'
import { GOAL_ADVICE, type NextAction } from './advice.ts'
import type { StageValues } from './stage-values.ts'

const ROOM_ADVICE = [
  ...WEIGHT_ADVICE,
  ...POWER_ADVICE,
  ...PARTS_ADVICE,
  ...DRIVETRAIN_ADVICE,
  ...AERO_ADVICE,
  ...TRACK_ADVICE,
  ...JOBS_ADVICE,
  ...CHECKS_ADVICE,
  ...SYSTEMS_ADVICE,
]

/** What to do next, by the ranks of the rules; of equal rank, the earlier stage first. */
export function whatNext(values: StageValues, today: string): NextAction[] {
  const found = [
    ...GOAL_ADVICE.map(({ rank, find }) => ({
      rank,
      items: orElse(
        () => find(values, today),
        () => [],
      ) as readonly NextAction[],
    })),
    ...ROOM_ADVICE.map(({ rank, find }) => ({
      rank,
      items: orElse(
        () => find(values.car, today),
        () => [],
      ) as readonly NextAction[],
    })),
  ]
  const ranked = found.flatMap(({ rank, items }) => items.map((item) => ({ rank, item, position: 'position' in item ? item.position : 0 })))
  return ranked.sort((a, b) => a.rank - b.rank || a.position - b.position).map(({ item }) => item)
}
