import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'

export const BALANCE_SCHOOLS = ['contactPatches', 'geometric'] as const
/** Where balance is read: at the tyres, drag's moment counted, as pads in a tunnel show it; or by where downforce acts alone. */
export type BalanceSchool = (typeof BALANCE_SCHOOLS)[number]
export const BALANCE_SCHOOL_WORDS: Readonly<Record<BalanceSchool, string>> = {
  contactPatches: 'at the tyres, drag’s moment counted',
  geometric: 'by where downforce acts, drag’s moment left out',
}

/** What one device does, as areas (force over ρv²/2, m²; down positive), where it acts or what it does to each axle. */
export type DeviceForce =
  | {
      readonly form: 'place'
      readonly downforceM2: number
      readonly downforceSdM2: number
      readonly dragM2: number
      readonly dragSdM2: number
      /** Behind the front axle. */
      readonly xM: number
      readonly xSdM: number
      readonly zM: number
    }
  | {
      readonly form: 'axles'
      readonly frontM2: number
      readonly frontSdM2: number
      readonly rearM2: number
      readonly rearSdM2: number
      readonly dragM2: number
      readonly dragSdM2: number
    }

export interface AxleAreas {
  readonly frontM2: number
  readonly rearM2: number
  readonly dragM2: number
  readonly frontVariance: number
  readonly rearVariance: number
  /** Of front and rear together. */
  readonly covariance: number
  readonly dragVariance: number
}

const NONE: AxleAreas = { frontM2: 0, rearM2: 0, dragM2: 0, frontVariance: 0, rearVariance: 0, covariance: 0, dragVariance: 0 }

/**
 * What one device does to the front and the rear tyres: front = F (1 − x/L) − D z/L, rear = F x/L + D z/L, with the spreads of F, D and x and what they share.
 * Drag is balanced by a drive force at the ground, so that front and rear sum to F. Source: G.2, statics. Wheelbase 1.5 to 5 m.
 * @example deviceLoads({ form: 'axles', frontM2: 0.1, frontSdM2: 0, rearM2: 0.2, rearSdM2: 0, dragM2: 0, dragSdM2: 0 }, 2.6, 'contactPatches').rearM2 // 0.2
 */
export function deviceLoads(force: DeviceForce, wheelbaseM: number, school: BalanceSchool): AxleAreas {
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  requireFinite(force.dragM2, 'dragM2')
  if (force.form === 'axles') {
    const { frontM2, rearM2, dragM2 } = force
    return {
      frontM2,
      rearM2,
      dragM2,
      frontVariance: force.frontSdM2 ** 2,
      rearVariance: force.rearSdM2 ** 2,
      covariance: 0,
      dragVariance: force.dragSdM2 ** 2,
    }
  }
  const { downforceM2, downforceSdM2, dragM2, dragSdM2, xM, xSdM, zM } = force
  requireWithin(xM, -3, 7, 'xM')
  requireWithin(zM, -0.2, 3, 'zM')
  const along = xM / wheelbaseM
  const up = school === 'contactPatches' ? zM / wheelbaseM : 0
  const [byX, byDrag] = [((downforceM2 / wheelbaseM) * xSdM) ** 2, (up * dragSdM2) ** 2]
  return {
    frontM2: downforceM2 * (1 - along) - dragM2 * up,
    rearM2: downforceM2 * along + dragM2 * up,
    dragM2,
    frontVariance: ((1 - along) * downforceSdM2) ** 2 + byX + byDrag,
    rearVariance: (along * downforceSdM2) ** 2 + byX + byDrag,
    covariance: (1 - along) * along * downforceSdM2 ** 2 - byX - byDrag,
    dragVariance: dragSdM2 ** 2,
  }
}

/**
 * Devices together: their areas and variances add.
 * @example sumLoads([]).frontM2 // 0
 */
export const sumLoads = (all: readonly AxleAreas[]): AxleAreas =>
  all.reduce(
    (sum, each) => ({
      frontM2: sum.frontM2 + each.frontM2,
      rearM2: sum.rearM2 + each.rearM2,
      dragM2: sum.dragM2 + each.dragM2,
      frontVariance: sum.frontVariance + each.frontVariance,
      rearVariance: sum.rearVariance + each.rearVariance,
      covariance: sum.covariance + each.covariance,
      dragVariance: sum.dragVariance + each.dragVariance,
    }),
    NONE,
  )

