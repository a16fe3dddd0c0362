import { CalculationError } from '../errors.ts'
import type { PanelMaterial } from './panel-materials.ts'
import { stripTest } from './sandwich.ts'

/** A strip of a sheet, held at both ends and pressed in the middle. */
export interface BentStrip {
  readonly direction: 'along' | 'across'
  readonly thicknessM: number
  readonly spanM: number
  readonly widthM: number
  readonly loadN: number
  readonly deflectionM: number
}

/** A sheet of somebody's own: as a listed one, but that its stiffness may be what strips of it say. */
export interface OwnSheet extends Omit<PanelMaterial, 'youngPa' | 'core'> {
  readonly youngPa: number | null
  /** Stiffness of the core may be left to the strips. */
  readonly core: (Omit<NonNullable<PanelMaterial['core']>, 'coreShearPa'> & { readonly coreShearPa: number | null }) | null
  readonly strips: readonly BentStrip[]
}

export interface OwnSheetFound {
  readonly material: PanelMaterial
  /** Which of its stiffnesses strips have told. */
  readonly isMeasured: { readonly along: boolean; readonly across: boolean }
}

interface Told {
  readonly youngPa: number
  readonly coreShearPa: number | null
}

/** What strips of one direction and one thickness say; null where there are fewer than two. */
function toldBy(sheet: OwnSheet, direction: BentStrip['direction']): Told | null {
  const strips = sheet.strips.filter((strip) => strip.direction === direction)
  if (strips.length < 2) return null
  const thicknessM = strips[0]?.thicknessM ?? 0
  if (strips.some((strip) => Math.abs(strip.thicknessM - thicknessM) > 1e-6))
    throw new CalculationError('inconsistent', 'strips', `Strips of ${sheet.name} are of two thicknesses. Keep those of one for each direction.`)
  const { bendingNm2, shearNPerM } = stripTest(
    strips.map(({ spanM, widthM, loadN, deflectionM }) => ({ spanM, deflectionPerLoad: (deflectionM * widthM) / loadN })),
  )
  if (!sheet.core) return { youngPa: (12 * bendingNm2) / thicknessM ** 3, coreShearPa: null }
  const { skinM, corePa } = sheet.core
  const coreM = thicknessM - 2 * skinM
  if (coreM <= 0) throw new CalculationError('out-of-range', 'strips', `Of ${sheet.name} nothing is left between the skins at that thickness.`)
  const apartM = coreM + skinM
  const bySkins = (skinM * apartM ** 2) / 2 + skinM ** 3 / 6
  const youngPa = (bendingNm2 - (corePa * coreM ** 3) / 12) / bySkins
  if (!(youngPa > 0))
    throw new CalculationError('implausible', 'strips', `Strips of ${sheet.name} give less than its core alone would. Check the core’s modulus.`)
  return { youngPa, coreShearPa: shearNPerM === null ? null : (shearNPerM * coreM) / apartM ** 2 }
}

/**
 * A sheet of one's own as the sums take it: stiffness by its strips, else as it was typed. Two strips on two spans tell a direction; of a cored sheet they tell
 * its skins and the shear of its core. Source: G.7, three-point bending. Lengths in m, Pa.
 * Refuses (`missing`) a sheet whose stiffness nobody typed or bent, strips of two thicknesses in one direction, and what the strip test refuses.
 * @example ownSheet({ ...PANEL_MATERIALS[0], strips: [] }).material.youngPa // 9000000000
 */
export function ownSheet(sheet: OwnSheet): OwnSheetFound {
  const along = toldBy(sheet, 'along')
  const across = toldBy(sheet, 'across')
  const youngPa = along?.youngPa ?? sheet.youngPa
  if (youngPa === null)
    throw new CalculationError('missing', 'youngPa', `How stiff ${sheet.name} is was neither typed nor measured. Bend a strip on two spans, or type it.`)
  const { strips: _, ...rest } = sheet
  const isMeasured = { along: along !== null, across: across !== null }
  const youngAcrossPa = across?.youngPa ?? sheet.youngAcrossPa
  if (!sheet.core) return { material: { ...rest, youngPa, youngAcrossPa, core: null }, isMeasured }
  const coreShearPa = along?.coreShearPa ?? sheet.core.coreShearPa
  if (coreShearPa === null)
    throw new CalculationError(
      'missing',
      'coreShearPa',
      `How stiff the core of ${sheet.name} is in shear was neither typed nor measured. Bend a strip on two spans, or type it.`,
    )
  const acrossShare = across?.coreShearPa ? Math.min(1, across.coreShearPa / coreShearPa) : sheet.core.acrossShare
  return { material: { ...rest, youngPa, youngAcrossPa, core: { ...sheet.core, coreShearPa, acrossShare } }, isMeasured }
}
