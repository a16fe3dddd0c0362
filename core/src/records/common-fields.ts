import { z } from '../zod.ts'

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i
/** An id; one that differs in capitals alone is the same. */
export const id = z
  .string()
  .min(1)
  .max(64)
  .overwrite((text) => (UUID.test(text) ? text.toLowerCase() : text))
export const name = z.string().trim().min(1).max(120)
export const note = z.string().max(2000).nullable().default(null)
/** What was typed, beside the number it was read as; the database keeps nothing as null. */
export const typed = z.string().max(80).nullish()
const yearOf = (text: string) => Number(text.slice(0, 4))
const isOfOurTime = (text: string) => yearOf(text) >= 1950 && yearOf(text) <= 2100
const OF_OUR_TIME = 'lies outside 1950 to 2100. Check the year.'
/** No clock on earth is further off than this. */
const FARTHEST_OFFSET_H = 14
function hasKnownOffset(text: string): boolean {
  const [, hours = '0', minutes = '0'] = /[+-](\d\d):?(\d\d)$/.exec(text) ?? []
  return Number(hours) + Number(minutes) / 60 <= FARTHEST_OFFSET_H
}
export const instant = z.iso
  .datetime({ offset: true })
  .refine(isOfOurTime, OF_OUR_TIME)
  .refine(hasKnownOffset, 'is off by more hours than any clock. Give an offset up to 14:00, or Z.')
export const day = z.iso.date().refine(isOfOurTime, OF_OUR_TIME)
/** From a milligram to what no single part weighs. */
export const partKg = z.number().min(1e-6).max(5000)
export const spread = z.number().nonnegative().max(1e7).nullable().default(null)

const coordinateM = z.number().min(-10).max(10)
/** Rearward of the front axle, left of the middle, above the ground. */
export const placeSchema = z.strictObject({ xM: coordinateM, yM: coordinateM, zM: coordinateM })
export const optionalPlace = placeSchema.nullable().default(null)
export type Place = z.output<typeof placeSchema>
