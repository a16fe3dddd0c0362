import { attempt } from '../../attempt.ts'
import { crankToWheel } from '../../dyno/wheel-to-crank.ts'
import { GRAM_PER_KWH } from '../../engine/air-and-fuel.ts'
import { coolantFlowM3PerS, heatToCoolant, judgeBmep, pistonMotion } from '../../engine/mechanics.ts'
import { CalculationError } from '../../errors.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { QuantityKind } from '../../units/units.ts'
import type { DrivelineLoss } from './driveline-loss.ts'
import { greatestTorqueNm, pumpsAt, usualBsfc } from './engine-plan-supply.ts'
import type { AirPath, EnginePoint } from './engine-point.ts'
import { injectorsAt } from './plan-of-car.ts'
import { chainOf, sweepOf } from './power-sweep.ts'

export interface PlanFigure {
  readonly word: string
  readonly kind: QuantityKind
  readonly value: number
}

export const PLAN_STEPS = ['power', 'fuel', 'air', 'pressure', 'compressor', 'cooler', 'injectors', 'pumps', 'bmep', 'piston', 'heat'] as const
export type PlanStepKey = (typeof PLAN_STEPS)[number]

export interface UsualRange {
  readonly word: string
  readonly kind: QuantityKind
  readonly low: number | null
  readonly high: number | null
}

export const PRACTICE = 'common practice, no source'
/** Standard gravity, m/s² (exact by definition). */
const GRAVITY = 9.80665
const range = (word: string, kind: QuantityKind, low: number | null, high: number | null): UsualRange => ({ word, kind, low, high })

/** One step of an engine plan: what it says, what is usual, and whether physics refuses it. */
export interface PlanStep {
  readonly key: PlanStepKey
  readonly word: string
  /** The registered calculation that it is worked out by. */
  readonly calculation: string
  readonly figures: readonly PlanFigure[]
  /** The usual ranges; an end that is null is open. */
  readonly usual: readonly UsualRange[]
  /** Where the usual ranges come from. */
  readonly usualFrom: string
  readonly warnings: readonly string[]
  /** Why physics refuses it; where this power was measured, which of its assumptions cannot be right. */
  readonly refusal: string | null
  /** What it needs and nobody has given yet, which refuses nothing. */
  readonly notGiven: string | null
  /** The step that has to be mended first. */
  readonly waitsFor: PlanStepKey | null
}

const figure = (word: string, kind: QuantityKind, value: number): PlanFigure => ({ word, kind, value })
type Said = { figures: PlanFigure[]; warnings?: readonly string[] }

/** What a step may ask of its plan: the record, and what earlier steps found, which throws their refusal on so that the step that refused is named once. */
interface StepInput {
  readonly plan: EnginePlan
  readonly loss: DrivelineLoss
  readonly point: () => EnginePoint
  readonly path: () => AirPath
}

const placeWord = ({ target }: EnginePlan) => (target.place === 'wheel' ? 'at the wheels' : 'at the crank')

/** The power that a plan's feed pumps carry with nothing to spare, W at its place; null where it is over twice the target, or not known. */
function feedLimitW(plan: EnginePlan, loss: DrivelineLoss): number | null {
  const { powerW } = plan.target
  const found = attempt(() => {
    const sweep = sweepOf({ plan, loss, fromPowerW: powerW / 10, toPowerW: 2 * powerW })
    return chainOf(sweep, [{ id: 'feed', kind: 'feedPumps', limit: plan.pump?.count ?? 0 }]).headrooms[0]?.limitPowerW ?? null
  })
  return found instanceof CalculationError ? null : found
}

/** How one step of an engine plan is worked out; `work` may throw the refusal that the step then shows. */
export interface PlanStepRule {
  readonly key: PlanStepKey
  readonly word: string
  /** The registered calculation that it is worked out by. */
  readonly calculation: string
  readonly usual: (input: StepInput) => readonly UsualRange[]
  /** Where the usual ranges come from, if not from common practice. */
  readonly usualFrom?: string
  readonly work: (input: StepInput) => Said
}

