import { type AirRecord, dryPressure } from '../air/density.ts'
import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

export const STANDARDS = ['none', 'SAE J1349', 'ISO 1585', 'DIN 70020', 'STD J607'] as const
export type CorrectionStandard = (typeof STANDARDS)[number]

/** What is done with an engine under boost, where good people differ; see `correctionFactor`. */
export const BOOST_SCHOOLS = ['asNaturallyAspirated', 'iso1585', 'temperatureOnly', 'half', 'none'] as const
export type BoostSchool = (typeof BOOST_SCHOOLS)[number]

export const BOOST_SCHOOL_WORDS: Record<BoostSchool, string> = {
  asNaturallyAspirated: 'corrected as if naturally aspirated',
  iso1585: 'corrected by the ISO 1585 form',
  temperatureOnly: 'corrected by temperature only',
  half: 'corrected by half',
  none: 'not corrected',
}

export interface CorrectionResult {
  readonly factor: number
  readonly dryPressurePa: number
  /** Null for a standard whose limits are not known here. */
  readonly insideStandardLimits: boolean | null
  readonly warnings: readonly string[]
}

const INHG_PA = 3386.38864

/** SAE J1349: CF = X/η − (1/η − 1), X = (99/p_d) √((t + 273)/298); where none is given, the printed form of 85 %, 1.18 X − 0.18. */
function saeFactor(dryPa: number, temperatureK: number, mechanicalEfficiency: number | undefined): number {
  const x = (99_000 / dryPa) * Math.sqrt((temperatureK - 0.15) / 298)
  return mechanicalEfficiency === undefined ? 1.18 * x - 0.18 : (x - (1 - mechanicalEfficiency)) / mechanicalEfficiency
}

const isoFactor = (dryPa: number, temperatureK: number) => (99_000 / dryPa) ** 1.2 * ((temperatureK - 0.15) / 298) ** 0.6

const dinFactor = (totalPa: number, temperatureK: number) => (101_300 / totalPa) * Math.sqrt((temperatureK - 0.15) / 293)

const stdFactor = (dryPa: number, temperatureK: number) => (29.92 / (dryPa / INHG_PA)) * Math.sqrt(((temperatureK - 273.15) * 1.8 + 492) / 520)

/** The temperature term of each standard alone. */
function temperatureTerm(standard: Exclude<CorrectionStandard, 'none'>, temperatureK: number): number {
  switch (standard) {
    case 'SAE J1349':
      return Math.sqrt((temperatureK - 0.15) / 298)
    case 'ISO 1585':
      return ((temperatureK - 0.15) / 298) ** 0.6
    case 'DIN 70020':
      return Math.sqrt((temperatureK - 0.15) / 293)
    case 'STD J607':
      return Math.sqrt(((temperatureK - 273.15) * 1.8 + 492) / 520)
  }
}

function factorAt(standard: Exclude<CorrectionStandard, 'none'>, totalPa: number, dryPa: number, temperatureK: number, efficiency: number | undefined): number {
  switch (standard) {
    case 'SAE J1349':
      return saeFactor(dryPa, temperatureK, efficiency)
    case 'ISO 1585':
      return isoFactor(dryPa, temperatureK)
    case 'DIN 70020':
      return dinFactor(totalPa, temperatureK)
    case 'STD J607':
      return stdFactor(dryPa, temperatureK)
  }
}

/**
 * The factor that turns observed power of a spark-ignition engine into power under a standard.
 * Sources (from memory, unverified): SAE J1349 (1990 on), ISO 1585/UN R85 spark ignition, DIN 70020-6 (withdrawn), SAE J607 (withdrawn).
 * Schools for engines under boost: as naturally aspirated; the ISO 1585 form, which names pressure-charged engines; the standard's
 * temperature term alone, where manifold pressure is held absolute; half of the correction; none. `boostSchool` undefined = naturally aspirated.
 * Rejects air outside −40 to 60 °C, RH outside 0 to 1, dry pressure of zero or less, efficiency outside 0.5 to 1.
 * @example correctionFactor({ standard: 'SAE J1349', air: { pressurePa: 99000, temperatureK: 298.15, relativeHumidity: 0 } }).factor // 1
 */
export function correctionFactor(input: {
  standard: CorrectionStandard
  air: AirRecord
  boostSchool?: BoostSchool | undefined
  mechanicalEfficiency?: number | undefined
}): CorrectionResult {
  const { standard, air, boostSchool, mechanicalEfficiency } = input
  requirePositive(air.pressurePa, 'pressurePa')
  requireWithin(air.temperatureK, 233.15, 333.15, 'temperatureK')
  if (mechanicalEfficiency !== undefined) requireWithin(mechanicalEfficiency, 0.5, 1, 'mechanicalEfficiency')
  if (air.pressurePa < 40_000 || air.pressurePa > 120_000) {
    throw new CalculationError('out-of-range', 'pressurePa', `pressurePa is ${air.pressurePa}; station pressure lies from 40,000 to 120,000 Pa absolute.`)
  }
  const { dryPressurePa } = dryPressure(air)
  if (standard === 'none' || boostSchool === 'none') return { factor: 1, dryPressurePa, insideStandardLimits: true, warnings: [] }
  const full = () => factorAt(standard, air.pressurePa, dryPressurePa, air.temperatureK, mechanicalEfficiency)
  const factor = (() => {
    switch (boostSchool) {
      case undefined:
      case 'asNaturallyAspirated':
        return full()
      case 'iso1585':
        return isoFactor(dryPressurePa, air.temperatureK)
      case 'temperatureOnly':
        return temperatureTerm(standard, air.temperatureK)
      case 'half':
        return 1 + (full() - 1) / 2
    }
  })()
  const warnings = correctionWarnings(standard, factor, air, dryPressurePa)
  const areLimitsKnown = standard === 'SAE J1349' || standard === 'ISO 1585'
  return { factor, dryPressurePa, insideStandardLimits: areLimitsKnown ? warnings.length === 0 : null, warnings }
}

function correctionWarnings(standard: CorrectionStandard, factor: number, air: AirRecord, dryPa: number): string[] {
  const warnings: string[] = []
  if (factor < 0.93 || factor > 1.07) warnings.push(`The factor ${factor.toFixed(3)} lies outside 0.93 to 1.07, where standards still call a test valid.`)
  if (air.pressurePa < 80_000 || air.pressurePa > 110_000) warnings.push('The pressure lies outside 80 to 110 kPa.')
  const celsius = air.temperatureK - 273.15
  if ((standard === 'SAE J1349' || standard === 'ISO 1585') && (celsius < 15 || celsius > 35)) warnings.push(`${standard} tests are run at 15 to 35 °C.`)
  if (standard === 'SAE J1349' && (dryPa < 90_000 || dryPa > 105_000)) warnings.push('SAE J1349 tests are run at 90 to 105 kPa dry pressure.')
  return warnings
}
