import { leastProof } from '../../proof/quantity.ts'
import type { LapExpected } from '../../records/metric-keys.ts'
import type { Part } from '../../records/part-kinds.ts'
import type { Expectation } from '../../records/plan-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import type { LapCar } from '../../track/lap-car.ts'
import { type LapChange, peakPowerW } from '../../track/lap-change.ts'
import { stageOfPart } from '../parts/parts.ts'
import type { LapInput, LapInputKey } from './lap-input.ts'

/** An expectation that says no spread is known to so much of what it changes (common practice, no source). */
const OWN_SHARE = 0.3

/** Which number of a lap an expectation is about. */
const KEY_OF: Readonly<Record<LapExpected, LapInputKey>> = {
  grip: 'friction',
  brakingUse: 'brakingUse',
  shiftTime: 'shiftS',
  dragArea: 'dragAreaM2',
  downforceFront: 'downforceFrontM2',
  downforceRear: 'downforceRearM2',
}
const isOfLap = (metric: string): metric is LapExpected => metric in KEY_OF

const isDeviceLine = (car: Car, position: number) => {
  const own = new Set((car.linesByStage[position] ?? []).map(({ change }) => change.id))
  return car.records.aeroDevices.some(({ changeId, offChangeId }) => (changeId !== null && own.has(changeId)) || (offChangeId !== null && own.has(offChangeId)))
}

/** Whether a part or device of that stage, or a part of a later one, says the number itself: then nothing is expected any more. */
function isSaid(car: Car, metric: LapExpected, at: number, position: number): boolean {
  const fittedSince = (holds: (part: Part) => boolean) =>
    car.records.parts.some((part) => {
      const stage = stageOfPart(car.records, part)
      return stage >= at && stage <= position && holds(part)
    })
  if (metric === 'grip') return fittedSince(({ drive }) => drive?.role === 'tyre')
  if (metric === 'shiftTime') return fittedSince(({ drive }) => drive?.role === 'gearbox' && drive.shiftS !== null)
  return metric !== 'brakingUse' && isDeviceLine(car, at)
}

/** A number with what is expected of it. */
function applied(input: LapInput, { mode, value, sd, proof, id }: Expectation): LapInput {
  const isGuess = input.isGuess || leastProof('calculated', proof) === 'guess'
  const source = `${input.source} ${id}`
  if (mode === 'to') return { ...input, value, sd: sd ?? OWN_SHARE * Math.abs(value - input.value), isGuess: proof === 'guess', source }
  if (mode === 'by') return { ...input, value: input.value + value, sd: Math.hypot(input.sd, sd ?? OWN_SHARE * Math.abs(value)), isGuess, source }
  const own = sd ?? OWN_SHARE * Math.abs(value - 1)
  return { ...input, value: input.value * value, sd: Math.hypot(input.sd * value, input.value * own), isGuess, source }
}

/** The numbers of a stage with what its own and earlier stages are expected to give, in their order, where no part or device says it. */
export function withExpected(car: Car, position: number, inputs: readonly LapInput[]): LapInput[] {
  const expected = car.records.expectations
    .filter(({ metric, partId }) => isOfLap(metric) && partId === null)
    .map((expectation) => ({ expectation, at: stageIndex(car, expectation.stageId) }))
    .filter(({ expectation, at }) => at >= 0 && at <= position && !isSaid(car, expectation.metric as LapExpected, at, position))
    .sort((a, b) => a.at - b.at)
  return expected.reduce<LapInput[]>(
    (all, { expectation }) => all.map((input) => (input.key === KEY_OF[expectation.metric as LapExpected] ? applied(input, expectation) : input)),
    [...inputs],
  )
}

/** What is expected of a drift day at a stage: the latest up to it; undefined where nothing is. */
export function expectedDriftDay(
  car: Car,
  position: number,
  metric: 'entrySpeed' | 'tyresPerDay',
): { readonly entry: Expectation; readonly at: number } | undefined {
  return car.records.expectations
    .filter((entry) => entry.metric === metric && entry.partId === null)
    .map((entry) => ({ entry, at: stageIndex(car, entry.stageId) }))
    .filter(({ at }) => at >= 0 && at <= position)
    .sort((a, b) => b.at - a.at)[0]
}

const FIELD_OF = {
  wheelPower: 'powerW',
  brakingUse: 'brakingUse',
  shiftTime: 'shiftS',
  dragArea: 'dragAreaM2',
  downforceFront: 'downforceFrontM2',
  downforceRear: 'downforceRearM2',
} as const

/** What is expected of a wished part, or of a line, as it moves a car; empty where nothing is expected of it. */
export function expectedOf({ records }: Car, giverId: string, car: LapCar | null): LapChange {
  const moved = records.expectations.filter((entry) => entry.partId === giverId || entry.changeId === giverId)
  if (!car || moved.length === 0) return {}
  const peak = peakPowerW(car)
  const now: Readonly<Record<Expectation['metric'], number>> = {
    wheelPower: peak,
    grip: 1,
    brakingUse: car.brakingUse,
    shiftTime: car.gears?.shiftS ?? 0,
    dragArea: car.dragAreaM2,
    downforceFront: car.downforceFrontM2,
    downforceRear: car.downforceRearM2,
    entrySpeed: 0,
    tyresPerDay: 0,
  }
  const change: { -readonly [Key in keyof LapChange]?: number } = {}
  for (const { metric, mode, value } of moved) {
    if (metric === 'grip') change.gripFactor = (change.gripFactor ?? 1) * value
    else if (metric !== 'entrySpeed' && metric !== 'tyresPerDay') {
      const by = { to: value - now[metric], by: value, times: now[metric] * (value - 1) }[mode]
      const field = FIELD_OF[metric]
      change[field] = (change[field] ?? 0) + by
    }
  }
  return change
}
