export const STEADY_READINGS = ['wheel', 'damper', 'height'] as const
/** What was read at an axle: travel of the wheel, of the damper, or how far the body sank. */
export type SteadyReading = (typeof STEADY_READINGS)[number]
