import { randomUUID } from 'node:crypto'
import { BUILD_FILE_FORMAT, BUILD_FILE_VERSION, type BuildFile, buildFileSchema } from '@bold-ballast/contract'
import { KINDS, kindOf, listsOf, type RecordList, speedAfter, TAPE_METRICS, z } from '@bold-ballast/core'
import fc from 'fast-check'
import { buildBody } from './test-server.ts'

type Row = Record<string, unknown> & { id: string }
/** As much of JSON Schema as our declarations use. */
interface Schema {
  readonly type?: string | readonly string[]
  readonly const?: unknown
  readonly enum?: readonly unknown[]
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly format?: string
  readonly minimum?: number
  readonly maximum?: number
  readonly exclusiveMinimum?: number
  readonly exclusiveMaximum?: number
  readonly minLength?: number
  readonly maxLength?: number
  readonly items?: Schema
  readonly prefixItems?: readonly Schema[]
  readonly minItems?: number
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
}

const LETTERS = [...'abcdefgxyzÅøß 0189-_.,;:"\'\\/<>&=+@()[]{}°·µ漢']
const text = (least: number, most: number) =>
  fc
    .array(fc.constantFrom(...LETTERS), { minLength: least, maxLength: Math.min(most, 24) })
    .map((letters) => letters.join('').trim())
    .filter((made) => made.length >= least)
const instants = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2030, 0, 1) }).map((ms) => new Date(ms).toISOString())

function numbers({ minimum, maximum, exclusiveMinimum, exclusiveMaximum, type }: Schema): fc.Arbitrary<number> {
  const least = minimum ?? exclusiveMinimum ?? -1e6
  const most = Math.min(maximum ?? exclusiveMaximum ?? 1e6, 1e6)
  if (type === 'integer') return fc.integer({ min: Math.ceil(least) + (exclusiveMinimum === least ? 1 : 0), max: Math.floor(most) })
  const isOpenBelow = exclusiveMinimum !== undefined
  // No JSON knows a nothing below zero.
  return fc
    .double({ min: least, max: most, minExcluded: isOpenBelow, maxExcluded: exclusiveMaximum !== undefined, noNaN: true, noDefaultInfinity: true })
    .map((value) => value + 0)
}

/** Anything that a JSON Schema of ours allows. */
function anyOf(schema: Schema): fc.Arbitrary<unknown> {
  if (schema.const !== undefined) return fc.constant(schema.const)
  if (schema.enum) return fc.constantFrom(...schema.enum)
  const options = schema.anyOf ?? schema.oneOf
  if (options) return fc.oneof(...options.map((option) => anyOf(option)))
  if (typeof schema.type === 'object') return fc.oneof(...schema.type.map((type) => anyOf({ ...schema, type })))
  switch (schema.type) {
    case 'null':
      return fc.constant(null)
    case 'boolean':
      return fc.boolean()
    case 'number':
    case 'integer':
      return numbers(schema)
    case 'string':
      if (schema.format === 'date-time') return instants
      if (schema.format === 'date') return instants.map((instant) => instant.slice(0, 10))
      return text(schema.minLength ?? 0, schema.maxLength ?? 24)
    case 'array':
      if (schema.prefixItems) return fc.tuple(...schema.prefixItems.map((item) => anyOf(item)))
      return fc.array(anyOf(schema.items ?? {}), { minLength: schema.minItems ?? 0, maxLength: Math.max(schema.minItems ?? 0, 3) })
    case 'object': {
      const fields = Object.entries(schema.properties ?? {}).map(([key, value]) => [key, anyOf(value)] as const)
      return fc.record(Object.fromEntries(fields), { requiredKeys: [...(schema.required ?? [])] as never })
    }
    default:
      throw new Error(`no arbitrary for ${JSON.stringify(schema)}`)
  }
}

/** Every second goal is of laps of the track it names; no other names one. */
function ofATrack({ metric, trackId }: Record<string, unknown>, i: number, tracks: readonly Row[]): object {
  const own = i % 2 && trackId ? 'lapTime' : metric
  return { metric: own, trackId: own === 'lapTime' ? (trackId ?? tracks[0]?.id ?? null) : null }
}

