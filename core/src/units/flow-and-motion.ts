import { clockText, readClock } from './clock.ts'
import { defineQuantity } from './define-quantity.ts'
import { HP_W, INCH_M, LB_KG, PSI_PA } from './factors.ts'

/** Quantities of flow, motion, strain and electricity; the first unit of each is its record unit. */
export const FLOW_AND_MOTION = [
  defineQuantity({
    kind: 'massFlow',
    units: [
      { symbol: 'kg/s', ending: 'KgPerS', factor: 1, aliases: [] },
      { symbol: 'g/s', factor: 0.001, aliases: [] },
      { symbol: 'kg/h', factor: 1 / 3600, aliases: [] },
      { symbol: 'lb/min', factor: LB_KG / 60, aliases: ['lbs/min', 'ppm'] },
      { symbol: 'lb/h', factor: LB_KG / 3600, aliases: ['lbs/h', 'lb/hr', 'lbs/hr', 'pph'] },
    ],
    metric: 'kg/s',
    imperial: 'lb/min',
    decimals: 3,
    choices: { word: 'Air flow', symbols: ['kg/s', 'g/s', 'lb/min'] },
  }),
  defineQuantity({
    kind: 'volumeFlow',
    units: [
      { symbol: 'm³/s', ending: 'M3PerS', factor: 1, aliases: ['m3/s'] },
      { symbol: 'L/h', factor: 1 / 3.6e6, aliases: ['lph', 'l/hr'] },
      { symbol: 'L/min', factor: 1 / 60_000, aliases: ['lpm'] },
      { symbol: 'cm³/min', factor: 1e-6 / 60, aliases: ['cc/min', 'ccm', 'cm3/min', 'ml/min', 'cc'] },
      { symbol: 'US gal/h', factor: 3.785411784e-3 / 3600, aliases: ['usgal/h', 'gph', 'gal/h'] },
      { symbol: 'ft³/min', factor: 0.3048 ** 3 / 60, aliases: ['ft3/min', 'cfm', 'cuft/min'] },
    ],
    metric: 'L/h',
    imperial: 'US gal/h',
    decimals: 0,
    choices: { word: 'Fuel flow', symbols: ['L/h', 'cm³/min', 'US gal/h'] },
  }),
  defineQuantity({
    kind: 'current',
    units: [{ symbol: 'A', ending: 'A', factor: 1, aliases: ['amp', 'amps', 'ampere'] }],
    metric: 'A',
    imperial: 'A',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'fuelUse',
    units: [
      { symbol: 'kg/J', ending: 'KgPerJ', factor: 1, aliases: [] },
      { symbol: 'g/kWh', factor: 1 / 3.6e9, aliases: ['g/kw·h', 'g/kw-h'] },
      { symbol: 'lb/hp·h', factor: LB_KG / (HP_W * 3600), aliases: ['lb/hph', 'lb/hp-h', 'lb/hp/h', 'lb/(hp·h)'] },
    ],
    metric: 'g/kWh',
    imperial: 'lb/hp·h',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'injectorFlow',
    units: [
      { symbol: 'm³/s', factor: 1, aliases: ['m3/s'] },
      { symbol: 'cm³/min', factor: 1e-6 / 60, aliases: ['cc/min', 'ccm', 'cm3/min', 'ml/min', 'cc'] },
      { symbol: 'L/h', factor: 1 / 3.6e6, aliases: ['lph', 'l/hr'] },
    ],
    metric: 'cm³/min',
    imperial: 'cm³/min',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'pistonSpeed',
    units: [
      { symbol: 'm/s', factor: 1, aliases: ['mps'] },
      { symbol: 'ft/min', factor: 0.3048 / 60, aliases: ['fpm'] },
    ],
    metric: 'm/s',
    imperial: 'ft/min',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'duration',
    units: [
      { symbol: 's', ending: 'S', factor: 1, aliases: ['sec', 'second', 'seconds'] },
      { symbol: 'ms', factor: 0.001, aliases: [] },
      { symbol: 'min', factor: 60, aliases: ['minute', 'minutes'] },
      { symbol: 'h', factor: 3600, aliases: ['hr', 'hour', 'hours'] },
    ],
    metric: 'min',
    imperial: 'min',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'angle',
    units: [
      { symbol: 'rad', ending: 'Rad', factor: 1, aliases: ['radian', 'radians'] },
      { symbol: '°', factor: Math.PI / 180, aliases: ['deg', 'degree', 'degrees'] },
    ],
    metric: '°',
    imperial: '°',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'area',
    units: [
      { symbol: 'm²', ending: 'M2', factor: 1, aliases: ['m2', 'sqm'] },
      { symbol: 'cm²', factor: 1e-4, aliases: ['cm2'] },
      { symbol: 'ft²', factor: 0.3048 ** 2, aliases: ['ft2', 'sqft'] },
      { symbol: 'in²', factor: INCH_M ** 2, aliases: ['in2', 'sqin'] },
    ],
    metric: 'm²',
    imperial: 'ft²',
    decimals: 2,
  }),
  defineQuantity({
    kind: 'inertia',
    units: [
      { symbol: 'kg·m²', ending: 'KgM2', factor: 1, aliases: ['kgm2', 'kg*m2'] },
      { symbol: 'lb·ft²', factor: LB_KG * 0.3048 ** 2, aliases: ['lbft2', 'lb*ft2'] },
    ],
    metric: 'kg·m²',
    imperial: 'lb·ft²',
    decimals: 2,
  }),
  defineQuantity({
    kind: 'frequency',
    units: [{ symbol: 'Hz', ending: 'Hz', factor: 1, aliases: ['hertz', '1/s'] }],
    metric: 'Hz',
    imperial: 'Hz',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'stress',
    units: [
      { symbol: 'Pa', factor: 1, aliases: [] },
      { symbol: 'MPa', factor: 1e6, aliases: ['n/mm2', 'n/mm²'] },
      { symbol: 'GPa', factor: 1e9, aliases: ['kn/mm2', 'kn/mm²'] },
      { symbol: 'ksi', factor: 1000 * PSI_PA, aliases: [] },
      { symbol: 'psi', factor: PSI_PA, aliases: [] },
    ],
    metric: 'MPa',
    imperial: 'ksi',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'distance',
    units: [
      { symbol: 'm', factor: 1, aliases: ['metre', 'metres', 'meter', 'meters'] },
      { symbol: 'km', factor: 1000, aliases: ['kilometre', 'kilometres'] },
      { symbol: 'ft', factor: 0.3048, aliases: ['foot', 'feet'] },
      { symbol: 'mi', factor: 1609.344, aliases: ['mile', 'miles'] },
    ],
    metric: 'm',
    imperial: 'ft',
    decimals: 0,
  }),
  defineQuantity({
    kind: 'lapTime',
    units: [{ symbol: 's', factor: 1, aliases: ['sec', 'second', 'seconds'] }],
    metric: 's',
    imperial: 's',
    decimals: 2,
    clock: { read: readClock, write: clockText },
  }),
  defineQuantity({
    kind: 'acceleration',
    units: [
      { symbol: 'm/s²', ending: 'Mps2', factor: 1, aliases: ['m/s2', 'm/s^2', 'mps2'] },
      { symbol: 'g', factor: 9.80665, aliases: ['gee'] }, // exact, standard gravity
    ],
    metric: 'g',
    imperial: 'g',
    decimals: 2,
  }),
  defineQuantity({
    kind: 'sound',
    units: [{ symbol: 'dB(A)', ending: 'Db', factor: 1, aliases: ['db', 'dba', 'decibel', 'decibels'] }],
    metric: 'dB(A)',
    imperial: 'dB(A)',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'voltage',
    units: [
      { symbol: 'V', ending: 'V', factor: 1, aliases: ['volt', 'volts'] },
      { symbol: 'mV', factor: 0.001, aliases: ['millivolt', 'millivolts'] },
    ],
    metric: 'V',
    imperial: 'V',
    decimals: 1,
  }),
  defineQuantity({
    kind: 'massToPower',
    units: [
      { symbol: 'kg/W', ending: 'KgPerW', factor: 1, aliases: [] },
      { symbol: 'kg/kW', factor: 0.001, aliases: [] },
      { symbol: 'lb/hp', factor: LB_KG / HP_W, aliases: ['lb/bhp', 'lbs/hp'] },
    ],
    metric: 'kg/kW',
    imperial: 'lb/hp',
    decimals: 2,
  }),
  defineQuantity({
    kind: 'money',
    units: [{ symbol: '', factor: 1, aliases: [] }],
    metric: '',
    imperial: '',
    decimals: 0,
  }),
] as const
