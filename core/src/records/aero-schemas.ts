import { BALANCE_SCHOOLS } from '../aero/device-loads.ts'
import { ROLLING_SCHOOLS } from '../aero/rolling-schools.ts'
import { SLOPE_SCHOOLS, WING_PLACES } from '../aero/wing.ts'
import { z } from '../zod.ts'
import { id, instant, typed } from './common-fields.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const sd = within(0, 20).nullable().default(null)

/** Where and how every number of aero is quoted. */
export const aeroBasisSchema = z.strictObject({
  speedMps: within(10, 100).default(50),
  /** Mounts, panels and heights are checked there. */
  fastestMps: within(10, 120).default(60),
  balanceSchool: z.enum(BALANCE_SCHOOLS).default('contactPatches'),
  slopeSchool: z.enum(SLOPE_SCHOOLS).default('lowAspect'),
  rollingSchool: z.enum(ROLLING_SCHOOLS).default('asRoadShows'),
  rollingSpeedMps: within(20, 500).nullable().default(null),
})
export type AeroBasis = z.output<typeof aeroBasisSchema>

/** Where aero is quoted as long as nobody says otherwise (common practice, no source). */
export const USUAL_AERO_BASIS: AeroBasis = {
  speedMps: 50,
  fastestMps: 60,
  balanceSchool: 'contactPatches',
  slopeSchool: 'lowAspect',
  rollingSchool: 'asRoadShows',
  rollingSpeedMps: null,
}

/** The car by a tape measure: lengths from the axles and over the ground, m. */
export const outlineSchema = z.strictObject({
  frontOverhangM: within(0, 3),
  rearOverhangM: within(0, 3),
  bodyWidthM: within(0.8, 3),
  roofHeightM: within(0.4, 3),
  roofFrontXM: within(-1, 5),
  roofRearXM: within(-1, 6),
  scuttleXM: within(-2, 4),
  scuttleHeightM: within(0.2, 2.5),
  noseHeightM: within(0.1, 2),
  tailHeightM: within(0.1, 2.5),
  undersideM: within(0.01, 1),
  wheelRadiusM: within(0.15, 0.6),
  /** Of one tape. */
  sdM: within(0, 0.1).default(0.005),
  /** The side of the car as it was traced on a picture: for drawing, never for a limit. */
  sidePoints: z
    .array(z.strictObject({ xM: within(-4, 9), zM: within(-0.5, 4) }))
    .min(3)
    .max(80)
    .nullish(),
})
export type Outline = z.output<typeof outlineSchema>

export const DEVICE_KINDS = ['body', 'splitter', 'airDam', 'canards', 'vent', 'floor', 'sideSkirt', 'diffuser', 'wing', 'spoiler', 'other'] as const
export type DeviceKind = (typeof DEVICE_KINDS)[number]

export const boxSchema = z.strictObject({
  xFrontM: within(-3, 8),
  xRearM: within(-3, 8),
  yInnerM: within(0, 2),
  yOuterM: within(0, 2),
  zBottomM: within(-0.1, 3),
  zTopM: within(-0.1, 3),
})

export const wingSchema = z.strictObject({
  spanM: within(0.1, 2.5),
  /** Of each element, first to last. */
  chordsM: z.array(within(0.03, 0.8)).min(1).max(4),
  pivotXM: within(-3, 8),
  pivotZM: within(0, 3),
  pivotShare: within(0, 1).default(0.25),
  endPlate: z
    .strictObject({ lengthM: within(0.02, 1.5), heightM: within(0.02, 1), topM: within(-0.5, 0.5) })
    .nullable()
    .default(null),
})
export type WingShapeRecord = z.output<typeof wingSchema>

/** How much of its downforce a device gives by the clearance of its own underside; 1 is what its value says. */
export const heightMapSchema = z
  .array(z.strictObject({ clearanceM: within(-0.05, 1), factor: within(0, 5) }))
  .min(2)
  .max(20)

export const VALUE_PROOFS = ['guess', 'calculated', 'catalogue', 'measured'] as const

