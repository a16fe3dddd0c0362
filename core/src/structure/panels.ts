import { CalculationError, requireWithin } from '../errors.ts'
import { STANDARD_GRAVITY_MPS2 } from '../mass/suspension.ts'
import type { PanelMaterial } from './panel-materials.ts'
import { sandwichStiffness, sandwichStress } from './sandwich.ts'
import { type Strip, type StripAnswer, stripUnderEdgeLoad, stripUnderPressure } from './strip.ts'

export interface PanelLoad extends Pick<Strip, 'support' | 'lipM' | 'rodAtM' | 'rodNPerM2'> {
  readonly widthM: number
  /** Of the air at the fastest speed, without the load factor. */
  readonly pressurePa: number
  readonly loadFactor: number
  /** Of somebody who stands on the edge, or a kerb. */
  readonly standingN: number
  readonly mostTipM: number
  /** Of what the panel carries, a cooler; it counts three times its weight. */
  readonly carriedKg: number
  /** Flutes or grain along the span, or across it. */
  readonly span: 'along' | 'across'
}

/** A shoe, and how far a load spreads beside it by how far it reaches out (common practice, no source). */
const SHOE_M = 0.1
const CARRIED_G = 3
/** Wider than this many spans a sheet bends as a plate. */
const PLATE_WIDTHS = 3

export interface PanelCheck {
  readonly tipM: number
  readonly stressPa: number
  /** What may be asked over what is; under 1 it is too weak. */
  readonly strength: number
  readonly holds: boolean
}

export interface PanelAnswer {
  readonly thicknessM: number
  readonly kgPerM2: number
  readonly air: PanelCheck
  readonly standing: PanelCheck
  /** On the corner, where the load spreads to one side alone. */
  readonly corner: PanelCheck
  readonly holds: boolean
}

/** Reach of the free part: how far a foot stands from what holds it. */
const reachM = ({ support, lipM, rodAtM }: PanelLoad): number =>
  support === 'cantilever' ? lipM : support === 'simplySupported' ? lipM / 2 : Math.max(0.01, lipM - (rodAtM ?? 0))

interface Sheet {
  readonly bendingNm2: number
  readonly shearNPerM: number | null
  readonly stressOf: (moment: number, shear: number) => { stressPa: number; strength: number }
}

/** What a sheet of a material is worth by metre of width, in the direction it is laid. */
function sheetOf(material: PanelMaterial, thicknessM: number, isAcross: boolean, isPlate: boolean): Sheet {
  const { core, allowablePa, poisson } = material
  const young = isAcross ? (material.youngAcrossPa ?? material.youngPa) : material.youngPa
  if (!core) {
    const bending = (young * thicknessM ** 3) / 12
    return {
      bendingNm2: isPlate && poisson !== null ? bending / (1 - poisson ** 2) : bending,
      shearNPerM: null,
      stressOf: (moment) => {
        const stressPa = (6 * moment) / thicknessM ** 2
        return { stressPa, strength: allowablePa / stressPa }
      },
    }
  }
  const { skinM, corePa, coreShearPa, acrossShare, coreStrengthPa } = core
  const own = { skinPa: young, skinM, corePa, coreShearPa: coreShearPa * (isAcross ? acrossShare : 1), coreM: thicknessM - 2 * skinM }
  const { bendingNm2, shearNPerM, wrinklingPa } = sandwichStiffness(own)
  return {
    bendingNm2,
    shearNPerM,
    stressOf: (moment, shear) => {
      const { skinPa, coreShearPa: coreStress } = sandwichStress(own, moment, shear)
      const core = shear > 0 ? coreStrengthPa / coreStress : Number.POSITIVE_INFINITY
      return { stressPa: skinPa, strength: Math.min(Math.min(allowablePa, wrinklingPa) / skinPa, core) }
    },
  }
}

const SHEAR_SHARES = { pressure: { cantilever: 1 / 2, simplySupported: 1 / 8 }, edge: { cantilever: 1, simplySupported: 1 / 4 } } as const

