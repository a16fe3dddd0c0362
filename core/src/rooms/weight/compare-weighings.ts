import { PAD_NAMES } from '../../mass/corners.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { mean, sampleSd } from '../../stats/moments.ts'

/** One condition in which two weighings differ, and whether the reference takes it out of the total. */
export interface ConditionDifference {
  readonly what: 'driver' | 'fuel' | 'scales' | 'placement' | 'bars' | 'level' | 'tyrePressure' | 'rideHeight'
  readonly isCorrected: boolean
}

/** Differences smaller than these are none (common practice, no source). */
const DRIVER_KG = 2
const FUEL_L = 2
const PRESSURE_PA = 10_000
const RIDE_HEIGHT_M = 0.003

/** In what two weighings were not taken alike. Only what both noted can differ. */
export function conditionDifferences(first: Weighing, second: Weighing): ConditionDifference[] {
  const [a, b] = [first.conditions, second.conditions]
  const differ = <Value>(one: Value | null | undefined, other: Value | null | undefined, by: (one: Value, other: Value) => boolean) =>
    one !== null && one !== undefined && other !== null && other !== undefined && by(one, other)
  const apart = (most: number) => (one: number, other: number) => Math.abs(one - other) > most
  const unequal = (one: unknown, other: unknown) => one !== other
  const found: [ConditionDifference['what'], boolean, boolean][] = [
    ['driver', apart(DRIVER_KG)(first.driverInKg, second.driverInKg), true],
    ['fuel', apart(FUEL_L)(first.fuelL, second.fuelL), true],
    ['scales', differ(first.scales, second.scales, unequal), false],
    ['placement', (first.secondPlacement?.method ?? null) !== (second.secondPlacement?.method ?? null), false],
    ['bars', differ(a?.barsDisconnected, b?.barsDisconnected, unequal), false],
    ['level', differ(a?.isLevel, b?.isLevel, unequal), false],
    ['tyrePressure', differ(a?.tyrePressurePa, b?.tyrePressurePa, apart(PRESSURE_PA)), false],
    [
      'rideHeight',
      differ(a?.rideHeightFrontM, b?.rideHeightFrontM, apart(RIDE_HEIGHT_M)) || differ(a?.rideHeightRearM, b?.rideHeightRearM, apart(RIDE_HEIGHT_M)),
      false,
    ],
  ]
  return found.filter(([, isThere]) => isThere).map(([what, , isCorrected]) => ({ what, isCorrected }))
}

/** How well the same car on the same scales in the same condition reads the same again. */
export interface Repeatability {
  readonly weighingIds: readonly string[]
  readonly scales: string | null
  readonly meanTotalKg: number
  /** Sample standard deviations, one reading's. */
  readonly totalSdKg: number
  readonly padSdKg: Readonly<Record<(typeof PAD_NAMES)[number], number>>
}

/** Pad weighings of one car content in one run of linked stages, alike in scales and conditions, in groups of two or more. Source: sample standard deviation, n − 1. */
export function repeatability(car: Car): Repeatability[] {
  const groups: { weighings: Weighing[]; key: string }[] = []
  for (const { weighing, holds, context } of car.weighings) {
    if (weighing.total || weighing.axles) continue
    const key = [car.runs[context], holds.join('')].join(' ')
    const group = groups.find((entry) => entry.key === key && entry.weighings.every((other) => conditionDifferences(other, weighing).length === 0))
    if (group) group.weighings.push(weighing)
    else groups.push({ weighings: [weighing], key })
  }
  return groups
    .filter(({ weighings }) => weighings.length > 1)
    .flatMap(({ weighings }): Repeatability[] => {
      const read = (pad: (typeof PAD_NAMES)[number]) => weighings.flatMap((weighing) => weighing.pads[pad]?.massKg ?? [])
      if (PAD_NAMES.some((pad) => read(pad).length < weighings.length)) return []
      const totals = weighings.map((weighing) => PAD_NAMES.reduce((sum, pad) => sum + (weighing.pads[pad]?.massKg ?? 0), 0))
      return [
        {
          weighingIds: weighings.map(({ id }) => id),
          scales: weighings[0]?.scales ?? null,
          meanTotalKg: mean(totals),
          totalSdKg: sampleSd(totals),
          padSdKg: Object.fromEntries(PAD_NAMES.map((pad) => [pad, sampleSd(read(pad))])) as Repeatability['padSdKg'],
        },
      ]
    })
}
