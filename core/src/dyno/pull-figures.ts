import { CalculationError } from '../errors.ts'
import { findUnit, siReader } from '../units/units.ts'
import { alongGrid, curvePeak, FEWEST_RISING_ROWS, type GridCurve, gridCurve, risingIndices } from './curve.ts'
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
  /** Boost, lambda and intake temperature on the grid of the curve, in SI; null where the pull has none of them. */
  readonly alongside: Alongside | null
}

export interface Alongside {
  readonly boostPa?: (number | null)[] | undefined
  readonly lambda?: (number | null)[] | undefined
  readonly intakeK?: (number | null)[] | undefined
}

/** Air-fuel ratio of petrol at lambda 1, the usual scale of a gauge (common practice, no source). */
const PETROL_AFR = 14.7

/** Whether a column of lambda holds an air-fuel ratio. */
export const isAirFuelRatio = ({ role, name, unit }: { readonly role: string; readonly name: string; readonly unit: string }): boolean =>
  role === 'lambda' && (/^afr$/i.test(name) || /^(afr|air ?fuel)/i.test(unit))

/**
 * The air-fuel ratio at lambda 1 of the scale that a unit names: "AFR 9.8" is a gauge on another fuel; petrol's where it names none.
 * @example stoichiometricRatio('AFR 9.8') // 9.8
 */
export const stoichiometricRatio = (unit: string): number => Number(/(\d+(?:\.\d+)?)/.exec(unit)?.[1] ?? PETROL_AFR)

const ALONGSIDE: readonly (readonly [keyof Alongside, string, (channel: Channel) => ((value: number) => number) | undefined])[] = [
  ['boostPa', 'boost', ({ unit }) => (findUnit('pressure', unit) ? siReader('pressure', unit) : undefined)],
  ['lambda', 'lambda', (channel) => (isAirFuelRatio(channel) ? (value) => value / stoichiometricRatio(channel.unit) : (value) => value)],
  ['intakeK', 'intakeTemperature', ({ unit }) => (findUnit('temperature', unit) ? siReader('temperature', unit) : undefined)],
]

function alongsideOf(channels: readonly Channel[], curve: GridCurve, rising: readonly number[], speedRpm: readonly number[]): Alongside | null {
  const found = ALONGSIDE.flatMap(([key, role, reader]) => {
    const channel = channels.find((entry) => entry.role === role)
    const read = channel && reader(channel)
    if (!channel || !read) return []
    return [
      [
        key,
        alongGrid(
          curve,
          speedRpm,
          rising.map((i) => read(channel.values[i] as number)),
        ),
      ],
    ]
  })
  return found.length === 0 ? null : Object.fromEntries(found)
}

/**
 * Grid curve and peaks of a pull from its channels: the rising part of the sweep, power from torque where there is no power and the other way round.
 * Channels: `speed` in rpm and at least one of `power`, `torque` in the unit each names. Rejects a pull of under 10 rising rows and one without power.
 * @example pullFigures('1', CHANNELS).peakPowerW // 138000
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
  const risingRpm = rising.map((i) => speed[i] as number)
  const curve = gridCurve({ speedRpm: risingRpm, powerW: rising.map(powerAt) })
  const peak = curvePeak(curve)
  if (!(peak.powerW > 0))
    throw new CalculationError('out-of-range', 'power', `Pull ${label} never makes power above zero. Check the power column and its unit.`)
  return {
    rowCount: speed.length,
    risingRowCount: rising.length,
    cutRowCount: speed.length - rising.length,
    curve,
    alongside: alongsideOf(channels, curve, rising, risingRpm),
    peakPowerW: peak.powerW,
    peakPowerSpeedRpm: peak.speedRpm,
    peakTorqueNm: rising.reduce((most, i) => Math.max(most, torqueAt(i)), 0),
  }
}
