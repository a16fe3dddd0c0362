import { CalculationError } from '../errors.ts'
import { mountLoads, rodLoad } from '../structure/mounts.ts'
import { PANEL_MATERIALS } from '../structure/panel-materials.ts'
import { choosePanel } from '../structure/panels.ts'
import { sandwichStiffness, sandwichStress, stripTest } from '../structure/sandwich.ts'
import { STRIP_SUPPORT_WORDS, STRIP_SUPPORTS, stripUnderEdgeLoad, stripUnderPressure } from '../structure/strip.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_LIP, EXAMPLE_MOUNT } from './examples/example-aero.ts'
import { defineCalculation } from './registry.ts'

const supportFields = {
  support: z.enum(STRIP_SUPPORTS).default('cantilever'),
  lipM: z.number(),
  rodAtM: z.number().nullable().default(null),
  rodNPerM2: z.number().nullable().default(null),
}
const CAUTION = 'Dust and resin harm lungs and skin; who stands on a panel, and what may fly off, is for qualified people and the event’s rules.'

const stripCalculation = defineCalculation({
  name: 'structure.strip',
  title: 'How far a sheet bends under air or an edge load, and what that asks of it',
  formula: 'δ = w L⁴/8EI and M = w L²/2 (held at the rear); EI = E t³/12; σ = 6 M/t²',
  sources: ['G.5, beam theory (from memory), checked by beam elements'],
  assumptions: ['Small deflections; by metre of width', 'A rod holds one way as well as the other: a cable holds no kerb from below'],
  validRange: 'lip 5 mm to 3 m, thickness 0.5 to 100 mm',
  schools: Object.values(STRIP_SUPPORT_WORDS),
  example: { support: 'hingedRod', lipM: 0.47, rodAtM: 0.35, youngPa: 9e9, thicknessM: 0.012, loadPa: 1200, densityKgM3: 680 },
  input: z.strictObject({
    ...supportFields,
    youngPa: z.number(),
    thicknessM: z.number().min(5e-4).max(0.1),
    loadPa: z.number().nullable().default(null),
    edgeNPerM: z.number().nullable().default(null),
    allowablePa: z.number().positive().nullable().default(null),
    densityKgM3: z.number().positive().default(680),
  }),
  output: z.strictObject({
    deflectionM: z.number(),
    momentNmPerM: z.number(),
    rootMomentNmPerM: z.number(),
    spanMomentNmPerM: z.number(),
    rodMomentNmPerM: z.number(),
    rodNPerM: z.number(),
    stressPa: z.number(),
    strength: z.number().nullable(),
    kgPerM2: z.number(),
  }),
  run: ({ youngPa, thicknessM, loadPa, edgeNPerM, allowablePa, densityKgM3, ...held }) => {
    if ((loadPa === null) === (edgeNPerM === null)) throw new CalculationError('bad-input', 'loadPa', 'Give a pressure, or a load on the edge: one of them.')
    const strip = { ...held, bendingNm2: (youngPa * thicknessM ** 3) / 12 }
    const bent = loadPa === null ? stripUnderEdgeLoad(strip, edgeNPerM ?? 0) : stripUnderPressure(strip, loadPa)
    const stressPa = (6 * bent.momentNmPerM) / thicknessM ** 2
    return {
      value: { ...bent, stressPa, strength: allowablePa === null ? null : allowablePa / stressPa, kgPerM2: densityKgM3 * thicknessM },
      warnings: [
        ...(Math.abs(bent.deflectionM) > held.lipM / 10 ? ['It bends by over a tenth of its reach: the small deflections of this sum end there.'] : []),
        CAUTION,
      ],
    }
  },
})

const sandwichFields = { skinPa: z.number(), skinM: z.number(), corePa: z.number(), coreShearPa: z.number(), coreM: z.number() }

const sandwichCalculation = defineCalculation({
  name: 'structure.sandwich',
  title: 'A sandwich held at both edges: bending, shear of its core, stresses',
  formula: 'D = E_f t d²/2 + E_f t³/6 + E_c c³/12; S = G_c d²/c; δ = 5wL⁴/384D + wL²/8S',
  sources: ['G.7 (from memory)'],
  assumptions: ['By metre of width; thin skins of one thickness'],
  validRange: 'skins 0.05 to 10 mm, core 0.5 to 100 mm',
  schools: [],
  example: { skinPa: 70e9, skinM: 0.0003, corePa: 2e6, coreShearPa: 1.5e6, coreM: 0.0034, spanM: 0.3, loadPa: 600 },
  input: z.strictObject({ ...sandwichFields, spanM: z.number(), loadPa: z.number() }),
  output: z.strictObject({
    bendingNm2: z.number(),
    shearNPerM: z.number(),
    wrinklingPa: z.number(),
    bendingM: z.number(),
    shearM: z.number(),
    deflectionM: z.number(),
    skinPa: z.number(),
    coreShearPa: z.number(),
  }),
  run: ({ spanM, loadPa, ...own }) => {
    const stiffness = sandwichStiffness(own)
    const bent = stripUnderPressure({ support: 'simplySupported', lipM: spanM, rodAtM: null, rodNPerM2: null, bendingNm2: stiffness.bendingNm2 }, loadPa)
    const shearM = (loadPa * spanM ** 2) / (8 * stiffness.shearNPerM)
    return {
      value: {
        ...stiffness,
        bendingM: bent.deflectionM,
        shearM,
        deflectionM: bent.deflectionM + shearM,
        ...sandwichStress(own, bent.momentNmPerM, (loadPa * spanM) / 2),
      },
      warnings: shearM > bent.deflectionM ? ['The core gives more than the skins: bending alone would say far too little.'] : [],
    }
  },
})

