import { z } from '../zod.ts'

export const id = z.string().min(1).max(64)
export const name = z.string().trim().min(1).max(120)
export const note = z.string().max(2000).nullable().default(null)
/** What was typed, beside the number it was read as; the database keeps nothing as null. */
export const typed = z.string().max(80).nullish()
export const instant = z.iso.datetime({ offset: true })
export const partKg = z.number().positive().max(5000)
export const spread = z.number().nonnegative().nullable().default(null)

const coordinateM = z.number().min(-10).max(10)
/** Rearward of the front axle, left of the middle, above the ground. */
export const placeSchema = z.strictObject({ xM: coordinateM, yM: coordinateM, zM: coordinateM })
export const optionalPlace = placeSchema.nullable().default(null)
export type Place = z.output<typeof placeSchema>
