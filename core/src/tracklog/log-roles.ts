export const LOG_ROLES = [
  'time',
  'latitude',
  'longitude',
  'speed',
  'wheelSpeed',
  'engineSpeed',
  'throttle',
  'brakeFront',
  'brakeRear',
  'along',
  'across',
  'steer',
  'gear',
  'coolant',
  'coolantOut',
  'oilTemperature',
  'oilPressure',
  'voltage',
  'lap',
  'other',
] as const
/** What a column of a logger's file is. Each stands once but "other". */
export type LogRole = (typeof LOG_ROLES)[number]
