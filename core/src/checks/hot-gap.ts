import { requireWithin } from '../errors.ts'

/** Linear expansion, 1/K (engineering handbooks, from memory). */
export const EXPANSION_PER_K = { stainless: 17.3e-6, mildSteel: 12e-6, aluminium: 23e-6, titanium: 8.6e-6 } as const

/**
 * What is left of a gap once a pipe has grown and its engine has rocked: cold − α l ΔT toward − move, and how much that is over what is needed; less than
 * nothing: too little. Lengths in m. How hot a neighbour gets is not said. Rejects a share outside 0 to 1 and lengths no car has. Source: linear expansion.
 * @example hotGap({ coldM: 0.032, expansionPerK: 17.3e-6, lengthM: 0.9, riseK: 550, moveM: 0.006, needM: 0.025 }).hotM // 0.01744
 */
export function hotGap(input: {
  coldM: number
  expansionPerK?: number
  lengthM?: number
  riseK?: number
  towardShare?: number
  moveM?: number
  needM: number
}): {
  hotM: number
  headroomM: number
  verdict: 'touches' | 'tight' | 'holds'
} {
  const { coldM, expansionPerK = 0, lengthM = 0, riseK = 0, towardShare = 1, moveM = 0, needM } = input
  requireWithin(coldM, 0, 2, 'coldM')
  requireWithin(expansionPerK, 0, 1e-4, 'expansionPerK')
  requireWithin(lengthM, 0, 10, 'lengthM')
  requireWithin(riseK, -100, 1500, 'riseK')
  requireWithin(towardShare, 0, 1, 'towardShare')
  requireWithin(moveM, 0, 0.5, 'moveM')
  requireWithin(needM, 0, 1, 'needM')
  const hotM = coldM - expansionPerK * lengthM * riseK * towardShare - moveM
  const headroomM = hotM - needM
  return { hotM, headroomM, verdict: hotM <= 0 ? 'touches' : headroomM < 0 ? 'tight' : 'holds' }
}
