import type { DriveSetting, Surface } from '../../records/drive-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'

export type KnownField = { readonly [Key in keyof DriveSetting]: DriveSetting[Key] extends { value: number } | null ? Key : never }[keyof DriveSetting]

/**
 * What a stage chooses: each field from the latest stage up to it that says one.
 * @example settingsAtStage(CAR, 1).topRpm // null
 */
export const settingsAtStage = rememberByIndex(
  (car: Car, position: number): Omit<DriveSetting, 'id' | 'stageId'> & { readonly from: Readonly<Record<string, string>> } => {
    const from: Record<string, string> = {}
    const merged: Record<string, unknown> = {}
    const fields = [
      'topRpm',
      'launchRpm',
      'pair',
      'use',
      'shockFactor',
      'shockSchool',
      'reserveWanted',
      'engineInertiaKgM2',
      'gripUse',
      'frontSlipRad',
      'clutchHolding',
      'centreHeightM',
      'dragAreaM2',
      'rollingCoefficient',
    ] as const
    for (const field of fields) {
      merged[field] = null
      for (let at = position; at >= 0 && merged[field] === null; at--) {
        const found = car.records.driveSettings.find(({ stageId }) => stageId === car.stages[at]?.id)
        if (found && found[field] !== null) {
          merged[field] = found[field]
          from[field] = found.id
        }
      }
    }
    return { ...(merged as Omit<DriveSetting, 'id' | 'stageId'>), from }
  },
)

/** What is left of grip on a surface. */
export function surfaceFactor({ records: { build } }: Car, surface: Surface): number {
  if (surface === 'dry') return 1
  const { dampShare = 0.7, wetShare = 0.55 } = build.driveBasis ?? {}
  return surface === 'damp' ? dampShare : wetShare
}
