import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

export interface Powerband {
  readonly peak: number
  readonly peakSpeedRpm: number
  readonly fromRpm: number
  readonly toRpm: number
  readonly widthRpm: number
  /** The band reaches an end of the data, so that it may be wider than it shows. */
  readonly isOpen: boolean
}

/**
 * The contiguous band around the first peak in which a series is at least a share of it, by straight lines between points.
 * Source: definition. Rejects fewer than two points, speeds that do not rise, and shares outside 0.1 to 0.99.
 */
export function powerband(input: { speedRpm: readonly number[]; value: readonly number[]; share?: number | undefined }): Powerband {
  const { speedRpm, value, share = 0.9 } = input
  requireWithin(share, 0.1, 0.99, 'share')
  if (speedRpm.length < 2 || speedRpm.length !== value.length)
    throw new CalculationError('inconsistent', 'value', 'A band needs at least two speeds and a value for each.')
  if (speedRpm.some((speed, i) => i > 0 && speed <= itemAt(speedRpm, i - 1)))
    throw new CalculationError('inconsistent', 'speedRpm', 'The speeds must rise. Sort them and leave out doubles.')
  const peak = Math.max(...value)
  if (!(peak > 0))
    throw new CalculationError('out-of-range', 'value', 'A band lies around a peak above zero, and no value here is. Check the sign of the values.')
  const top = value.indexOf(peak)
  const level = share * peak
  const edge = (direction: -1 | 1): { rpm: number; isOpen: boolean } => {
    let at = top
    while (value[at + direction] !== undefined && itemAt(value, at + direction) >= level) at += direction
    const beyond = value[at + direction]
    if (beyond === undefined) return { rpm: itemAt(speedRpm, at), isOpen: true }
    const part = (itemAt(value, at) - level) / (itemAt(value, at) - beyond)
    return { rpm: itemAt(speedRpm, at) + part * (itemAt(speedRpm, at + direction) - itemAt(speedRpm, at)), isOpen: false }
  }
  const [low, high] = [edge(-1), edge(1)]
  return { peak, peakSpeedRpm: speedRpm[top] as number, fromRpm: low.rpm, toRpm: high.rpm, widthRpm: high.rpm - low.rpm, isOpen: low.isOpen || high.isOpen }
}
