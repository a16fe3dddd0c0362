import { deviceLoads } from '../../aero/device-loads.ts'
import { orElse } from '../../attempt.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { Change } from '../../records/weight-kinds.ts'
import type { Car } from '../../stages/car.ts'
import type { LapChange } from '../../track/lap-change.ts'
import { devicesAtStage } from '../aero/devices.ts'
import { pickedNotch } from '../aero/totals.ts'
import { drivenAxle, frictionOf, hasSize, radiusOf, tyresOf } from '../drivetrain/drive-inputs.ts'
import { settingsAtStage } from '../drivetrain/drive-settings.ts'
import { driveOf, finalRatioOf, slotsOf } from '../drivetrain/driveline.ts'
import { driveStage } from '../drivetrain/stage-inputs.ts'
import { costOfOption, hoursOfOption, massOfOption } from '../jobs/decisions.ts'
import { partsAtStage, partsOfKind, wholeMassKg } from '../parts/parts.ts'
import { expectedOf } from './expected.ts'
import { lapStage } from './lap-inputs.ts'

/** A part that is thought about, with what it moves; null where nothing of it is on record that a lap feels. */
export interface WishedLapPart {
  readonly id: string
  readonly name: string
  readonly change: LapChange | null
  readonly cost: number | null
  /** Of open jobs that need it, as guesses run, h; null where none is typed. */
  readonly hours: number | null
  /** What it touches and what it moves leaves out: power or air that nobody said, gears of another box. */
  readonly unsaid: readonly ('power' | 'air' | 'gears')[]
}

/** A line that is not done yet, with what it moves of the car of its stage; the off line that it replaces counts with it. */
export interface PlannedLapLine extends WishedLapPart {
  readonly position: number
  readonly isOff: boolean
}

const orNone = (change: LapChange): LapChange | null => (Object.keys(change).length > 0 ? change : null)

/** What a part would move: its mass less that of its kind in the car, a tyre's friction over that of the car's, and what is expected of it. */
function changeOfPart(car: Car, part: Part): LapChange | null {
  const position = car.stages.length - 1
  const lapCar = lapStage(car, position).car
  const masses = partsOfKind(partsAtStage(car.records, position), part.kind)
    .filter(({ id }) => id !== part.id)
    .map(wholeMassKg)
  const [wholeKg, isKnown] = [wholeMassKg(part), masses.every((mass) => mass !== null)]
  const massKg = wholeKg !== null && isKnown ? wholeKg - masses.reduce<number>((sum, mass) => sum + (mass ?? 0), 0) : null
  return orNone({ ...(massKg === null ? {} : { massKg }), ...driveChangeOf(car, part, position), ...expectedOf(car, part.id, lapCar) })
}

/** What a part of the driveline moves: a tyre's friction over that of the car's, and how much shorter a final drive, or a driven tyre, makes every gear. */
function driveChangeOf(car: Car, part: Part | undefined, position: number): LapChange {
  const drive = part?.drive
  const own = lapStage(car, position).car
  if (!part || !drive || !own) return {}
  const line = driveStage(car, position).line
  if (drive.role === 'finalDrive') {
    const before = driveOf(line, 'finalDrive')
    const pair = settingsAtStage(car, position).pair
    return own.gears && before ? { finalFactor: drive.ratio / finalRatioOf(before.drive, pair) } : {}
  }
  if (drive.role !== 'tyre') return {}
  const before = slotsOf(drive).includes(`tyre ${drivenAxle(car)}`) ? tyresOf(car, line).own : undefined
  const isOtherSize = own.gears !== null && hasSize(drive) && hasSize(before?.drive)
  return {
    gripFactor: frictionOf(drive, part.id).value / own.friction,
    ...(isOtherSize && before ? { finalFactor: radiusOf(before.drive).value / radiusOf(drive).value } : {}),
  }
}

/** Another gearbox has gears of its own, that a change of a lap does not know. */
const gearsUnsaid = (part: Part | undefined): readonly 'gears'[] => (part?.drive?.role === 'gearbox' || part?.drive?.role === 'gear' ? ['gears'] : [])

