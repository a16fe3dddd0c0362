import { gearWord } from '../../records/drive-kinds.ts'
import type { DriveOf, DriveRole, PartDrive } from '../../records/drive-schemas.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { stageOfPart } from '../parts/parts.ts'

/** A part of the driveline, with what it does there. */
export interface DrivePart<Role extends DriveRole = DriveRole> {
  readonly part: Part
  readonly drive: DriveOf<Role>
  /** The stage it goes in at. */
  readonly position: number
}

/** Places of a driveline that hold one part each: a role, with its axle or gear. */
export type DriveSlot = string

/** Two parts of one place in one stage: neither counts before one of them is moved. */
export interface DriveConflict {
  readonly slot: DriveSlot
  readonly position: number
  readonly partIds: readonly string[]
  readonly message: string
}

export interface Driveline {
  readonly bySlot: ReadonlyMap<DriveSlot, DrivePart>
  readonly conflicts: readonly DriveConflict[]
}

/** What a role is called, one of it and several. */
export const DRIVE_ROLE_WORDS: Readonly<Record<DriveRole, readonly [one: string, several: string]>> = {
  gearbox: ['gearbox', 'gearboxes'],
  finalDrive: ['final drive', 'final drives'],
  differential: ['differential', 'differentials'],
  tyre: ['tyre', 'tyres'],
  clutch: ['clutch', 'clutches'],
  propShaft: ['prop shaft', 'prop shafts'],
  halfShaft: ['half shafts', 'pairs of half shafts'],
  gear: ['gear', 'gears'],
  steering: ['steering', 'steerings'],
  wheel: ['wheel', 'wheels'],
}

/**
 * The places that a part takes: a tyre of both axles takes two.
 * @example slotsOf({ role: 'gear', number: 5 }) // ['gear 5']
 */
export function slotsOf(drive: PartDrive): DriveSlot[] {
  if (drive.role === 'tyre' || drive.role === 'wheel') return (drive.axle === 'both' ? ['front', 'rear'] : [drive.axle]).map((axle) => `${drive.role} ${axle}`)
  if (drive.role === 'differential' || drive.role === 'halfShaft') return [`${drive.role} ${drive.axle}`]
  return drive.role === 'gear' ? [`gear ${drive.number}`] : [drive.role]
}

/**
 * The driveline of a stage: in each place the part with the latest stage up to it. A worn-out part keeps its place where nothing came after it, and in the
 * stages before what did. Two of a place in one stage are named, and neither counts.
 * @example drivelineAtStage(EXAMPLE, 1).bySlot.size // 0
 */
export function drivelineAtStage(records: Pick<BuildRecords, 'parts' | 'stages'>, position: number): Driveline {
  const bySlot = new Map<DriveSlot, DrivePart>()
  const conflicts: DriveConflict[] = []
  const found = new Map<DriveSlot, DrivePart[]>()
  for (const part of records.parts) {
    const at = part.drive ? stageOfPart(records, part) : Number.POSITIVE_INFINITY
    if (!part.drive || at > position) continue
    for (const slot of slotsOf(part.drive)) found.set(slot, [...(found.get(slot) ?? []), { part, drive: part.drive, position: at }])
  }
  for (const [slot, parts] of found) {
    const latest = Math.max(...parts.map((each) => each.position))
    const there = parts.filter((each) => each.position === latest)
    const fresh = there.filter(({ part }) => part.status !== 'wornOut')
    const standing = fresh.length > 0 ? fresh : there.slice(-1)
    const [one] = standing
    if (standing.length > 1) conflicts.push(conflictOf(slot, latest, standing))
    else if (one) bySlot.set(slot, one)
  }
  return { bySlot, conflicts }
}

function conflictOf(slot: DriveSlot, position: number, parts: readonly DrivePart[]): DriveConflict {
  const names = [...parts].map(({ part }) => part.name).sort()
  const several = DRIVE_ROLE_WORDS[(parts[0] as DrivePart).drive.role][1]
  const count = parts.length === 2 ? 'Two' : String(parts.length)
  return {
    slot,
    position,
    partIds: parts.map(({ part }) => part.id).sort(),
    message: `${count} ${several} stand in stage ${position}: ${names.join(' and ')}. Move one.`,
  }
}

/**
 * The part of one role in a driveline.
 * @example driveOf(drivelineAtStage(EXAMPLE, 1), 'gearbox') // undefined
 */
export function driveOf<Role extends DriveRole>(line: Driveline, slot: Role | `${Role} ${string}`): DrivePart<Role> | undefined {
  return line.bySlot.get(slot) as DrivePart<Role> | undefined
}

/**
 * Parts of a role that are thought about and stand in no stage: what Finals tries beside those of the car.
 * @example wantedOf(EXAMPLE.parts, 'finalDrive').length // 0
 */
export function wantedOf<Role extends DriveRole>(parts: readonly Part[], role: Role): { part: Part; drive: DriveOf<Role> }[] {
  return parts.flatMap((part) =>
    part.drive?.role === role && part.stageId === null && part.status !== 'fitted' && part.status !== 'wornOut'
      ? [{ part, drive: part.drive as DriveOf<Role> }]
      : [],
  )
}

/**
 * A final drive's ratio with a pair of a quick change: ratio times first over second.
 * @example finalRatioOf({ role: 'finalDrive', ratio: 4, teeth: null, pairs: [] }, { first: 20, second: 25 }) // 3.2
 */
export const finalRatioOf = ({ ratio }: DriveOf<'finalDrive'>, pair: { first: number; second: number } | null): number =>
  pair ? (ratio * pair.first) / pair.second : ratio

/**
 * What a driveline's part says in short, such as "3.40 2.08 1.46".
 * @example driveWords({ role: 'gear', number: 5 }) // 'fifth'
 */
export function driveWords(drive: PartDrive): string {
  switch (drive.role) {
    case 'gearbox':
      return `${drive.primaryRatio === 1 ? '' : `${drive.primaryRatio} x `}${drive.ratios.map((ratio) => ratio.toFixed(2)).join(' ')}`
    case 'finalDrive':
      return `${drive.ratio.toFixed(2)}${drive.teeth ? ` (${drive.teeth.driven}/${drive.teeth.driving})` : ''}${drive.pairs.length > 0 ? `, ${drive.pairs.length} pairs` : ''}`
    case 'differential':
      return `${drive.axle}, ${drive.kind}${drive.rearTorqueShare === null ? '' : `, ${Math.round(100 * drive.rearTorqueShare)} % to the rear`}`
    case 'tyre':
      return `${drive.axle === 'both' ? '' : `${drive.axle}, `}${drive.code ?? (drive.circumferenceM === null ? 'no size' : `${drive.circumferenceM.toFixed(3)} m round`)}`
    case 'halfShaft':
      return drive.axle
    case 'gear':
      return gearWord(drive.number)
    case 'clutch':
      return drive.behindPrimary ? 'behind the primary gears' : ''
    default:
      return ''
  }
}
