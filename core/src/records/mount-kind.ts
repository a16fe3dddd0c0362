import { z } from '../zod.ts'
import { day, id, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'
import { rodFields } from './rod-fields.ts'

const within = (least: number, most: number) => z.number().min(least).max(most)

export const CARRIED_BY = ['chassis', 'crossMember', 'bumperBeam', 'lid'] as const
/** What a device's load ends in. */
export type CarriedBy = (typeof CARRIED_BY)[number]
export const SECONDS = ['none', 'tether', 'secondFixing'] as const
/** What still holds it when its mount has let go. */
export type SecondRetention = (typeof SECONDS)[number]

const holdsSomehow: RecordRule = (next) => {
  const { feet, rods } = next as unknown as z.output<z.ZodObject<(typeof mountKind)['fields']>>
  if (feet.length === 1) throw new RecordRefusal('feet', 'An upright on one foot carries no moment. Give it two feet, front and rear.')
  if (feet.length === 0 && rods === null) throw new RecordRefusal('feet', 'Nothing holds it: give the feet of its uprights, or its rods.')
  return next
}

/** How a device is held: its uprights or rods, what carries them, what holds it when they do not, and who looked at it. */
export const mountKind = defineRecord({
  list: 'mounts',
  word: 'a mount',
  isBatchable: true,
  nameFrom: ['deviceId'],
  onePer: ['deviceId'],
  refs: { deviceId: { to: 'aeroDevices', whenGone: 'goesWith' } },
  rules: [holdsSomehow],
  fields: {
    id,
    deviceId: id,
    carriedBy: z.enum(CARRIED_BY),
    second: z.enum(SECONDS),
    uprights: z.int().min(1).max(6).default(2),
    /** Of one upright, front first. */
    feet: z
      .array(z.strictObject({ xM: within(-3, 8), zM: within(-0.1, 3) }))
      .max(6)
      .default([]),
    /** Of one foot; loads are those that one bolt is rated for. */
    bolts: z
      .strictObject({ countPerFoot: z.int().min(1).max(20), tensionN: within(1, 1e6), shearN: within(1, 1e6) })
      .nullable()
      .default(null),
    rods: z
      .strictObject({ ...rodFields, isCable: z.boolean().default(false) })
      .nullable()
      .default(null),
    loadFactor: within(1, 5).default(2),
    /** What comes off first to get at it. */
    access: note,
    lookedAtBy: z.string().trim().max(80).nullable().default(null),
    lookedAtOn: day.nullable().default(null),
  },
})
export type Mount = RecordOfKind<typeof mountKind>
