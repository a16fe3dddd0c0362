import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'

export interface Foot {
  readonly xM: number
  readonly zM: number
}

export interface MountInput {
  /** Of the whole device at its fastest speed, without the load factor. */
  readonly downforceN: number
  readonly dragN: number
  readonly xM: number
  readonly zM: number
  readonly loadFactor: number
  readonly uprights: number
  /** Of one upright, front first. */
  readonly feet: readonly Foot[]
  readonly bolts: { readonly countPerFoot: number; readonly tensionN: number; readonly shearN: number } | null
}

export interface FootLoad {
  /** Into the car, of all uprights; under 0 it pulls out. */
  readonly downN: number
  readonly alongN: number
  /** (t/T)² + (s/S)² of one bolt; over 1 it is too weak. Null without bolts. */
  readonly boltUse: number | null
}

/** Down at the first of two feet, N, by moments about the second; what is horizontal is shared equally. */
function firstFootN(downN: number, alongN: number, { xM, zM }: Foot, first: Foot, second: Foot): number {
  const apart = second.xM - first.xM
  if (Math.abs(apart) < 0.02)
    throw new CalculationError(
      'inconsistent',
      'feet',
      'The two feet of an upright stand one above the other: nothing carries the moment. Set them apart along the car.',
    )
  return (downN * (second.xM - xM) - alongN * (zM - second.zM) + (alongN / 2) * (first.zM - second.zM)) / apart
}

/**
 * What a wing on uprights does to its feet: downforce and drag times the load factor, by moments; drag shared equally by the feet. N, m.
 * Source: statics. Refuses an upright on three feet (its stiffness decides, not statics), with the worst of any two; feet one above the other.
 * @example mountLoads(WING_MOUNT).feet[0].downN // 978.3
 */
export function mountLoads(input: MountInput): { feet: FootLoad[] } {
  const { downforceN, dragN, loadFactor, uprights, feet, bolts } = input
  requireWithin(loadFactor, 1, 5, 'loadFactor')
  requireWithin(uprights, 1, 6, 'uprights')
  requireWithin(downforceN, -50_000, 50_000, 'downforceN')
  requireWithin(dragN, 0, 50_000, 'dragN')
  const [down, along] = [downforceN * loadFactor, dragN * loadFactor]
  if (feet.length !== 2) refuseFeet(down, along, input)
  const [first, second] = [itemAt(feet, 0), itemAt(feet, 1)]
  const one = firstFootN(down, along, input, first, second)
  return {
    feet: [one, down - one].map((downN) => {
      if (!bolts) return { downN, alongN: along / 2, boltUse: null }
      const count = requirePositive(bolts.countPerFoot, 'bolts.countPerFoot') * uprights
      const tension = Math.max(0, -downN) / count / requirePositive(bolts.tensionN, 'bolts.tensionN')
      const shear = along / 2 / count / requirePositive(bolts.shearN, 'bolts.shearN')
      return { downN, alongN: along / 2, boltUse: tension ** 2 + shear ** 2 }
    }),
  }
}

function refuseFeet(down: number, along: number, { feet, xM, zM }: MountInput): never {
  if (feet.length < 2) throw new CalculationError('missing', 'feet', 'An upright on one foot carries no moment. Give it two feet, front and rear.')
  let worst = 0
  for (const [i, first] of feet.entries())
    for (const second of feet.slice(i + 1)) {
      if (Math.abs(second.xM - first.xM) < 0.02) continue
      const one = firstFootN(down, along, { xM, zM }, first, second)
      worst = Math.max(worst, Math.abs(one), Math.abs(down - one))
    }
  throw new CalculationError(
    'inconsistent',
    'feet',
    `${feet.length} feet on one upright share a load by how stiff each is, which statics cannot tell. Take the two that carry most: the worst of any two is ${worst.toFixed(0)} N.`,
  )
}

/** Of a round rod or cable, where nobody said: steel. */
export const STEEL_YOUNG_PA = 205e9

/**
 * Force along a rod or cable that holds a panel by R across it, R/sin(angle), what is left in the panel's plane, and the push at which the rod buckles,
 * π² E I/l² as a round bar pinned at both ends. Angle over 5 degrees to 90; a cable carries no push. N, m, Pa.
 * @example rodLoad({ acrossN: 500, angleRad: 1.0472, diameterM: 0.006, lengthM: 0.25, youngPa: 205e9, isCable: false }).alongRodN // 577.35
 */
export function rodLoad({
  acrossN,
  angleRad,
  diameterM,
  lengthM,
  youngPa,
  isCable,
}: {
  readonly acrossN: number
  readonly angleRad: number
  readonly diameterM: number
  readonly lengthM: number
  readonly youngPa: number
  readonly isCable: boolean
}): { alongRodN: number; inPlaneN: number; bucklesAtN: number } {
  requireWithin(angleRad, (5.001 * Math.PI) / 180, Math.PI / 2, 'angleRad')
  requirePositive(diameterM, 'diameterM')
  requirePositive(lengthM, 'lengthM')
  requirePositive(youngPa, 'youngPa')
  const inertia = (Math.PI * diameterM ** 4) / 64
  return {
    alongRodN: acrossN / Math.sin(angleRad),
    inPlaneN: acrossN / Math.tan(angleRad),
    bucklesAtN: isCable ? 0 : (Math.PI ** 2 * youngPa * inertia) / lengthM ** 2,
  }
}
