import { z } from '../../zod.ts'

/** Fields that records of the track share. */
export const within = (least: number, most: number) => z.number().min(least).max(most)
export const optional = (least: number, most: number) => within(least, most).nullable().default(null)
/** Why it counts nowhere; null: it counts. */
export const setAside = z.string().trim().min(1).max(300).nullable().default(null)
export const shortText = z.string().trim().min(1).max(300).nullable().default(null)
