import { describe, expect, it, test } from 'vitest'
import { checkHeldPanel, type HeldPanel, type PanelRods } from '../src/structure/held-panel.ts'
import { type BentStrip, type OwnSheet, ownSheet } from '../src/structure/own-sheet.ts'
import { PANEL_KEYS } from '../src/structure/panel-keys.ts'
import { PANEL_MATERIALS, type PanelMaterial } from '../src/structure/panel-materials.ts'
import { checkPanel } from '../src/structure/panels.ts'

const sheet = (key: string): PanelMaterial => PANEL_MATERIALS.find((each) => each.key === key) as PanelMaterial
const PLY = sheet('plywood')
/** The worked example's lip: 0.20 clamped, at 70 m/s. */
const LIP: HeldPanel = {
  support: 'cantilever',
  lipM: 0.2,
  widthM: 1.6,
  rodAtM: null,
  rods: null,
  pressurePa: 0.65 * 0.6 * 70 ** 2,
  loadFactor: 2,
  standingN: 1000,
  mostTipM: 0.005,
  carriedKg: 0,
  span: 'along',
}
const RODS: PanelRods = { count: 2, angleRad: Math.PI / 3, diameterM: 0.006, lengthM: 0.26, ratedN: 2600 }

test('records name the listed sheets, each by its key', () => {
  expect(PANEL_MATERIALS.map(({ key }) => key)).toEqual([...PANEL_KEYS])
})

describe('a panel as it is built', () => {
  it('clamped alone is the worked example of the room', () => {
    const thin = checkHeldPanel(LIP, PLY, 0.0095)
    expect(thin.air.tipM * 1000).toBeCloseTo(0.594, 3)
    expect(thin.air.stressPa / 1e6).toBeCloseTo(5.08, 2)
    expect(thin.standing.stressPa / 1e6).toBeCloseTo(26.6, 1)
    expect([thin.air.holds, thin.standing.holds, thin.holds]).toEqual([true, false, false])
    const thick = checkHeldPanel(LIP, PLY, 0.0127)
    expect([thick.standing.stressPa / 1e6, thick.standing.tipM * 1000]).toEqual([expect.closeTo(14.9, 1), expect.closeTo(3.47, 2)])
    expect(thick.holds).toBe(true)
    expect(thick.massKg).toBeCloseTo(680 * 0.0127 * 1.6 * 0.2, 9)
    expect(thick.rodUse).toBeNull()
  })

  it('takes of its rods what statics say: all of the air about a hinge', () => {
    const hinged: HeldPanel = { ...LIP, support: 'hingedRod', rodAtM: 0.16, rods: RODS }
    const { rodUse, air } = checkHeldPanel(hinged, PLY, 0.0127)
    // Moments about the hinge: w L² / 2s a metre of width, two rods at 60 degrees.
    const across = (2 * LIP.pressurePa * 0.2 ** 2 * 1.6) / (2 * 0.16) / 2
    expect(rodUse?.airN).toBeCloseTo(across / Math.sin(Math.PI / 3), 6)
    expect(air.holds).toBe(true)
    // A foot on the edge: p L / s on one rod alone.
    expect(rodUse?.footN).toBeCloseTo((1000 * 0.2) / 0.16 / Math.sin(Math.PI / 3), 6)
  })

  it('on cables holds no kerb from below: its clamp is alone then', () => {
    const cable = checkHeldPanel({ ...LIP, support: 'clampedCable', rodAtM: 0.18, rods: RODS }, PLY, 0.0095)
    const rod = checkHeldPanel({ ...LIP, support: 'clampedRod', rodAtM: 0.18, rods: RODS }, PLY, 0.0095)
    const alone = checkHeldPanel(LIP, PLY, 0.0095)
    expect(cable.standing).toEqual(rod.standing)
    expect(cable.kerb).toEqual(alone.standing)
    expect(rod.kerb.tipM).toBeLessThan(alone.kerb.tipM)
    expect(cable.rodUse?.kerbN).toBe(0)
    expect(cable.kerb.holds).toBe(false)
  })

  it('names what decides of a rod: what it is rated for, or that it buckles', () => {
    const at = (rods: PanelRods) => checkHeldPanel({ ...LIP, support: 'clampedRod', rodAtM: 0.16, rods }, PLY, 0.0127).rodUse
    expect(at({ ...RODS, ratedN: 500 })).toMatchObject({ decides: 'rating', use: expect.closeTo((at(RODS)?.footN ?? 0) / 500, 9) })
    expect(at({ ...RODS, diameterM: 0.003, lengthM: 0.5, ratedN: 1e5 })?.decides).toBe('buckling')
  })

  test.each([
    [{ lipM: 0 }, 'lipM'],
    [{ widthM: 4 }, 'widthM'],
    [{ support: 'clampedRod', rodAtM: null }, 'rodAtM'],
    [{ support: 'clampedRod', rodAtM: 0.1, rods: { ...RODS, angleRad: 0.01 } }, 'angleRad'],
    [{ carriedKg: 100 }, 'carriedKg'],
  ] as const)('%o is refused by its field', (more, field) => {
    expect(() => checkHeldPanel({ ...LIP, ...more } as HeldPanel, PLY, 0.0127)).toThrow(expect.objectContaining({ field }))
  })
})

