import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

export const STRIP_SUPPORTS = ['cantilever', 'simplySupported', 'clampedRod', 'hingedRod'] as const
/** Held at its rear edge alone; at both edges; clamped at the rear with a rod; hinged at the rear with a rod. */
export type StripSupport = (typeof STRIP_SUPPORTS)[number]
export const STRIP_SUPPORT_WORDS: Readonly<Record<StripSupport, string>> = {
  cantilever: 'held at the rear edge alone',
  simplySupported: 'held at both edges',
  clampedRod: 'clamped at the rear, with a rod',
  hingedRod: 'hinged at the rear, with a rod',
}

/** How a strip is held and what it is worth against bending, by metre of its width. */
export interface Strip {
  readonly support: StripSupport
  /** From the rear edge to the free edge; the span where both edges are held. */
  readonly lipM: number
  /** Of the rods, from the rear edge; asked for with a rod. */
  readonly rodAtM: number | null
  /** Across the panel, N/m by metre of width; null: does not give. */
  readonly rodNPerM2: number | null
  /** E I by metre of width. */
  readonly bendingNm2: number
}

export interface StripAnswer {
  /** Of the free edge; of the middle where both edges are held. In the direction of the load. */
  readonly deflectionM: number
  /** The largest moment by metre of width, N m/m, and each on its own. */
  readonly momentNmPerM: number
  readonly rootMomentNmPerM: number
  readonly spanMomentNmPerM: number
  readonly rodMomentNmPerM: number
  /** By metre of width, across the panel. */
  readonly rodNPerM: number
}

function requireStrip({ support, lipM, rodAtM, rodNPerM2, bendingNm2 }: Strip): number {
  requireWithin(lipM, 0.005, 3, 'lipM')
  requirePositive(bendingNm2, 'bendingNm2')
  if (rodNPerM2 !== null) requirePositive(rodNPerM2, 'rodNPerM2')
  if (support === 'cantilever' || support === 'simplySupported') return lipM
  if (rodAtM === null) throw new CalculationError('missing', 'rodAtM', 'Say how far from the rear edge the rods stand.')
  if (!(rodAtM > 0 && rodAtM <= lipM)) throw new CalculationError('out-of-range', 'rodAtM', `The rods stand from the rear edge up to ${lipM} m out. Move them.`)
  return rodAtM
}

const answer = (deflectionM: number, root: number, span: number, rod: number, rodNPerM: number): StripAnswer => ({
  deflectionM,
  momentNmPerM: Math.max(Math.abs(root), Math.abs(span), Math.abs(rod)),
  rootMomentNmPerM: root,
  spanMomentNmPerM: span,
  rodMomentNmPerM: rod,
  rodNPerM,
})

/** What a rod at s takes of a load that would move that place by `freeM`, per metre; `unitM` is how far one newton there moves it. */
const shareOfRod = (freeM: number, unitM: number, rodNPerM2: number | null): number => freeM / (unitM + (rodNPerM2 === null ? 0 : 1 / rodNPerM2))

/**
 * A strip under an even pressure, Pa: deflection and moments by metre of width, small deflections. Source: G.5, beam theory (from memory), checked by beam
 * elements. Lengths in m; the rod at most at the free edge. A hinged strip needs its rod and takes no give of it.
 * @example stripUnderPressure({ support: 'simplySupported', lipM: 0.5, rodAtM: null, rodNPerM2: null, bendingNm2: 1296 }, 1200).deflectionM // 0.000753520
 */
export function stripUnderPressure(strip: Strip, pressurePa: number): StripAnswer {
  const s = requireStrip(strip)
  const { support, lipM: l, rodNPerM2, bendingNm2: ei } = strip
  const w = requirePositive(pressurePa, 'pressurePa')
  const c = l - s
  switch (support) {
    case 'cantilever':
      return answer((w * l ** 4) / (8 * ei), (w * l * l) / 2, 0, 0, 0)
    case 'simplySupported':
      return answer((5 * w * l ** 4) / (384 * ei), 0, (w * l * l) / 8, 0, 0)
    case 'hingedRod': {
      const span = c < s ? (w * (s + c) ** 2 * (s - c) ** 2) / (8 * s * s) : 0
      return answer((w * c * (3 * c ** 3 + 4 * c * c * s - s ** 3)) / (24 * ei), 0, span, (w * c * c) / 2, (w * l * l) / (2 * s))
    }
    case 'clampedRod': {
      const free = (w * s * s * (6 * l * l - 4 * l * s + s * s)) / (24 * ei)
      const rod = shareOfRod(free, s ** 3 / (3 * ei), rodNPerM2)
      const tip = (w * l ** 4) / (8 * ei) - (rod * s * s * (3 * l - s)) / (6 * ei)
      // Between root and rod the moment is largest where the shear passes nothing.
      const shearless = l - rod / w
      const span = shearless > 0 && shearless < s ? (w * (l - shearless) ** 2) / 2 - rod * (s - shearless) : 0
      return answer(tip, (w * l * l) / 2 - rod * s, span, (w * c * c) / 2, rod)
    }
  }
}

/**
 * A strip under a load on its free edge, N by metre of width: somebody stands on it, or a kerb. Source: the room's page, 2.12, beam theory.
 * Both edges held: the load stands in the middle.
 * @example stripUnderEdgeLoad({ support: 'cantilever', lipM: 0.2, rodAtM: null, rodNPerM2: null, bendingNm2: 1536.29 }, 2000).deflectionM // 0.00347157
 */
export function stripUnderEdgeLoad(strip: Strip, edgeNPerM: number): StripAnswer {
  const s = requireStrip(strip)
  const { support, lipM: l, rodNPerM2, bendingNm2: ei } = strip
  const p = requirePositive(edgeNPerM, 'edgeNPerM')
  const c = l - s
  switch (support) {
    case 'cantilever':
      return answer((p * l ** 3) / (3 * ei), p * l, 0, 0, 0)
    case 'simplySupported':
      return answer((p * l ** 3) / (48 * ei), 0, (p * l) / 4, 0, 0)
    case 'hingedRod':
      return answer((p * c * c * l) / (3 * ei), 0, 0, p * c, (p * l) / s)
    case 'clampedRod': {
      const rod = shareOfRod((p * s * s * (3 * l - s)) / (6 * ei), s ** 3 / (3 * ei), rodNPerM2)
      const tip = (p * l ** 3) / (3 * ei) - (rod * s * s * (3 * l - s)) / (6 * ei)
      return answer(tip, p * l - rod * s, 0, p * c, rod)
    }
  }
}

/**
 * Centre of a plate held at four edges under an even pressure, over q a⁴/D: a series of sines. `sides` is the long side over the short one, 1 to 5.
 * Source: G.6, series solution.
 * @example plateCoefficient(1) // 0.00406235
 */
export function plateCoefficient(sides: number): number {
  requireWithin(sides, 1, 5, 'sides')
  let sum = 0
  for (let m = 1; m <= 199; m += 2)
    for (let n = 1; n <= 199; n += 2) {
      const sign = ((m + n) / 2 - 1) % 2 === 0 ? 1 : -1
      sum += sign / (m * n * (m * m + (n * n) / (sides * sides)) ** 2)
    }
  return (16 / Math.PI ** 6) * sum
}
