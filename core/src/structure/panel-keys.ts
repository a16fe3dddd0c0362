/** Names of the listed sheets, as records keep them. */
export const PANEL_KEYS = ['plywood', 'abs', 'al3003', 'al5052', 'al6061', 'al7075', 'corrugated', 'honeycomb'] as const
export type PanelKey = (typeof PANEL_KEYS)[number]

export const PANEL_SUPPORTS = ['cantilever', 'clampedRod', 'clampedCable', 'hingedRod'] as const
/** How a splitter or a floor's edge is held: at its rear alone; with rods, or cables, from above; on a hinge with rods. */
export type PanelSupport = (typeof PANEL_SUPPORTS)[number]
