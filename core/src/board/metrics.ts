import { USUAL_AERO_BASIS } from '../records/aero-schemas.ts'
import { METRICS, type Metric } from '../records/metric-keys.ts'
import type { BuildRecord } from '../records/plan-kinds.ts'
import { AERO_MEASUREMENTS, AERO_METRICS } from '../rooms/aero/metrics.ts'
import { DRIVETRAIN_MEASUREMENTS, DRIVETRAIN_METRICS } from '../rooms/drivetrain/metrics.ts'
import { JOBS_MEASUREMENTS, JOBS_METRICS } from '../rooms/jobs/metrics.ts'
import { POWER_MEASUREMENTS, POWER_METRICS } from '../rooms/power/metrics.ts'
import { SYSTEMS_MEASUREMENTS, SYSTEMS_METRICS } from '../rooms/systems/metrics.ts'
import { TRACK_MEASUREMENTS, TRACK_METRICS } from '../rooms/track/metrics.ts'
import { WEIGHT_MEASUREMENTS, WEIGHT_METRICS } from '../rooms/weight/metrics.ts'
import type { MeasurementDeclaration, MetricDeclaration } from '../stages/define-metric.ts'

const DECLARED: readonly MetricDeclaration[] = [
  ...WEIGHT_METRICS,
  ...POWER_METRICS,
  ...DRIVETRAIN_METRICS,
  ...AERO_METRICS,
  ...TRACK_METRICS,
  ...JOBS_METRICS,
  ...SYSTEMS_METRICS,
]

/** What every metric is, by its key, in the order of the keys. */
export const METRIC_INFO = Object.fromEntries(METRICS.map((key) => [key, DECLARED.find((metric) => metric.key === key)])) as unknown as Readonly<
  Record<Metric, MetricDeclaration>
>

/** Every base that can be measured. */
export const MEASUREMENTS: readonly MeasurementDeclaration[] = [
  ...WEIGHT_MEASUREMENTS,
  ...POWER_MEASUREMENTS,
  ...DRIVETRAIN_MEASUREMENTS,
  ...AERO_MEASUREMENTS,
  ...TRACK_MEASUREMENTS,
  ...JOBS_MEASUREMENTS,
  ...SYSTEMS_MEASUREMENTS,
]

const PLACE_WORDS = { hub: 'at the hubs', roller: 'on rollers', engine: 'at the engine' } as const

/**
 * What a build's powers are corrected to, in words.
 * @example standardWords('asPrinted') // 'as printed'
 */
export const standardWords = (standard: BuildRecord['powerBasis']['standard']): string =>
  standard === 'none' ? 'as observed' : standard === 'asPrinted' ? 'as printed' : standard

/** The condition a metric is quoted in, so that no number stands without it. */
export function basisWords(
  build: BuildRecord,
  { basis }: MetricDeclaration,
): { driver: boolean; fuelL: number | null; power: string | null; air: { speedMps: number; densityKgM3: number } | null } {
  const { powerBasis, reference } = build
  const power = `${PLACE_WORDS[powerBasis.place]}, ${standardWords(powerBasis.standard)}`
  const hasMass = basis.includes('mass')
  return {
    driver: hasMass && reference.driverKg > 0,
    fuelL: hasMass ? reference.fuelL : null,
    power: basis.includes('power') ? power : null,
    air: basis.includes('air') ? { speedMps: (build.aeroBasis ?? USUAL_AERO_BASIS).speedMps, densityKgM3: build.airDensityKgM3 } : null,
  }
}
