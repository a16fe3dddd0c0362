import { type CostForecast, forecastCost } from '../../jobs/cost.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { optimismOf } from './road-of-car.ts'

/** One thing that costs something, at the stage it is for. */
export interface CostItem {
  readonly id: string
  readonly list: 'parts' | 'changes' | 'tasks' | 'events'
  readonly name: string
  readonly position: number
  readonly amount: number
  readonly known: 'paid' | 'catalogue' | 'guess'
}

const isInTheGarage = ({ status }: Part): boolean => status === 'here' || status === 'fitted' || status === 'wornOut'
/** What has to be bought with a part. */
const extrasOf = ({ extras }: Part): number => extras.reduce((sum, { cost }) => sum + (cost ?? 0), 0)

type Priced = { readonly id: string; readonly name: string; readonly cost?: number | null; readonly paid?: number | null }

/** Paid before cost; nothing where neither is known. */
function itemOf(list: CostItem['list'], { id, name, cost, paid }: Priced, position: number, known: 'catalogue' | 'guess' | 'paid'): CostItem[] {
  if (paid !== null && paid !== undefined) return [{ id, list, name, position, amount: paid, known: 'paid' }]
  return cost === null || cost === undefined ? [] : [{ id, list, name, position, amount: cost, known }]
}

function partItems(part: Part, position: number): CostItem[] {
  return priceOf(part).map(({ amount, known, isExtra }) => ({
    id: part.id,
    list: 'parts',
    name: isExtra ? `what comes with ${part.name}` : part.name,
    position,
    amount,
    known,
  }))
}

/** What a part costs, and what comes with it: paid before cost, and its cost as paid where it is here. */
export function priceOf(part: Part): { readonly amount: number; readonly known: CostItem['known']; readonly isExtra: boolean }[] {
  const known = isInTheGarage(part) ? 'paid' : (part.costKnown ?? 'guess')
  const extras = extrasOf(part)
  return [
    ...itemOf('parts', part, 0, known).map((item) => ({ amount: item.amount, known: item.known, isExtra: false })),
    ...(extras > 0 ? [{ amount: extras, known, isExtra: true } as const] : []),
  ]
}

/** An event that is for no stage is paid for by the last stage that was dated by then. */
function eventPosition(car: Car, stageId: string | null, startsOn: string): number {
  const own = car.stages.findIndex(({ id }) => id === stageId)
  return own >= 0
    ? own
    : Math.max(
        0,
        car.stages.findLastIndex(({ date }) => date !== null && date <= startsOn),
      )
}

/** All that costs something, stage by stage: parts with what comes with them, lines that name no part, jobs, events; what was sold brings back. */
export const costItems = (car: Car): readonly CostItem[] => allCosts(car, 0)

const allCosts = rememberByIndex((car: Car, _all: number): readonly CostItem[] => {
  const { parts, changes, tasks, events } = car.records
  const place = new Map(car.stages.map(({ id }, position) => [id, position]))
  const at = (stageId: string | null): number | undefined => (stageId === null ? undefined : place.get(stageId))
  return [
    ...parts.flatMap((part) => {
      const position = at(part.stageId)
      return position === undefined ? [] : partItems(part, position)
    }),
    ...changes.flatMap((change): CostItem[] => {
      const position = at(change.stageId)
      if (position === undefined || change.state === 'dropped') return []
      const back = change.fate?.back ?? 0
      const own = change.partId ? [] : itemOf('changes', change, position, change.state === 'done' ? 'paid' : 'guess')
      return back > 0 ? [...own, { id: change.id, list: 'changes', name: `${change.name}, sold`, position, amount: -back, known: 'paid' }] : own
    }),
    ...tasks.flatMap((task) => {
      const position = at(task.stageId)
      return position === undefined || task.state === 'dropped' ? [] : itemOf('tasks', task, position, task.state === 'done' ? 'paid' : 'guess')
    }),
    ...events.flatMap((event) => itemOf('events', event, eventPosition(car, event.stageId, event.startsOn), 'guess')),
  ]
})

export interface StageMoney extends CostForecast {
  readonly position: number
  readonly paid: number
  readonly planned: number
  /** Of this stage alone: paid, and as planned. */
  readonly own: { readonly paid: number; readonly planned: number }
  /** What comes with parts that are on their way and of which nobody said; 0 where there is nothing to learn from. */
  readonly extrasNobodyEntered: number
}

/**
 * What the car has cost and will have cost by a stage, against the budget.
 * @example moneyToStage(CAR, 1).mean // 0
 */
export const moneyToStage = rememberByIndex((car: Car, position: number): StageMoney => {
  const all = costItems(car)
  const items = all.filter((item) => item.position <= position)
  const sum = (list: readonly CostItem[]) => list.reduce((total, { amount }) => total + amount, 0)
  const of = (known: CostItem['known'], list = items) => list.filter((item) => item.known === known)
  const own = items.filter((item) => item.position === position)
  const forecast = forecastCost({
    paid: sum(of('paid')),
    catalogue: of('catalogue').map(({ amount }) => amount),
    guesses: of('guess').map(({ amount }) => amount),
    bias: optimismOf(car).money,
    budget: car.records.build.money?.budget ?? null,
  })
  const planned = (list: readonly CostItem[]) => sum(list.filter(({ known }) => known !== 'paid'))
  return {
    ...forecast,
    position,
    paid: sum(of('paid')),
    planned: planned(items),
    own: { paid: sum(of('paid', own)), planned: planned(own) },
    extrasNobodyEntered: missingExtras(car, position),
  }
})

/** Extras over cost of parts that are here, times the cost of parts on the way that name none. */
function missingExtras({ records, stages }: Car, position: number): number {
  const here = records.parts.filter((part) => isInTheGarage(part) && (part.cost ?? 0) > 0)
  const cost = here.reduce((sum, part) => sum + (part.cost ?? 0), 0)
  const share = cost > 0 ? here.reduce((sum, part) => sum + extrasOf(part), 0) / cost : 0
  const upTo = new Set(stages.slice(0, position + 1).map(({ id }) => id))
  const bare = records.parts.filter((part) => !isInTheGarage(part) && part.extras.length === 0 && part.stageId !== null && upTo.has(part.stageId))
  return share * bare.reduce((sum, part) => sum + (part.cost ?? 0), 0)
}