const stripTestCalculation = defineCalculation({
  name: 'structure.strip-test',
  title: 'What a sheet is worth, from bending a strip on two spans',
  formula: 'δ/(F L) = L²/48D + 1/4S',
  sources: ['G.7, three-point bending; a line through L²'],
  assumptions: ['A load in the middle, both ends held; per metre of width'],
  validRange: 'two spans at least, a fifth apart',
  schools: [],
  example: {
    readings: [
      { spanM: 0.2, loadN: 10, deflectionM: 0.0001, widthM: 0.06 },
      { spanM: 0.4, loadN: 10, deflectionM: 0.00066, widthM: 0.06 },
    ],
  },
  input: z.strictObject({
    readings: z.array(z.strictObject({ spanM: z.number(), loadN: z.number().positive(), deflectionM: z.number(), widthM: z.number().positive() })).max(20),
  }),
  output: z.strictObject({ bendingNm2: z.number(), shearNPerM: z.number().nullable() }),
  run: ({ readings }) => ({
    value: stripTest(readings.map(({ spanM, loadN, deflectionM, widthM }) => ({ spanM, deflectionPerLoad: (deflectionM * widthM) / loadN }))),
  }),
})

const check = z.strictObject({ tipM: z.number(), stressPa: z.number(), strength: z.number(), holds: z.boolean() })

const choiceCalculation = defineCalculation({
  name: 'structure.choose-panel',
  title: 'The thinnest sheet of each material that holds air and a person',
  formula: 'air: q ΔCp at the fastest, times the load factor; person: N over 0.1 m + 2 reach of width',
  sources: ['G.5 to G.7', `Load factor 2, a foot’s width, 5 mm at the tip (${PRACTICE})`],
  assumptions: ['Values of materials from memory: bend a strip of your own sheet'],
  validRange: 'lip 5 mm to 1.5 m, width to 2.5 m',
  schools: Object.values(STRIP_SUPPORT_WORDS),
  example: { lipM: 0.15, widthM: 1.6, loadPa: 1400 },
  input: z.strictObject({
    ...supportFields,
    widthM: z.number(),
    loadPa: z.number().positive(),
    loadFactor: z.number().default(EXAMPLE_LIP.loadFactor),
    standingN: z.number().default(EXAMPLE_LIP.standingN),
    mostTipM: z.number().positive().default(EXAMPLE_LIP.mostTipM),
    carriedKg: z.number().default(0),
    span: z.enum(['along', 'across']).default('along'),
  }),
  output: z.strictObject({
    choices: z.array(
      z.strictObject({
        material: z.string(),
        thicknessM: z.number(),
        holds: z.boolean(),
        airOnlyM: z.number().nullable(),
        decides: z.enum(['air', 'standing']),
        kgPerM2: z.number(),
        priceOverPly: z.number(),
        air: check,
        standing: check,
        notes: z.array(z.string()),
      }),
    ),
  }),
  run: ({ loadPa, ...load }) => ({
    value: {
      choices: choosePanel({ ...load, pressurePa: loadPa }, PANEL_MATERIALS).map(({ material, panel, airOnlyM, decides }) => ({
        material: material.name,
        thicknessM: panel.thicknessM,
        holds: panel.holds,
        airOnlyM,
        decides,
        kgPerM2: panel.kgPerM2,
        priceOverPly: material.priceOverPly,
        air: panel.air,
        standing: panel.standing,
        notes: [...material.notes],
      })),
    },
    warnings: [CAUTION],
  }),
})

const mountsCalculation = defineCalculation({
  name: 'structure.mounts',
  title: 'What a wing does to its feet, bolts and rods',
  formula: 'R₁ = (F (x₂ − x) − D (z − z₂))/(x₂ − x₁); rod R/sin θ, pushed π²EI/l²; (t/T)² + (s/S)² ≤ 1',
  sources: ['Statics; Euler’s column'],
  assumptions: ['Drag is shared equally by the feet', 'All uprights carry alike'],
  validRange: 'two feet an upright, 20 mm apart at least; rods over 5 degrees from the panel',
  schools: [],
  example: { ...EXAMPLE_MOUNT, bolts: { countPerFoot: 2, tensionN: 8000, shearN: 6000 } },
  input: z.strictObject({
    downforceN: z.number(),
    dragN: z.number(),
    xM: z.number(),
    zM: z.number(),
    loadFactor: z.number().default(2),
    uprights: z.int().default(2),
    feet: z.array(z.strictObject({ xM: z.number(), zM: z.number() })).max(8),
    bolts: z.strictObject({ countPerFoot: z.int(), tensionN: z.number(), shearN: z.number() }).nullable().default(null),
    rod: z
      .strictObject({
        acrossN: z.number(),
        angleRad: z.number(),
        diameterM: z.number(),
        lengthM: z.number(),
        youngPa: z.number().default(205e9),
        isCable: z.boolean().default(false),
      })
      .nullable()
      .default(null),
  }),
  output: z.strictObject({
    feet: z.array(z.strictObject({ downN: z.number(), alongN: z.number(), boltUse: z.number().nullable() })),
    rod: z.strictObject({ alongRodN: z.number(), inPlaneN: z.number(), bucklesAtN: z.number() }).nullable(),
  }),
  run: ({ rod, ...mount }) => ({
    value: { ...mountLoads(mount), rod: rod && rodLoad(rod) },
    warnings: ['A wing that comes off flies into people: a tether or a second fixing, and a qualified person’s look at it, before it runs.'],
  }),
})

/** The calculations of this file, for the register. */
export const STRUCTURE_CALCULATIONS = [stripCalculation, sandwichCalculation, stripTestCalculation, choiceCalculation, mountsCalculation]
