import type { LogRole } from '@bold-ballast/core'
import type { ColumnRole } from './column-table.tsx'

const SPEEDS = ['km/h', 'mph', 'm/s']
const PRESSURES = ['bar', 'kPa', 'psi', 'Pa']
const LENGTHS = ['mm', 'cm', 'm', 'in']
const TEMPERATURES = ['°C', '°F', 'K']
const ACCELERATIONS = ['g', 'm/s²']

/** What a column of a logger's file can be. */
export const LOG_COLUMN_ROLES: readonly ColumnRole<LogRole>[] = [
  { role: 'time', word: 'time', units: ['s', 'ms', 'min'] },
  { role: 'latitude', word: 'latitude' },
  { role: 'longitude', word: 'longitude' },
  { role: 'speed', word: 'speed over ground', units: SPEEDS },
  { role: 'wheelSpeed', word: 'speed of the wheels', units: SPEEDS },
  { role: 'engineSpeed', word: 'engine speed', units: ['rpm'] },
  { role: 'throttle', word: 'throttle', units: ['%'] },
  { role: 'brakeFront', word: 'brake pressure, front', units: PRESSURES },
  { role: 'brakeRear', word: 'brake pressure, rear', units: PRESSURES },
  { role: 'along', word: 'acceleration along', units: ACCELERATIONS },
  { role: 'across', word: 'acceleration across', units: ACCELERATIONS },
  { role: 'steer', word: 'steering', units: ['°', 'rad'] },
  { role: 'gear', word: 'gear' },
  { role: 'coolant', word: 'coolant at the engine', units: TEMPERATURES },
  { role: 'coolantOut', word: 'coolant at the radiator', units: TEMPERATURES },
  { role: 'oilTemperature', word: 'oil temperature', units: TEMPERATURES },
  { role: 'oilPressure', word: 'oil pressure', units: PRESSURES },
  { role: 'voltage', word: 'voltage', units: ['V'] },
  { role: 'damperLF', word: 'damper, left front', units: LENGTHS },
  { role: 'damperRF', word: 'damper, right front', units: LENGTHS },
  { role: 'damperLR', word: 'damper, left rear', units: LENGTHS },
  { role: 'damperRR', word: 'damper, right rear', units: LENGTHS },
  { role: 'heightFront', word: 'ride height, front', units: LENGTHS },
  { role: 'heightRear', word: 'ride height, rear', units: LENGTHS },
  { role: 'pitot', word: 'pitot tube', units: PRESSURES },
  { role: 'lap', word: 'number of the lap' },
  { role: 'other', word: 'something else, kept' },
]
