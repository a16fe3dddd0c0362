import type { GoalsBy, Role } from '@bold-ballast/contract'
import type { Least } from '../http/access.ts'

/** One membership as it counts now: of a garage with all its builds, or of one build. */
export interface Membership {
  readonly garageId: string | null
  readonly buildId: string | null
  readonly role: Role
  readonly until: string | null
  readonly changedAt: string
}

/** Where something stands: a garage, or a build in one. */
export interface Place {
  readonly garageId: string | null
  readonly buildId?: string | null
}

const RANK: Record<Role, number> = { viewer: 1, crew: 2, owner: 3 }

/** The membership that counts most over a place; undefined where none does. A higher one only adds to a lower one. */
export function strongest(memberships: readonly Membership[], { garageId, buildId = null }: Place): Membership | undefined {
  const counting = memberships.filter(
    (each) => (each.garageId !== null && each.garageId === garageId) || (each.buildId !== null && garageId !== null && each.buildId === buildId),
  )
  return counting.sort((a, b) => RANK[b.role] - RANK[a.role])[0]
}

/** The least role that may do a thing in a garage that has its goals moved by these. */
const leastRole = (least: Least, goalsBy: GoalsBy): Role => (least === 'goals' ? (goalsBy === 'owners' ? 'owner' : 'crew') : least)

/** Whether a role is enough. */
export const isEnough = (role: Role, least: Least, goalsBy: GoalsBy = 'crew'): boolean => RANK[role] >= RANK[leastRole(least, goalsBy)]
