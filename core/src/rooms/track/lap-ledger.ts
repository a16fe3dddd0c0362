import { orElse } from '../../attempt.ts'
import { lapOf } from '../../track/lap.ts'
import type { LapCar } from '../../track/lap-car.ts'
import { peakPowerW } from '../../track/lap-change.ts'
import type { TrackLine } from '../../track/track.ts'

export const LEDGER_PARTS = ['mass', 'power', 'aero', 'gears', 'tyres', 'brakes', 'places'] as const
/** What of a car a stage can change, as a lap sees it. */
export type LedgerPart = (typeof LEDGER_PARTS)[number]

/** Numbers of a car that belong to each part. */
const FIELDS: Readonly<Record<LedgerPart, readonly (keyof LapCar)[]>> = {
  mass: ['massKg'],
  power: ['curve'],
  aero: ['dragAreaM2', 'downforceFrontM2', 'downforceRearM2'],
  gears: ['gears', 'drivenAxles', 'rearTorqueShare'],
  tyres: ['friction', 'loadSensitivity'],
  brakes: ['brakeFrontShare', 'brakingUse'],
  places: ['frontShare', 'centreHeightM', 'wheelbaseM', 'trackM', 'rollingCoefficient'],
}

/** One change of one stage in seconds. */
export interface LedgerLine {
  readonly position: number
  readonly part: LedgerPart
  /** What moved: kg, W, m2, 1; null where it has no one number. */
  readonly by: number | null
  readonly seconds: number
}

export interface StageLedger {
  readonly position: number
  readonly lines: readonly LedgerLine[]
  /** What they do together, beyond what each does alone, s. */
  readonly togetherS: number
  readonly totalS: number
  /** Over 30 % of it is together: it is shown as a set. */
  readonly isSet: boolean
}

/** Beyond this share of a stage's change what is together is shown as a set. */
const SET_SHARE = 0.3

function byOf(part: LedgerPart, before: LapCar, after: LapCar): number | null {
  switch (part) {
    case 'mass':
      return after.massKg - before.massKg
    case 'power':
      return peakPowerW(after) - peakPowerW(before)
    case 'aero':
      return after.downforceFrontM2 + after.downforceRearM2 - before.downforceFrontM2 - before.downforceRearM2
    case 'tyres':
      return after.friction / before.friction - 1
    case 'brakes':
      return (after.brakeFrontShare ?? 0) - (before.brakeFrontShare ?? 0)
    default:
      return null
  }
}

const isSame = (part: LedgerPart, before: LapCar, after: LapCar) =>
  FIELDS[part].every((field) => JSON.stringify(before[field]) === JSON.stringify(after[field]))

const swapped = (part: LedgerPart, before: LapCar, after: LapCar): LapCar => {
  const fields = Object.fromEntries(FIELDS[part].map((field) => [field, after[field]]))
  return { ...before, ...fields }
}

/**
 * What each stage changes in seconds: each part alone from the stage before, and what they do together. All cars carry one fitted grip and one reference.
 * Stages whose car is not known break the chain and stand for nothing. Source: the room's page. Rejects what `lapOf` rejects.
 * @example secondsLedger(SKARVHOLM, [{ position: 0, car: FITTED_CAR }, { position: 1, car: LIGHTER_CAR }])[0].totalS // -0.2676
 */
export function secondsLedger(track: TrackLine, stages: readonly { readonly position: number; readonly car: LapCar | null }[]): readonly StageLedger[] {
  const time = (car: LapCar) => lapOf(track, car).lapS
  const known = stages.filter((stage): stage is { position: number; car: LapCar } => stage.car !== null)
  return known.slice(1).map(({ position, car: after }, i): StageLedger => {
    const before = (known[i] as { car: LapCar }).car
    const base = time(before)
    const lines = LEDGER_PARTS.filter((part) => !isSame(part, before, after)).map((part): LedgerLine => {
      const alone = orElse(
        () => time(swapped(part, before, after)),
        () => base,
      )
      return { position, part, by: byOf(part, before, after), seconds: alone - base }
    })
    const totalS = time(after) - base
    const togetherS = totalS - lines.reduce((sum, { seconds }) => sum + seconds, 0)
    return { position, lines, togetherS, totalS, isSet: lines.length > 1 && Math.abs(togetherS) > SET_SHARE * Math.abs(totalS) }
  })
}
