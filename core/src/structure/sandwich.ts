import { requirePositive, requireWithin } from '../errors.ts'

/** Two skins of one thickness on a core. Pa, m. */
export interface Sandwich {
  readonly skinPa: number
  readonly skinM: number
  readonly corePa: number
  readonly coreShearPa: number
  readonly coreM: number
}

export interface SandwichStiffness {
  /** By metre of width. */
  readonly bendingNm2: number
  readonly shearNPerM: number
  /** At which a skin wrinkles. */
  readonly wrinklingPa: number
}

/**
 * Stiffness of a sandwich by metre of width: D = E_f t d²/2 + E_f t³/6 + E_c c³/12, S = G_c d²/c, d = c + t; skins wrinkle at 0.5 (E_f E_c G_c)^⅓.
 * Source: G.7 (from memory). With a soft core the shear part is the larger: never the bending alone.
 * @example sandwichStiffness({ skinPa: 70e9, skinM: 0.0003, corePa: 2e6, coreShearPa: 1.5e6, coreM: 0.0034 }).bendingNm2 // 144.067
 */
export function sandwichStiffness({ skinPa, skinM, corePa, coreShearPa, coreM }: Sandwich): SandwichStiffness {
  requirePositive(skinPa, 'skinPa')
  requireWithin(skinM, 5e-5, 0.01, 'skinM')
  requirePositive(corePa, 'corePa')
  requirePositive(coreShearPa, 'coreShearPa')
  requireWithin(coreM, 5e-4, 0.1, 'coreM')
  const d = coreM + skinM
  return {
    bendingNm2: (skinPa * skinM * d * d) / 2 + (skinPa * skinM ** 3) / 6 + (corePa * coreM ** 3) / 12,
    shearNPerM: (coreShearPa * d * d) / coreM,
    wrinklingPa: 0.5 * Math.cbrt(skinPa * corePa * coreShearPa),
  }
}

/**
 * Stress of a skin, Pa, and of the core in shear, for a moment (N m/m) and a shear force (N/m). Source: G.7.
 * @example sandwichStress({ skinPa: 70e9, skinM: 0.0003, corePa: 2e6, coreShearPa: 1.5e6, coreM: 0.0034 }, 6.75, 90).skinPa // 6081081.08
 */
export function sandwichStress({ skinM, coreM }: Sandwich, momentNmPerM: number, shearNPerM: number): { skinPa: number; coreShearPa: number } {
  const d = coreM + skinM
  return { skinPa: Math.abs(momentNmPerM) / (skinM * d), coreShearPa: Math.abs(shearNPerM) / d }
}

/**
 * Bending and shear stiffness, by metre of width, from strips of one panel bent on two spans: δ/(F L) = L²/(48 D) + 1/(4 S). Deflection over load, m/N by
 * metre of width, for a load in the middle. Refuses (`inconsistent` by its range) spans that differ by under a fifth, and readings that give no stiffness.
 * @example stripTest([{ spanM: 0.2, deflectionPerLoad: 6e-7 }, { spanM: 0.4, deflectionPerLoad: 4e-6 }]).bendingNm2 // 357.143
 */
export function stripTest(readings: readonly { readonly spanM: number; readonly deflectionPerLoad: number }[]): {
  bendingNm2: number
  shearNPerM: number | null
} {
  requireWithin(readings.length, 2, 20, 'readings')
  for (const { spanM, deflectionPerLoad } of readings) {
    requirePositive(spanM, 'readings.spanM')
    requirePositive(deflectionPerLoad, 'readings.deflectionPerLoad')
  }
  const spans = readings.map(({ spanM }) => spanM)
  requireWithin(Math.max(...spans) / Math.min(...spans), 1.2, 100, 'longest over shortest span')
  const points = readings.map(({ spanM, deflectionPerLoad }) => ({ x: spanM * spanM, y: deflectionPerLoad / spanM }))
  const n = points.length
  const [mx, my] = [points.reduce((sum, { x }) => sum + x, 0) / n, points.reduce((sum, { y }) => sum + y, 0) / n]
  const slope = points.reduce((sum, { x, y }) => sum + (x - mx) * (y - my), 0) / points.reduce((sum, { x }) => sum + (x - mx) ** 2, 0)
  const bendingNm2 = requirePositive(1 / (48 * slope), 'bending stiffness of these readings')
  const intercept = my - slope * mx
  return { bendingNm2, shearNPerM: intercept > 1e-12 ? 1 / (4 * intercept) : null }
}
