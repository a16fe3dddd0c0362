import type { Row } from './define-record.ts'

/** The setting of a session from before sessions had several: all its pulls ran on it. */
export const FIRST_SETTING = 'first'

/**
 * A record as it was stored, logged or exported by an earlier edition, in the fields of this one; any other stays as it is.
 * @example upgradeRecord('sessions', { id: 'd', fuel: 'petrol', boostControl: 'none' }).settings // [{ id: 'first', name: 'as it ran', fuel: 'petrol', ethanolShare: null, boostControl: 'none', boostPa: null, wasSet: null }]
 */
export function upgradeRecord(list: string, row: Row): Row {
  if (list !== 'sessions' || 'settings' in row || !('boostControl' in row)) return row
  const { fuel = null, ethanolShare = null, boostControl, boostPa = null, ...rest } = row
  return { ...rest, settings: [{ id: FIRST_SETTING, name: 'as it ran', fuel, ethanolShare, boostControl, boostPa, wasSet: null }] }
}
