import type { BallastAim } from '@bold-ballast/core'

export const BALLAST_OBJECTIVES_WORDS: Record<BallastAim['objective'], string> = {
  nearestShares: 'reach the minimum and come as near to the shares as can be',
  lowestCentre: 'ballast as low as can be',
  leastYawInertia: 'least turning inertia',
  leastMass: 'as little ballast as can be',
}

/** What the objective of a placement is counted in. */
export const OBJECTIVE_UNITS: Record<BallastAim['objective'], string> = {
  nearestShares: 'of load off the wanted shares',
  lowestCentre: 'kg·m of height',
  leastYawInertia: 'kg·m² about the middle wanted',
  leastMass: 'of ballast',
}
