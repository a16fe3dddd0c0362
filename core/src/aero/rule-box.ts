import { requireWithin } from '../errors.ts'

export interface DeviceBox {
  readonly xFrontM: number
  readonly xRearM: number
  readonly yInnerM: number
  readonly yOuterM: number
  readonly zBottomM: number
  readonly zTopM: number
}

export interface WingPose {
  readonly spanM: number
  readonly chordM: number
  readonly pivotXM: number
  readonly pivotZM: number
  /** Where it turns, as a share of the chord from its leading edge. */
  readonly pivotShare: number
  readonly angleRad: number
  readonly plate: { readonly lengthM: number; readonly heightM: number; readonly topM: number } | null
}

/**
 * The box around a wing at its angle, trailing edge up: edges at pivot + u (cos a, sin a), and its end plates. m.
 * @example wingBox({ spanM: 1.4, chordM: 0.26, pivotXM: 3.45, pivotZM: 1.405, pivotShare: 0.25, angleRad: 0.0698132, plate: null }).zTopM // 1.4186
 */
export function wingBox({ spanM, chordM, pivotXM, pivotZM, pivotShare, angleRad, plate }: WingPose): DeviceBox {
  requireWithin(angleRad, -Math.PI / 3, Math.PI / 3, 'angleRad')
  const at = (u: number) => ({ x: pivotXM + u * Math.cos(angleRad), z: pivotZM + u * Math.sin(angleRad) })
  const [lead, trail] = [at(-pivotShare * chordM), at((1 - pivotShare) * chordM)]
  const xs = [lead.x, trail.x]
  const zs = [lead.z, trail.z]
  if (plate) {
    const middle = (lead.x + trail.x) / 2
    xs.push(middle - plate.lengthM / 2, middle + plate.lengthM / 2)
    zs.push(pivotZM + plate.topM, pivotZM + plate.topM - plate.heightM)
  }
  return { xFrontM: Math.min(...xs), xRearM: Math.max(...xs), yInnerM: 0, yOuterM: spanM / 2, zBottomM: Math.min(...zs), zTopM: Math.max(...zs) }
}

/** What a tape measures of the car as it came: overhangs from the axles, width, roof. */
export interface BoxOutline {
  readonly frontOverhangM: number
  readonly rearOverhangM: number
  readonly bodyWidthM: number
  readonly roofHeightM: number
  readonly wheelbaseM: number
}

export interface BoxedDevice {
  readonly name: string
  readonly box: DeviceBox
  /** Of a wing: its chord (all elements), span and number of elements. */
  readonly wing: { readonly chordM: number; readonly spanM: number; readonly elements: number } | null
}

export const RULE_METRICS = ['reachFront', 'reachRear', 'reachSide', 'wingOverRoof', 'groundHeight', 'wingChord', 'wingSpan', 'wingElements'] as const
export type RuleMetric = (typeof RULE_METRICS)[number]

export interface RuleReading {
  readonly value: number
  /** The device that decides it; null: none reaches out. */
  readonly name: string | null
}

/**
 * What rule books ask of the devices of a car: how far they reach beyond the body (0: inside), the wing against the roof, the lowest edge, and the wing's
 * own size, to a thousandth of a millimetre, so that what stands on a limit does not break it. A metric without a device that it is of is undefined. Lengths in m, reaches from standard bodywork.
 * @example ruleBox({ frontOverhangM: 0.9, rearOverhangM: 1, bodyWidthM: 1.74, roofHeightM: 1.43, wheelbaseM: 2.65 }, []).reachFront.value // 0
 */
export function ruleBox(outline: BoxOutline, devices: readonly BoxedDevice[]): Partial<Record<RuleMetric, RuleReading>> {
  const { frontOverhangM, rearOverhangM, bodyWidthM, roofHeightM, wheelbaseM } = outline
  requireWithin(frontOverhangM, 0, 3, 'frontOverhangM')
  requireWithin(rearOverhangM, 0, 3, 'rearOverhangM')
  requireWithin(bodyWidthM, 0.8, 3, 'bodyWidthM')
  requireWithin(roofHeightM, 0.4, 3, 'roofHeightM')
  requireWithin(wheelbaseM, 1.5, 5, 'wheelbaseM')
  const most = (of: (device: BoxedDevice) => number | null, sign: 1 | -1 = 1): RuleReading | undefined =>
    devices.reduce<RuleReading | undefined>((best, device) => {
      const found = of(device)
      const value = found === null ? null : Math.round(found * 1e6) / 1e6
      return value !== null && (!best || sign * value > sign * best.value) ? { value, name: device.name } : best
    }, undefined)
  const beyond = (of: (device: BoxedDevice) => number): RuleReading => {
    const found = most((device) => (of(device) > 0 ? of(device) : null))
    return found ?? { value: 0, name: null }
  }
  const all: Record<RuleMetric, RuleReading | undefined> = {
    reachFront: beyond(({ box }) => -box.xFrontM - frontOverhangM),
    reachRear: beyond(({ box }) => box.xRearM - wheelbaseM - rearOverhangM),
    reachSide: beyond(({ box }) => box.yOuterM - bodyWidthM / 2),
    wingOverRoof: most(({ box, wing }) => (wing ? box.zTopM - roofHeightM : null)),
    groundHeight: most(({ box }) => box.zBottomM, -1),
    wingChord: most(({ wing }) => wing?.chordM ?? null),
    wingSpan: most(({ wing }) => wing?.spanM ?? null),
    wingElements: most(({ wing }) => wing?.elements ?? null),
  }
  return Object.fromEntries(Object.entries(all).filter(([, reading]) => reading !== undefined))
}

/** Left free of a limit when the largest wing is asked for (common practice, no source). */
export const SPARE_M = 0.01

/**
 * The longest chord of a one-element wing that stays under a limit of height over the roof and within a limit of reach behind, with some to spare: turned
 * to its steepest notch, its pivot held. m; null where none fits. Source: geometry, by halving.
 * @example largestChordM({ spanM: 1.4, chordM: 0.2, pivotXM: 3.45, pivotZM: 1.3, pivotShare: 0.25, angleRad: 0.1, plate: null }, { topM: 1.43, rearXM: 3.75 }) // 0.388608
 */
export function largestChordM(pose: WingPose, limits: { readonly topM: number | null; readonly rearXM: number | null }): number | null {
  const fits = (chordM: number) => {
    const box = wingBox({ ...pose, chordM })
    return (limits.topM === null || box.zTopM <= limits.topM - SPARE_M) && (limits.rearXM === null || box.xRearM <= limits.rearXM - SPARE_M)
  }
  let [low, high] = [0.03, 0.8]
  if (!fits(low)) return null
  if (fits(high)) return high
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (fits(middle)) low = middle
    else high = middle
  }
  return low
}
