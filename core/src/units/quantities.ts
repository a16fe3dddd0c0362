import { defineQuantity } from './define-quantity.ts'
import { HP_W, INCH_M, LB_KG, LBF_N, LBFT_NM, PS_W, PSI_PA } from './factors.ts'
import { FLOW_AND_MOTION } from './flow-and-motion.ts'

/**
 * Every kind of quantity. The first unit of each is its record unit: SI, but for volume (litres) and fuel density (kg/L), as the records name them.
 * Source of the factors: SI Brochure 9th ed., NIST SP 811 (exact definitions).
 */
export const QUANTITIES = [
  defineQuantity({
    kind: 'mass',
    units: [
      { symbol: 'kg', ending: 'Kg', factor: 1, aliases: ['kgs', 'kilo', 'kilos'] },
      { symbol: 'g', factor: 0.001, aliases: ['gram', 'grams'] },
      { symbol: 'lb', factor: LB_KG, aliases: ['lbs', 'pound', 'pounds'] },
      { symbol: 'oz', factor: LB_KG / 16, aliases: ['ounce', 'ounces'] },
    ],
    metric: 'kg',
    imperial: 'lb',
    decimals: 1,
    choices: { word: 'Mass', symbols: ['kg', 'lb'] },
  }),
  defineQuantity({
    kind: 'power',
    units: [
      { symbol: 'W', ending: 'W', factor: 1, aliases: ['watt', 'watts'] },
      { symbol: 'kW', factor: 1000, aliases: ['kilowatt'] },
      { symbol: 'hp', factor: HP_W, aliases: ['bhp', 'whp', 'horsepower'] },
      { symbol: 'PS', factor: PS_W, aliases: ['cv', 'metrichp'] },
    ],
    metric: 'kW',
    imperial: 'hp',
    decimals: 0,
    choices: { word: 'Power', symbols: ['kW', 'hp', 'PS'] },
  }),
  defineQuantity({
    kind: 'torque',
    units: [
      { symbol: 'N·m', ending: 'Nm', factor: 1, aliases: ['nm', 'n*m', 'n.m', 'n-m', 'newtonmetre'] },
      {
        symbol: 'lb·ft',
        factor: LBFT_NM,
        aliases: ['lbft', 'lb-ft', 'lb.ft', 'ftlb', 'ft-lb', 'ft·lb', 'ftlbs', 'lbf·ft', 'lbfft', 'lb*ft', 'lb_ft', 'ft_lb'],
      },
      { symbol: 'kgf·m', factor: 9.80665, aliases: ['kgfm', 'kgm', 'kg·m', 'mkp'] },
    ],
    metric: 'N·m',
    imperial: 'lb·ft',
    decimals: 0,
    choices: { word: 'Torque', symbols: ['N·m', 'lb·ft'] },
  }),
  defineQuantity({
    kind: 'powerToMass',
    units: [
      { symbol: 'W/kg', ending: 'WPerKg', factor: 1, aliases: ['kw/t', 'kw/tonne'] },
      { symbol: 'hp/1000 lb', factor: HP_W / (1000 * LB_KG), aliases: ['hp/1000lb'] },
      { symbol: 'hp/t', factor: HP_W / 1000, aliases: ['hp/tonne', 'bhp/t'] },
      { symbol: 'PS/t', factor: PS_W / 1000, aliases: ['ps/tonne'] },
    ],
    metric: 'W/kg',
    imperial: 'hp/1000 lb',
    decimals: 0,
    choices: { word: 'Power to weight', symbols: ['W/kg', 'hp/t', 'PS/t', 'hp/1000 lb'] },
  }),
  defineQuantity({
    kind: 'pressure',
    units: [
      { symbol: 'Pa', ending: 'Pa', factor: 1, aliases: [] },
      { symbol: 'kPa', factor: 1000, aliases: [] },
      { symbol: 'hPa', factor: 100, aliases: ['mbar', 'mb'] },
      { symbol: 'bar', factor: 1e5, aliases: [] },
      { symbol: 'psi', factor: PSI_PA, aliases: [] },
      { symbol: 'inHg', factor: 3386.38864, aliases: [] },
    ],
    metric: 'kPa',
    imperial: 'psi',
    decimals: 1,
    choices: { word: 'Pressure', symbols: ['kPa', 'psi', 'bar'] },
  }),
  defineQuantity({
    kind: 'temperature',
    units: [
      { symbol: 'K', ending: 'K', factor: 1, aliases: ['kelvin'] },
      { symbol: '°C', factor: 1, offset: 273.15, aliases: ['c', 'degc', 'celsius'] },
      { symbol: '°F', factor: 5 / 9, offset: 459.67, aliases: ['f', 'degf', 'fahrenheit'] },
    ],
    metric: '°C',
    imperial: '°F',
    decimals: 1,
    choices: { word: 'Temperature', symbols: ['°C', '°F'] },
  }),
  defineQuantity({
    kind: 'length',
    units: [
      { symbol: 'm', ending: 'M', factor: 1, aliases: ['metre', 'metres'] },
      { symbol: 'mm', factor: 0.001, aliases: [] },
      { symbol: 'cm', factor: 0.01, aliases: [] },
      { symbol: 'in', factor: INCH_M, aliases: ['inch', 'inches', '"'] },
      { symbol: 'ft', factor: 0.3048, aliases: ['foot', 'feet'] },
    ],
    metric: 'mm',
    imperial: 'in',
    decimals: 0,
    choices: { word: 'Length', symbols: ['mm', 'in'] },
  }),
  defineQuantity({
    kind: 'volume',
    units: [
      { symbol: 'L', ending: 'L', factor: 1, aliases: ['litre', 'litres', 'liter', 'liters'] },
      { symbol: 'US gal', factor: 3.785411784, aliases: ['usgal', 'gal'] },
      { symbol: 'cm³', factor: 0.001, aliases: ['cc', 'cm3', 'ccm', 'ml'] },
      { symbol: 'm³', ending: 'M3', factor: 1000, aliases: ['m3'] },
    ],
    metric: 'L',
    imperial: 'US gal',
    decimals: 1,
    choices: { word: 'Volume', symbols: ['L', 'US gal'] },
  }),
  defineQuantity({
    kind: 'fuelDensity',
    units: [
      { symbol: 'kg/L', ending: 'KgPerL', factor: 1, aliases: [] },
      { symbol: 'lb/US gal', factor: LB_KG / 3.785411784, aliases: ['lb/gal'] },
    ],
    metric: 'kg/L',
    imperial: 'lb/US gal',
    decimals: 3,
  }),
  defineQuantity({
    kind: 'share',
    units: [
      { symbol: '', factor: 1, aliases: [] },
      { symbol: '%', factor: 0.01, aliases: ['percent'] },
    ],
    metric: '%',
    imperial: '%',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'engineSpeed',
    units: [{ symbol: 'rpm', ending: 'Rpm', factor: 1, aliases: ['1/min', 'min-1', 'r/min', 'u/min', 'revs'] }],
    metric: 'rpm',
    imperial: 'rpm',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'speed',
    units: [
      { symbol: 'm/s', ending: 'Mps', factor: 1, aliases: ['mps'] },
      { symbol: 'km/h', factor: 1 / 3.6, aliases: ['kmh', 'kph'] },
      { symbol: 'mph', factor: 0.44704, aliases: ['mi/h'] },
    ],
    metric: 'km/h',
    imperial: 'mph',
    decimals: 1,
    choices: { word: 'Speed', symbols: ['km/h', 'mph'] },
  }),
  defineQuantity({
    kind: 'springRate',
    units: [
      { symbol: 'N/m', ending: 'NPerM', factor: 1, aliases: [] },
      { symbol: 'N/mm', factor: 1000, aliases: ['kn/m'] },
      { symbol: 'kgf/mm', factor: 9806.65, aliases: ['kg/mm'] },
      { symbol: 'lb/in', factor: LBF_N / INCH_M, aliases: ['lbf/in', 'lbs/in'] },
    ],
    metric: 'N/mm',
    imperial: 'lb/in',
    decimals: 1,
    choices: { word: 'Spring rate', symbols: ['N/mm', 'kgf/mm', 'lb/in'] },
  }),
  defineQuantity({
    kind: 'force',
    units: [
      { symbol: 'N', ending: 'N', factor: 1, aliases: ['newton'] },
      { symbol: 'kN', factor: 1000, aliases: [] },
      { symbol: 'lbf', factor: LBF_N, aliases: ['lb', 'lbs'] },
    ],
    metric: 'N',
    imperial: 'lbf',
    decimals: 0,
    choices: { word: 'Force', symbols: ['N', 'kN', 'lbf'] },
  }),
  defineQuantity({
    kind: 'ratio',
    units: [
      { symbol: '', factor: 1, aliases: ['x', '×'] },
      { symbol: '%', factor: 0.01, aliases: ['percent'] },
    ],
    metric: '',
    imperial: '',
    decimals: 4,
  }),
  ...FLOW_AND_MOTION,
] as const

export type QuantityKind = (typeof QUANTITIES)[number]['kind']
