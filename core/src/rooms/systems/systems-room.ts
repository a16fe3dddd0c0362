import type { Car } from '../../stages/car.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { planHeatAtStage } from '../power/plan-heat.ts'
import { type AlarmView, alarmsAtStage } from './alarms.ts'
import type { CoolingView } from './cooling.ts'
import { type ElectricsView, electricsAtStage } from './electrics.ts'
import type { GapView } from './gaps.ts'
import { coolantHotValue, coolerAtStage, gapsOf, leastGapValue, supplyMarginValue } from './metrics.ts'
import { type CoolerBeside, coolersSideBySide } from './side-by-side.ts'

export interface SystemsStage {
  readonly id: string
  readonly name: string
  readonly position: number
  readonly electrics: ElectricsView
  readonly coolers: Readonly<Record<'coolant' | 'oil' | 'charge', CoolingView | { readonly refused: string } | null>>
  /** Cores and places side by side, the planned one first. */
  readonly beside: Readonly<Record<'coolant' | 'oil' | 'charge', readonly CoolerBeside[]>>
  /** Heat to the coolant at full power by the engine plan; null: there is none that gets so far. */
  readonly planHeatW: number | null
  readonly gaps: readonly GapView[]
  readonly alarms: readonly AlarmView[]
  readonly coolantHot: StageValue | null
  readonly supplyMargin: StageValue | null
  readonly leastGap: StageValue | null
}

export interface SystemsRoom {
  readonly stages: readonly SystemsStage[]
}

/**
 * What the Systems room shows of a car: at each stage outputs, wires and supply, coolers, gaps and alarms.
 * @example makeSystemsRoom(CAR).stages.length // 2
 */
export const makeSystemsRoom = (car: Car): SystemsRoom => ({
  stages: car.stages.map(({ id, name }, position) => ({
    id,
    name,
    position,
    electrics: electricsAtStage(car.records, position),
    coolers: {
      coolant: coolerAtStage(car, position, 'coolant') ?? null,
      oil: coolerAtStage(car, position, 'oil') ?? null,
      charge: coolerAtStage(car, position, 'charge') ?? null,
    },
    beside: {
      coolant: coolersSideBySide(car, position, 'coolant'),
      oil: coolersSideBySide(car, position, 'oil'),
      charge: coolersSideBySide(car, position, 'charge'),
    },
    planHeatW: planHeatAtStage(car, position)?.heatW ?? null,
    gaps: gapsOf(car, position),
    alarms: alarmsAtStage(car.records, position),
    coolantHot: coolantHotValue(car, position) ?? null,
    supplyMargin: supplyMarginValue(car, position) ?? null,
    leastGap: leastGapValue(car, position) ?? null,
  })),
})
