import { rodLoad, STEEL_YOUNG_PA } from './mounts.ts'
import type { PanelSupport } from './panel-keys.ts'
import type { PanelMaterial } from './panel-materials.ts'
import { checkPanel, type PanelAnswer, type PanelCheck, type PanelLoad } from './panels.ts'
import type { StripSupport } from './strip.ts'

/** Rods or cables of one panel. */
export interface PanelRods {
  readonly count: number
  /** To the panel, over 5 degrees. */
  readonly angleRad: number
  readonly diameterM: number
  readonly lengthM: number
  readonly ratedN: number
}

export interface HeldPanel extends Omit<PanelLoad, 'support' | 'rodNPerM2'> {
  readonly support: PanelSupport
  /** Null: rods that do not give and are not checked. */
  readonly rods: PanelRods | null
}

export interface RodUse {
  /** Along one rod: the air shared by all of them, a foot or a kerb on one alone. */
  readonly airN: number
  readonly footN: number
  readonly kerbN: number
  /** Largest over what it is rated for, pulled, or pushed over where it buckles; over 1 it is too weak. */
  readonly use: number
  readonly decides: 'rating' | 'buckling'
}

export interface HeldPanelAnswer extends PanelAnswer {
  /** The edge load from below: rods push back, a cable goes slack and leaves the clamp alone. */
  readonly kerb: PanelCheck
  readonly rodUse: RodUse | null
  readonly massKg: number
}

/** A cable's panel under a load from below stands on its clamp alone. */
const fromBelow = (support: PanelSupport): StripSupport => (support === 'clampedCable' || support === 'cantilever' ? 'cantilever' : support)
const fromAbove = (support: PanelSupport): StripSupport => (support === 'clampedCable' ? 'clampedRod' : support)

/** How far rods give across the panel: N/m by metre of width. A hinge takes no give of its rods. */
function giveOf({ support, rods, widthM }: HeldPanel): number | null {
  if (!rods || support === 'hingedRod' || support === 'cantilever') return null
  const { count, angleRad, diameterM, lengthM } = rods
  return (count * STEEL_YOUNG_PA * Math.PI * diameterM ** 2 * Math.sin(angleRad) ** 2) / (4 * lengthM * widthM)
}

function rodUseOf({ rods, support, widthM }: HeldPanel, above: PanelAnswer, below: PanelAnswer): RodUse | null {
  if (!rods || support === 'cantilever') return null
  const isCable = support === 'clampedCable'
  const along = (acrossN: number) => rodLoad({ ...rods, acrossN, youngPa: STEEL_YOUNG_PA, isCable })
  const airN = along((above.rods.airNPerM * widthM) / rods.count).alongRodN
  const footN = along(above.rods.footN).alongRodN
  const kerbN = isCable ? 0 : along(below.rods.footN).alongRodN
  const pulled = Math.max(airN, footN, kerbN) / rods.ratedN
  // From below a rod is pushed; downforce and a foot pull on it.
  const pushed = isCable ? 0 : kerbN / along(0).bucklesAtN
  return { airN, footN, kerbN, use: Math.max(pulled, pushed), decides: pushed > pulled ? 'buckling' : 'rating' }
}

/**
 * A panel as it is built: air at the fastest speed, somebody on its edge, and a kerb from below with the same load, side by side; what its rods carry; its mass.
 * `holds` asks for air, person and rods: a kerb is shown beside them, for it is a blow. Source: the room's page, 2.12; Euler's column; rods and cables of steel.
 * Refuses what `checkPanel` and `rodLoad` refuse. Lengths in m, N, Pa; mass in kg of the sheet alone, width times lip.
 * @example checkHeldPanel({ ...LIP, support: 'cantilever', rods: null }, PLYWOOD, 0.0127).massKg // 2.764
 */
export function checkHeldPanel(panel: HeldPanel, material: PanelMaterial, thicknessM: number): HeldPanelAnswer {
  const load = { ...panel, rodNPerM2: giveOf(panel) }
  const above = checkPanel({ ...load, support: fromAbove(panel.support) }, material, thicknessM)
  const below = checkPanel({ ...load, support: fromBelow(panel.support) }, material, thicknessM)
  const rodUse = rodUseOf(panel, above, below)
  return {
    ...above,
    kerb: below.standing,
    rodUse,
    massKg: above.kgPerM2 * panel.widthM * panel.lipM,
    holds: above.holds && (rodUse === null || rodUse.use <= 1),
  }
}
