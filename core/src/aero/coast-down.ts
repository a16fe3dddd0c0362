import { requirePositive, requireWithin } from '../errors.ts'

/** What slows a rolling car, N: A + B v + C v², on an effective mass, kg. */
export interface Resistance {
  readonly aN: number
  readonly bNPerMps: number
  readonly cNPerMps2: number
  readonly effectiveKg: number
}

/**
 * Speed after a time of coasting, m/s, in closed form by the sign of 4AC − B²; 0 once it stands. Source: G.9. C over 0, mass over 0; A may be under 0 on a slope.
 * @example speedAfter({ aN: 180, bNPerMps: 1.5, cNPerMps2: 0.45, effectiveKg: 1290 }, 50, 30) // 28.9713
 */
export function speedAfter({ aN, bNPerMps, cNPerMps2, effectiveKg }: Resistance, startMps: number, timeS: number): number {
  requirePositive(cNPerMps2, 'cNPerMps2')
  requirePositive(effectiveKg, 'effectiveKg')
  // With u = v + B/2C: m u' = −C (u² + D).
  const half = bNPerMps / (2 * cNPerMps2)
  const d = aN / cNPerMps2 - half * half
  const pace = (cNPerMps2 * timeS) / effectiveKg
  const u0 = startMps + half
  const root = Math.sqrt(Math.abs(d))
  if (root * pace < 1e-9) return Math.max(0, u0 / (1 + u0 * pace) - d * pace - half)
  if (d > 0) {
    const angle = Math.atan(u0 / root) - root * pace
    return angle <= Math.atan(half / root) ? 0 : root * Math.tan(angle) - half
  }
  const rest = ((u0 - root) / (u0 + root)) * Math.exp(-2 * root * pace)
  return Math.max(0, (root * (1 + rest)) / (1 - rest) - half)
}

/**
 * Time from one speed down to another, s. Source: G.9, by the sign of 4AC − B². A over 0; from over to.
 * @example coastTimeS({ aN: 180, bNPerMps: 30, cNPerMps2: 0.45, effectiveKg: 1290 }, 50, 20) // 23.3983
 */
export function coastTimeS({ aN, bNPerMps, cNPerMps2, effectiveKg }: Resistance, fromMps: number, toMps: number): number {
  requirePositive(aN, 'aN')
  requirePositive(cNPerMps2, 'cNPerMps2')
  requirePositive(effectiveKg, 'effectiveKg')
  requireWithin(toMps, 0, fromMps, 'toMps')
  const half = bNPerMps / (2 * cNPerMps2)
  const d = aN / cNPerMps2 - half * half
  const [u0, u1] = [fromMps + half, toMps + half]
  const root = Math.sqrt(Math.abs(d))
  const scale = effectiveKg / cNPerMps2
  if (root < 1e-9) return scale * (1 / u1 - 1 / u0)
  if (d > 0) return (scale / root) * (Math.atan(u0 / root) - Math.atan(u1 / root))
  return (scale / (2 * root)) * Math.log(((u0 - root) * (u1 + root)) / ((u0 + root) * (u1 - root)))
}

/**
 * Road that coasting from one speed to another takes, m, with B = 0: (m_e/2C) ln((A + C v0²)/(A + C v1²)). Source: G.9.
 * @example coastRoadM({ aN: 180, cNPerMps2: 0.45, effectiveKg: 1290 }, 50, 0) // 2839.44
 */
export function coastRoadM({ aN, cNPerMps2, effectiveKg }: Omit<Resistance, 'bNPerMps'>, fromMps: number, toMps: number): number {
  requirePositive(aN, 'aN')
  requirePositive(cNPerMps2, 'cNPerMps2')
  requireWithin(toMps, 0, fromMps, 'toMps')
  return (effectiveKg / (2 * cNPerMps2)) * Math.log((aN + cNPerMps2 * fromMps ** 2) / (aN + cNPerMps2 * toMps ** 2))
}
