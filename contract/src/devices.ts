import { PAD_NAMES, z } from '@bold-ballast/core'

/** The line protocol of devices, as docs/device-protocol.md describes it: one JSON object a line over TCP on loopback. */
export const DEVICE_PROTOCOL_VERSION = 1
export const DEVICE_PORTS = { first: 4710, last: 4719 } as const
export const LONGEST_LINE_BYTES = 4096
export const DEVICE_KINDS = ['scales', 'dyno', 'logger', 'weather'] as const
export type DeviceKind = (typeof DEVICE_KINDS)[number]

const padSchema = z.strictObject({ kg: z.number(), isStable: z.boolean(), battery: z.number().min(0).max(1) }).nullable()
const fourPads = z.strictObject(Object.fromEntries(PAD_NAMES.map((pad) => [pad, padSchema])) as Record<(typeof PAD_NAMES)[number], typeof padSchema>)

const names = {
  type: z.literal('hello'),
  protocol: z.int(),
  name: z.string().min(1).max(80),
  serial: z.string().min(1).max(80),
  isSimulated: z.boolean(),
}

/** Torque and power are of one shaft: at the place the dyno measures, referred to the engine's speed. */
const sampleSchema = z.strictObject({
  type: z.literal('sample'),
  /** Which pull since the dyno was switched on, from 1. */
  pull: z.int().positive(),
  timeS: z.number().nonnegative(),
  speedRpm: z.number().positive(),
  torqueNm: z.number(),
  powerW: z.number(),
  boostPa: z.number().nullable(),
  lambda: z.number().positive().nullable(),
  intakeK: z.number().positive().nullable(),
  coolantK: z.number().positive().nullable().default(null),
  /** Above the air. */
  fuelPressurePa: z.number().nullable().default(null),
})

/** What a logger says of itself, each second. */
const loggerStatusSchema = z.strictObject({
  type: z.literal('log-status'),
  clock: z.iso.datetime({ offset: true }),
  hasPosition: z.boolean(),
  freeShare: z.number().min(0).max(1),
  voltageV: z.number().min(0).max(60),
  isRecording: z.boolean(),
})

/** One row of its channels, in the order of its hello; null: not sampled then. */
const logSampleSchema = z.strictObject({ type: z.literal('log-sample'), timeS: z.number().nonnegative(), values: z.array(z.number().nullable()).max(60) })
const logLapSchema = z.strictObject({ type: z.literal('lap'), lap: z.int().positive(), lapS: z.number().positive().max(3600) })

/** A run of a test begins or has ended; the rows between are its own. */
const logRunSchema = z.strictObject({ type: z.literal('run'), run: z.int().positive(), way: z.enum(['out', 'back']), isOn: z.boolean() })

const stationAirSchema = z.strictObject({
  /** As it stands there, not reduced to sea level. */
  pressurePa: z.number().min(60_000).max(110_000),
  temperatureK: z.number().min(243).max(323),
  relativeHumidity: z.number().min(0).max(1),
  windMps: z.number().min(0).max(60).nullable().default(null),
})
export type StationAir = z.output<typeof stationAirSchema>
const airSchema = stationAirSchema.extend({ type: z.literal('air') })

export const deviceMessageSchema = z.discriminatedUnion('type', [
  z.discriminatedUnion('device', [
    z.strictObject({ ...names, device: z.literal('scales'), resolutionKg: z.number().positive() }),
    z.strictObject({ ...names, device: z.literal('dyno'), place: z.enum(['hub', 'roller', 'engine']), samplesPerS: z.number().positive().max(200) }),
    z.strictObject({
      ...names,
      device: z.literal('logger'),
      channels: z
        .array(z.strictObject({ name: z.string().min(1).max(60), unit: z.string().max(20), rateHz: z.number().positive().max(1000) }))
        .min(1)
        .max(60),
    }),
    z.strictObject({ ...names, device: z.literal('weather') }),
  ]),
  z.strictObject({ type: z.literal('reading'), sequence: z.int().nonnegative(), pads: fourPads }),
  z.strictObject({
    type: z.literal('status'),
    isPulling: z.boolean(),
    pull: z.int().nonnegative(),
    /** The air at the dyno, for the session's record. */
    ambient: z.strictObject({ pressurePa: z.number(), temperatureK: z.number(), relativeHumidity: z.number().min(0).max(1) }),
    /** How the last pull ended. */
    ended: z.enum(['none', 'whole', 'stopped']),
  }),
  sampleSchema,
  loggerStatusSchema,
  logSampleSchema,
  logLapSchema,
  logRunSchema,
  airSchema,
  z.strictObject({ type: z.literal('done'), id: z.int() }),
  z.strictObject({ type: z.literal('refused'), id: z.int(), message: z.string().max(300) }),
])
export type DeviceMessage = z.output<typeof deviceMessageSchema>
export type DeviceHello = Extract<DeviceMessage, { type: 'hello' }>
export type DeviceHelloChannels = Extract<DeviceHello, { device: 'logger' }>['channels']
export type DeviceReading = Extract<DeviceMessage, { type: 'reading' }>
export type DevicePad = DeviceReading['pads'][(typeof PAD_NAMES)[number]]
export type DynoStatus = Extract<DeviceMessage, { type: 'status' }>
export type LoggerStatus = z.output<typeof loggerStatusSchema>
export type LogSample = z.output<typeof logSampleSchema>
export type LogLap = z.output<typeof logLapSchema>
export type LogRun = z.output<typeof logRunSchema>
export type AirReading = z.output<typeof airSchema>
export type DynoSample = z.output<typeof sampleSchema>

