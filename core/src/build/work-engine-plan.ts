import { GRAM_PER_KWH, USUAL_BSFC_G_PER_KWH } from '../engine/air-and-fuel.ts'
import { fuelPumps, injectors } from '../engine/fuel-supply.ts'
import { coolantFlowM3PerS, heatToCoolant, judgeBmep, pistonMotion } from '../engine/mechanics.ts'
import { CalculationError } from '../errors.ts'
import type { QuantityKind } from '../units/units.ts'
import { attempt } from './attempt.ts'
import type { DrivelineLoss } from './driveline-loss.ts'
import { type AirPath, airPath, type EnginePoint, enginePoint } from './engine-point.ts'
import type { EnginePlan } from './records.ts'

export interface PlanFigure {
  readonly word: string
  readonly kind: QuantityKind
  readonly value: number
}

export const PLAN_STEPS = ['power', 'fuel', 'air', 'pressure', 'compressor', 'cooler', 'injectors', 'pumps', 'bmep', 'piston', 'heat'] as const
export type PlanStepKey = (typeof PLAN_STEPS)[number]

/** One step of an engine plan: what it says, what is usual, and whether physics refuses it. */
export interface PlanStep {
  readonly key: PlanStepKey
  readonly word: string
  /** The registered calculation that it is worked out by. */
  readonly calculation: string
  readonly figures: readonly PlanFigure[]
  /** The usual range, and where that comes from. */
  readonly usual: string
  readonly warnings: readonly string[]
  /** Why physics, or what is missing, refuses it. */
  readonly refusal: string | null
  /** The step that has to be mended first. */
  readonly waitsFor: PlanStepKey | null
}

export interface WorkedPlan {
  readonly steps: readonly PlanStep[]
  /** The first step that refuses the target. */
  readonly refusedBy: PlanStepKey | null
}

const figure = (word: string, kind: QuantityKind, value: number): PlanFigure => ({ word, kind, value })
type Said = { figures: PlanFigure[]; warnings?: readonly string[] }

/** Torque at the crank at the speed of the power, and the greatest by the plan's rise. */
export const greatestTorqueNm = (plan: EnginePlan, crankPowerW: number): number =>
  (crankPowerW / ((plan.burn.powerSpeedRpm * Math.PI) / 30)) * plan.burn.torqueRise

/** Usual fuel per power for how the plan's engine breathes and what it burns, g/kWh: between petrol and ethanol by the share (common practice, no source). */
export function usualBsfc(plan: EnginePlan): readonly [number, number] {
  const boosted = plan.air.isBoosted ? 'Boosted' : 'NaturallyAspirated'
  const [petrol, ethanol] = [USUAL_BSFC_G_PER_KWH[`petrol${boosted}`], USUAL_BSFC_G_PER_KWH[`ethanol${boosted}`]]
  const share = plan.burn.ethanolShare
  return [0, 1].map((i) => (1 - share) * (petrol[i] as number) + share * (ethanol[i] as number)) as [number, number]
}

/** How a plan's injectors do at a point. */
export function injectorsAt(plan: EnginePlan, point: EnginePoint) {
  const { injectors: chosen, burn } = plan
  if (!chosen) throw new CalculationError('missing', 'injectors', 'No injectors are chosen yet.')
  return injectors({
    fuelKgPerS: point.flows.fuelKgPerS,
    fuelDensityKgM3: point.fuel.densityKgM3,
    injectorCount: chosen.count,
    ratedFlowM3PerS: chosen.ratedFlowM3PerS,
    ratedPressurePa: chosen.ratedPressurePa,
    pressureDifferencePa: chosen.pressureDifferencePa,
    dutyLimit: chosen.dutyLimit,
    ...(chosen.deadTimeS === null ? {} : { deadTimeS: chosen.deadTimeS, speedRpm: burn.powerSpeedRpm }),
  })
}

/** What the fuel has to reach above the air: what the regulator holds, the boost it follows, and what filter and lines take. */
export function pumpOutletPa(plan: EnginePlan, path: AirPath): number {
  const { pump, air } = plan
  if (!pump) throw new CalculationError('missing', 'pump', 'No pumps are chosen yet.')
  return pump.basePressurePa + Math.max(0, path.manifoldPressurePa - air.ambientPressurePa) + pump.lineLossPa
}

function pumpsAt(plan: EnginePlan, point: EnginePoint, path: AirPath) {
  const outletPressurePa = pumpOutletPa(plan, path)
  const pump = plan.pump as NonNullable<EnginePlan['pump']>
  const all = {
    fuelKgPerS: point.flows.fuelKgPerS,
    fuelDensityKgM3: point.fuel.densityKgM3,
    points: pump.points,
    outletPressurePa,
    pumpCount: pump.count,
    margin: pump.margin,
  }
  return { ...fuelPumps(all), outletPressurePa }
}

