import { CalculationError, requireWithin } from '../errors.ts'

export interface DriftSeason {
  readonly runsPerPair: number
  readonly pairsNeeded: number
  readonly tyresNeeded: number
  /** Still to be bought. */
  readonly tyresShort: number
}

/** Pairs that are cut or flat-spotted and do not last their runs (common practice, no source). */
export const USUAL_SPARE_SHARE = 0.1

/**
 * Rear tyres of a season: 2 ⌈runs planned / runs a pair (1 + spare)⌉, against what is in stock. Source: the room's page.
 * Rejects no pairs, no runs, a spare outside 0 to 2.
 * @example driftSeason({ runsDriven: 31, pairsUsed: 12, runsPlanned: 90, tyresInStock: 30 }).tyresNeeded // 78
 */
export function driftSeason({
  runsDriven,
  pairsUsed,
  runsPlanned,
  tyresInStock,
  spareShare = USUAL_SPARE_SHARE,
}: {
  runsDriven: number
  pairsUsed: number
  runsPlanned: number
  tyresInStock: number
  spareShare?: number
}): DriftSeason {
  if (!(pairsUsed > 0)) throw new CalculationError('missing', 'pairsUsed', 'No pair was used up yet: count one first.')
  if (!(runsDriven > 0)) throw new CalculationError('missing', 'runsDriven', 'No run was driven yet.')
  requireWithin(runsPlanned, 0, 100_000, 'runsPlanned')
  requireWithin(tyresInStock, 0, 100_000, 'tyresInStock')
  requireWithin(spareShare, 0, 2, 'spareShare')
  const runsPerPair = runsDriven / pairsUsed
  const pairsNeeded = Math.ceil((runsPlanned / runsPerPair) * (1 + spareShare) - 1e-9)
  return { runsPerPair, pairsNeeded, tyresNeeded: 2 * pairsNeeded, tyresShort: Math.max(0, 2 * pairsNeeded - tyresInStock) }
}
