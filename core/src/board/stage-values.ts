import { attempt } from '../attempt.ts'
import { curvePeakTorque } from '../dyno/curve.ts'
import { CalculationError } from '../errors.ts'
import { powerToWeight } from '../mass/power-to-weight.ts'
import { combineMeasurements } from '../proof/combine-measurements.ts'
import { isMeasured, leastProof, type Proof } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { BuildRecord } from '../records/plan-kinds.ts'
import { curveAtStage, type PowerAtStage, powerAtStage } from '../rooms/power/power-at-stage.ts'
import { type MassAtStage, massAtStage } from '../rooms/weight/mass-at-stage.ts'
import { plannedFrontShare } from '../rooms/weight/planned-front-share.ts'
import { frontShareOf } from '../rooms/weight/weighing-shares.ts'
import type { Car } from '../stages/car.ts'
import { chanceAtMost, type Distribution, normalDistribution } from '../stats/distribution.ts'
import type { QuantityKind } from '../units/units.ts'

export interface MetricInfo {
  readonly word: string
  readonly kind: QuantityKind
  /** Which measurement proves it. */
  readonly provedBy: readonly ('mass' | 'power')[]
  /** Which way is better, for the beam and the trail. */
  readonly usualSense: 'atMost' | 'atLeast' | 'between'
}

export const METRIC_INFO: Record<Metric, MetricInfo> = {
  massReady: { word: 'Mass', kind: 'mass', provedBy: ['mass'], usualSense: 'atMost' },
  wheelPower: { word: 'Power', kind: 'power', provedBy: ['power'], usualSense: 'atLeast' },
  peakTorque: { word: 'Peak torque', kind: 'torque', provedBy: ['power'], usualSense: 'atMost' },
  powerToMass: { word: 'Power to weight', kind: 'powerToMass', provedBy: ['mass', 'power'], usualSense: 'atLeast' },
  frontShare: { word: 'Front share', kind: 'share', provedBy: ['mass'], usualSense: 'between' },
}

const PLACE_WORDS = { hub: 'at the hubs', roller: 'on rollers', engine: 'at the engine' } as const

/** The condition a metric is quoted in, so that no number stands without it. */
export function basisWords(build: BuildRecord, metric: Metric): { driver: boolean; fuelL: number | null; power: string | null } {
  const { powerBasis, reference } = build
  const power = `${PLACE_WORDS[powerBasis.place]}, ${powerBasis.standard === 'none' ? 'as observed' : powerBasis.standard}`
  const hasMass = metric === 'massReady' || metric === 'powerToMass'
  const hasPower = metric === 'wheelPower' || metric === 'peakTorque' || metric === 'powerToMass'
  return { driver: hasMass && reference.driverKg > 0, fuelL: hasMass ? reference.fuelL : null, power: hasPower ? power : null }
}

/** A metric of the car at one stage. */
export interface StageValue {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
  readonly distribution: Distribution
  /** The stage a carried power comes from, when it is not this one. */
  readonly fromPosition: number | null
}

/** Everything asked of one car, worked out once per stage. */
export class StageValues {
  readonly car: Car
  private readonly masses = new Map<number, MassAtStage | CalculationError | undefined>()

  constructor(car: Car) {
    this.car = car
  }

  mass(position: number): MassAtStage | undefined {
    const found = this.massOrProblem(position)
    return found instanceof CalculationError ? undefined : found
  }

  /** The mass, or the error that says which record makes it impossible. */
  massOrProblem(position: number): MassAtStage | CalculationError | undefined {
    if (!this.masses.has(position))
      this.masses.set(
        position,
        attempt(() => massAtStage(this.car, position)),
      )
    return this.masses.get(position)
  }

  power(position: number): PowerAtStage | undefined {
    return powerAtStage(this.car, position)
  }

  value(metric: Metric, position: number): StageValue | undefined {
    switch (metric) {
      case 'massReady': {
        const mass = this.mass(position)
        return mass && { value: mass.value, sd: mass.sd, proof: mass.proof, distribution: mass.distribution, fromPosition: null }
      }
      case 'wheelPower': {
        const power = this.power(position)
        if (!power) return undefined
        const { value, sd, proof, distribution, fromPosition } = power
        return { value, sd, proof, distribution, fromPosition: fromPosition === position ? null : fromPosition }
      }
      case 'peakTorque':
        return this.peakTorque(position)
      case 'powerToMass':
        return this.powerToMass(position)
      case 'frontShare':
        return this.frontShare(position)
    }
  }

  /** Of the stage's curve, at engine speed; it rests on the same pulls as the power, so it carries their spread and proof. */
  private peakTorque(position: number): StageValue | undefined {
    const [power, found] = [this.power(position), curveAtStage(this.car, position)]
    if (!power || !found) return undefined
    const value = curvePeakTorque(found.curve).torqueNm
    const sd = (value * power.sd) / power.value
    const fromPosition = power.fromPosition === position ? null : power.fromPosition
    return { value, sd, proof: power.proof, distribution: normalDistribution(value, sd), fromPosition }
  }

  private powerToMass(position: number): StageValue | undefined {
    const [mass, power] = [this.mass(position), this.power(position)]
    if (!mass || !power) return undefined
    const ratio = powerToWeight({ powerW: power.value, powerSdW: power.sd, massKg: mass.value, massSdKg: mass.sd })
    const [value, sd] = [ratio.wattPerKg, ratio.wattPerKgSd]
    return { value, sd, proof: leastProof(mass.proof, power.proof), distribution: normalDistribution(value, sd), fromPosition: null }
  }

  private frontShare(position: number): StageValue | undefined {
    const mass = this.mass(position)
    if (!mass) return undefined
    const { anchor } = mass
    if (anchor.kind !== 'equal') {
      const planned = plannedFrontShare(this.car, mass)
      return planned && { ...planned, distribution: normalDistribution(planned.value, planned.sd), fromPosition: null }
    }
    const shares = anchor.weighings.map(({ weighing }) => {
      const { value, sd } = frontShareOf(weighing, this.car.records.build)
      return { value, sd, instrument: weighing.scales ?? undefined }
    })
    const [head, ...rest] = shares
    if (!head) return undefined
    const { value, sd, proof } = combineMeasurements([head, ...rest], () => 0.005)
    return { value, sd, proof, distribution: normalDistribution(value, sd), fromPosition: null }
  }

  /** The latest stage at or after `from` whose value is at least measured. */
  latestMeasured(metric: Metric, from: number): number | undefined {
    for (let at = this.car.stages.length - 1; at >= from; at--) {
      const value = this.value(metric, at)
      if (value && isMeasured(value.proof)) return at
    }
    return undefined
  }
}

export interface Goal {
  readonly sense: 'atMost' | 'atLeast' | 'between'
  readonly value: number
  readonly highValue?: number | null
}

/** Whether a value satisfies a goal. */
export function satisfies(goal: Goal, value: number): boolean {
  if (goal.sense === 'atMost') return value <= goal.value
  if (goal.sense === 'atLeast') return value >= goal.value
  return value >= goal.value && value <= (goal.highValue ?? goal.value)
}

/** The chance that a value so distributed satisfies a goal. */
export function chanceOf(goal: Goal, distribution: Distribution): number {
  if (goal.sense === 'atMost') return chanceAtMost(distribution, goal.value)
  const below = chanceAtMost(distribution, goal.value)
  if (goal.sense === 'atLeast') return 1 - below
  return Math.max(0, chanceAtMost(distribution, goal.highValue ?? goal.value) - below)
}