function checkOf(
  load: PanelLoad,
  sheet: Sheet,
  bent: StripAnswer,
  unshared: { readonly perM: number; readonly sort: 'pressure' | 'edge' },
  bentForTip: StripAnswer,
): PanelCheck {
  const { support, lipM, mostTipM } = load
  const isSimple = support === 'cantilever' || support === 'simplySupported'
  const free = isSimple ? lipM : reachM(load)
  const share = SHEAR_SHARES[unshared.sort][support === 'simplySupported' ? 'simplySupported' : 'cantilever']
  const total = unshared.sort === 'pressure' ? unshared.perM * free : unshared.perM
  const byShear = sheet.shearNPerM === null ? 0 : (total * free * share) / sheet.shearNPerM
  const { stressPa, strength } = sheet.stressOf(bent.momentNmPerM, total * (support === 'simplySupported' ? 0.5 : 1))
  const tipM = Math.abs(bentForTip.deflectionM) + byShear
  return { tipM, stressPa, strength, holds: strength >= 1 && tipM <= mostTipM }
}

/**
 * One panel under two loads side by side: the air at its fastest times the load factor, and somebody on its edge. Deflection under the load as it is, stress
 * under the factor. A foot acts on 0.1 m and twice its reach of width, once on a corner (common practice, no source). Source: G.5, G.7.
 * Refuses what the strips refuse, a thickness that leaves no core, factors outside 1 to 5.
 * @example checkPanel(LIP, PLYWOOD, 0.0127).standing.tipM // 0.00347157
 */
export function checkPanel(load: PanelLoad, material: PanelMaterial, thicknessM: number): PanelAnswer {
  const { widthM, lipM, pressurePa, loadFactor, standingN, carriedKg, span } = load
  requireWithin(widthM, 0.05, 2.5, 'widthM')
  requireWithin(loadFactor, 1, 5, 'loadFactor')
  requireWithin(standingN, 1, 10_000, 'standingN')
  requireWithin(carriedKg, 0, 60, 'carriedKg')
  requireWithin(thicknessM, 5e-4, 0.1, 'thicknessM')
  if (material.core && thicknessM <= 2.2 * material.core.skinM)
    throw new CalculationError('out-of-range', 'thicknessM', `Of ${material.name} nothing is left between the skins at that thickness. Take a thicker one.`)
  const sheet = sheetOf(material, thicknessM, span === 'across', widthM > PLATE_WIDTHS * lipM)
  const strip: Strip = { ...load, bendingNm2: sheet.bendingNm2 }
  const pressure = pressurePa + (CARRIED_G * STANDARD_GRAVITY_MPS2 * carriedKg) / (widthM * lipM)
  const air = checkOf(load, sheet, stripUnderPressure(strip, pressure * loadFactor), { perM: pressure, sort: 'pressure' }, stripUnderPressure(strip, pressure))
  // A foot does not bend the sheet over all its width: there it is a strip.
  const own = sheetOf(material, thicknessM, span === 'across', false)
  const narrow: Strip = { ...load, bendingNm2: own.bendingNm2 }
  const foot = (spread: number) => {
    const perM = standingN / Math.min(widthM, SHOE_M + spread * reachM(load))
    const bent = stripUnderEdgeLoad(narrow, perM)
    return checkOf(load, own, bent, { perM, sort: 'edge' }, bent)
  }
  const [standing, corner] = [foot(2), foot(1)]
  const kgPerM2 = material.core
    ? 2 * material.core.skinM * material.densityKgM3 + (thicknessM - 2 * material.core.skinM) * material.core.coreKgM3
    : thicknessM * material.densityKgM3
  return { thicknessM, kgPerM2, air, standing, corner, holds: air.holds && standing.holds }
}

export interface PanelChoice {
  readonly material: PanelMaterial
  /** The thinnest that holds both; the thickest there is where none does. */
  readonly panel: PanelAnswer
  /** The thinnest that holds the air alone. */
  readonly airOnlyM: number | null
  readonly decides: 'air' | 'standing'
}

/**
 * Of each material the thinnest sheet that holds the air and somebody on its edge, lightest first; those that nothing holds last.
 * @example choosePanel(LIP, PANEL_MATERIALS)[0].panel.holds // true
 */
export function choosePanel(load: PanelLoad, materials: readonly PanelMaterial[]): PanelChoice[] {
  return materials
    .flatMap((material): PanelChoice[] => {
      const all = material.thicknessesM.map((thickness) => checkPanel(load, material, thickness))
      const last = all.at(-1)
      const panel = all.find(({ holds }) => holds) ?? last
      if (!panel) return []
      const airOnlyM = all.find(({ air }) => air.holds)?.thicknessM ?? null
      return [{ material, panel, airOnlyM, decides: airOnlyM !== null && airOnlyM < panel.thicknessM ? 'standing' : 'air' }]
    })
    .sort((a, b) => Number(b.panel.holds) - Number(a.panel.holds) || a.panel.kgPerM2 - b.panel.kgPerM2)
}
