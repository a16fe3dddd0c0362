import type { ChannelRole } from '@bold-ballast/core'
import type { ColumnRole } from '../../../shared/column-table.tsx'

/** What a column of a dyno's file can be. */
export const PULL_ROLES: readonly ColumnRole<ChannelRole>[] = [
  { role: 'speed', word: 'engine speed', units: ['rpm'] },
  { role: 'power', word: 'power', units: ['kW', 'hp', 'PS', 'W'] },
  { role: 'torque', word: 'torque', units: ['N·m', 'lb·ft', 'kgf·m'] },
  { role: 'boost', word: 'boost', units: ['kPa', 'bar', 'psi', 'hPa'] },
  { role: 'lambda', word: 'lambda or AFR', units: ['λ', 'AFR', 'AFR 14.1', 'AFR 9.8', 'AFR 9.0'] },
  { role: 'intakeTemperature', word: 'intake temperature', units: ['°C', '°F', 'K'] },
  { role: 'roadSpeed', word: 'road or roller speed' },
  { role: 'time', word: 'time' },
  { role: 'pull', word: 'number of the pull' },
  { role: 'other', word: 'something else, kept' },
]
