import { FRICTION_SCHOOLS } from '../drivetrain/drive-car.ts'
import { DIFFERENTIAL_KINDS } from '../drivetrain/torque-path.ts'
import { TYRE_CONSTRUCTIONS } from '../drivetrain/tyre.ts'
import { z } from '../zod.ts'
import { typed } from './common-fields.ts'

export const KNOWN = ['guess', 'catalogue', 'measured'] as const
export type Known = (typeof KNOWN)[number]
export const GEARBOX_STYLES = ['hPattern', 'sequential', 'paddle', 'twinClutch', 'converter'] as const
export type GearboxStyle = (typeof GEARBOX_STYLES)[number]
export const TYRE_CLASSES = ['street', 'fastRoad', 'soft', 'slick'] as const
export type TyreClass = (typeof TYRE_CLASSES)[number]
const AXLES = ['front', 'rear'] as const

const known = z.enum(KNOWN).default('guess')
const within = (least: number, most: number) => z.number().min(least).max(most)

const gearboxSchema = z.strictObject({
  role: z.literal('gearbox'),
  /** First to last, each smaller than the one before. */
  ratios: z.array(within(0.2, 6)).min(1).max(10),
  primaryRatio: within(0.3, 4).default(1),
  style: z.enum(GEARBOX_STYLES).default('hPattern'),
  /** Null: usual for the style. */
  shiftS: within(0, 3).nullable().default(null),
  efficiency: within(0.8, 1).nullable().default(null),
  known,
})

const finalDriveSchema = z.strictObject({
  role: z.literal('finalDrive'),
  ratio: within(1.5, 8),
  /** Teeth, driven over driving, where the ratio was told by them. */
  teeth: z
    .strictObject({ driven: z.int().min(1).max(200), driving: z.int().min(1).max(200) })
    .nullable()
    .default(null),
  /** Of a quick change: the car's ratio is ratio times first over second, either way round. */
  pairs: z
    .array(z.strictObject({ first: z.int().min(1).max(200), second: z.int().min(1).max(200) }))
    .max(40)
    .default([]),
})

const differentialSchema = z.strictObject({
  role: z.literal('differential'),
  axle: z.enum(['front', 'rear', 'centre']).default('rear'),
  kind: z.enum(DIFFERENTIAL_KINDS),
  biasRatio: within(1, 10).nullable().default(null),
  /** Of a centre one with a fixed split; null: both axles slip together. */
  rearTorqueShare: within(0, 1).nullable().default(null),
  /** Kept, not calculated with. */
  preloadNm: within(0, 1000).nullable().default(null),
  rampsRad: z.array(within(0, 1.6)).max(4).default([]),
})

const tyreSchema = z.strictObject({
  role: z.literal('tyre'),
  axle: z.enum(['both', ...AXLES]).default('both'),
  code: z.string().trim().min(3).max(40).nullable().default(null),
  circumferenceM: within(0.9, 3.2).nullable().default(null),
  circumferenceSdM: within(0, 0.2).nullable().default(null),
  construction: z.enum(TYRE_CONSTRUCTIONS).default('radial'),
  class: z.enum(TYRE_CLASSES).nullable().default(null),
  friction: z
    .strictObject({
      school: z.enum(FRICTION_SCHOOLS).default('constant'),
      peak: within(0.05, 3),
      sd: within(0, 1).nullable().default(null),
      known,
      sensitivity: within(0, 0.5).default(0.1),
      referenceLoadN: within(100, 50_000).nullable().default(null),
    })
    .nullable()
    .default(null),
  /** Friction of a sliding tyre over its peak. */
  slideShare: within(0.3, 1.2).nullable().default(null),
  /** Of one wheel with its tyre. */
  wheelInertiaKgM2: within(0.05, 10).nullable().default(null),
  madeFor: z.enum(['dry', 'wet']).nullable().default(null),
  /** What it wants hot, as its maker says. */
  hotPa: z
    .strictObject({ front: within(10_000, 1_000_000), rear: within(10_000, 1_000_000) })
    .nullable()
    .default(null),
  /** Laps until it grips; a usual number (common practice, no source). */
  warmUpLaps: z.int().min(0).max(20).default(2),
  /** Tread temperatures it works between. */
  windowK: z
    .strictObject({ least: within(250, 450), most: within(250, 450) })
    .nullable()
    .default(null)
    .refine((window) => window === null || window.most > window.least, 'ends under where it begins. Swap the two.'),
})

/** What a part does in the driveline; a stage changes the car by its parts. */
export const partDriveSchema = z.discriminatedUnion('role', [
  gearboxSchema,
  finalDriveSchema,
  differentialSchema,
  tyreSchema,
  z.strictObject({ role: z.literal('clutch'), behindPrimary: z.boolean().default(false) }),
  z.strictObject({ role: z.literal('propShaft') }),
  z.strictObject({ role: z.literal('halfShaft'), axle: z.enum(AXLES).default('rear') }),
  /** One gear of the box, for its own life and rating. */
  z.strictObject({ role: z.literal('gear'), number: z.int().min(1).max(10) }),
  /** Mean of both front wheels at full lock. */
  z.strictObject({ role: z.literal('steering'), lockRad: within(0.1, 1.5) }),
  z.strictObject({
    role: z.literal('wheel'),
    axle: z.enum(['both', ...AXLES]).default('both'),
    widthM: within(0.05, 0.6).nullable().default(null),
    /** Mounting face from the middle of the rim, outwards above zero: less of it sets the wheel out. */
    offsetM: within(-0.3, 0.3).nullable().default(null),
    spacerM: within(0, 0.2).default(0),
    boltCount: z.int().min(1).max(12).nullable().default(null),
    boltCircleM: within(0.05, 0.4).nullable().default(null),
  }),
])
export type PartDrive = z.output<typeof partDriveSchema>
export type DriveRole = PartDrive['role']
export const DRIVE_ROLES = [
  'gearbox',
  'finalDrive',
  'differential',
  'tyre',
  'clutch',
  'propShaft',
  'halfShaft',
  'gear',
  'steering',
  'wheel',
] as const satisfies readonly DriveRole[]
export type DriveOf<Role extends DriveRole> = Extract<PartDrive, { readonly role: Role }>

/** A number with its spread, how it is known and what was typed. */
export const knownNumber = (least: number, most: number) =>
  z
    .strictObject({
      value: within(least, most),
      sd: within(0, most - least)
        .nullable()
        .default(null),
      known,
      typed,
    })
    .nullable()
    .default(null)
