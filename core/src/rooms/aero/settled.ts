import type { AxleAreas } from '../../aero/device-loads.ts'
import type { MappedArea } from '../../aero/height-map.ts'
import { type HeightsInput, heightsAlong } from '../../aero/ride-heights.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import type { Outline } from '../../records/aero-schemas.ts'
import type { RoomDevice } from './devices.ts'
import { lowPoints, type StageAxle } from './springs.ts'
import { type AeroTotals, type DeviceLine, type Picks, totalsOf } from './totals.ts'

/** A line with a map whose underside is known; null for the others. A test of the whole car was read at the heights it had: no map stands beside it. */
function mappedOf({ device, notch, areas }: DeviceLine): MappedArea | null {
  const { heightMap, name } = device
  const { box } = notch
  if (!heightMap || !box || !areas) return null
  return { name, xM: (box.xFrontM + box.xRearM) / 2, zM: box.zBottomM, frontM2: areas.frontM2, rearM2: areas.rearM2, map: heightMap }
}

const isMapped = (totals: AeroTotals): boolean => totals.loads.test === null

/**
 * What the heights of a car are worked out of: its springs, what hangs low, and what its devices give, those with a map by their clearance.
 * @example heightsInput({ front: null, rear: null, outline: null, wheelbaseM: 2.65, airDensityKgM3: 1.2, devices: [] }, {}, TOTALS) // null
 */
export function heightsInput(
  {
    front,
    rear,
    outline,
    wheelbaseM,
    airDensityKgM3,
    devices,
  }: {
    readonly front: Pick<StageAxle, 'springs'> | null
    readonly rear: Pick<StageAxle, 'springs'> | null
    readonly outline: Pick<Outline, 'undersideM'> | null
    readonly wheelbaseM: number
    readonly airDensityKgM3: number
    readonly devices: readonly RoomDevice[]
  },
  picks: Picks,
  totals: AeroTotals,
): HeightsInput | null {
  if (!front || !rear || !outline) return null
  return {
    front: front.springs,
    rear: rear.springs,
    wheelbaseM,
    airDensityKgM3,
    downforceFrontM2: totals.areas.frontM2,
    downforceRearM2: totals.areas.rearM2,
    points: lowPoints(devices, picks, { undersideM: outline.undersideM, wheelbaseM }),
    ...(isMapped(totals) ? { mapped: totals.lines.flatMap((line) => mappedOf(line) ?? []) } : {}),
  }
}

const scaled = (areas: AxleAreas, factor: number): AxleAreas => ({
  ...areas,
  frontM2: factor * areas.frontM2,
  rearM2: factor * areas.rearM2,
  frontVariance: factor ** 2 * areas.frontVariance,
  rearVariance: factor ** 2 * areas.rearVariance,
  covariance: factor ** 2 * areas.covariance,
})

const FIELDS = ['frontM2', 'rearM2', 'frontVariance', 'rearVariance', 'covariance'] as const

function withFactors(totals: AeroTotals, factors: readonly number[]): AeroTotals {
  let at = 0
  const lines = totals.lines.map((line) => (mappedOf(line) ? { ...line, areas: scaled(line.areas as AxleAreas, itemAt(factors, at++)) } : line))
  const areas = { ...totals.areas }
  for (const [i, { areas: now }] of lines.entries()) {
    const before = itemAt(totals.lines, i).areas
    if (now && before && now !== before) for (const field of FIELDS) areas[field] += now[field] - before[field]
  }
  return totalsOf(lines, { areas, loads: totals.loads, drag: totals.drag })
}

/**
 * Sums of a car at several speeds, slowest first, each at the heights it then rides at; the same at all of them where no device has a map, and at those where
 * it finds no steady height.
 * @example totalsAlong(TOTALS, null, [50])[0].downforceM2 // 0
 */
export function totalsAlong(totals: AeroTotals, input: HeightsInput | null, speeds: readonly number[]): AeroTotals[] {
  if (!input?.mapped?.length) return speeds.map(() => totals)
  const found = attempt(() => heightsAlong(input, speeds))
  return found instanceof CalculationError ? speeds.map(() => totals) : found.map(({ factors }) => withFactors(totals, factors))
}
