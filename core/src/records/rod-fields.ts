import { z } from '../zod.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)

/** Rods or cables that hold a device or a panel from above; the angle is that to the panel. */
export const rodFields = {
  count: z.int().min(1).max(20),
  angleRad: within(0.0874, 1.5708),
  diameterM: within(0.001, 0.05),
  lengthM: within(0.02, 2),
  /** One of them. */
  ratedN: within(1, 1e6),
}