describe('two sheets that cross', () => {
  const load = { ...LIP, support: 'cantilever', rodNPerM2: null } as const
  it('sliding on each other are as stiff as both, and weigh both', () => {
    const one = checkPanel(load, PLY, 0.006)
    const across = checkPanel({ ...load, span: 'across' }, PLY, 0.006)
    const two = checkPanel({ ...load, layers: 2 }, PLY, 0.006)
    // Stiffnesses add, so what they give adds by its inverse.
    expect(1 / two.standing.tipM).toBeCloseTo(1 / one.standing.tipM + 1 / across.standing.tipM, 6)
    expect(two.kgPerM2).toBeCloseTo(2 * one.kgPerM2, 12)
    expect(two.standing.strength).toBeGreaterThan(one.standing.strength)
  })
  it('of one stiffness both ways and glued bend as one of twice the thickness; sliding as two', () => {
    const metal = sheet('al6061')
    const narrow = { ...load, widthM: 0.5 }
    const double = checkPanel(narrow, metal, 0.006).standing
    expect(checkPanel({ ...narrow, layers: 2, isBonded: true }, metal, 0.003).standing.tipM).toBeCloseTo(double.tipM, 9)
    expect(checkPanel({ ...narrow, layers: 2, isBonded: true }, metal, 0.003).standing.stressPa).toBeCloseTo(double.stressPa, 0)
    expect(checkPanel({ ...narrow, layers: 2 }, metal, 0.003).standing.tipM).toBeCloseTo(4 * double.tipM, 9)
  })
  it('with cores are taken as sliding, glued or not', () => {
    const board = sheet('corrugated')
    expect(checkPanel({ ...load, layers: 2, isBonded: true }, board, 0.01)).toEqual(checkPanel({ ...load, layers: 2 }, board, 0.01))
  })
})

describe('a sheet of one’s own', () => {
  const own = (more: Partial<OwnSheet>): OwnSheet => ({ ...PLY, key: 'o', name: 'birch, mine', strips: [], ...more })
  /** A strip as beam theory bends it. */
  const bent = (spanM: number, youngPa: number, thicknessM: number, direction: BentStrip['direction'] = 'along'): BentStrip => ({
    direction,
    thicknessM,
    spanM,
    widthM: 0.05,
    loadN: 30,
    deflectionM: (30 * spanM ** 3) / (48 * youngPa * ((0.05 * thicknessM ** 3) / 12)),
  })
  it('is as stiff as its strips say, each way; else as it was typed', () => {
    const strips = [bent(0.2, 7.4e9, 0.012), bent(0.4, 7.4e9, 0.012)]
    const told = ownSheet(own({ strips }))
    expect(told.material.youngPa).toBeCloseTo(7.4e9, -3)
    expect(told).toMatchObject({ isMeasured: { along: true, across: false }, material: { youngAcrossPa: PLY.youngAcrossPa } })
    const both = ownSheet(own({ strips: [...strips, bent(0.2, 5e9, 0.012, 'across'), bent(0.4, 5e9, 0.012, 'across')] }))
    expect(both.material.youngAcrossPa).toBeCloseTo(5e9, -3)
    expect(ownSheet(own({ strips: strips.slice(1) }))).toMatchObject({ isMeasured: { along: false }, material: { youngPa: 9e9 } })
  })
  it('with a core has its skins and its core’s shear out of the strips', () => {
    const [t, skin, corePa, skinPa, shearPa] = [0.01, 0.0003, 2e6, 68e9, 2.1e6]
    const coreM = t - 2 * skin
    const d = coreM + skin
    const bending = (skinPa * skin * d * d) / 2 + (skinPa * skin ** 3) / 6 + (corePa * coreM ** 3) / 12
    const shear = (shearPa * d * d) / coreM
    const strip = (spanM: number): BentStrip => ({
      direction: 'along',
      thicknessM: t,
      spanM,
      widthM: 0.08,
      loadN: 20,
      deflectionM: (20 * spanM ** 3) / (48 * bending * 0.08) + (20 * spanM) / (4 * shear * 0.08),
    })
    const core = { skinM: skin, corePa, coreShearPa: null, acrossShare: 0.15, coreStrengthPa: 4e5, coreKgM3: 260 }
    const { material } = ownSheet(own({ youngPa: null, core, strips: [strip(0.2), strip(0.45)] }))
    expect(material.youngPa).toBeCloseTo(skinPa, -5)
    expect(material.core?.coreShearPa).toBeCloseTo(shearPa, -1)
    // What it is checked with is what it was bent as.
    expect(checkPanel({ ...LIP, support: 'simplySupported', rodNPerM2: null }, material, t).air.tipM).toBeGreaterThan(0)
  })
  test.each([
    [{ youngPa: null }, 'youngPa', /Bend a strip on two spans, or type it/],
    [{ strips: [bent(0.2, 9e9, 0.012), bent(0.4, 9e9, 0.009)] }, 'strips', /two thicknesses/],
    [{ strips: [bent(0.2, 9e9, 0.012), bent(0.21, 9e9, 0.012)] }, 'longest over shortest span', /./],
    [
      { core: { skinM: 3e-4, corePa: 2e6, coreShearPa: null, acrossShare: 0.15, coreStrengthPa: 4e5, coreKgM3: 260 } },
      'coreShearPa',
      /Bend a strip on two spans, or type it/,
    ],
  ] as const)('of %o is refused with the cure', (more, field, message) => {
    expect(() => ownSheet(own(more as Partial<OwnSheet>))).toThrow(expect.objectContaining({ field, message: expect.stringMatching(message) }))
  })
})
