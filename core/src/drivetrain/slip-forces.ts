import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'

/** Forces of tyres that slide with a known slip, or that pull a known force along the path. */
export interface SlipInput {
  /** Of the rear axle. */
  readonly speedMps: number
  readonly slideAngleRad: number
  readonly slidingFriction: number
  readonly drivenLoadN: number
  /** Wheel speed over the speed along the wheel, less one. */
  readonly slip?: number | undefined
  /** In its place: what resists the car along its path. */
  readonly pathResistanceN?: number | undefined
  readonly rollingForceN: number
}

export interface SlipForces {
  readonly wheelSpeedMps: number
  readonly slip: number
  /** The same slip over wheel speed. */
  readonly slipOverWheel: number
  readonly driveForceN: number
  readonly sideForceN: number
  readonly slidingSpeedMps: number
  /** At the wheels, rolling with it. */
  readonly powerW: number
  /** If all friction pulled along the wheel: the most it could be. */
  readonly upperPowerW: number
}

/** The slip that pulls so much along the path: friction opposes sliding, so its direction follows from the force. */
function slipFor({ slideAngleRad: angle, slidingFriction, drivenLoadN }: SlipInput, pathResistanceN: number): number {
  requireFinite(pathResistanceN, 'pathResistanceN')
  const share = pathResistanceN / (slidingFriction * drivenLoadN)
  const direction = share < 1 && share > -1 ? Math.acos(share) - angle : Number.NaN
  if (!(direction > 0 && direction < Math.PI / 2))
    throw new CalculationError(
      'out-of-range',
      'pathResistanceN',
      'The tyres cannot pull that along the path at this angle. Take less resistance, or a smaller angle.',
    )
  return Math.tan(angle) / Math.tan(direction)
}

/**
 * Forces and power of driven tyres that slide at an angle with a slip: friction opposes sliding, F_x = μ N (v_s − V_x)/|slide|, F_y = μ N V_y/|slide|,
 * P = (F_x + F_roll) v_s. Speed over 0 and up to 120 m/s, angle under 85 degrees, slip from −0.95 to 20. Source: F.11. Rejects what lies outside.
 * @example slipForces({ speedMps: 22, slideAngleRad: (35 * Math.PI) / 180, slidingFriction: 0.95, drivenLoadN: 7500, slip: 0.5, rollingForceN: 0 }).powerW // 111926.3
 */
export function slipForces(input: SlipInput): SlipForces {
  const { speedMps, slideAngleRad, slidingFriction, drivenLoadN, rollingForceN } = input
  requirePositive(speedMps, 'speedMps')
  requireWithin(speedMps, 0, 120, 'speedMps')
  requireWithin(slideAngleRad, 0, (85 * Math.PI) / 180, 'slideAngleRad')
  requirePositive(slidingFriction, 'slidingFriction')
  requireWithin(slidingFriction, 0, 3, 'slidingFriction')
  requirePositive(drivenLoadN, 'drivenLoadN')
  requireWithin(rollingForceN, 0, 20_000, 'rollingForceN')
  if ((input.slip === undefined) === (input.pathResistanceN === undefined))
    throw new CalculationError('inconsistent', 'slip', 'Give the slip, or what resists along the path: one of the two.')
  const slip = input.slip ?? slipFor(input, input.pathResistanceN as number)
  requireWithin(slip, -0.95, 20, 'slip')
  const [along, across] = [speedMps * Math.cos(slideAngleRad), speedMps * Math.sin(slideAngleRad)]
  const wheelSpeedMps = along * (1 + slip)
  const slidingSpeedMps = Math.hypot(wheelSpeedMps - along, across)
  if (slidingSpeedMps === 0) throw new CalculationError('out-of-range', 'slip', 'Nothing slides: neither an angle nor a slip. Give one of them.')
  const driveForceN = (slidingFriction * drivenLoadN * (wheelSpeedMps - along)) / slidingSpeedMps
  return {
    wheelSpeedMps,
    slip,
    slipOverWheel: slip / (1 + slip),
    driveForceN,
    sideForceN: (slidingFriction * drivenLoadN * across) / slidingSpeedMps,
    slidingSpeedMps,
    powerW: (driveForceN + rollingForceN) * wheelSpeedMps,
    upperPowerW: (slidingFriction * drivenLoadN + rollingForceN) * wheelSpeedMps,
  }
}
