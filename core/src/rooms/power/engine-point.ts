import { crankToWheel, wheelToCrank } from '../../dyno/wheel-to-crank.ts'
import { type AirAndFuel, airAndFuel } from '../../engine/air-and-fuel.ts'
import { compressor, intercooler } from '../../engine/compressor.ts'
import { type FuelBlend, fuelBlend } from '../../engine/fuels.ts'
import { manifoldPressurePa } from '../../engine/swallow.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { DrivelineLoss } from './driveline-loss.ts'

/** The air's way into the engine at one power. */
export interface AirPath {
  readonly manifoldPressurePa: number
  readonly chargeTemperatureK: number
  /** 1 where no compressor is needed. */
  readonly pressureRatio: number
  readonly outletTemperatureK: number
  readonly outletPressurePa: number
  readonly compressorPowerW: number
  readonly correctedFlowKgPerS: number
  readonly coolerHeatW: number
  readonly iterations: number
  readonly residualK: number
}

/** An engine plan at one power: what the steps need of each other. */
export interface EnginePoint {
  readonly wheelPowerW: number
  readonly crankPowerW: number
  readonly fuel: FuelBlend
  readonly flows: AirAndFuel
  readonly fuelM3PerS: number
  readonly volumetricEfficiency: number
}

const MOST_ITERATIONS = 200
const SETTLED_K = 1e-7

/** Volumetric efficiency at a speed by straight lines between the curve's points; one point holds everywhere. Rejects a speed outside the points. */
export function volumetricEfficiencyAt(curve: EnginePlan['engine']['veCurve'], speedRpm: number): number {
  const sorted = [...curve].sort((a, b) => a.speedRpm - b.speedRpm)
  const [first, last] = [sorted[0], sorted.at(-1)]
  if (!first || !last) throw new CalculationError('missing', 'veCurve', 'The engine has no volumetric efficiency. Give one point at least.')
  if (sorted.length === 1) return first.volumetricEfficiency
  if (speedRpm < first.speedRpm || speedRpm > last.speedRpm)
    throw new CalculationError(
      'out-of-range',
      'veCurve',
      `Volumetric efficiency is given from ${first.speedRpm} to ${last.speedRpm} rpm, and the power is made at ${speedRpm}. Add a point; nothing is guessed beyond them.`,
    )
  const above = Math.max(
    1,
    sorted.findIndex((point) => point.speedRpm >= speedRpm),
  )
  const [low, high] = [itemAt(sorted, above - 1), sorted[above] as typeof first]
  const share = (speedRpm - low.speedRpm) / (high.speedRpm - low.speedRpm)
  return low.volumetricEfficiency + share * (high.volumetricEfficiency - low.volumetricEfficiency)
}

/** Power at both ends of the driveline, fuel and air of a plan at a power, W at the plan's own place. Rejects what its parts reject. */
export function enginePoint(plan: EnginePlan, loss: DrivelineLoss, powerW: number): EnginePoint {
  const { burn, target, engine } = plan
  const isWheel = target.place === 'wheel'
  const crankPowerW = isWheel ? wheelToCrank({ wheelPowerW: powerW, ...loss }).crankPowerW : powerW
  const fuel = fuelBlend(burn.ethanolShare)
  const flows = airAndFuel({ powerW: crankPowerW, bsfcKgPerJ: burn.bsfcKgPerJ, lambda: burn.lambda, fuel })
  return {
    wheelPowerW: isWheel ? powerW : crankToWheel({ crankPowerW, ...loss }),
    crankPowerW,
    fuel,
    flows,
    fuelM3PerS: flows.fuelKgPerS / fuel.densityKgM3,
    volumetricEfficiency: volumetricEfficiencyAt(engine.veCurve, burn.powerSpeedRpm),
  }
}

