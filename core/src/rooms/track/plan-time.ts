import type { TrackPlan } from '../../records/brake-kinds.ts'

/** A lap where nobody knows it yet, s (common practice, no source). */
const USUAL_LAP_S = 90

/**
 * Time that the steps of a booked spell take, s: cooling, and laps at their share of the pace; a lap that nobody knows takes a minute and a half.
 * @example planTimeS([{ kind: 'bed', share: 0.5, wantLaps: 3, leastLaps: 2, coolS: 600 }], 90) // 1140
 */
export const planTimeS = (steps: readonly Pick<TrackPlan['steps'][number], 'share' | 'wantLaps' | 'coolS'>[], lapS: number | null): number =>
  steps.reduce((sum, { share, wantLaps, coolS }) => sum + coolS + ((wantLaps ?? 0) * (lapS ?? USUAL_LAP_S)) / (share ?? 1), 0)