/** What an estimate was made of, to open it again. */
const estimateSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('wing'), zeroLiftRad: within(-0.35, 0.1), place: z.enum(WING_PLACES), slopeSchool: z.enum(SLOPE_SCHOOLS) }),
  z.strictObject({ of: z.literal('splitter'), widthM: within(0.1, 2.5), lipM: within(0.01, 0.6), pressure: within(0.05, 2), pressureSd: within(0, 1) }),
])

const ofValue = {
  proof: z.enum(VALUE_PROOFS),
  /** By what: a test, a maker, a person. */
  how: z.string().trim().max(200).nullable().default(null),
  estimate: estimateSchema.nullable().default(null),
  at: instant,
  typed,
}

/** What a device gives at one notch, as areas: at the place of its force, or at the tyres of each axle. */
export const deviceValueSchema = z.discriminatedUnion('form', [
  z.strictObject({ form: z.literal('place'), downforceM2: within(-5, 8), downforceSdM2: sd, dragM2: within(-1, 3), dragSdM2: sd, ...ofValue }),
  z.strictObject({
    form: z.literal('axles'),
    frontM2: within(-5, 8),
    frontSdM2: sd,
    rearM2: within(-5, 8),
    rearSdM2: sd,
    dragM2: within(-1, 3),
    dragSdM2: sd,
    ...ofValue,
  }),
])
export type DeviceValue = z.output<typeof deviceValueSchema>

export const notchSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(60),
  /** Of a wing: trailing edge up. */
  angleRad: within(-0.6, 0.6).nullable().default(null),
  values: z.array(deviceValueSchema).max(50).default([]),
  /** Known to do nothing that matters. */
  countsAsNothing: z.boolean().default(false),
})
export type Notch = z.output<typeof notchSchema>

export const axleSpringsSchema = z.strictObject({
  springRateNPerM: within(1000, 2_000_000),
  motionRatio: within(0.2, 2),
  damperMotionRatio: within(0.2, 2).nullable().default(null),
  tyreRateNPerM: within(20_000, 2_000_000).nullable().default(null),
  rideHeightM: within(0, 1).nullable().default(null),
  /** Free travel of the damper before its rubber, without a packer. */
  gapM: within(0, 0.3).nullable().default(null),
  packerM: within(0, 0.2).default(0),
  rubber: z
    .array(z.strictObject({ compressionM: within(1e-4, 0.2), forceN: within(0, 200_000) }))
    .max(40)
    .default([]),
  /** Of one corner. */
  unsprungKg: within(5, 150).default(38),
})
export type AxleSpringsRecord = z.output<typeof axleSpringsSchema>

const settingOf = (least: number, most: number) =>
  z
    .strictObject({ wanted: within(least, most).nullable().default(null), read: within(least, most).nullable().default(null) })
    .nullable()
    .default(null)

/** What is turned at a corner: what is wanted, and what was read when it stood there. */
export const cornerSettingsSchema = z.strictObject({
  /** Below zero the wheel leans in at its top. */
  camberRad: settingOf(-0.2, 0.2),
  /** Of one wheel; above zero it points in. */
  toeRad: settingOf(-0.1, 0.1),
  casterRad: settingOf(-0.2, 0.4),
  bumpClicks: settingOf(0, 200),
  reboundClicks: settingOf(0, 200),
  coldPa: settingOf(20_000, 600_000),
})
export type CornerSettings = z.output<typeof cornerSettingsSchema>
const corner = cornerSettingsSchema.nullable().default(null)
export const cornersOfSetupSchema = z.strictObject({ LF: corner, RF: corner, LR: corner, RR: corner })
/** Where the anti-roll bars stand, in the words of who turns them. */
export const barsSchema = z.strictObject({
  front: z.string().trim().min(1).max(40).nullable().default(null),
  rear: z.string().trim().min(1).max(40).nullable().default(null),
})

/** What a build says of its own aero. */
export const aeroOfBuildFields = {
  aeroBasis: aeroBasisSchema.nullable().default(null),
  outline: outlineSchema.nullable().default(null),
}
