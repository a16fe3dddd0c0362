import { orElse } from '../../attempt.ts'
import { tyreSize } from '../../drivetrain/tyre.ts'
import type { WheelSide } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { drivelineAtStage, driveOf } from './driveline.ts'

type Axle = 'front' | 'rear'
type CarParts = Pick<BuildRecords, 'parts' | 'stages'>

/** Tyres of one code differ in width by so much, m (common practice, no source). */
const SECTION_SD_M = 0.002

/**
 * How far out wheels of a stage stand from their hubs' faces, to the middle of the rim, m; undefined where nobody said their offset.
 * @example wheelOutwardM(EXAMPLE, 1, 'front') // undefined
 */
export function wheelOutwardM(records: CarParts, position: number, axle: Axle): number | undefined {
  const wheel = driveOf(drivelineAtStage(records, position), `wheel ${axle}`)?.drive
  return wheel && wheel.offsetM !== null ? wheel.spacerM - wheel.offsetM : undefined
}

/** What turns at an axle of a stage: its wheel and its tyre, with the sizes that somebody typed. */
function turning(records: CarParts, position: number, axle: Axle) {
  const line = drivelineAtStage(records, position)
  const [wheel, tyre] = [driveOf(line, `wheel ${axle}`), driveOf(line, `tyre ${axle}`)]
  const code = tyre?.drive.code ?? null
  return {
    wheel,
    tyre,
    outwardM: wheelOutwardM(records, position, axle),
    rimM: wheel?.drive.widthM ?? null,
    tyreM:
      code === null
        ? null
        : orElse(
            () => tyreSize(code).widthM,
            () => null,
          ),
  }
}
type Turning = ReturnType<typeof turning>

/** The same rims on another spacer. */
const isRespaced = ({ wheel: a }: Turning, { wheel: b }: Turning): boolean =>
  a !== undefined &&
  b !== undefined &&
  a.drive.offsetM !== null &&
  a.drive.offsetM === b.drive.offsetM &&
  a.drive.widthM !== null &&
  a.drive.widthM === b.drive.widthM

/** What wheels of another stage do to a gap beside them; more of a gap above zero. */
export type GapMove =
  | { readonly is: 'same' }
  | { readonly is: 'moved'; readonly byM: number; readonly sdM: number }
  | { readonly is: 'unknown'; readonly reason: string }

const SAME: GapMove = { is: 'same' }
const unknown = (reason: string): GapMove => ({ is: 'unknown', reason })

/**
 * How a gap beside a wheel, measured at one stage, has changed by the wheels and tyres of another: less offset and more spacer open it towards the strut and
 * close it towards the arch, half of what is wider closes both; towards a caliper it follows the spacer, and another wheel has other spokes. m.
 * Refuses where an offset or both widths are missing, with what to type. Source: geometry of a rim.
 * @example gapMove(EXAMPLE, 'frontInside', 1, 1) // { is: 'same' }
 */
export function gapMove(records: CarParts, side: WheelSide, measuredAt: number, position: number): GapMove {
  const axle: Axle = side.startsWith('front') ? 'front' : 'rear'
  const [then, now] = [turning(records, measuredAt, axle), turning(records, position, axle)]
  const isOneWheel = then.wheel?.part.id === now.wheel?.part.id
  const isOneTyre = then.tyre?.part.id === now.tyre?.part.id
  if (side.endsWith('Caliper')) {
    if (isOneWheel) return SAME
    if (!isRespaced(then, now)) return unknown('Another wheel has other spokes: hold it on and measure.')
    return { is: 'moved', byM: (now.outwardM as number) - (then.outwardM as number), sdM: 0 }
  }
  if (isOneWheel && isOneTyre) return SAME
  if (!isOneWheel && (then.outwardM === undefined || now.outwardM === undefined))
    return unknown(`The ${axle} wheels have changed since: type offset and spacer of both with the parts, or measure it.`)
  const shiftM = isOneWheel ? 0 : (now.outwardM as number) - (then.outwardM as number)
  const widerM = widerBy(then, now)
  if (widerM === null) return unknown(`The ${axle} wheels or tyres have changed since: type both tyre codes, or both rim widths, or measure it.`)
  return { is: 'moved', byM: (side.endsWith('Inside') ? shiftM : -shiftM) - widerM / 2, sdM: isOneTyre ? 0 : SECTION_SD_M }
}

/** How much wider it is now, m: by the tyres' codes, else by the rims; null where neither is known of both. */
function widerBy(then: Turning, now: Turning): number | null {
  if (then.tyreM !== null && now.tyreM !== null) return now.tyreM - then.tyreM
  return then.rimM !== null && now.rimM !== null ? now.rimM - then.rimM : null
}
