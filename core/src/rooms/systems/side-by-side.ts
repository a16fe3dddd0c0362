import { orElse } from '../../attempt.ts'
import { FLUID_KG_M3, type Settled } from '../../cooling/radiator.ts'
import type { Decision } from '../../records/decision-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { CoolingKind, CoolingPlan } from '../../records/systems-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { fromSi } from '../../units/units.ts'
import { priceOf } from '../jobs/money.ts'
import { planHeatAtStage } from '../power/plan-heat.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { chanceUnderStop, coolingPlanAt, coolingSetup, settledAt } from './cooling.ts'

/** One core in one place, beside the others. */
export interface CoolerBeside {
  readonly name: string
  readonly partId: string | null
  readonly mount: CoolingPlan['mount']
  /** Where it is in the plan's own others; null: it is what is planned. */
  readonly index: number | null
  readonly hot: Settled | null
  readonly chanceUnder: number | null
  /** Why nothing can be said of it. */
  readonly refused: string | null
  /** Core and what is in it and its pipes; null: nobody weighed the core. */
  readonly massKg: number | null
  /** The car's share on the front axle with it in the planned one's stead; null: mass or place are not known. */
  readonly frontShare: number | null
  readonly cost: number | null
}

type DecisionOption = Pick<Decision['options'][number], 'name' | 'partIds' | 'values' | 'cons'>
type Core = Pick<CoolingPlan, 'partId' | 'areaM2' | 'rating' | 'mount' | 'faceShare' | 'flowM3PerS' | 'fluidL'>

const massOfCore = (part: Part | undefined, fluidL: number, kind: CoolingKind) =>
  part?.mass ? part.mass.massKg * part.count + (FLUID_KG_M3[kind] * fluidL) / 1000 : null

/** The front share with a core's mass at its place, the planned one's taken out where both are known. */
function frontShareWith(
  car: Car,
  position: number,
  planned: { massKg: number; xM: number } | null,
  own: { massKg: number | null; part: Part | undefined },
): number | null {
  const [mass, share] = [massOf(car, position), frontShareAt(car, position)]
  if (!mass || !share || own.massKg === null || !own.part?.place) return null
  const onFront = (kg: number, xM: number) => kg * (1 - xM / car.records.build.wheelbaseM)
  const [outKg, outFrontKg] = planned ? [planned.massKg, onFront(planned.massKg, planned.xM)] : [0, 0]
  return (mass.value * share.value - outFrontKg + onFront(own.massKg, own.part.place.xM)) / (mass.value - outKg + own.massKg)
}

/**
 * The planned core and the others that are thought of, side by side, on the plan's hot day: where each settles, what it weighs with what is in it, what it does to the
 * front share, what it costs. What is not known of one is null; a core of which nobody knows a rating says why. Nothing where the stage has no such plan.
 * @example coolersSideBySide(CAR, 1, 'coolant') // []
 */
export function coolersSideBySide(car: Car, position: number, kind: CoolingKind): CoolerBeside[] {
  const found = coolingPlanAt({ stages: car.stages as never, coolingPlans: car.records.coolingPlans }, position, kind)
  if (!found) return []
  const { plan } = found
  const asked = { discipline: car.records.build.discipline, planHeatW: planHeatAtStage(car, position)?.heatW ?? null }
  const partOf = (id: string | null) => car.records.parts.find((part) => part.id === id)
  const ownPart = partOf(plan.partId)
  const ownKg = massOfCore(ownPart, plan.fluidL, kind)
  const planned = ownKg !== null && ownPart?.place ? { massKg: ownKg, xM: ownPart.place.xM } : null
  const beside = (name: string, core: Core, index: number | null): CoolerBeside => {
    const part = partOf(core.partId)
    const massKg = massOfCore(part, core.fluidL, kind)
    // Laps were logged with the planned core: of another they say nothing.
    const logged = index === null ? plan.logged : []
    const settled = orElse(
      () => {
        const setup = coolingSetup({ ...plan, ...core, logged }, asked)
        return settledAt(setup, plan.hot, setup.heatW)
      },
      (refused) => refused,
    )
    const isSettled = typeof settled !== 'string'
    const prices = part ? priceOf(part) : []
    return {
      name,
      partId: core.partId,
      mount: core.mount,
      index,
      hot: isSettled ? settled : null,
      chanceUnder: isSettled ? chanceUnderStop(settled, plan.stopK) : null,
      refused: isSettled ? null : settled,
      massKg,
      frontShare: frontShareWith(car, position, planned, { massKg, part }),
      cost: prices.length === 0 ? null : prices.reduce((sum, { amount }) => sum + amount, 0),
    }
  }
  return [
    beside(ownPart?.name ?? 'as planned', plan, null),
    ...plan.others.map((other, index) => beside(other.name, { ...other, flowM3PerS: other.flowM3PerS ?? plan.flowM3PerS }, index)),
  ]
}

/**
 * The cores side by side as a decision: where each settles against the limit, mass with what is in it, front share nearer to half, cost. What nobody knows of one is
 * left out, to be typed or taken from its part.
 * @example decisionOfCoolers([], { stageId: 'strip', stopK: 378.15, unit: '°C' }).criteria[0].must // 105
 */
export function decisionOfCoolers(
  coolers: readonly CoolerBeside[],
  { stageId, stopK, unit }: { readonly stageId: string; readonly stopK: number; readonly unit: string },
): { readonly question: string; readonly stageId: string; readonly criteria: Decision['criteria']; readonly options: readonly DecisionOption[] } {
  const settles = `settles, ${unit}`
  const shares = coolers.flatMap(({ frontShare }) => frontShare ?? [])
  const isNoseHeavy = shares.reduce((sum, share) => sum + share, 0) >= shares.length / 2
  const none = { price: null, must: null } as const
  const round = (value: number, decimals: number) => Number(value.toFixed(decimals))
  const known = (of: string, value: number | null, sd: number | null = null) => (value === null ? [] : [{ of, value, sd }])
  return {
    question: `Which core, and where: ${coolers.map(({ name }) => name).join(' or ')}?`.slice(0, 200),
    stageId,
    criteria: [
      { name: settles, from: 'typed', better: 'less', price: null, must: round(fromSi('temperature', stopK, unit), 1) },
      { ...none, name: 'mass', from: 'mass', better: 'less' },
      { ...none, name: 'front share', from: 'frontShare', better: isNoseHeavy ? 'less' : 'more' },
      { ...none, name: 'cost', from: 'cost', better: 'less' },
    ],
    options: coolers.map(({ name, partId, hot, massKg, frontShare, refused }) => ({
      name,
      partIds: partId === null ? [] : [partId],
      values: [
        ...known(
          settles,
          hot && round(fromSi('temperature', hot.settledK, unit), 1),
          hot && round(Math.abs(fromSi('temperature', hot.settledK + hot.sdK, unit) - fromSi('temperature', hot.settledK, unit)), 1),
        ),
        ...known('mass', massKg && round(massKg, 2)),
        ...known('front share', frontShare && round(frontShare, 4)),
      ],
      cons: refused,
    })),
  }
}
