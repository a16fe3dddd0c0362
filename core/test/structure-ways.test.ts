import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_LIP, EXAMPLE_MOUNT } from '../src/calculations/examples/example-aero.ts'
import { mountLoads, rodLoad } from '../src/structure/mounts.ts'
import { PANEL_MATERIALS } from '../src/structure/panel-materials.ts'
import { checkPanel } from '../src/structure/panels.ts'
import { stripTest } from '../src/structure/sandwich.ts'
import { type Strip, stripUnderEdgeLoad, stripUnderPressure } from '../src/structure/strip.ts'
import { beamTip } from './beam-elements.ts'

const DEG = Math.PI / 180

describe('panels, a second way', () => {
  const beam = { lipM: 0.47, rodAtM: 0.35, rodNPerM2: null, bendingNm2: 1296 } as const
  test.each<[Strip['support'], 'pressure' | 'edge']>([
    ['cantilever', 'pressure'],
    ['cantilever', 'edge'],
    ['clampedRod', 'pressure'],
    ['clampedRod', 'edge'],
    ['hingedRod', 'pressure'],
    ['hingedRod', 'edge'],
  ])('%s under %s: tip by beam elements', (support, sort) => {
    const strip: Strip = { support, ...beam }
    const own = sort === 'pressure' ? stripUnderPressure(strip, 1200) : stripUnderEdgeLoad(strip, 500)
    const other = beamTip(
      { ...beam, isClamped: support !== 'hingedRod', hasRod: support !== 'cantilever' },
      sort === 'pressure' ? { pressurePa: 1200 } : { edgeN: 500 },
    )
    expect(own.deflectionM).toBeCloseTo(other.tipM, 8)
    if (support !== 'cantilever') expect(own.rodNPerM).toBeCloseTo(other.rodN, 3)
  })
  it('thicker, stiffer or nearer support never bends more', () => {
    const material = PANEL_MATERIALS[0] as (typeof PANEL_MATERIALS)[number]
    fc.assert(
      fc.property(fc.double({ min: 0.004, max: 0.02, noNaN: true }), fc.double({ min: 0.05, max: 0.4, noNaN: true }), (thickness, lipM) => {
        const tip = (t: number, lip: number, young = 1) => checkPanel({ ...EXAMPLE_LIP, lipM: lip }, { ...material, youngPa: material.youngPa * young }, t)
        const now = tip(thickness, lipM)
        for (const better of [tip(thickness * 1.1, lipM), tip(thickness, lipM * 0.95), tip(thickness, lipM, 1.2)]) {
          expect(better.air.tipM).toBeLessThanOrEqual(now.air.tipM)
          expect(better.standing.tipM).toBeLessThanOrEqual(now.standing.tipM)
        }
      }),
    )
  })
  it('a strip bent on two spans gives its stiffness back', () => {
    const [d, s] = [144, 6040]
    const found = stripTest([0.15, 0.25, 0.4].map((spanM) => ({ spanM, deflectionPerLoad: spanM ** 3 / (48 * d) + spanM / (4 * s) })))
    expect(found.bendingNm2).toBeCloseTo(d, 6)
    expect(found.shearNPerM).toBeCloseTo(s, 3)
  })
  it('a sheet across its flutes gives more than along them', () => {
    const corrugated = PANEL_MATERIALS.find(({ key }) => key === 'corrugated') as (typeof PANEL_MATERIALS)[number]
    expect(checkPanel({ ...EXAMPLE_LIP, span: 'across' }, corrugated, 0.006).air.tipM).toBeGreaterThan(checkPanel(EXAMPLE_LIP, corrugated, 0.006).air.tipM)
  })
})

describe('mounts', () => {
  it('stand in balance about the pivot of the wing', () => {
    const { feet } = mountLoads(EXAMPLE_MOUNT)
    const [first, second] = feet as [(typeof feet)[number], (typeof feet)[number]]
    const moment = first.downN * (3.36 - 3.45) + second.downN * (3.6 - 3.45) - (first.alongN + second.alongN) * (1.405 - 0.95)
    expect(Math.abs(moment)).toBeLessThan(0.5)
    expect(first.downN + second.downN).toBeCloseTo(2 * EXAMPLE_MOUNT.downforceN, 6)
  })
  it('three feet on one upright are refused with the worst of any two, one foot with the cure', () => {
    expect(() => mountLoads({ ...EXAMPLE_MOUNT, feet: [...EXAMPLE_MOUNT.feet, { xM: 3.8, zM: 0.95 }] })).toThrow(/worst of any two is \d+ N/)
    expect(() => mountLoads({ ...EXAMPLE_MOUNT, feet: EXAMPLE_MOUNT.feet.slice(0, 1) })).toThrow(/two feet, front and rear/)
  })
  it('a rod at 30 degrees carries twice what it holds; at 5 it is refused; a cable holds no push', () => {
    const rod = { acrossN: 100, angleRad: 30 * DEG, diameterM: 0.006, lengthM: 0.25, youngPa: 205e9, isCable: false }
    expect(rodLoad(rod).alongRodN).toBeCloseTo(200, 9)
    expect(rodLoad({ ...rod, isCable: true }).bucklesAtN).toBe(0)
    expect(() => rodLoad({ ...rod, angleRad: 5 * DEG })).toThrow(/angleRad/)
  })
})