/** The steps of an engine plan from its target to its parts, each needing only those before it. */
export const ENGINE_PLAN_STEPS: readonly PlanStepRule[] = [
  {
    key: 'power',
    word: 'Power',
    calculation: 'dyno.wheel-to-crank',
    usual: () => [],
    work: ({ point }) => {
      const found = point()
      return { figures: [figure('at the wheels', 'power', found.wheelPowerW), figure('at the crank', 'power', found.crankPowerW)] }
    },
  },
  {
    key: 'fuel',
    word: 'Fuel',
    calculation: 'engine.air-and-fuel',
    usual: ({ plan }) => {
      const [low, high] = usualBsfc(plan)
      return [range('fuel used, with this fuel and induction', 'fuelUse', low * GRAM_PER_KWH, high * GRAM_PER_KWH)]
    },
    work: ({ plan, point }) => {
      const found = point()
      const [low, high] = usualBsfc(plan)
      const grams = plan.burn.bsfcKgPerJ / GRAM_PER_KWH
      return {
        figures: [
          figure('by mass', 'massFlow', found.flows.fuelKgPerS),
          figure('by volume', 'volumeFlow', found.fuelM3PerS),
          figure('turned into work', 'share', found.flows.brakeEfficiency),
        ],
        warnings: grams < low || grams > high ? [`${grams.toFixed(0)} g/kWh lies outside what is usual here.`] : [],
      }
    },
  },
  {
    key: 'air',
    word: 'Air',
    calculation: 'engine.air-and-fuel',
    usual: ({ plan: { air } }) => [
      range('lambda at full power', 'ratio', 0.78, 0.9),
      range('volumetric efficiency', 'share', air.isBoosted ? 0.85 : 0.8, air.isBoosted ? 1.05 : 1.1),
    ],
    work: ({ plan: { burn }, point }) => {
      const found = point()
      return {
        figures: [figure('by mass', 'massFlow', found.flows.airKgPerS), figure('volumetric efficiency', 'share', found.volumetricEfficiency)],
        warnings: burn.lambda < 0.75 || burn.lambda > 0.95 ? [`λ ${burn.lambda} is unusual at full power.`] : [],
      }
    },
  },
  {
    key: 'pressure',
    word: 'Pressure',
    calculation: 'engine.swallow',
    usual: ({ plan: { air } }) =>
      air.isBoosted ? [range('ratio of one stage', 'ratio', null, 3.5)] : [range('in the manifold, absolute', 'pressure', null, air.ambientPressurePa)],
    work: ({ plan: { air }, path }) => {
      const found = path()
      const figures = [figure('in the manifold, absolute', 'pressure', found.manifoldPressurePa)]
      if (!air.isBoosted) return { figures }
      const boost = found.manifoldPressurePa - air.ambientPressurePa
      return {
        figures: [...figures, figure('boost above the air', 'pressure', boost), figure('pressure ratio', 'ratio', found.pressureRatio)],
        warnings: found.pressureRatio > 3.5 ? ['The pressure ratio is over 3.5: more than one stage of compression usually gives.'] : [],
      }
    },
  },
  {
    key: 'compressor',
    word: 'Compressor',
    calculation: 'engine.compressor',
    usual: ({ plan: { air } }) => (air.isBoosted ? [range('efficiency of a turbo', 'share', 0.55, 0.8), range('driven', 'share', 0.5, 0.75)] : []),
    work: ({ plan: { air }, path }) => {
      const found = path()
      if (!air.isBoosted) return { figures: [] }
      return {
        figures: [
          figure('air out of it', 'temperature', found.outletTemperatureK),
          figure('shaft power', 'power', found.compressorPowerW),
          figure(`flow on a map of ${air.flowReference}`, 'massFlow', found.correctedFlowKgPerS),
        ],
      }
    },
  },
  {
    key: 'cooler',
    word: 'Cooler',
    calculation: 'engine.intercooler',
    usual: ({ plan: { air } }) => (air.isBoosted ? [range('effectiveness', 'share', 0.5, 0.85), range('loss', 'pressure', 5000, 15_000)] : []),
    work: ({ plan: { air }, path }) => {
      const found = path()
      const figures = [figure('charge into the engine', 'temperature', found.chargeTemperatureK)]
      return { figures: air.isBoosted ? [...figures, figure('heat to carry away', 'power', found.coolerHeatW)] : figures }
    },
  },
  {
    key: 'injectors',
    word: 'Injectors',
    calculation: 'engine.injector',
    usual: () => [range('duty', 'share', null, 0.85)],
    work: ({ plan, loss, point }) => {
      const { burn, target } = plan
      if (!plan.injectors) throw new CalculationError('missing', 'injectors', 'No injectors are chosen yet.')
      const found = injectorsAt(plan, point().flows.fuelKgPerS)
      const { dutyLimit } = plan.injectors
      const crankPowerW = found.fuelAtLimitKgPerS / burn.bsfcKgPerJ
      const powerW = target.place === 'wheel' ? crankToWheel({ crankPowerW, ...loss }) : crankPowerW
      return {
        figures: [
          figure('duty', 'share', found.duty),
          figure(`they carry, ${placeWord(plan)}`, 'power', powerW),
          figure('static flow needed of each', 'injectorFlow', found.flowNeededM3PerS),
        ],
        warnings: [...found.warnings, ...(found.duty > dutyLimit ? [`The duty is over the limit of ${(100 * dutyLimit).toFixed(0)} %.`] : [])],
      }
    },
  },
  {
    key: 'pumps',
    word: 'Fuel pumps',
    calculation: 'engine.fuel-pump',
    usual: () => [range('margin; in top classes with one pump failed', 'share', 0.15, 0.3)],
    work: ({ plan, loss, point, path }) => {
      const found = pumpsAt(plan, point(), path())
      const pump = plan.pump as NonNullable<EnginePlan['pump']>
      const carriedW = feedLimitW(plan, loss)
      return {
        figures: [
          figure('at this pressure above the air', 'pressure', found.outletPressurePa),
          figure('they give', 'volumeFlow', pump.count * found.flowPerPumpM3PerS),
          ...(carriedW === null ? [] : [figure(`they carry, ${placeWord(plan)}`, 'power', carriedW)]),
          figure('margin', 'share', found.marginReached),
          figure(pump.spareCount > 0 ? 'margin with one failed, the spare in' : 'margin with one failed', 'share', found.marginOneFailed),
        ],
        warnings: [
          ...(found.isEnough ? [] : [`The margin is under the ${(100 * pump.margin).toFixed(0)} % that is wanted.`]),
          ...(found.oneMayFail ? [] : ['With one pump failed the engine runs out of fuel: have the control cut power when pressure falls.']),
        ],
      }
    },
  },
  {
    key: 'bmep',
    word: 'Torque and mean pressure',
    calculation: 'engine.bmep',
    usual: ({ plan: { air } }) => [
      range(air.isBoosted ? 'mean pressure with boost' : 'mean pressure without boost', 'pressure', air.isBoosted ? 15e5 : 9e5, air.isBoosted ? 35e5 : 15e5),
    ],
    work: ({ plan, point }) => {
      const { engine, air } = plan
      const torque = greatestTorqueNm(plan, point().crankPowerW)
      const found = judgeBmep(torque, engine.displacementM3, engine.strokes)
      const usual = air.isBoosted ? found.bmepPa <= 35e5 : found.bmepPa <= 15e5
      return {
        figures: [figure('greatest torque at the crank', 'torque', torque), figure('brake mean effective pressure', 'pressure', found.bmepPa)],
        warnings: usual ? [] : [`${(found.bmepPa / 1e5).toFixed(1)} bar is ${found.word}${air.isBoosted ? '' : ' for an engine without boost'}.`],
      }
    },
  },
  {
    key: 'piston',
    word: 'Piston',
    calculation: 'engine.piston-speed',
    usual: () => [range('mean speed, racing', 'pistonSpeed', null, 25), range('times gravity at the top, racing', 'ratio', 30_000 / GRAVITY, 50_000 / GRAVITY)],
    work: ({ plan: { engine } }) => {
      if (engine.strokeM === null || engine.rodM === null) throw new CalculationError('missing', 'strokeM', 'Stroke and rod length are not given yet.')
      const found = pistonMotion({ strokeM: engine.strokeM, rodM: engine.rodM, speedRpm: engine.redlineRpm })
      return {
        figures: [
          figure('mean speed at the redline', 'pistonSpeed', found.meanSpeedMps),
          figure('greatest speed', 'pistonSpeed', found.peakSpeedMps),
          figure('times gravity at the top', 'ratio', found.topAccelerationMps2 / GRAVITY),
        ],
        warnings: found.warnings,
      }
    },
  },
  {
    key: 'heat',
    word: 'Heat',
    calculation: 'engine.heat',
    usual: ({ plan: { burn } }) => [
      burn.heatSchool === 'shareOfFuel' ? range('share of the fuel', 'share', 0.17, 0.3) : range('share of the power', 'share', 0.5, 0.6),
    ],
    usualFrom: 'handbooks, from memory; common practice',
    work: ({ plan: { burn }, point }) => {
      const found = point()
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
    },
  },
]