/** What rules ask beyond the fields of one record. */
const MENDED: { readonly [List in RecordList]?: (row: Row, i: number, lists: Record<string, Row[]>) => object } = {
  stages: (_, i) => ({ position: i }),
  // Every second one comes off, and the one after it replaces it.
  changes: ({ state, doneAt, waits, partId, replacesChangeId, cost, paid, fate }, i, { stages = [] }) => ({
    stageId: stages[1 + (i % (stages.length - 1))]?.id,
    kind: i % 2 === 0 ? 'off' : 'on',
    waits: i % 2 === 0 && waits,
    partId: i % 2 === 0 ? null : partId,
    replacesChangeId: i % 2 === 0 ? null : replacesChangeId,
    cost: i % 2 === 0 ? cost : null,
    paid: i % 2 === 0 ? paid : null,
    fate: i % 2 === 0 ? fate : null,
    doneAt: state === 'done' ? (doneAt ?? '2026-03-01T10:00:00.000Z') : null,
  }),
  limits: ({ value, fromStageId, ...row }, i, { tracks = [] }) => ({
    value: (Math.abs(value as number) % 0.9) + 1e-3,
    untilStageId: fromStageId,
    ...ofATrack(row, i, tracks),
    driverName: null,
  }),
  targets: ({ value, sense, ...row }, i, { tracks = [] }) => ({
    ...ofATrack({ ...row, metric: (TAPE_METRICS as readonly unknown[]).includes(row.metric) ? 'massReady' : row.metric }, i, tracks),
    value: (Math.abs(value as number) % 0.5) + 1e-3,
    highValue: sense === 'between' ? 0.9 : null,
    driverName: null,
  }),
  expectations: ({ value, changeId, partId }, i) => ({
    value: Math.abs(value as number) + 1,
    metric: 'wheelPower',
    partId: i % 2 && changeId ? null : partId,
    changeId: i % 2 ? changeId : null,
  }),
  weighings: ({ secondPlacement, pads, total, axles }) => ({
    ...(secondPlacement ? { secondPlacement: { ...secondPlacement, padHeightM: 0.06 } } : {}),
    ...(secondPlacement || Object.values(pads as object).some((pad) => pad !== null) ? { total: null, axles: null } : {}),
    ...(total && axles ? { axles: null } : {}),
    ...(secondPlacement || total || axles ? {} : { pads: { ...(pads as object), LF: { massKg: 300, sdKg: null, typed: null } } }),
  }),
  sessions: ({ settings }) => ({ settings: (settings as Row[]).map((setting, i) => ({ ...setting, id: `s${i}`, name: `setting ${i}` })) }),
  pulls: ({ settingId }, i) => ({ settingId: settingId === null || i % 2 ? null : 's0' }),
  standings: ({ sessionId }, i, { pulls = [] }) => ({
    settingId: i % 2 ? 's0' : null,
    pullIds: pulls.filter((pull) => pull.sessionId === sessionId).map(({ id }) => id),
  }),
  readings: ({ value, metric, atM }) => ({ value: (Math.abs(value as number) % 999) + 1e-3, atM: metric === 'noise' ? (atM ?? 0.5) : null }),
  aeroDevices: ({ box, notches, heightMap }, i) => ({
    heightMap: box && heightMap ? (heightMap as Row[]).map((point, n) => ({ ...point, clearanceM: n / 25 })) : null,
    kind: i % 2 ? 'wing' : 'other',
    box: box && { ...box, xFrontM: 0, xRearM: 1, yInnerM: 0, yOuterM: 0.5, zBottomM: 0.1, zTopM: 0.2 },
    notches: (notches as Row[]).map((notch, n) => ({ ...notch, id: `n${n}`, name: `notch ${n}`, angleRad: notch.angleRad ?? 0 })),
  }),
  setups: ({ front, rear }) => ({ front: mendedSprings(front), rear: mendedSprings(rear) }),
  aeroTests: (_, i) => ({ kind: i % 2 ? 'steady' : 'coastDown' }),
  aeroRuns: (_, i, { aeroTests = [] }) => {
    const isCoast = aeroTests[i % aeroTests.length]?.kind === 'coastDown'
    return { testId: aeroTests[i % aeroTests.length]?.id, coast: isCoast ? FITTED_PAIR : null, steady: isCoast ? null : STEADY_POINTS }
  },
  mounts: () => ({
    feet: [
      { xM: 3.3, zM: 0.9 },
      { xM: 3.6, zM: 0.9 },
    ],
  }),
  panelMaterials: ({ core }) => ({ youngPa: 7e10, core: core && { ...core, skinM: 2e-4 }, thicknessesM: [0.006, 0.01] }),
  panels: (_, i, { panelMaterials = [] }) => {
    const own = i % 2 ? panelMaterials[0]?.id : undefined
    return { sheet: own ? null : 'plywood', materialId: own ?? null, support: 'cantilever', rods: null, rodAtM: null, isChosen: false }
  },
  tracks: () => ({ segments: [{ lengthM: 500, curvaturePerM: 0, endCurvaturePerM: null, grade: 0, camberRad: 0, gripFactor: 1 }], isClosed: false, marks: [] }),
  trackSessions: ({ corners, dynoSessionId }, i) => ({
    dynoSettingId: dynoSessionId ? 's0' : null,
    kind: i % 2 ? 'runs' : 'laps',
    fuelEndL: null,
    corners: corners && unheated(corners as Row),
  }),
  laps: ({ lapS }, _i, { trackSessions = [] }) => ({
    trackSessionId: trackSessions.find(({ kind }) => kind === 'laps')?.id,
    lapS: 10 + ((lapS as number) % 3000),
    sectorS: [],
  }),
  logWindows: ({ fromS }) => ({ of: 'grip', gear: null, points: null, grip: 1.1, fromS: (fromS as number) % 1000, toS: ((fromS as number) % 1000) + 90 }),
  lapFits: ({ trackId }, _, { trackSessions = [] }) => ({ trackSessionIds: trackSessions.filter((each) => each.trackId === trackId).map(({ id }) => id) }),
  driftRuns: (_, __, { trackSessions = [] }) => ({ trackSessionId: trackSessions.find(({ kind }) => kind === 'runs')?.id }),
  courses: ({ corners }) => ({ corners: (corners as Row[]).map((corner) => ({ ...corner, radiusM: corner.radiusM ?? 30 })) }),
  ruleBooks: ({ rules }) => ({
    rules: (rules as Row[]).map((rule, n) => ({ ...rule, key: `r${n}`, metric: 'massReady', sense: 'atLeast', value: 600, average: null })),
  }),
  hands: ({ away }) => ({ away: (away as { from: string }[]).map(({ from }) => ({ from, to: from })) }),
  events: () => ({ leavesOn: null }),
  trackPlans: ({ steps }) => ({ steps: (steps as Row[]).map((step) => ({ ...step, wantLaps: 5, leastLaps: 3 })) }),
  checks: ({ bolt, take }, i) => {
    const own = CHECK_OWN[i % CHECK_OWN.length] ?? {}
    const none = { bolt: null, level: null, gear: null, take: null, reading: null, gap: null }
    return {
      name: `check ${i}`,
      ...none,
      ...own,
      ...(own.kind === 'bolt' ? { bolt: bolt ?? { count: 1, torqueNm: null, from: null } } : {}),
      ...(own.kind === 'take' ? { take: take ?? { count: 1 } } : {}),
    }
  },
  marks: ({ result, damage }) => ({ value: null, damage: result === 'damage' ? (damage ?? { isMakeDo: true, hours: null, cost: null }) : null }),
  powerBoxes: ({ outputs }) => ({ outputs: (outputs as Row[]).map((output, n) => ({ ...output, key: `o${n}` })) }),
  circuits: ({ currentA, output, isPinned }, i) => ({
    name: `circuit ${i}`,
    currentA: (currentA as number) + 0.1 > 500 ? 1 : (currentA as number) + 0.1,
    isPinned: output !== null && isPinned,
  }),
  coolingPlans: () => ({ logged: [], stopK: 378, warmK: 343, hot: { speedMps: 38, airK: 303, airDensityKgM3: null } }),
  partUses: ({ amount }) => ({ amount: (amount as number) + 1e-3 > 1e5 ? 1 : (amount as number) + 1e-3 }),
  tasks: ({ kind, guessH, guessDays, whoIds, state, doneAt, realDays }) => ({
    ...(kind === 'work' ? { guessH: guessH ?? 2, guessDays: null, realDays: null } : { guessH: null, guessDays: guessDays ?? 2, whoIds: [] }),
    ...(kind === 'work' ? { whoIds } : { realDays }),
    doneAt: state === 'done' ? (doneAt ?? '2026-03-01T10:00:00.000Z') : null,
  }),
  decisions: ({ criteria, options }) => ({
    criteria: (criteria as Row[]).map((criterion, n) => ({ ...criterion, name: `c${n}` })),
    options: (options as Row[]).map((option, n) => ({ ...option, name: `o${n}` })),
    chosen: null,
  }),
  parts: ({ ratings, drive, status, fittedOn, orderedOn, cameOn }) => ({
    status: fittedOn || orderedOn || cameOn ? 'wornOut' : status,
    cameOn: orderedOn && cameOn ? orderedOn : cameOn,
    drive: mendedDrive(drive as Row | null | undefined),
    ratings: (ratings as { limit: number }[]).map((rating) => ({ ...rating, limit: (rating.limit % 0.9) + 1e-3 })),
  }),
}
/** A check of each kind, with what its kind holds. */
const CHECK_OWN: readonly Readonly<Record<string, unknown>>[] = [
  { kind: 'bolt' },
  { kind: 'look' },
  { kind: 'take' },
  {
    kind: 'gap',
    gap: {
      neighbour: 'brake pipe',
      nature: 'hot',
      access: null,
      needM: null,
      expansionPerK: null,
      lengthM: null,
      riseK: null,
      towardShare: 1,
      moveM: 0,
      besideWheel: null,
    },
  },
]
/** Wheels that were read cold alone. */
const unheated = (corners: Row) => Object.fromEntries(Object.entries(corners).map(([wheel, own]) => [wheel, own && { ...(own as object), hotPa: null }]))
/** Speeds that fall as they do in still air on a flat road, with their fit. */
const COASTED = {
  timeS: [0, 5, 10, 15, 20, 25, 30, 35],
  speedMps: [0, 5, 10, 15, 20, 25, 30, 35].map((t) => speedAfter({ aN: 130, bNPerMps: 0, cNPerMps2: 0.4, effectiveKg: 1000 }, 40, t)),
}
const FITTED_PAIR = { out: COASTED, back: COASTED, fit: { aMps2: 0.13, cPerM: 0.0004, windMps: 0, slopeMps2: 0, residualMps: 0, startMps: [40, 40] } }
const STEADY_POINTS = { reading: 'height', points: [{ speedMps: 20, frontM: 0.001, rearM: 0.001, decelerationMps2: null }] }
/** A packer that fits, and a rubber that rises. */
const mendedSprings = (axle: unknown) => (axle ? { ...axle, gapM: 0.3, rubber: [{ compressionM: 0.01, forceN: 500 }] } : null)
/** Ratios that fall, a code that is one, and a window that ends after it begins. */
function mendedDrive(drive: Row | null | undefined): object | null {
  if (drive?.role === 'gearbox') return { ...drive, ratios: [3.4, 2.08, 1.46].slice(0, (drive.ratios as number[]).length) }
  if (drive?.role === 'tyre') return { ...drive, code: drive.code === null ? null : '245/40R17', windowK: drive.windowK ? { least: 343, most: 373 } : null }
  return drive ?? null
}
const isKept: { readonly [List in RecordList]?: (row: Row, lists: Record<string, Row[]>) => boolean } = {
  standings: ({ pullIds }) => (pullIds as string[]).length > 0,
  laps: ({ trackSessionId }) => trackSessionId !== undefined,
  driftRuns: ({ trackSessionId }) => trackSessionId !== undefined,
  partUses: ({ partId }, { parts = [] }) => parts.find(({ id }) => id === partId)?.life !== null,
}

