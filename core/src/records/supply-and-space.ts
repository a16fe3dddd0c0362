import { z } from '../zod.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)

/** What feeds the car: alternator and battery. */
export const supplySchema = z.strictObject({
  alternatorA: within(1, 1000),
  /** Of its rating when hot, and at idle (common practice, no source). */
  hotShare: within(0.05, 1).default(0.75),
  idleShare: within(0.05, 1).default(0.5),
  batteryAh: within(0.5, 1000),
  usable: within(0.05, 1).default(0.8),
  /** Of alternator and belt. */
  efficiency: within(0.2, 0.95).default(0.55),
})
export type Supply = z.output<typeof supplySchema>

/** A space of the car that something is to go into. */
export const spaceSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  lengthM: within(0.001, 10),
  widthM: within(0.001, 10),
  heightM: within(0.001, 10),
})
export type NamedSpace = z.output<typeof spaceSchema>
