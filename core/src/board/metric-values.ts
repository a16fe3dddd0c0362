import type { Metric } from '../records/metric-keys.ts'
import { AERO_PROOFS, AERO_VALUES } from '../rooms/aero/metrics.ts'
import { DRIVETRAIN_PROOFS, DRIVETRAIN_VALUES } from '../rooms/drivetrain/metrics.ts'
import { JOBS_PROOFS, JOBS_VALUES } from '../rooms/jobs/metrics.ts'
import { POWER_PROOFS, POWER_VALUES } from '../rooms/power/metrics.ts'
import { SYSTEMS_PROOFS, SYSTEMS_VALUES } from '../rooms/systems/metrics.ts'
import { TRACK_PROOFS, TRACK_VALUES } from '../rooms/track/metrics.ts'
import { WEIGHT_PROOFS, WEIGHT_VALUES } from '../rooms/weight/metrics.ts'
import type { MeasurementWork, MetricWork } from '../stages/define-metric.ts'

/** How every metric is worked out. */
export const METRIC_VALUES: Readonly<Record<Metric, MetricWork>> = {
  ...WEIGHT_VALUES,
  ...POWER_VALUES,
  ...DRIVETRAIN_VALUES,
  ...AERO_VALUES,
  ...TRACK_VALUES,
  ...JOBS_VALUES,
  ...SYSTEMS_VALUES,
}

/** How a base is seen in a car, by the key of its measurement. */
export const PROOFS: Readonly<Record<string, MeasurementWork>> = {
  ...WEIGHT_PROOFS,
  ...POWER_PROOFS,
  ...DRIVETRAIN_PROOFS,
  ...AERO_PROOFS,
  ...TRACK_PROOFS,
  ...JOBS_PROOFS,
  ...SYSTEMS_PROOFS,
}
