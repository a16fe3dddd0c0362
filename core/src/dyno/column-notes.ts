import { findUnit } from '../units/units.ts'
import { isAirFuelRatio, stoichiometricRatio } from './pull-figures.ts'
import type { ChannelColumn } from './read-header.ts'

/** What is said of columns that were read in a way a person may not have meant. */
export function columnNotes(columns: readonly ChannelColumn[]): string[] {
  const beside = columns.filter(({ role, unit }) => role === 'other' && unit !== '' && (findUnit('power', unit) || findUnit('torque', unit)))
  const ratio = columns.find(isAirFuelRatio)
  return [
    ...(beside.length > 0
      ? [
          `Kept beside the pulls and counted in none: ${beside.map(({ name }) => `"${name}"`).join(', ')}. Say under “Which column is what” where that is wrong.`,
        ]
      : []),
    ...(ratio
      ? [
          `Lambda is "${ratio.name}" over ${stoichiometricRatio(ratio.unit)}, ${/\d/.test(ratio.unit) ? 'as its unit says' : 'the scale of petrol'}; a gauge on another scale has the unit “AFR 9.8”.`,
        ]
      : []),
  ]
}
