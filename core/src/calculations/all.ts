import { airDensityCalculation, densityAltitudeCalculation, standardAtmosphereCalculation } from './air.ts'
import { massAtStageCalculation, powerAtStageCalculation } from './build.ts'
import { addAtCalculation, ballastCalculation, centreHeightCalculation, cornerBalanceCalculation } from './corners.ts'
import { correctionCalculation, powerTorqueCalculation } from './dyno.ts'
import {
  bandMeanCalculation,
  compareCalculation,
  driftCalculation,
  powerbandCalculation,
  restateCalculation,
  rollerInertiaCalculation,
  smoothCalculation,
  wheelToCrankCalculation,
} from './dyno-pulls.ts'
import {
  airAndFuelCalculation,
  bmepCalculation,
  compressorCalculation,
  fuelBlendCalculation,
  fuelPumpCalculation,
  heatCalculation,
  injectorCalculation,
  intercoolerCalculation,
  pistonSpeedCalculation,
  swallowCalculation,
} from './engine.ts'
import {
  centreOfMassCalculation,
  combineCalculation,
  cornersCalculation,
  estimateBiasCalculation,
  forecastCalculation,
  powerToWeightCalculation,
} from './mass.ts'
import { enginePlanCalculation, pullPlanCalculation, ratingChainCalculation } from './plans.ts'
import type { Calculation } from './registry.ts'

/** Every calculation a person might quote, by its stable name. */
export const CALCULATIONS: readonly Calculation[] = [
  airDensityCalculation,
  standardAtmosphereCalculation,
  densityAltitudeCalculation,
  powerTorqueCalculation,
  correctionCalculation,
  restateCalculation,
  rollerInertiaCalculation,
  wheelToCrankCalculation,
  smoothCalculation,
  bandMeanCalculation,
  powerbandCalculation,
  compareCalculation,
  driftCalculation,
  airAndFuelCalculation,
  swallowCalculation,
  compressorCalculation,
  intercoolerCalculation,
  injectorCalculation,
  fuelPumpCalculation,
  fuelBlendCalculation,
  bmepCalculation,
  pistonSpeedCalculation,
  heatCalculation,
  ratingChainCalculation,
  enginePlanCalculation,
  pullPlanCalculation,
  cornersCalculation,
  centreOfMassCalculation,
  centreHeightCalculation,
  combineCalculation,
  addAtCalculation,
  cornerBalanceCalculation,
  ballastCalculation,
  estimateBiasCalculation,
  forecastCalculation,
  powerToWeightCalculation,
  massAtStageCalculation,
  powerAtStageCalculation,
]

export const findCalculation = (name: string): Calculation | undefined => CALCULATIONS.find((calculation) => calculation.name === name)
