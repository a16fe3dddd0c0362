/** A symbol of a formula: how it is set, what it means, and its unit; no unit where it is a bare number. */
export interface FormulaSymbol {
  readonly tex: string
  readonly meaning: string
  readonly unit: string
}

/** A calculation's formula as it is set on the page, line by line, with every symbol in it. */
export interface Typeset {
  readonly lines: readonly string[]
  readonly symbols: readonly FormulaSymbol[]
}

export type Listed = readonly [tex: string, meaning: string, unit?: string]

/** Puts a formula and its symbols together. */
export const set = (lines: readonly string[], ...symbols: readonly Listed[]): Typeset => ({
  lines,
  symbols: symbols.map(([tex, meaning, unit = '']) => ({ tex, meaning, unit })),
})

export const power: Listed = ['P', 'power', 'W']
export const speed: Listed = ['n', 'engine speed', 'rpm']
export const airFlow: Listed = ['\\dot m_a', 'air', 'kg/s']
export const fuelFlow: Listed = ['\\dot m_f', 'fuel', 'kg/s']
export const airPressure: Listed = ['p', 'air pressure', 'Pa']
export const airTemperature: Listed = ['T', 'air temperature', 'K']
export const density: Listed = ['\\rho', 'density', 'kg/m³']
export const mass: Listed = ['m', 'mass', 'kg']
export const wholeMass: Listed = ['W', 'mass of the car', 'kg']
export const spread: Listed = ['s', 'spread, one standard deviation', 'as what it is of']
