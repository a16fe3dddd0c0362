import { STEADY_READINGS } from '../aero/steady-readings.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { id, instant, name, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { ambientSchema } from './power-kinds.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)
const setAside = z.string().trim().min(1).max(300).nullable().default(null)

export const AERO_TEST_KINDS = ['coastDown', 'steady'] as const
/** Coasting both ways for drag, or holding speeds for load. */
export type AeroTestKind = (typeof AERO_TEST_KINDS)[number]

/** A day at which the air was measured on the car: in one place, with the car as it then stood. */
export const aeroTestKind = defineRecord({
  list: 'aeroTests',
  word: 'an aero test',
  isBatchable: true,
  nameFrom: ['placeName'],
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has aero tests. Move or delete them first.' } } },
  fields: {
    id,
    stageId: id,
    at: instant,
    kind: z.enum(AERO_TEST_KINDS),
    placeName: name,
    /** Null: the build's air, with a wider spread. */
    ambient: ambientSchema.nullable().default(null),
    gustMps: within(0, 20).nullable().default(null),
    massKg: within(100, 5000),
    massSdKg: within(0, 500),
    /** What rotates, as mass; null: the usual share. */
    rotatingKg: within(0, 500).nullable().default(null),
    /** Notches that devices stood at; one that is not named stood as the stage's set-up has it. */
    picks: z
      .array(z.strictObject({ deviceId: id, notchId: id }))
      .max(60)
      .default([]),
    setAside,
    note,
  },
})
export type AeroTest = RecordOfKind<typeof aeroTestKind>

const runSchema = z.strictObject({
  timeS: z.array(within(-1e6, 1e6)).min(8).max(240),
  speedMps: z.array(within(0, 150)).min(8).max(240),
})

const coastSchema = z.strictObject({
  out: runSchema,
  back: runSchema,
  fit: z.strictObject({
    aMps2: within(0, 10),
    cPerM: within(0, 1),
    windMps: within(-100, 100),
    slopeMps2: within(-10, 10),
    residualMps: within(0, 100),
    startMps: z.tuple([within(0, 200), within(0, 200)]),
  }),
})

const steadySchema = z.strictObject({
  reading: z.enum(STEADY_READINGS),
  /** On the road of the test; null: nobody said, as where no tube was read. */
  direction: z.enum(['out', 'back']).nullable().default(null),
  points: z
    .array(
      z.strictObject({
        speedMps: within(0, 150),
        /** How far the axle's middle had sunk, from any zero. */
        frontM: within(-1, 1),
        rearM: within(-1, 1),
        decelerationMps2: within(-20, 20).nullable().default(null),
        /** Of a pitot tube on the car. */
        pitotPa: within(1, 20_000).nullable().default(null),
      }),
    )
    .min(1)
    .max(200),
})

/** Speeds of a coast-down fall over a span; what is kept as their fit is it. A run belongs to a test of its kind. */
const holdsTogether: RecordRule = async (next, { live }) => {
  const { coast, steady, testId } = next as unknown as z.output<z.ZodObject<(typeof aeroRunKind)['fields']>>
  if ((coast === null) === (steady === null)) throw new RecordRefusal('coast', 'Give the two runs of a coast-down, or the points of a steady run.')
  const [test] = await live('aeroTests', { id: testId })
  if (test && test.kind !== (coast ? 'coastDown' : 'steady'))
    throw new RecordRefusal(coast ? 'coast' : 'steady', 'The test is of the other kind. Begin a test for these runs.')
  if (!coast) return next
  // Runs are few: what looks at them is fetched with the first.
  const { isFitOf, requireCoastRun } = await import('../aero/coast-model.ts')
  for (const [key, word] of [
    ['out', 'The run out'],
    ['back', 'The run back'],
  ] as const)
    try {
      requireCoastRun(coast[key], word)
    } catch (error) {
      if (error instanceof CalculationError) throw new RecordRefusal(`coast.${key}`, error.message)
      throw error
    }
  if (!isFitOf(coast, coast.fit)) throw new RecordRefusal('coast.fit', 'What is kept as the fit of this pair is not its fit. Send the runs again.')
  return next
}

/** A pair of coast-downs, out and back, with its fit; or points held at steady speeds. */
export const aeroRunKind = defineRecord({
  list: 'aeroRuns',
  word: 'a run of an aero test',
  isBatchable: true,
  nameFrom: ['position'],
  refs: { testId: { to: 'aeroTests', whenGone: 'goesWith' } },
  rules: [holdsTogether],
  fields: {
    id,
    testId: id,
    position: z.int().min(0).max(1000),
    coast: coastSchema.nullable().default(null),
    steady: steadySchema.nullable().default(null),
    /** Why it counts nowhere; null: it counts. */
    setAside,
  },
})
export type AeroRun = RecordOfKind<typeof aeroRunKind>
