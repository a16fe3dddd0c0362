import { CalculationError } from '../errors.ts'
import { siReader } from '../units/units.ts'
import { curvePeak, FEWEST_RISING_ROWS, type GridCurve, gridCurve, risingIndices } from './curve.ts'
import { powerFromTorqueW, torqueFromPowerNm } from './power-torque.ts'

/** One series of a pull as imported: its role, the name and unit the file gave it, and a number (or NaN for a gap) a row. */
export interface Channel {
  readonly role: string
  readonly name: string
  readonly unit: string
  readonly values: Float64Array
}

/** What is kept of a pull beside its channels, and made anew when CURVE_VERSION rises. */
export interface PullFigures {
  readonly rowCount: number
  readonly risingRowCount: number
  readonly cutRowCount: number
  readonly curve: GridCurve
  readonly peakPowerW: number
  readonly peakPowerSpeedRpm: number
  readonly peakTorqueNm: number
}

/**
 * Grid curve and peaks of a pull from its channels: the rising part of the sweep, power from torque where there is no power and the other way round.
 * Channels: `speed` in rpm and at least one of `power`, `torque` in the unit each names. Rejects a pull of under 10 rising rows and one without power.
 */
export function pullFigures(label: string, channels: readonly Channel[]): PullFigures {
  const find = (role: string) => channels.find((channel) => channel.role === role)
  const [speed, power, torque] = [find('speed')?.values ?? new Float64Array(), find('power'), find('torque')]
  if (!power && !torque)
    throw new CalculationError('missing', 'channels', `Pull ${label} has neither a power nor a torque channel. Export it with one of them.`)
  const rising = risingIndices(speed)
  if (rising.length < FEWEST_RISING_ROWS) {
    throw new CalculationError(
      'missing',
      'rows',
      `Pull ${label} has ${rising.length} rows of rising speed; at least ${FEWEST_RISING_ROWS} are needed. Export it with more rows, or leave it out of the file.`,
    )
  }
  const readPower = power && siReader('power', power.unit)
  const readTorque = torque && siReader('torque', torque.unit)
  const powerAt = (i: number): number =>
    power && readPower ? readPower(power.values[i] as number) : powerFromTorqueW(readTorque?.(torque?.values[i] as number) as number, speed[i] as number)
  const torqueAt = (i: number): number => (torque && readTorque ? readTorque(torque.values[i] as number) : torqueFromPowerNm(powerAt(i), speed[i] as number))
  const curve = gridCurve({ speedRpm: rising.map((i) => speed[i] as number), powerW: rising.map(powerAt) })
  const peak = curvePeak(curve)
  if (!(peak.powerW > 0))
    throw new CalculationError('out-of-range', 'power', `Pull ${label} never makes power above zero. Check the power column and its unit.`)
  return {
    rowCount: speed.length,
    risingRowCount: rising.length,
    cutRowCount: speed.length - rising.length,
    curve,
    peakPowerW: peak.powerW,
    peakPowerSpeedRpm: peak.speedRpm,
    peakTorqueNm: rising.reduce((most, i) => Math.max(most, torqueAt(i)), 0),
  }
}
