import { combineMeasurements } from '../../proof/combine-measurements.ts'
import { isMeasured, leastProof } from '../../proof/quantity.ts'
import { buildOfWeighing, type Car } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, type MetricWork } from '../../stages/define-metric.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { massOf, massOffAt } from './mass-at-stage.ts'
import { plannedFrontShare } from './planned-front-share.ts'
import { saidBefore } from './unexplained.ts'
import { frontShareOf } from './weighing-shares.ts'

export const WEIGHT_METRICS = [
  defineMetric({
    key: 'massReady',
    word: 'Mass',
    kind: 'mass',
    sense: 'atMost',
    basis: ['mass'],
    room: 'weight',
    provedBy: ['mass'],
    working: 'mass',
    calculation: 'build.mass-at-stage',
    isAlwaysShown: true,
  }),
  defineMetric({
    key: 'massOff',
    word: 'Mass off',
    kind: 'mass',
    sense: 'atLeast',
    basis: ['mass'],
    room: 'weight',
    provedBy: ['mass'],
    working: 'massOff',
    calculation: 'build.mass-at-stage',
    range: 20,
  }),
  defineMetric({
    key: 'frontShare',
    word: 'Front share',
    kind: 'share',
    sense: 'between',
    basis: [],
    room: 'weight',
    provedBy: ['mass'],
    working: 'front',
    calculation: 'mass.corners',
    range: 0.2,
  }),
]

export const WEIGHT_VALUES = {
  massReady: {
    at: (car, position) => {
      const mass = massOf(car, position)
      if (!mass) return undefined
      const { value, sd, proof, distribution, carriedFromPosition } = mass
      return { value, sd, proof, distribution, ...carriedFrom(carriedFromPosition) }
    },
    planned: (car, position) => {
      const anchor = massOf(car, position)?.anchor
      const weighing = anchor?.kind === 'equal' ? anchor.weighings[0] : undefined
      return weighing ? saidBefore(car, weighing.weighing.id) : null
    },
  },
  massOff: {
    at: (car, position) => {
      const off = massOffAt(car, position)
      return off && { ...off, distribution: normalDistribution(off.value, off.sd), ...carriedFrom(massOf(car, position)?.carriedFromPosition ?? null) }
    },
  },
  frontShare: { at: frontShareAt },
} satisfies Record<string, MetricWork>

const carriedFrom = (position: number | null) => ({ fromPosition: position, ...(position === null ? {} : { isEmptyStage: true }) })

/** How well two weighings must know a share to confirm each other (common practice, no source). */
const LARGEST_USEFUL_SHARE_SD = 0.005

/** The front share of a stage: that of the weighings that held it, else the planned one, else that of the stage before where this one lists nothing. */
export function frontShareAt(car: Car, position: number): StageValue | undefined {
  const mass = massOf(car, position)
  if (!mass) return undefined
  const { anchor, carriedFromPosition } = mass
  if (carriedFromPosition !== null) {
    const before = frontShareAt(car, carriedFromPosition)
    return before && { ...before, proof: leastProof(before.proof, 'calculated'), ...carriedFrom(carriedFromPosition) }
  }
  if (anchor.kind !== 'equal') {
    const planned = plannedFrontShare(car, mass, position)
    return planned && { ...planned, distribution: normalDistribution(planned.value, planned.sd), fromPosition: null }
  }
  const shares = anchor.weighings.flatMap(({ weighing }) => {
    const share = frontShareOf(weighing, buildOfWeighing(car, weighing))
    return share ? [{ value: share.value, sd: share.sd, instrument: weighing.scales ?? undefined }] : []
  })
  const [head, ...rest] = shares
  if (!head) return undefined
  const { value, sd, proof } = combineMeasurements([head, ...rest], () => LARGEST_USEFUL_SHARE_SD)
  return { value, sd, proof, distribution: normalDistribution(value, sd), fromPosition: null }
}

export const WEIGHT_MEASUREMENTS = [
  defineMeasurement({
    key: 'mass',
    metric: 'massReady',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) => ({
      head: 'Put the car on the scales',
      text: isBuilt
        ? `${stage(position)} is built and not weighed; no target on ${facts(metric).word.toLowerCase()} can be met before.`
        : 'Nothing has been weighed as a whole car yet.',
      to: at('weight', position, '&tab=scales'),
    }),
  }),
]

export const WEIGHT_PROOFS = {
  mass: {
    touches: (car, position) => (car.linesByStage[position]?.length ?? 0) > 0,
    isMeasuredAt: (car, position) => {
      const mass = massOf(car, position)
      return mass !== undefined && isMeasured(mass.proof) && mass.anchor.kind === 'equal'
    },
    isEnteredAt: ({ records }, stageId) => records.weighings.some((entry) => entry.stageId === stageId),
  },
} satisfies Record<string, MeasurementWork>
