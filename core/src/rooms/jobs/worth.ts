import { type CostWorth, costWorth } from '../../jobs/cost.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { Change } from '../../records/weight-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { partsOfKind, stageOfPart, wholeMassKg } from '../parts/parts.ts'
import { powerAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { costOfOption, hoursOfOption, massOfOption } from './decisions.ts'

/** A change that is not in the car yet, with what it buys for its price. */
export interface WorthItem {
  readonly id: string
  readonly list: 'changes' | 'parts'
  readonly name: string
  /** Of its stage; null: not decided. */
  readonly position: number | null
  readonly cost: number
  readonly hours: number
  /** What it does to the car; 0 where nobody said. */
  readonly massKg: number
  readonly powerW: number
  readonly worth: CostWorth
}

type Option = { readonly partIds: readonly string[]; readonly changeIds: readonly string[] }

/** A planned line with the part that it puts in and the off line that it replaces: they are one purchase. */
const optionOfLine = ({ id, partId, replacesChangeId }: Change): Option => ({
  partIds: partId ? [partId] : [],
  changeIds: replacesChangeId ? [id, replacesChangeId] : [id],
})

/** What the part in the car that it takes the place of weighs; 0 where there is none, or nobody knows. */
function replacedKg({ records }: Car, part: Part): number {
  const [fitted] = partsOfKind(records.parts, part.kind).filter(({ id, status }) => id !== part.id && status === 'fitted')
  return (fitted && wholeMassKg(part) !== null ? wholeMassKg(fitted) : 0) ?? 0
}

/** Power that is expected of a part before it is in the car. */
function powerOfParts({ records }: Car, partIds: readonly string[], nowW: number): number {
  return records.expectations
    .filter(({ metric, partId }) => metric === 'wheelPower' && partId !== null && partIds.includes(partId))
    .reduce((sum, { mode, value }) => sum + { to: value - nowW, by: value, times: nowW * (value - 1) }[mode], 0)
}

function itemOf(car: Car, option: Option, head: Pick<WorthItem, 'id' | 'list' | 'name' | 'position'>, lessKg: number): WorthItem[] {
  const before = head.position === null ? car.stages.length - 1 : Math.max(0, head.position - 1)
  const [mass, power] = [massOf(car, before)?.value, powerAtStage(car, before)?.value]
  const cost = costOfOption(car, option)?.value ?? null
  const hours = hoursOfOption(car, option)?.value ?? 0
  if (cost === null || !mass || !power) return []
  const massKg = (massOfOption(car, option)?.value ?? 0) - lessKg
  const powerW = powerOfParts(car, option.partIds, power)
  const hourWorth = car.records.build.money?.hourWorth ?? 0
  return [{ ...head, cost, hours, massKg, powerW, worth: costWorth({ cost, hours, hourWorth, massKg, powerW, powerToMassWPerKg: power / mass, lapS: null }) }]
}

/**
 * What every priced change that is not in the car yet buys: planned lines, each with the part that it puts in and the line that it replaces, and parts that are
 * not fitted and that no such line puts in. Prices as guesses run; hours count by what the build says an hour is worth. Without a mass and a power before it nothing is said.
 * @example worthItems(CAR) // []
 */
export function worthItems(car: Car): WorthItem[] {
  const { changes, parts } = car.records
  const place = new Map(car.stages.map(({ id }, position) => [id, position]))
  const open = changes.filter(({ state, kind }) => state === 'planned' && kind !== 'transfer')
  const replaced = new Set(open.flatMap(({ replacesChangeId }) => replacesChangeId ?? []))
  const putIn = new Set(open.flatMap(({ partId }) => partId ?? []))
  const lines = open
    .filter(({ id }) => !replaced.has(id))
    .flatMap((line) => itemOf(car, optionOfLine(line), { id: line.id, list: 'changes', name: line.name, position: place.get(line.stageId) ?? null }, 0))
  const bought = parts
    .filter(({ id, status }) => status !== 'fitted' && status !== 'wornOut' && !putIn.has(id))
    .flatMap((part) => {
      const position = stageOfPart(car.records, part)
      const head = { id: part.id, list: 'parts', name: part.name, position: Number.isFinite(position) ? position : null } as const
      return itemOf(car, { partIds: [part.id], changeIds: [] }, head, replacedKg(car, part))
    })
  return [...lines, ...bought]
}
