import { z } from '../zod.ts'
import { id } from './common-fields.ts'
import { defineRecord, type RecordOfKind } from './define-record.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)

const axleBrakesSchema = z.strictObject({
  /** Of one side of one caliper; of a sliding one its own. */
  pistonsOneSideM: z.array(within(0.01, 0.1)).min(1).max(6),
  padFriction: within(0.1, 1),
  /** Where the pad works as its maker says. */
  padWindowK: z
    .tuple([within(240, 1500), within(240, 1500)])
    .nullable()
    .default(null),
  effectiveRadiusM: within(0.05, 0.25),
  /** Of one disc. */
  discKg: within(0.5, 40).nullable().default(null),
})
export type AxleBrakesRecord = z.output<typeof axleBrakesSchema>

/** What a stage brakes with: calipers, pads and discs of both axles, the cylinders and the bar between them. */
export const brakeSystemKind = defineRecord({
  list: 'brakeSystems',
  word: 'a brake system',
  isBatchable: true,
  nameFrom: ['stageId'],
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  fields: {
    id,
    stageId: id,
    front: axleBrakesSchema,
    rear: axleBrakesSchema,
    /** Two cylinders on a bar; null: one pressure for both ends. */
    masters: z
      .strictObject({ frontM: within(0.008, 0.05), rearM: within(0.008, 0.05), barFront: within(0.05, 0.95) })
      .nullable()
      .default(null),
    /** What a valve leaves of the rear's pressure: 1 none. */
    rearValve: within(0.05, 1).default(1),
  },
})
export type BrakeSystem = RecordOfKind<typeof brakeSystemKind>

export const TRACK_STEP_KINDS = ['bed', 'level', 'change', 'back', 'check', 'other'] as const
/** A step of a booked hour: bedding, a share of full pace, a change, back to how it was, a look over the car, anything that takes its time. */
export type TrackStepKind = (typeof TRACK_STEP_KINDS)[number]

/** What a booked spell of track time is for, step by step. */
export const trackPlanKind = defineRecord({
  list: 'trackPlans',
  word: 'a plan for the track',
  isBatchable: true,
  nameFrom: ['stageId'],
  onePer: ['trackId', 'stageId'],
  refs: {
    stageId: { to: 'stages', whenGone: 'goesWith' },
    trackId: { to: 'tracks', whenGone: 'goesWith' },
    eventId: { to: 'events', whenGone: 'forgets' },
  },
  fields: {
    id,
    trackId: id,
    stageId: id,
    /** Whose booked time stands, where it says one. */
    eventId: id.nullable().default(null),
    bookedS: within(60, 200_000),
    /** Before the first lap. */
    setUpS: within(0, 20_000).default(480),
    /** A lap at full pace; null: as the track's own laps or plan say. */
    lapS: within(5, 3600).nullable().default(null),
    /** Who check between steps. */
    people: z.int().min(1).max(20).default(2),
    fuelPerLapL: within(0.01, 50).nullable().default(null),
    steps: z
      .array(
        z.strictObject({
          kind: z.enum(TRACK_STEP_KINDS),
          words: z.string().trim().max(200).nullable().default(null),
          /** Of full pace. */
          share: within(0.1, 1).nullable().default(null),
          wantLaps: z.int().min(0).max(500).nullable().default(null),
          leastLaps: z.int().min(0).max(500).nullable().default(null),
          coolS: within(0, 7200).default(0),
          isDone: z.boolean().default(false),
          /** How much longer a lap takes than at full pace; null: as is usual for its pace. */
          factor: within(0.5, 5).nullable().default(null),
          /** Of a step that is no laps, such as four launches. */
          seconds: within(1, 20_000).nullable().default(null),
          /** Why the gate behind it was passed all the same; null: it was not overruled. */
          overruled: z.string().trim().min(1).max(300).nullable().default(null),
        }),
      )
      .max(60)
      .default([]),
  },
})
export type TrackPlan = RecordOfKind<typeof trackPlanKind>
