import { curvePeakTorque } from '../../dyno/curve.ts'
import { powerToWeight } from '../../mass/power-to-weight.ts'
import { leastProof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, type MetricWork } from '../../stages/define-metric.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { curveAtStage, type PowerAtStage, plannedPowerW, powerAtStage, stageTouchesPower } from './power-at-stage.ts'

/** What power rests on beside the car's own lists. */
export const POWER_READS = ['sessions', 'pulls', 'standings'] as const

export const POWER_METRICS = [
  defineMetric({
    key: 'wheelPower',
    word: 'Power',
    kind: 'power',
    sense: 'atLeast',
    basis: ['power'],
    room: 'power',
    provedBy: ['power'],
    reads: POWER_READS,
    working: 'power',
    calculation: 'build.power-at-stage',
    isAlwaysShown: true,
  }),
  defineMetric({
    key: 'peakTorque',
    word: 'Peak torque',
    kind: 'torque',
    sense: 'atMost',
    basis: ['power'],
    room: 'power',
    provedBy: ['power'],
    reads: POWER_READS,
    working: 'torque',
    calculation: 'dyno.power-torque',
  }),
  defineMetric({
    key: 'powerToMass',
    word: 'Power to weight',
    kind: 'powerToMass',
    sense: 'atLeast',
    basis: ['mass', 'power'],
    room: 'power',
    provedBy: ['mass', 'power'],
    reads: POWER_READS,
    working: 'ratio',
    calculation: 'mass.power-to-weight',
    isAlwaysShown: true,
  }),
]

/** Where a value on this power comes from, and whether its stage says anything of its own. */
const carried = ({ fromPosition, isEmptyStage }: PowerAtStage, position: number) => ({
  fromPosition: fromPosition === position ? null : fromPosition,
  ...(isEmptyStage ? { isEmptyStage } : {}),
})

export const POWER_VALUES = {
  wheelPower: {
    at: (car, position) => {
      const power = powerAtStage(car, position)
      if (!power) return undefined
      const { value, sd, proof, distribution } = power
      return { value, sd, proof, distribution, ...carried(power, position) }
    },
    planned: (car, position) => (powerAtStage(car, position)?.isMeasuredHere ? (plannedPowerW(car, position) ?? null) : null),
  },
  peakTorque: { at: peakTorqueAt },
  powerToMass: { at: powerToMassAt },
} satisfies Record<string, MetricWork>

/** The greatest torque of a stage's curve, at engine speed; it rests on the same pulls as the power, so it carries their spread and proof. */
export function peakTorqueAt(car: Car, position: number): StageValue | undefined {
  const [power, found] = [powerAtStage(car, position), curveAtStage(car, position)]
  if (!power || !found) return undefined
  const value = curvePeakTorque(found.curve).torqueNm
  const sd = (value * power.sd) / power.value
  return { value, sd, proof: power.proof, distribution: normalDistribution(value, sd), ...carried(power, position) }
}

export function powerToMassAt(car: Car, position: number): StageValue | undefined {
  const [mass, power] = [massOf(car, position), powerAtStage(car, position)]
  if (!mass || !power) return undefined
  const ratio = powerToWeight({ powerW: power.value, powerSdW: power.sd, massKg: mass.value, massSdKg: mass.sd })
  const [value, sd] = [ratio.wattPerKg, ratio.wattPerKgSd]
  const isEmptyStage = power.isEmptyStage || mass.carriedFromPosition !== null
  const proof = leastProof(mass.proof, power.proof)
  return { value, sd, proof, distribution: normalDistribution(value, sd), fromPosition: null, ...(isEmptyStage ? { isEmptyStage } : {}) }
}

export const POWER_MEASUREMENTS = [
  defineMeasurement({
    key: 'power',
    metric: 'wheelPower',
    cure: ({ position, isBuilt }, { stage, at }) => ({
      head: 'Book the dyno',
      text: isBuilt ? `${stage(position)} is built and its power is not measured.` : 'Power was never measured on the build’s basis.',
      to: at('power', position),
    }),
  }),
]

export const POWER_PROOFS = {
  power: {
    touches: stageTouchesPower,
    isMeasuredAt: (car, position) => powerAtStage(car, position)?.isMeasuredHere === true,
    isEnteredAt: ({ records }, stageId) => records.sessions.some((entry) => entry.stageId === stageId),
  },
} satisfies Record<string, MeasurementWork>
