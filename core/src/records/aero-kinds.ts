import { type MapPoint, requireMap } from '../aero/height-map.ts'
import { attempt } from '../attempt.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import {
  axleSpringsSchema,
  barsSchema,
  boxSchema,
  cornersOfSetupSchema,
  DEVICE_KINDS,
  type DeviceKind,
  heightMapSchema,
  notchSchema,
  wingSchema,
} from './aero-schemas.ts'
import { id, name } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'

const isAhead = (box: { readonly [Key in 'xFrontM' | 'xRearM' | 'yInnerM' | 'yOuterM' | 'zBottomM' | 'zTopM']: number }) =>
  box.xRearM > box.xFrontM && box.yOuterM > box.yInnerM && box.zTopM >= box.zBottomM

/** What nobody can guess. */
const FED = ['vent', 'floor', 'sideSkirt', 'diffuser'] as const satisfies readonly DeviceKind[]

/** A box has a front, a rear and a height; a wing says at which angle each of its holes is; notches differ by name and id. */
const holdsTogether: RecordRule = (next) => {
  const { box, wing, notches } = next as unknown as z.output<z.ZodObject<(typeof aeroDeviceKind)['fields']>>
  if (box && !isAhead(box))
    throw new RecordRefusal('box', 'The box is turned round: its rear lies behind its front, its outer edge outside, its top above. Swap the two.')
  if (wing && notches.some(({ angleRad }) => angleRad === null)) throw new RecordRefusal('notches', 'Each notch of a wing needs its angle, trailing edge up.')
  for (const key of ['id', 'name'] as const) {
    const seen = notches.map((notch) => notch[key].toLowerCase())
    if (new Set(seen).size < seen.length) throw new RecordRefusal('notches', 'Two notches have one name. Name each of them differently.')
  }
  if ((FED as readonly unknown[]).includes(next.kind) && notches.some(({ values }) => values.some(({ proof }) => proof === 'guess')))
    throw new RecordRefusal(
      'notches',
      'It depends on ride height, rake and what feeds it; no hand formula comes within a factor of two. Type a test or maker’s value with its spread, or leave it unknown.',
    )
  if (next.heightMap) {
    if (!box && !wing) throw new RecordRefusal('heightMap', 'A height map is by the clearance of the device’s underside: type its sizes first.')
    const found = attempt(() => requireMap(next.heightMap as MapPoint[]))
    if (found instanceof CalculationError) throw new RecordRefusal('heightMap', found.message)
  }
  if (next.kind === 'body' && next.changeId !== null) throw new RecordRefusal('changeId', 'The bare body came with the car: it belongs to no line.')
  return next
}

/** A thing that the air works on: its place, its size, and what it gives at each notch. Its mass, cost and stage are those of its ledger line. */
export const aeroDeviceKind = defineRecord({
  list: 'aeroDevices',
  word: 'an aero device',
  isBatchable: true,
  nameFrom: ['name'],
  onePer: ['name'],
  refs: {
    changeId: { to: 'changes', whenGone: 'goesWith' },
    offChangeId: { to: 'changes', whenGone: 'forgets' },
  },
  rules: [holdsTogether],
  fields: {
    id,
    kind: z.enum(DEVICE_KINDS),
    name,
    /** The line that puts it on; null: it came with the car. */
    changeId: id.nullable().default(null),
    /** The line that takes it off again. */
    offChangeId: id.nullable().default(null),
    box: boxSchema.nullable().default(null),
    wing: wingSchema.nullable().default(null),
    /** Where its force acts; null: the usual place of its kind. */
    force: z
      .strictObject({ xM: z.number().min(-3).max(8), zM: z.number().min(-0.1).max(3), xSdM: z.number().min(0).max(2) })
      .nullable()
      .default(null),
    /** As a person gave it, rising; null: it gives the same at any height. */
    heightMap: heightMapSchema.nullish(),
    /** The first stands where nobody picked another. */
    notches: z.array(notchSchema).min(1).max(20),
  },
})
export type AeroDevice = RecordOfKind<typeof aeroDeviceKind>

const hasOrderedRubber: RecordRule = (next) => {
  for (const axle of ['front', 'rear'] as const) {
    const own = next[axle] as z.output<typeof axleSpringsSchema> | null
    if (!own) continue
    if (own.gapM !== null && own.packerM > own.gapM)
      throw new RecordRefusal(
        `${axle}.packerM`,
        'The packer is longer than the free gap: the damper stands on it at rest. Shorten it, or type the gap without a packer.',
      )
    let before = { compressionM: 0, forceN: 0 }
    for (const point of own.rubber) {
      if (!(point.compressionM > before.compressionM && point.forceN >= before.forceN))
        throw new RecordRefusal(`${axle}.rubber`, 'The curve of the bump rubber must rise: more squeeze, more force. Check its points.')
      before = point
    }
  }
  return next
}

/** What is turned and not bolted, of one stage: springs, heights, packers, and the notch of each device. */
export const setupKind = defineRecord({
  list: 'setups',
  word: 'a set-up',
  isBatchable: true,
  nameFrom: ['stageId'],
  onePer: ['stageId'],
  refs: { stageId: { to: 'stages', whenGone: 'goesWith' } },
  rules: [hasOrderedRubber],
  fields: {
    id,
    stageId: id,
    picks: z
      .array(z.strictObject({ deviceId: id, notchId: id }))
      .max(60)
      .default([]),
    front: axleSpringsSchema.nullable().default(null),
    rear: axleSpringsSchema.nullable().default(null),
    corners: cornersOfSetupSchema.nullable().default(null),
    bars: barsSchema.nullable().default(null),
  },
})
export type Setup = RecordOfKind<typeof setupKind>