/**
 * Parts that are thought about and stand at no stage, each with what it would move.
 * @example wishedLapParts(CAR) // []
 */
export const wishedLapParts = (car: Car): WishedLapPart[] =>
  car.records.parts
    .filter(({ status, stageId }) => status === 'wanted' && stageId === null)
    .map((part) => ({
      id: part.id,
      name: part.name,
      change: changeOfPart(car, part),
      cost: part.cost ?? null,
      hours: hoursOfOption(car, { partIds: [part.id], changeIds: [] })?.value ?? null,
      unsaid: gearsUnsaid(part),
    }))

/** Numbers of both, added; factors multiplied. */
function together(a: LapChange, b: LapChange): LapChange {
  const sum: { -readonly [Key in keyof LapChange]?: number } = { ...a }
  for (const [key, value] of Object.entries(b) as [keyof LapChange, number][]) {
    const isFactor = key === 'gripFactor' || key === 'finalFactor'
    sum[key] = isFactor ? (sum[key] ?? 1) * value : (sum[key] ?? 0) + value
  }
  return sum
}

/** Areas of the devices that a line puts in, at their picked notches, and whether some of them have none that anybody knows. */
function devicesOf(car: Car, changeId: string, position: number): { readonly change: LapChange; readonly isUnsaid: boolean } {
  const { wheelbaseM } = car.builds[position] ?? car.records.build
  const notches = devicesAtStage(car, position)
    .filter((device) => device.changeId === changeId)
    .map((device) => pickedNotch(device, {}))
    .filter(({ countsAsNothing }) => !countsAsNothing)
  const forces = notches.flatMap(({ force }) => (force ? [force] : []))
  const areas = forces.map((force): LapChange => {
    const { frontM2, rearM2, dragM2 } = deviceLoads(force, wheelbaseM, 'contactPatches')
    return { downforceFrontM2: frontM2, downforceRearM2: rearM2, dragAreaM2: dragM2 }
  })
  return { change: areas.reduce(together, {}), isUnsaid: forces.length < notches.length }
}

function lineOf(car: Car, line: Change, position: number): PlannedLapLine {
  const { id, partId, replacesChangeId, touchesPower } = line
  const option = { partIds: partId ? [partId] : [], changeIds: replacesChangeId ? [id, replacesChangeId] : [id] }
  const massKg = massOfOption(car, option)?.value
  const expected = expectedOf(car, id, lapStage(car, Math.max(0, position - 1)).car)
  const devices = orElse(
    () => devicesOf(car, id, position),
    () => ({ change: {}, isUnsaid: true }),
  )
  const part = car.records.parts.find(({ id: own }) => own === partId)
  const drive = driveChangeOf(car, part, Math.max(0, position - 1))
  return {
    id,
    name: line.name,
    position,
    change: orNone([drive, devices.change, expected].reduce(together, massKg === undefined ? {} : { massKg })),
    cost: costOfOption(car, option)?.value ?? null,
    hours: hoursOfOption(car, option)?.value ?? null,
    isOff: line.kind === 'off',
    unsaid: [
      ...(touchesPower && expected.powerW === undefined ? (['power'] as const) : []),
      ...(devices.isUnsaid ? (['air'] as const) : []),
      ...gearsUnsaid(part),
    ],
  }
}

/**
 * Lines that are not done, each with what it moves of a lap: its mass with that of the off line it replaces, a tyre's grip, a final drive's ratio, the areas of its
 * device, and what is expected of it.
 * @example plannedLapLines(CAR).map(({ name }) => name) // ['cage']
 */
export function plannedLapLines(car: Car): PlannedLapLine[] {
  const open = car.lines.filter(({ change }) => change.state === 'planned' && change.kind !== 'transfer')
  const replaced = new Set(open.flatMap(({ change }) => change.replacesChangeId ?? []))
  return open
    .filter(({ change }) => !replaced.has(change.id))
    .map(({ change, stagePosition }) => lineOf(car, change, stagePosition))
    .sort((a, b) => a.position - b.position)
}