const padName = z.enum(PAD_NAMES)

/** What a simulated dyno is made of. */
export const simulatedCarSchema = z.strictObject({
  /** Torque at the dyno's place by engine speed, in the air of the standard. */
  torqueCurve: z
    .array(z.strictObject({ speedRpm: z.number().min(300).max(20_000), torqueNm: z.number().positive().max(5000) }))
    .min(2)
    .max(60),
  /** Inertia: the car speeds the drum up. Brake: the speed rises by a rate. */
  mode: z.enum(['inertia', 'brake']),
  /** Of all that turns, at the engine's speed. */
  inertiaKgM2: z.number().min(0.05).max(20),
  rateRpmPerS: z.number().min(50).max(3000),
  boostPa: z.number().nonnegative().max(400_000),
  ambient: z.strictObject({
    pressurePa: z.number().min(60_000).max(110_000),
    temperatureK: z.number().min(243).max(323),
    relativeHumidity: z.number().min(0).max(1),
  }),
  /** One standard deviation of a sample, as a share. */
  noiseShare: z.number().min(0).max(0.05),
  /** Share of the power that each pull without cooling costs. */
  soakShare: z.number().min(0).max(0.05),
})
export type SimulatedCar = z.output<typeof simulatedCarSchema>

/** What a device is asked. A real scale set knows only `tare`, a real dyno only `stop`; the rest is for simulated ones. */
export const deviceCommandSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('tare') }),
  z.strictObject({ type: z.literal('load'), loadKg: z.strictObject({ LF: z.number(), RF: z.number(), LR: z.number(), RR: z.number() }) }),
  z.strictObject({ type: z.literal('drop'), pad: padName, isOut: z.boolean() }),
  z.strictObject({ type: z.literal('drift'), kgPerMinute: z.number().min(-50).max(50) }),
  z.strictObject({ type: z.literal('battery'), pad: padName, level: z.number().min(0).max(1) }),
  z.strictObject({ type: z.literal('car'), car: simulatedCarSchema }),
  z.strictObject({ type: z.literal('pull') }),
  z.strictObject({ type: z.literal('stop') }),
  z.strictObject({ type: z.literal('cool') }),
  // A track and a car are long: they are sent in pieces of one text, first to last.
  z.strictObject({ type: z.literal('piece'), index: z.int().min(0).max(1999), count: z.int().min(1).max(2000), text: z.string().max(2000) }),
  z.strictObject({ type: z.literal('drive'), laps: z.int().min(1).max(50), slower: z.number().min(0.95).max(1.5), faster: z.number().min(1).max(30) }),
  z.strictObject({ type: z.literal('test'), pairs: z.int().min(1).max(6), faster: z.number().min(1).max(60) }),
  z.strictObject({ type: z.literal('weather'), air: stationAirSchema }),
  z.strictObject({ type: z.literal('record'), isOn: z.boolean() }),
  z.strictObject({ type: z.literal('sky'), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal('silence'), seconds: z.number().min(0).max(60) }),
])
export type DeviceCommand = z.output<typeof deviceCommandSchema>

/** What any device of a kind is asked, simulated or not. */
export const REAL_COMMANDS: Record<DeviceKind, readonly DeviceCommand['type'][]> = { scales: ['tare'], dyno: ['stop'], logger: [], weather: [] }

/** A simulated device that is to be started. */
export const standInSchema = z.strictObject({ kind: z.enum(DEVICE_KINDS).default('scales') })

/** A device as the page lists it. */
export interface DeviceEntry {
  readonly id: string
  readonly kind: DeviceKind
  readonly name: string
  readonly serial: string
  readonly isSimulated: boolean
  readonly state: 'connected' | 'lost'
  /** Of a logger: what its rows hold, in their order. */
  readonly channels?: DeviceHelloChannels
}

/** A run of a test with its rows, in the order of the logger's channels. */
export interface LoggedTestRun {
  readonly runId: string
  readonly way: LogRun['way']
  readonly rows: readonly { readonly timeS: number; readonly values: readonly (number | null)[] }[]
}

/** What the live stream of a device says. */
export type DeviceEvent =
  | { readonly type: 'state'; readonly state: DeviceEntry['state']; readonly at: string }
  | { readonly type: 'reading'; readonly reading: DeviceReading; readonly at: string }
  | { readonly type: 'status'; readonly status: DynoStatus; readonly at: string }
  | { readonly type: 'logStatus'; readonly status: LoggerStatus; readonly at: string }
  /** Rows of a logger since the last event; the first events hold the latest of them. */
  | { readonly type: 'logSamples'; readonly samples: readonly LogSample[]; readonly at: string }
  /** Laps that a logger told, oldest first. */
  | { readonly type: 'laps'; readonly laps: readonly LogLap[]; readonly at: string }
  /** A run of a test that a logger told whole; the first events hold the latest of them, oldest first, each under an id of its own. */
  | { readonly type: 'run'; readonly run: LoggedTestRun; readonly at: string }
  /** What a weather station reads. */
  | { readonly type: 'air'; readonly air: StationAir; readonly at: string }
  /**
   * Samples since the last event; the first events hold the latest pulls so far, one each, so that a page that was loaded again has lost nothing.
   * `pullId` is of one pull alone, also where a dyno that was switched on again counts from 1 once more.
   */
  | { readonly type: 'samples'; readonly pullId: string; readonly samples: readonly DynoSample[]; readonly at: string }