/**
 * A plan from its target to the parts: power, fuel, air, pressure, temperatures, injectors, pumps (one of them failed), mean pressure, piston and heat.
 * Each step says what it found, what is usual and where that comes from; a step that physics refuses says so, and those that need it wait.
 * Inputs SI as in the plan's record; it never throws for what is in the record. Source: the registered calculation each step names.
 */
export function workEnginePlan(plan: EnginePlan, loss: DrivelineLoss): WorkedPlan {
  const { engine, burn, target, air } = plan
  const point = attempt(() => enginePoint(plan, loss, target.powerW))
  const path = point instanceof CalculationError ? point : attempt(() => airPath(plan, point))
  const [low, high] = usualBsfc(plan)
  const grams = burn.bsfcKgPerJ / GRAM_PER_KWH
  const make = (key: PlanStepKey, word: string, calculation: string, usual: string, work: () => Said): PlanStep => {
    const said = attempt(work)
    const head = { key, word, calculation, usual, waitsFor: null, refusal: null }
    if (!(said instanceof CalculationError)) return { ...head, warnings: [], ...said }
    const owner = said === point ? ownerOf(said) : said === path ? 'pressure' : key
    return { ...head, figures: [], warnings: [], ...(owner === key ? { refusal: said.message } : { waitsFor: owner }) }
  }
  const steps = [
    make('power', 'Power', 'dyno.wheel-to-crank', 'no crank figure made from a wheel figure is surer than 5 % (common practice, no source)', () => {
      const found = need(point)
      return { figures: [figure('at the wheels', 'power', found.wheelPowerW), figure('at the crank', 'power', found.crankPowerW)] }
    }),
    make(
      'fuel',
      'Fuel',
      'engine.air-and-fuel',
      `${low.toFixed(0)} to ${high.toFixed(0)} g/kWh for this fuel and induction (common practice, no source)`,
      () => {
        const found = need(point)
        return {
          figures: [
            figure('by mass', 'massFlow', found.flows.fuelKgPerS),
            figure('by volume', 'volumeFlow', found.fuelM3PerS),
            figure('turned into work', 'share', found.flows.brakeEfficiency),
          ],
          warnings: grams < low || grams > high ? [`${grams.toFixed(0)} g/kWh lies outside what is usual here.`] : [],
        }
      },
    ),
    make('air', 'Air', 'engine.air-and-fuel', 'λ of 0.78 to 0.90 at full power (common practice, no source)', () => {
      const found = need(point)
      return {
        figures: [figure('by mass', 'massFlow', found.flows.airKgPerS), figure('volumetric efficiency', 'share', found.volumetricEfficiency)],
        warnings: burn.lambda < 0.75 || burn.lambda > 0.95 ? [`λ ${burn.lambda} is unusual at full power.`] : [],
      }
    }),
    make(
      'pressure',
      'Pressure',
      'engine.swallow',
      air.isBoosted ? 'a ratio up to 3.5 for one stage (common practice, no source)' : 'no more than the air outside',
      () => {
        const found = need(path)
        const figures = [figure('in the manifold, absolute', 'pressure', found.manifoldPressurePa)]
        if (!air.isBoosted) return { figures }
        const boost = found.manifoldPressurePa - air.ambientPressurePa
        return {
          figures: [...figures, figure('boost above the air', 'pressure', boost), figure('pressure ratio', 'ratio', found.pressureRatio)],
          warnings: found.pressureRatio > 3.5 ? ['The pressure ratio is over 3.5: more than one stage of compression usually gives.'] : [],
        }
      },
    ),
    make('compressor', 'Compressor', 'engine.compressor', 'efficiency 55 to 80 % for a turbo, 50 to 75 % driven (common practice, no source)', () => {
      const found = need(path)
      if (!air.isBoosted) return { figures: [] }
      return {
        figures: [
          figure('air out of it', 'temperature', found.outletTemperatureK),
          figure('shaft power', 'power', found.compressorPowerW),
          figure(`flow on a map of ${air.flowReference}`, 'massFlow', found.correctedFlowKgPerS),
        ],
      }
    }),
    make('cooler', 'Cooler', 'engine.intercooler', 'effectiveness 50 to 85 %, loss 5 to 15 kPa (common practice, no source)', () => {
      const found = need(path)
      const figures = [figure('charge into the engine', 'temperature', found.chargeTemperatureK)]
      return { figures: air.isBoosted ? [...figures, figure('heat to carry away', 'power', found.coolerHeatW)] : figures }
    }),
    make('injectors', 'Injectors', 'engine.injector', 'duty of 80 to 85 % at most (common practice, no source)', () => {
      const found = injectorsAt(plan, need(point))
      const limit = (plan.injectors as NonNullable<EnginePlan['injectors']>).dutyLimit
      return {
        figures: [
          figure('duty', 'share', found.duty),
          figure('crank power at the duty limit', 'power', found.fuelAtLimitKgPerS / burn.bsfcKgPerJ),
          figure('static flow needed of each', 'volumeFlow', found.flowNeededM3PerS),
        ],
        warnings: [...found.warnings, ...(found.duty > limit ? [`The duty is over the limit of ${(100 * limit).toFixed(0)} %.`] : [])],
      }
    }),
    make(
      'pumps',
      'Fuel pumps',
      'engine.fuel-pump',
      'a margin of 15 to 30 %; in top classes all of it with one pump failed (common practice, no source)',
      () => {
        const found = pumpsAt(plan, need(point), need(path))
        const pump = plan.pump as NonNullable<EnginePlan['pump']>
        const oneLess = ((pump.count - 1) * found.flowPerPumpM3PerS) / found.demandM3PerS - 1
        return {
          figures: [
            figure('at this pressure above the air', 'pressure', found.outletPressurePa),
            figure('they give', 'volumeFlow', pump.count * found.flowPerPumpM3PerS),
            figure('margin', 'share', found.marginReached),
            figure('margin with one failed', 'share', oneLess),
          ],
          warnings: [
            ...(found.isEnough ? [] : [`The margin is under the ${(100 * pump.margin).toFixed(0)} % that is wanted.`]),
            ...(found.oneMayFail ? [] : ['With one pump failed the engine runs out of fuel: have the control cut power when pressure falls.']),
          ],
        }
      },
    ),
    make(
      'bmep',
      'Torque and mean pressure',
      'engine.bmep',
      `${air.isBoosted ? '15 to 35 bar with boost' : '9 to 15 bar without boost'} (common practice, no source)`,
      () => {
        const torque = greatestTorqueNm(plan, need(point).crankPowerW)
        const found = judgeBmep(torque, engine.displacementM3, engine.strokes)
        const usual = air.isBoosted ? found.bmepPa <= 35e5 : found.bmepPa <= 15e5
        return {
          figures: [figure('greatest torque at the crank', 'torque', torque), figure('brake mean effective pressure', 'pressure', found.bmepPa)],
          warnings: usual ? [] : [`${(found.bmepPa / 1e5).toFixed(1)} bar is ${found.word}${air.isBoosted ? '' : ' for an engine without boost'}.`],
        }
      },
    ),
    make(
      'piston',
      'Piston',
      'engine.piston-speed',
      'mean speed 20 m/s in production, 25 racing; 20 to 50 km/s² at the top (common practice, no source)',
      () => {
        if (engine.strokeM === null || engine.rodM === null) throw new CalculationError('missing', 'strokeM', 'Stroke and rod length are not given yet.')
        const found = pistonMotion({ strokeM: engine.strokeM, rodM: engine.rodM, speedRpm: engine.redlineRpm })
        return {
          figures: [
            figure('mean speed at the redline', 'speed', found.meanSpeedMps),
            figure('greatest speed', 'speed', found.peakSpeedMps),
            figure('acceleration at the top, over gravity', 'ratio', found.topAccelerationMps2 / 9.80665),
          ],
          warnings: found.warnings,
        }
      },
    ),
    make('heat', 'Heat', 'engine.heat', '17 to 30 % of the fuel, or 50 to 60 % of the power (handbooks, from memory; common practice)', () => {
      const found = need(point)
      const { heatingValueJPerKg } = found.fuel
      const heat = heatToCoolant({
        school: burn.heatSchool,
        share: burn.coolantShare,
        powerW: found.crankPowerW,
        fuelKgPerS: found.flows.fuelKgPerS,
        heatingValueJPerKg,
        lambda: burn.lambda,
      })
      return { figures: [figure('to the coolant', 'power', heat), figure('coolant flow for 7 K', 'volumeFlow', coolantFlowM3PerS(heat, 7))] }
    }),
  ]
  const open: readonly PlanStepKey[] = [...(plan.injectors ? [] : (['injectors'] as const)), ...(plan.pump ? [] : (['pumps'] as const))]
  const refused = steps.find(
    ({ key, refusal }) => refusal !== null && !open.includes(key) && !(key === 'piston' && (engine.strokeM === null || engine.rodM === null)),
  )
  return { steps, refusedBy: refused?.key ?? null }
}

/** What an earlier step found; its refusal goes on, so that the step that refused is named once and the others wait for it. */
function need<Found>(found: Found | CalculationError): Found {
  if (found instanceof CalculationError) throw found
  return found
}

/** The step whose input a refusal of the shared part of a plan is about. */
function ownerOf({ field }: CalculationError): PlanStepKey {
  if (field === 'veCurve') return 'air'
  if (['bsfcKgPerJ', 'lambda', 'ethanolShare'].includes(field)) return 'fuel'
  return 'power'
}