/** Spread of front and rear together, m². */
export const totalSdM2 = ({ frontVariance, rearVariance, covariance }: AxleAreas): number =>
  Math.sqrt(Math.max(0, frontVariance + rearVariance + 2 * covariance))

export interface Balance {
  /** Share of the downforce on the front tyres; beyond 0 to 1 where it acts beyond an axle. */
  readonly frontShare: number
  readonly sd: number
}

/** A balance of nearly nothing says nothing: downforce must be over 2 of its spreads, and over this share of what pushes and lifts. */
const LEAST_OF_ALL = 0.05

/**
 * The share of the downforce on the front tyres: B = front/T, var = [(1 − B)² var_f + B² var_r − 2 B (1 − B) cov]/T². `allM2` is Σ|F|.
 * Refuses (`inconsistent`) where T is within 2 of its spreads of nothing, or under 5 % of Σ|F|: axle loads are told then.
 * @example aeroBalance({ ...AREAS, frontM2: 0.2, rearM2: 0.6 }, 0.8).frontShare // 0.25
 */
export function aeroBalance(areas: AxleAreas, allM2: number): Balance {
  const { frontM2, rearM2, frontVariance, rearVariance, covariance } = areas
  const total = frontM2 + rearM2
  if (!(total > 2 * totalSdM2(areas)) || Math.abs(total) <= LEAST_OF_ALL * allM2)
    throw new CalculationError(
      'inconsistent',
      'devices',
      'Downforce and lift nearly cancel: a share of that says nothing. Read the load of each axle, or measure the devices that are doubtful.',
    )
  const frontShare = frontM2 / total
  const variance = (1 - frontShare) ** 2 * frontVariance + frontShare ** 2 * rearVariance - 2 * frontShare * (1 - frontShare) * covariance
  return { frontShare, sd: Math.sqrt(Math.max(0, variance)) / total }
}

/**
 * Pressure of moving air, Pa: ρv²/2. Air 0.6 to 1.5 kg/m³, speed over 0 to 150 m/s. Source: G.1.
 * @example airPressurePa(1.2, 50) // 1500
 */
export function airPressurePa(airDensityKgM3: number, speedMps: number): number {
  requireWithin(airDensityKgM3, 0.6, 1.5, 'airDensityKgM3')
  requirePositive(speedMps, 'speedMps')
  requireWithin(speedMps, 0, 150, 'speedMps')
  return 0.5 * airDensityKgM3 * speedMps * speedMps
}

/**
 * The downforce area that one device needs for a wanted front share B*, all others as they are: F = (B* T0 − N0)/((1 − x/L) − d z/L − B*), with T0 and N0
 * (front) of the rest and d its drag per downforce. Source: G.2 solved for one device. Refuses (`inconsistent`) where it sits so that more of it moves the
 * balance the other way.
 * @example sizeForBalance({ restFrontM2: -0.05, restRearM2: 0.5, frontShare: 0.4, xM: -1, zM: 0.1, dragPerDownforce: 0.03, wheelbaseM: 2.65 }).downforceM2 // 0.235601
 */
export function sizeForBalance({
  restFrontM2,
  restRearM2,
  frontShare,
  xM,
  zM,
  dragPerDownforce,
  wheelbaseM,
}: {
  readonly restFrontM2: number
  readonly restRearM2: number
  readonly frontShare: number
  readonly xM: number
  readonly zM: number
  readonly dragPerDownforce: number
  readonly wheelbaseM: number
}): { downforceM2: number } {
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  requireWithin(frontShare, -0.5, 1.5, 'frontShare')
  const reach = 1 - xM / wheelbaseM - (dragPerDownforce * zM) / wheelbaseM - frontShare
  const downforceM2 = (frontShare * (restFrontM2 + restRearM2) - restFrontM2) / reach
  if (!(downforceM2 > 0) || !Number.isFinite(downforceM2))
    throw new CalculationError(
      'inconsistent',
      'xM',
      'No size of it reaches that balance. It sits where more of it moves the balance the other way. Change another device, or its place.',
    )
  return { downforceM2 }
}
