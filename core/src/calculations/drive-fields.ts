import { FRICTION_SCHOOLS, GRIP_SCHOOLS, USUAL_DRIVE } from '../drivetrain/drive-car.ts'
import { DRIVEN_AXLES } from '../records/plan-kinds.ts'
import { z } from '../zod.ts'

const list = z.array(z.number()).max(2000)

/** Torque left at the wheels by engine speed. */
export const curveField = z.strictObject({ speedRpm: list, torqueNm: list })

/** How a car stands and holds the road. */
export const groundedFields = {
  massKg: z.number(),
  wheelbaseM: z.number(),
  frontShare: z.number(),
  centreHeightM: z.number(),
  drivenAxles: z.enum(DRIVEN_AXLES),
  rearTorqueShare: z.number().nullable().default(USUAL_DRIVE.rearTorqueShare),
  friction: z.number(),
  frictionSchool: z.enum(FRICTION_SCHOOLS).default(USUAL_DRIVE.frictionSchool),
  loadSensitivity: z.number().default(USUAL_DRIVE.loadSensitivity),
  gripUse: z.number().default(USUAL_DRIVE.gripUse),
  surfaceFactor: z.number().default(USUAL_DRIVE.surfaceFactor),
  dragAreaM2: z.number().default(USUAL_DRIVE.dragAreaM2),
  rollingCoefficient: z.number().default(USUAL_DRIVE.rollingCoefficient),
  downforceFrontM2: z.number().default(USUAL_DRIVE.downforceFrontM2),
  downforceRearM2: z.number().default(USUAL_DRIVE.downforceRearM2),
  airDensityKgM3: z.number().default(USUAL_DRIVE.airDensityKgM3),
}

/** Engine and gears. */
export const trainFields = {
  curve: curveField,
  driveEfficiency: z.number().default(USUAL_DRIVE.driveEfficiency),
  primaryRatio: z.number().default(USUAL_DRIVE.primaryRatio),
  ratios: z.array(z.number()),
  finalRatio: z.number(),
  radiusM: z.number(),
  topRpm: z.number(),
}

/** A whole car that accelerates. */
export const driveFields = {
  ...groundedFields,
  ...trainFields,
  engineInertiaKgM2: z.number().nullable().default(null),
  wheelInertiaKgM2: z.number().default(0),
  inertiaScale: z.number().min(0).max(3).default(USUAL_DRIVE.inertiaScale),
  launchRpm: z.number(),
  shiftS: z.number(),
  gripSchool: z.enum(GRIP_SCHOOLS).default(USUAL_DRIVE.gripSchool),
  isOnRollers: z.boolean().default(USUAL_DRIVE.isOnRollers),
}

export const SCHOOLS_OF_GRIP = [
  'At the limit of the tyres the whole car is held by acceleration (default), or its drive force alone (gripSchool driveForce)',
  'Friction is constant, or falls with load (frictionSchool loadSensitive)',
]
export const PRACTICE = 'common practice, no source'
