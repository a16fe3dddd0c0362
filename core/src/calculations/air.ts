import { airDensity, airRangeWarnings } from '../air/density.ts'
import { densityAltitude } from '../air/density-altitude.ts'
import { standardAtmosphere } from '../air/standard-atmosphere.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const airDensityCalculation = defineCalculation({
  name: 'air.density',
  title: 'Density of moist air',
  formula: 'ρ = (p − e)/(287.05287 T) + e/(461.495 T), e = RH · e_s(T)',
  sources: ['Ideal-gas mixture, closed form', 'e_s: IAPWS-IF97 region 4'],
  assumptions: [
    'Absolute station pressure, not reduced to sea level',
    'Compressibility and the enhancement factor are neglected: under 0.1 % from −30 to 60 °C',
  ],
  validRange: 'Pressure 40 to 120 kPa, temperature 233 to 333 K, relative humidity 0 to 1',
  schools: [],
  example: { pressurePa: 97_500, temperatureK: 303.15, relativeHumidity: 0.45 },
  input: z.strictObject({ pressurePa: z.number(), temperatureK: z.number(), relativeHumidity: z.number() }),
  output: z.strictObject({ densityKgM3: z.number(), vapourPressurePa: z.number(), dryPressurePa: z.number() }),
  run: (air) => ({ value: airDensity(air), warnings: airRangeWarnings(air) }),
})

const standardAtmosphereCalculation = defineCalculation({
  name: 'air.standard-atmosphere',
  title: 'Standard atmosphere to 11 km',
  formula: 'T = 288.15 − 0.0065 h; p = 101325 (T/288.15)^5.25588; ρ = p/(287.05287 T); a = √(1.4 · 287.05287 T)',
  sources: ['ISO 2533:1975 (from memory; pressures agree with its tables)'],
  assumptions: ['h is geopotential altitude', 'It is not the weather: use a measured pressure for a dyno record'],
  validRange: '0 to 11 000 m above sea level',
  schools: [],
  example: { altitudeM: 1500 },
  input: z.strictObject({ altitudeM: z.number() }),
  output: z.strictObject({ temperatureK: z.number(), pressurePa: z.number(), densityKgM3: z.number(), soundSpeedMps: z.number() }),
  run: ({ altitudeM }) => ({ value: standardAtmosphere(altitudeM) }),
})

const densityAltitudeCalculation = defineCalculation({
  name: 'air.density-altitude',
  title: 'Density altitude',
  formula: 'h = (288.15/0.0065) (1 − (ρ/1.225)^(1/4.25588))',
  sources: ['Inverse of the standard atmosphere’s density law, ISO 2533 (from memory)'],
  assumptions: ['Absolute station pressure, not reduced to sea level'],
  validRange: 'Air as air.density takes it; to 11 km',
  schools: ['Of the moist air that is there, or with dry air as aviation counts: both are given'],
  example: { pressurePa: 84_000, temperatureK: 308.15, relativeHumidity: 0.2 },
  input: z.strictObject({ pressurePa: z.number(), temperatureK: z.number(), relativeHumidity: z.number() }),
  output: z.strictObject({ moistM: z.number(), dryAirM: z.number(), densityKgM3: z.number() }),
  run: (air) => ({ value: densityAltitude(air), warnings: airRangeWarnings(air) }),
})

export const AIR_CALCULATIONS = [airDensityCalculation, standardAtmosphereCalculation, densityAltitudeCalculation]
