import { z } from '../zod.ts'

export const id = z.string().min(1).max(64)
export const name = z.string().trim().min(1).max(120)
export const note = z.string().max(2000).nullable().default(null)
/** What was typed, beside the number it was read as; the database keeps nothing as null. */
export const typed = z.string().max(80).nullish()
const yearOf = (text: string) => Number(text.slice(0, 4))
const isOfOurTime = (text: string) => yearOf(text) >= 1950 && yearOf(text) <= 2100
const OF_OUR_TIME = 'lies outside 1950 to 2100. Check the year.'
export const instant = z.iso.datetime({ offset: true }).refine(isOfOurTime, OF_OUR_TIME)
export const day = z.iso.date().refine(isOfOurTime, OF_OUR_TIME)
/** From a milligram to what no single part weighs. */
export const partKg = z.number().min(1e-6).max(5000)
export const spread = z.number().nonnegative().max(1e7).nullable().default(null)

const coordinateM = z.number().min(-10).max(10)
/** Rearward of the front axle, left of the middle, above the ground. */
export const placeSchema = z.strictObject({ xM: coordinateM, yM: coordinateM, zM: coordinateM })
export const optionalPlace = placeSchema.nullable().default(null)
export type Place = z.output<typeof placeSchema>
