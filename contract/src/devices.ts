import { PAD_NAMES, z } from '@bold-ballast/core'

/** The line protocol of devices, as docs/device-protocol.md describes it: one JSON object a line over TCP on loopback. */
export const DEVICE_PROTOCOL_VERSION = 1
export const DEVICE_PORTS = { first: 4710, last: 4719 } as const
export const LONGEST_LINE_BYTES = 4096

const padSchema = z.strictObject({ kg: z.number(), isStable: z.boolean(), battery: z.number().min(0).max(1) }).nullable()
const fourPads = z.strictObject(Object.fromEntries(PAD_NAMES.map((pad) => [pad, padSchema])) as Record<(typeof PAD_NAMES)[number], typeof padSchema>)

export const deviceMessageSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('hello'),
    protocol: z.int(),
    device: z.literal('scales'),
    name: z.string().min(1).max(80),
    serial: z.string().min(1).max(80),
    resolutionKg: z.number().positive(),
    isSimulated: z.boolean(),
  }),
  z.strictObject({ type: z.literal('reading'), sequence: z.int().nonnegative(), pads: fourPads }),
  z.strictObject({ type: z.literal('done'), id: z.int() }),
  z.strictObject({ type: z.literal('refused'), id: z.int(), message: z.string().max(300) }),
])
export type DeviceMessage = z.output<typeof deviceMessageSchema>
export type DeviceHello = Extract<DeviceMessage, { type: 'hello' }>
export type DeviceReading = Extract<DeviceMessage, { type: 'reading' }>
export type DevicePad = DeviceReading['pads'][(typeof PAD_NAMES)[number]]

const padName = z.enum(PAD_NAMES)

/** What a person can make a simulated scale set do; a real one knows only `tare`. */
export const deviceCommandSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('tare') }),
  z.strictObject({ type: z.literal('load'), loadKg: z.strictObject({ LF: z.number(), RF: z.number(), LR: z.number(), RR: z.number() }) }),
  z.strictObject({ type: z.literal('drop'), pad: padName, isOut: z.boolean() }),
  z.strictObject({ type: z.literal('drift'), kgPerMinute: z.number().min(-50).max(50) }),
  z.strictObject({ type: z.literal('battery'), pad: padName, level: z.number().min(0).max(1) }),
])
export type DeviceCommand = z.output<typeof deviceCommandSchema>

/** A device as the page lists it. */
export interface DeviceEntry {
  readonly id: string
  readonly name: string
  readonly serial: string
  readonly isSimulated: boolean
  readonly resolutionKg: number
  readonly state: 'connected' | 'lost'
}

/** What the live stream of a device says. */
export type DeviceEvent =
  | { readonly type: 'state'; readonly state: DeviceEntry['state']; readonly at: string }
  | { readonly type: 'reading'; readonly reading: DeviceReading; readonly at: string }