/**
 * Pressure and temperature that the air of a point needs. Under boost the charge's temperature follows from the pressure ratio and the ratio from the
 * temperature: repeated until it stands still, and refused where it does not. Without boost more than the air outside is refused.
 * Source: engine.swallow, engine.compressor and engine.intercooler. Losses and efficiencies are the plan's.
 */
export function airPath(plan: EnginePlan, point: EnginePoint): AirPath {
  const { air, engine, burn } = plan
  const { airKgPerS } = point.flows
  const needed = (manifoldTemperatureK: number) =>
    manifoldPressurePa({ ...engine, speedRpm: burn.powerSpeedRpm, volumetricEfficiency: point.volumetricEfficiency, manifoldTemperatureK, airKgPerS })
  const inletPa = air.ambientPressurePa - air.beforeLossPa
  const plain = air.ambientTemperatureK + air.intakeRiseK
  if (!air.isBoosted) {
    const pressure = needed(plain)
    const there = inletPa - air.afterLossPa
    if (pressure > there)
      throw new CalculationError(
        'inconsistent',
        'powerW',
        `It needs ${(pressure / 1000).toFixed(0)} kPa in the manifold and ${(there / 1000).toFixed(0)} kPa come in by themselves: boost, more speed, more displacement or a better volumetric efficiency.`,
      )
    return { ...atRest(plain, pressure), outletPressurePa: inletPa }
  }
  let temperature = plain
  let residual = Number.POSITIVE_INFINITY
  let iterations = 0
  let path = atRest(plain, needed(plain))
  while (Math.abs(residual) > SETTLED_K) {
    if (++iterations > MOST_ITERATIONS)
      throw new CalculationError('inconsistent', 'coolerEffectiveness', 'Pressure and temperature of the charge do not settle. Check cooler and compressor.')
    path = compressed(plan, needed(temperature), airKgPerS)
    residual = path.chargeTemperatureK - temperature
    temperature = path.chargeTemperatureK
  }
  return { ...path, iterations, residualK: residual }
}

const atRest = (chargeTemperatureK: number, pressure: number): AirPath => ({
  manifoldPressurePa: pressure,
  chargeTemperatureK,
  pressureRatio: 1,
  outletTemperatureK: chargeTemperatureK,
  outletPressurePa: pressure,
  compressorPowerW: 0,
  correctedFlowKgPerS: 0,
  coolerHeatW: 0,
  iterations: 0,
  residualK: 0,
})

function compressed({ air }: EnginePlan, manifoldPa: number, airKgPerS: number): AirPath {
  const inletPa = air.ambientPressurePa - air.beforeLossPa
  const pressureRatio = Math.max(1, (manifoldPa + air.afterLossPa) / inletPa)
  const out = compressor({
    temperatureK: air.ambientTemperatureK,
    pressurePa: inletPa,
    pressureRatio,
    efficiency: air.compressorEfficiency,
    airKgPerS,
    reference: air.flowReference,
  })
  const hasCooler = air.coolerEffectiveness !== null && air.coolerEffectiveness > 0
  const cooled =
    hasCooler && out.outletTemperatureK > (air.coolantTemperatureK ?? air.ambientTemperatureK)
      ? intercooler({
          temperatureK: out.outletTemperatureK,
          pressurePa: out.outletPressurePa,
          coolantTemperatureK: air.coolantTemperatureK ?? air.ambientTemperatureK,
          effectiveness: air.coolerEffectiveness as number,
          pressureLossPa: air.afterLossPa,
          airKgPerS,
        })
      : { temperatureK: out.outletTemperatureK, heatW: 0 }
  return {
    manifoldPressurePa: manifoldPa,
    chargeTemperatureK: cooled.temperatureK,
    pressureRatio,
    outletTemperatureK: out.outletTemperatureK,
    outletPressurePa: out.outletPressurePa,
    compressorPowerW: out.shaftPowerW,
    correctedFlowKgPerS: out.correctedFlowKgPerS,
    coolerHeatW: cooled.heatW,
    iterations: 0,
    residualK: 0,
  }
}