/** Names records by the declared references, mends what rules ask, and keeps one for each value of what may stand once. */
function tieTogether(lists: Record<string, Row[]>): void {
  for (const kind of KINDS) {
    const seen = new Set<string>()
    lists[kind.list] = (lists[kind.list] ?? []).flatMap((made, i): Row[] => {
      const row: Row = { ...made }
      for (const reference of kind.refs) {
        const there = listsOf(reference).flatMap((list) => lists[list] ?? [])
        // A record that names one of its own list names the one before it.
        const at = listsOf(reference).includes(kind.list) ? i - 1 : i % Math.max(1, there.length)
        const picked = reference.isOptional && i % 3 === 2 ? undefined : there[at]
        if (!picked && !reference.isOptional) return []
        row[reference.field] = picked?.id ?? null
      }
      Object.assign(row, MENDED[kind.list]?.(row, i, lists) ?? {})
      const key = kind.onePer.map((field) => String(row[field]).toLowerCase()).join(' ')
      if (kind.onePer.length > 0 && seen.has(key)) return []
      seen.add(key)
      return isKept[kind.list]?.(row, lists) === false ? [] : [row]
    })
  }
}

/** Build files with records of every kind, of any content that the declarations allow; only pictures are left out, which need their bytes. */
export function anyBuildFile(): fc.Arbitrary<BuildFile> {
  const kinds = KINDS.filter(({ list }) => list !== 'photos')
  const lists = kinds.map(({ list }) => {
    const schema = z.toJSONSchema(z.object(kindOf(list).fields), { io: 'output' }) as Schema
    return [list, fc.array(anyOf(schema), { minLength: list === 'stages' ? 2 : 1, maxLength: 4 })] as const
  })
  return fc.record(Object.fromEntries(lists)).map((made) => {
    const rows = Object.fromEntries(
      Object.entries(made).map(([list, records]) => [list, (records as Row[]).map((row) => ({ ...row, id: randomUUID() as string }))]),
    )
    tieTogether(rows)
    return buildFileSchema.parse({ format: BUILD_FILE_FORMAT, formatVersion: BUILD_FILE_VERSION, build: buildBody(), ...rows })
  })
}
