import type { LapCar } from '../track/lap-car.ts'
import type { TrackLine } from '../track/track.ts'
import { z } from '../zod.ts'

/** A piece of track as an input has it. */
const segment = z.strictObject({
  lengthM: z.number(),
  curvaturePerM: z.number().default(0),
  endCurvaturePerM: z.number().nullable().default(null),
  grade: z.number().default(0),
  camberRad: z.number().default(0),
  gripFactor: z.number().default(1),
})

export const trackFields = {
  segments: z.array(segment).max(20_000),
  isClosed: z.boolean().default(true),
}

export const lapCarSchema = z.strictObject({
  massKg: z.number(),
  frontShare: z.number(),
  centreHeightM: z.number(),
  wheelbaseM: z.number(),
  trackM: z.number(),
  friction: z.number(),
  loadSensitivity: z.number().default(0.1),
  gripFactor: z.number().default(1),
  brakingUse: z.number().default(0.85),
  dragAreaM2: z.number().default(0.75),
  downforceFrontM2: z.number().default(0),
  downforceRearM2: z.number().default(0),
  rollingCoefficient: z.number().default(0.014),
  airDensityKgM3: z.number().default(1.2),
  drivenAxles: z.enum(['front', 'rear', 'all']),
  rearTorqueShare: z.number().nullable().default(null),
  brakeFrontShare: z.number().nullable().default(null),
  curve: z.strictObject({ speedRpm: z.array(z.number()).max(5000), powerW: z.array(z.number()).max(5000) }),
  gears: z
    .strictObject({
      overallRatios: z.array(z.number()).max(10),
      radiusM: z.number(),
      turning: z.array(z.strictObject({ share: z.number(), kg: z.number().default(0) })).max(10),
      leaveRpm: z.array(z.number()).max(9).nullable().default(null),
      shiftS: z.number().default(0.2),
      topRpm: z.number(),
    })
    .nullable()
    .default(null),
})

export const changeSchema = z.strictObject({
  massKg: z.number().optional(),
  powerW: z.number().optional(),
  dragAreaM2: z.number().optional(),
  downforceFrontM2: z.number().optional(),
  downforceRearM2: z.number().optional(),
  gripFactor: z.number().optional(),
  finalFactor: z.number().optional(),
  shiftS: z.number().optional(),
  centreHeightM: z.number().optional(),
  brakeFrontShare: z.number().optional(),
  brakingUse: z.number().optional(),
})

export const stepField = { stepM: z.number().default(1) }

/** The car of an input: its own loads at rest are those that friction is counted against. */
export const carOf = (input: z.output<typeof lapCarSchema>): LapCar => ({ ...input, reference: null })

/** An example as zod takes it: lists that may be written to. */
export const asInput = ({ reference: _, ...car }: LapCar): z.input<typeof lapCarSchema> => JSON.parse(JSON.stringify(car)) as z.input<typeof lapCarSchema>
export const segmentsOf = (track: TrackLine) => JSON.parse(JSON.stringify(track.segments)) as z.input<typeof segment>[]
