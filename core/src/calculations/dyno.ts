import { BOOST_SCHOOL_WORDS, BOOST_SCHOOLS, correctionFactor, STANDARDS } from '../dyno/correction.ts'
import { crossingSpeedRpm, powerFromTorqueW, torqueFromPowerNm } from '../dyno/power-torque.ts'
import { CalculationError } from '../errors.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const powerTorqueCalculation = defineCalculation({
  name: 'dyno.power-torque',
  title: 'Power and torque',
  formula: 'P = T π n/30; curves in units u_P and u_T read the same number at n = 30 u_P/(π u_T)',
  sources: ['P = T ω, closed form'],
  assumptions: ['Power, torque and speed are of one shaft'],
  validRange: 'Engine speed above zero; power or torque, one of them',
  schools: [],
  example: { speedRpm: 6500, torqueNm: 400 },
  input: z.strictObject({
    speedRpm: z.number(),
    torqueNm: z.number().optional(),
    powerW: z.number().optional(),
    powerUnit: z.string().default('kW'),
    torqueUnit: z.string().default('N·m'),
  }),
  output: z.strictObject({ powerW: z.number(), torqueNm: z.number(), crossingSpeedRpm: z.number() }),
  run: ({ speedRpm, torqueNm, powerW, powerUnit, torqueUnit }) => {
    if ((torqueNm === undefined) === (powerW === undefined)) {
      throw new CalculationError('inconsistent', 'torqueNm', 'Give either torqueNm or powerW, and only one of them.')
    }
    const power = powerW ?? powerFromTorqueW(torqueNm as number, speedRpm)
    return { value: { powerW: power, torqueNm: torqueNm ?? torqueFromPowerNm(power, speedRpm), crossingSpeedRpm: crossingSpeedRpm(powerUnit, torqueUnit) } }
  },
})

const correctionCalculation = defineCalculation({
  name: 'dyno.correction',
  title: 'Correction to a standard',
  formula:
    'SAE J1349: 1.18 (99/p_d) √(T/298) − 0.18; ISO 1585: (99/p_d)^1.2 (T/298)^0.6; DIN 70020: (101.3/p) √(T/293); STD J607: (29.92/p_d[inHg]) √((t_F + 460)/520)',
  sources: ['SAE J1349 (1990 on), ISO 1585/UN R85, DIN 70020-6 (withdrawn), SAE J607 (withdrawn): all from memory, unverified against a bought copy'],
  assumptions: [
    'Spark ignition',
    'Temperature of the inlet air, with the offsets that the standards print: T is t in °C + 273, t_F + 460',
    'Under boost good people differ: the school is an explicit choice and is never mixed',
  ],
  validRange:
    '40 to 120 kPa, −40 to 60 °C. SAE J1349 and ISO 1585 are run at 15 to 35 °C, SAE J1349 at 90 to 105 kPa dry: outside the answer says so. The limits of DIN 70020 and STD J607 are not known here, so nothing is said of them',
  schools: [`Standards: ${STANDARDS.join(', ')}`, `Engines under boost: ${Object.values(BOOST_SCHOOL_WORDS).join('; ')}`],
  example: { standard: 'SAE J1349', pressurePa: 97_500, temperatureK: 303.15, relativeHumidity: 0.45 },
  input: z.strictObject({
    standard: z.enum(STANDARDS),
    boostSchool: z.enum(BOOST_SCHOOLS).optional(),
    pressurePa: z.number(),
    temperatureK: z.number(),
    relativeHumidity: z.number(),
    mechanicalEfficiency: z.number().optional(),
  }),
  output: z.strictObject({ factor: z.number(), dryPressurePa: z.number(), insideStandardLimits: z.boolean().nullable() }),
  run: ({ standard, boostSchool, mechanicalEfficiency, ...air }) => {
    const { warnings, ...value } = correctionFactor({ standard, boostSchool, mechanicalEfficiency, air })
    return { value, warnings }
  },
})

export const DYNO_CALCULATIONS = [powerTorqueCalculation, correctionCalculation]
