import { attempt, CalculationError, type DecimalMark, parseQuantity } from '@bold-ballast/core'

export interface ReadPeak {
  readonly peakPowerW: number
  readonly peakPowerSpeedRpm: number | null
  readonly peakTorqueNm: null
}

/** Reads "650 hp at 6500 rpm", or the power alone; no unit: the picked one. */
export function readPeak(text: string, units: Readonly<Record<'power', string>>, decimalMark: DecimalMark): ReadPeak | CalculationError {
  return attempt(() => {
    const [power = '', speed] = text.split(/\s+(?:at|@)\s+/i)
    const { value } = parseQuantity(power, 'power', { defaultUnit: units.power, decimalMark, field: 'The peak' })
    if (!(value > 0)) throw new CalculationError('out-of-range', 'peakPowerW', 'A peak is more than zero. Type what was read.')
    const rpm = speed === undefined ? null : parseQuantity(speed, 'engineSpeed', { defaultUnit: 'rpm', decimalMark, field: 'Its speed' }).value
    if (rpm !== null && !(rpm > 0)) throw new CalculationError('out-of-range', 'peakPowerSpeedRpm', 'Its speed is more than zero. Type it, or leave it out.')
    return { peakPowerW: value, peakPowerSpeedRpm: rpm, peakTorqueNm: null }
  })
}
