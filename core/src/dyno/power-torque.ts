import { CalculationError, requireFinite } from '../errors.ts'
import { toSi } from '../units/units.ts'

const RPM_TO_RAD_PER_S = Math.PI / 30

/** An engine speed over 0 and up to 25,000 rpm. Rejects others. */
export function requireSpeedRpm(speedRpm: number): number {
  requireFinite(speedRpm, 'speedRpm')
  if (speedRpm <= 0 || speedRpm > 25_000) {
    throw new CalculationError('out-of-range', 'speedRpm', `speedRpm is ${speedRpm}; it must be more than 0 and at most 25,000.`)
  }
  return speedRpm
}

/**
 * Power of a torque at an engine speed: P = T π n/30, W. Torque in N·m of any sign, speed over 0 and up to 25,000 rpm; rejects others.
 * @example powerFromTorqueW(400, 6500) // 272271.36
 */
export const powerFromTorqueW = (torqueNm: number, speedRpm: number): number =>
  requireFinite(torqueNm, 'torqueNm') * requireSpeedRpm(speedRpm) * RPM_TO_RAD_PER_S

/**
 * Torque of a power at an engine speed: T = 30 P/(π n), N·m. Power in W of any sign, speed over 0 and up to 25,000 rpm; rejects others.
 * @example torqueFromPowerNm(100_000, 6000) // 159.155
 */
export const torqueFromPowerNm = (powerW: number, speedRpm: number): number => requireFinite(powerW, 'powerW') / (requireSpeedRpm(speedRpm) * RPM_TO_RAD_PER_S)

/**
 * The speed at which a power curve and a torque curve read the same number: n× = 30 u_P/(π u_T).
 * Source: P = T ω, closed form. @example crossingSpeedRpm('kW', 'N·m') // 9549.30
 */
export function crossingSpeedRpm(powerUnit: string, torqueUnit: string): number {
  return toSi('power', 1, powerUnit) / (toSi('torque', 1, torqueUnit) * RPM_TO_RAD_PER_S)
}
