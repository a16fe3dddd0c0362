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
  /** Flutes or grain along the span, or across it; of two crossed sheets those of the first. */
  readonly span: 'along' | 'across'
  /** Two sheets whose flutes or grain cross; one where left out. */
  readonly layers?: 1 | 2
  /** Two sheets that cannot slide on each other. */
  readonly isBonded?: boolean
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
  /** Of one sheet. */
  readonly thicknessM: number
  readonly kgPerM2: number
  /** What rods carry across the panel: by metre of width under the air with its factor; all of it under a foot, N. 0 without rods. */
  readonly rods: { readonly airNPerM: number; readonly footN: number }
  readonly air: PanelCheck
  readonly standing: PanelCheck
  /** On the corner, where the load spreads to one side alone. */
  readonly corner: PanelCheck
  readonly holds: boolean
}

/** Reach of the free part: how far a foot stands from what holds it. */
const reachM = ({ support, lipM, rodAtM }: PanelLoad): number =>
  support === 'cantilever' ? lipM : support === 'simplySupported' ? lipM / 2 : Math.max(0.01, lipM - (rodAtM ?? 0))

interface Stress {
  readonly stressPa: number
  readonly strength: number
}

interface Sheet {
  readonly bendingNm2: number
  readonly shearNPerM: number | null
  readonly stressOf: (moment: number, shear: number) => Stress
}

const weaker = (a: Stress, b: Stress): Stress => (a.strength <= b.strength ? a : b)

/** Two sheets that slide on each other bend alike: each takes of moment and shear what it is of the stiffness. */
function slidingPair(first: Sheet, second: Sheet): Sheet {
  const bendingNm2 = first.bendingNm2 + second.bendingNm2
  const share = (sheet: Sheet, moment: number, shear: number) =>
    sheet.stressOf((moment * sheet.bendingNm2) / bendingNm2, (shear * sheet.bendingNm2) / bendingNm2)
  return {
    bendingNm2,
    shearNPerM: first.shearNPerM === null || second.shearNPerM === null ? null : first.shearNPerM + second.shearNPerM,
    stressOf: (moment, shear) => weaker(share(first, moment, shear), share(second, moment, shear)),
  }
}

/**
 * Two solid sheets that are one: each stretches about the axis of both. Cores are taken as sliding: what a glue line between two cored sheets carries is not
 * counted on.
 */
function bondedPair(material: PanelMaterial, thicknessM: number): Sheet {
  const across = material.youngAcrossPa ?? material.youngPa
  const sheets = [
    { young: material.youngPa, middleM: thicknessM / 2 },
    { young: across, middleM: (3 * thicknessM) / 2 },
  ]
  const axisM = sheets.reduce((sum, { young, middleM }) => sum + young * middleM, 0) / (material.youngPa + across)
  const bendingNm2 = sheets.reduce((sum, { young, middleM }) => sum + young * (thicknessM ** 3 / 12 + thicknessM * (middleM - axisM) ** 2), 0)
  return {
    bendingNm2,
    shearNPerM: null,
    stressOf: (moment) => {
      const stressPa = Math.max(...sheets.map(({ young, middleM }) => (young * moment * (Math.abs(middleM - axisM) + thicknessM / 2)) / bendingNm2))
      return { stressPa, strength: material.allowablePa / stressPa }
    },
  }
}

/** What is laid: one sheet, or two that cross. */
function laidOf(material: PanelMaterial, thicknessM: number, { span, layers = 1, isBonded = false }: PanelLoad, isPlate: boolean): Sheet {
  if (layers === 1) return sheetOf(material, thicknessM, span === 'across', isPlate)
  if (isBonded && !material.core) return bondedPair(material, thicknessM)
  return slidingPair(sheetOf(material, thicknessM, false, isPlate), sheetOf(material, thicknessM, true, isPlate))
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
  const { widthM, lipM, pressurePa, loadFactor, standingN, carriedKg, layers = 1 } = load
  requireWithin(widthM, 0.05, 2.5, 'widthM')
  requireWithin(loadFactor, 1, 5, 'loadFactor')
  requireWithin(standingN, 1, 10_000, 'standingN')
  requireWithin(carriedKg, 0, 60, 'carriedKg')
  requireWithin(thicknessM, 5e-4, 0.1, 'thicknessM')
  if (material.core && thicknessM <= 2.2 * material.core.skinM)
    throw new CalculationError('out-of-range', 'thicknessM', `Of ${material.name} nothing is left between the skins at that thickness. Take a thicker one.`)
  const sheet = laidOf(material, thicknessM, load, widthM > PLATE_WIDTHS * lipM)
  const strip: Strip = { ...load, bendingNm2: sheet.bendingNm2 }
  const pressure = pressurePa + (CARRIED_G * STANDARD_GRAVITY_MPS2 * carriedKg) / (widthM * lipM)
  const loaded = stripUnderPressure(strip, pressure * loadFactor)
  const air = checkOf(load, sheet, loaded, { perM: pressure, sort: 'pressure' }, stripUnderPressure(strip, pressure))
  // A foot does not bend the sheet over all its width: there it is a strip.
  const own = laidOf(material, thicknessM, load, false)
  const narrow: Strip = { ...load, bendingNm2: own.bendingNm2 }
  const foot = (spread: number) => {
    const footM = Math.min(widthM, SHOE_M + spread * reachM(load))
    const bent = stripUnderEdgeLoad(narrow, standingN / footM)
    return { check: checkOf(load, own, bent, { perM: standingN / footM, sort: 'edge' }, bent), rodsN: bent.rodNPerM * footM }
  }
  const [standing, corner] = [foot(2), foot(1)]
  const oneKgPerM2 = material.core
    ? 2 * material.core.skinM * material.densityKgM3 + (thicknessM - 2 * material.core.skinM) * material.core.coreKgM3
    : thicknessM * material.densityKgM3
  return {
    thicknessM,
    kgPerM2: layers * oneKgPerM2,
    rods: { airNPerM: loaded.rodNPerM, footN: Math.max(standing.rodsN, corner.rodsN) },
    air,
    standing: standing.check,
    corner: corner.check,
    holds: air.holds && standing.check.holds,
  }
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
