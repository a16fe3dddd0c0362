/** A sheet that panels are cut from. Pa, m, kg/m³. */
export interface PanelMaterial {
  readonly key: string
  readonly name: string
  /** Along the stiffer direction; of the skins of a sandwich. */
  readonly youngPa: number
  /** Across it, where that differs: plies, flutes. */
  readonly youngAcrossPa: number | null
  /** What may be asked of it: yield over 1.5 of metals, a third of what breaks wood and composites. */
  readonly allowablePa: number
  readonly densityKgM3: number
  /** null: bends as a strip at any width. */
  readonly poisson: number | null
  /** Skins, and what is between them. */
  readonly core: {
    readonly skinM: number
    readonly corePa: number
    readonly coreShearPa: number
    /** Across the flutes over along them. */
    readonly acrossShare: number
    readonly coreStrengthPa: number
    readonly coreKgM3: number
  } | null
  readonly thicknessesM: readonly number[]
  /** Over plywood, by area (common practice, no source). */
  readonly priceOverPly: number
  readonly notes: readonly string[]
}

const IN = 0.0254
const SHEETS = [1 / 16, 3 / 32, 1 / 8, 3 / 16, 1 / 4, 3 / 8, 1 / 2].map((inches) => inches * IN)
const metal = (key: string, name: string, youngPa: number, yieldPa: number, densityKgM3: number, priceOverPly: number, ...notes: string[]): PanelMaterial => ({
  key,
  name,
  youngPa,
  youngAcrossPa: null,
  allowablePa: yieldPa / 1.5,
  densityKgM3,
  poisson: 0.33,
  core: null,
  thicknessesM: SHEETS,
  priceOverPly,
  notes: ['Break all edges; file the corners round.', ...notes],
})

/** Sheets that splitters and floors are made of; values from memory, of handbooks and common practice. Measure a strip of your own. */
export const PANEL_MATERIALS: readonly PanelMaterial[] = [
  {
    key: 'plywood',
    name: 'marine plywood, birch',
    youngPa: 9e9,
    youngAcrossPa: 6.5e9,
    allowablePa: 20e6,
    densityKgM3: 680,
    poisson: null,
    core: null,
    thicknessesM: [1 / 4, 3 / 8, 1 / 2, 5 / 8, 3 / 4].map((inches) => inches * IN),
    priceOverPly: 1,
    notes: ['Seal faces and every cut edge, or it drinks water.', 'The grain of the face runs with the span.'],
  },
  {
    key: 'abs',
    name: 'ABS sheet',
    youngPa: 2.3e9,
    youngAcrossPa: null,
    allowablePa: 43e6 / 1.5,
    densityKgM3: 1050,
    poisson: 0.35,
    core: null,
    thicknessesM: SHEETS,
    priceOverPly: 1.5,
    notes: ['Turns brittle with fuel, brake fluid and solvents.', 'Bends warm; drill with a step drill.'],
  },
  metal('al3003', 'aluminium 3003-H14', 68.9e9, 145e6, 2730, 2),
  metal('al5052', 'aluminium 5052-H32', 70.3e9, 193e6, 2680, 2.2),
  metal('al6061', 'aluminium 6061-T6', 68.9e9, 276e6, 2700, 2.5, 'A weld leaves 110 MPa beside it.'),
  metal('al7075', 'aluminium 7075-T6', 71.7e9, 503e6, 2810, 5, 'Not to be welded or bent.'),
  {
    key: 'corrugated',
    name: 'aluminium-skinned corrugated sheet',
    youngPa: 69.5e9,
    youngAcrossPa: null,
    allowablePa: 120e6 / 1.5,
    densityKgM3: 2700,
    poisson: null,
    core: { skinM: 0.00025, corePa: 2e6, coreShearPa: 3e6, acrossShare: 0.15, coreStrengthPa: 0.4e6, coreKgM3: 300 },
    thicknessesM: [0.003, 0.004, 0.006, 0.01],
    priceOverPly: 1.2,
    notes: [
      'Folds along its flutes: they run in the direction of the span, or two sheets cross.',
      '6 mm under 160 km/h and 10 mm over (common practice, no source).',
      'Its core’s stiffness is a guess: bend a strip.',
    ],
  },
  {
    key: 'honeycomb',
    name: 'carbon-skinned honeycomb',
    youngPa: 60e9,
    youngAcrossPa: null,
    allowablePa: 350e6 / 3,
    densityKgM3: 1550,
    poisson: null,
    core: { skinM: 0.0005, corePa: 130e6, coreShearPa: 40e6, acrossShare: 0.5, coreStrengthPa: 1.2e6, coreKgM3: 48 },
    thicknessesM: [1 / 4, 1 / 2, 3 / 4, 1].map((inches) => inches * IN),
    priceOverPly: 10,
    notes: ['Potted inserts at every fixing; close the edges.', 'Cut wet, with a mask: its dust goes into the lungs.'],
  },
]
