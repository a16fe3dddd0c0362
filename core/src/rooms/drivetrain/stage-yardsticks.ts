import { attempt } from '../../attempt.ts'
import {
  carryYardstick,
  type SpreadValue,
  type SpreadYardsticks,
  spreadYardsticks,
  type UnsureInput,
  YARDSTICKS,
  type Yardstick,
} from '../../drivetrain/yardsticks.ts'
import { CalculationError } from '../../errors.ts'
import { combineMeasurements } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Reading, Timing } from '../../records/drive-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { stageOfPart } from '../parts/parts.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { type DriveInput, movedCar } from './drive-inputs.ts'
import { driveStage } from './stage-inputs.ts'

/** How well a clock knows a time, s (common practice, no source). */
export const TIMING_SD_S: Readonly<Record<Timing, number>> = { beacon: 0.005, gps: 0.05, film: 0.1, watch: 0.15 }
/** How much one day differs from another (common practice, no source). */
const DAY_RELATIVE_SD = 0.007
/** Two days that know a time worse than this confirm nothing (common practice, no source). */
const USEFUL_RELATIVE_SD = 0.02
/** Lines that together weigh less than this share of the car leave a timed run what it was (common practice, no source). */
const LIGHT_SHARE = 0.01
const SPEEDS: readonly Yardstick[] = ['quarterMileSpeed', 'topSpeed']

/**
 * Numbers that are not known exactly, with what moving each does to a car.
 * @example unsureInputs([{ key: 'massKg', value: 1240, sd: 6, isGuess: false, source: 'scales' }])[0].moved(DRIVE, 1).massKg // 1246
 */
export const unsureInputs = (inputs: readonly DriveInput[]): UnsureInput[] =>
  inputs.flatMap(({ key, sd, isGuess }) => (sd > 0 ? [{ key, isGuess, moved: (car, spreads) => movedCar(car, key, spreads * sd) } satisfies UnsureInput] : []))

/** What a stage's yardsticks come to by its own numbers; undefined where something is missing. */
export const plannedYardsticks = rememberByIndex((car: Car, position: number): SpreadYardsticks | undefined => {
  const stage = driveStage(car, position)
  if (!stage.car || stage.isConverter) return undefined
  const own = stage.car
  const found = attempt(() => spreadYardsticks(own, car.records.build.driveBasis?.rollOutM ?? 0, unsureInputs(stage.inputs)))
  return found instanceof CalculationError ? undefined : found
})

/** Whether the car of that moment was that of its stage: all its lines and drive parts in, nothing later, but for what is light. */
function stands(car: Car, reading: Reading, position: number): boolean {
  const at = Date.parse(reading.at)
  const massKg = massOf(car, position)?.value ?? Number.POSITIVE_INFINITY
  const odd = car.lines.filter((line) => (line.doneAtMs !== null && line.doneAtMs <= at) !== line.stagePosition <= position)
  const oddKg = odd.reduce((sum, line) => sum + Math.abs(line.mass.massKg ?? 0) * line.change.count, 0)
  return odd.every(({ change }) => !change.touchesPower) && oddKg < LIGHT_SHARE * massKg
}

interface Day {
  readonly value: number
  readonly sd: number
  readonly instrument: string | undefined
  readonly day: string
}

/** The best of each day, the latest day first: a start that was missed says nothing of the car. */
function daysOf(readings: readonly Reading[], metric: Yardstick): Day[] {
  const byDay = new Map<string, Reading>()
  for (const reading of readings) {
    const day = reading.at.slice(0, 10)
    const before = byDay.get(day)
    const isBetter = before && (SPEEDS.includes(metric) ? reading.value > before.value : reading.value < before.value)
    if (!before || isBetter) byDay.set(day, reading)
  }
  return [...byDay]
    .sort(([a], [b]) => (a < b ? 1 : -1))
    .map(([day, { value, sd, timing, instrument }]) => {
      const clock = sd ?? (SPEEDS.includes(metric) ? 0.005 * value : TIMING_SD_S[timing ?? 'watch'])
      return { value, sd: Math.hypot(clock, DAY_RELATIVE_SD * value), instrument: instrument ?? undefined, day }
    })
}

/** What the readings entered at a stage say of a yardstick, on the build's clock. */
function measuredAt(car: Car, position: number, metric: Yardstick): { value: number; sd: number; proof: Proof } | undefined {
  const rollOutM = car.records.build.driveBasis?.rollOutM ?? 0
  const counting = car.records.readings.filter(
    (reading) =>
      reading.metric === metric &&
      reading.stageId === car.stages[position]?.id &&
      reading.setAside === null &&
      reading.surface === 'dry' &&
      Math.abs(reading.rollOutM - rollOutM) < 1e-3 &&
      stands(car, reading, position),
  )
  const [head, ...rest] = daysOf(counting, metric)
  return head && combineMeasurements([head, ...rest], (value) => USEFUL_RELATIVE_SD * value)
}

/** Whether a stage alters what is timed: a line, or a part of the driveline. */
export function touchesTimed(car: Car, position: number): boolean {
  if ((car.linesByStage[position]?.length ?? 0) > 0 || car.records.expectations.some(({ stageId }) => stageId === car.stages[position]?.id)) return true
  return car.records.parts.some((part) => part.drive && stageOfPart(car.records, part) === position)
}

/**
 * What was read at a stage itself with the car of that stage, by yardstick.
 * @example measuredYardsticks(CAR, 1) // {}
 */
export const measuredYardsticks = (car: Car, position: number): Partial<Record<Yardstick, { value: number; sd: number; proof: Proof }>> =>
  Object.fromEntries(
    YARDSTICKS.flatMap((metric) => {
      const found = measuredAt(car, position, metric)
      return found ? [[metric, { value: found.value, sd: found.sd, proof: found.proof }]] : []
    }),
  )

/** Whether anything was timed at a stage with the car of that stage. */
export const isTimedAt = (car: Car, position: number): boolean => YARDSTICKS.some((metric) => measuredAt(car, position, metric) !== undefined)

/** Whether any reading of a metric was entered, whatever came of it. */
export const isRead = ({ records }: Car, metric: string): boolean => records.readings.some((reading) => reading.metric === metric)

const byInput = ({ value, inputs }: SpreadValue) => ({ value, inputs })

/** A measured yardstick carried to a later stage by the ratio of what is worked out for both. */
function carried(car: Car, from: number, to: number, metric: Yardstick, measured: { value: number; sd: number }): { value: number; sd: number } | undefined {
  const [before, after] = [plannedYardsticks(car, from)?.[metric], plannedYardsticks(car, to)?.[metric]]
  if (!before || !after) return undefined
  const sourceAt = (position: number) => new Map(driveStage(car, position).inputs.map(({ key, source }) => [key as string, source]))
  const [was, is] = [sourceAt(from), sourceAt(to)]
  return carryYardstick({
    measured: measured.value,
    measuredSd: measured.sd,
    before: byInput(before),
    after: byInput(after),
    isShared: (key) => was.get(key) === is.get(key),
  })
}

/**
 * A yardstick of a stage: read there, else the latest that was read carried by the ratio of what is worked out for both, else worked out. Worked out it is
 * calculated, or a guess where guessed numbers carry over half of its variance. Undefined where something is missing.
 * @example yardstickAt(CAR, 1, 'zeroTo100') // undefined
 */
export function yardstickAt(car: Car, position: number, metric: Yardstick): StageValue | undefined {
  const planned = plannedYardsticks(car, position)?.[metric]
  const make = (value: number, sd: number, proof: Proof, fromPosition: number | null, isEmptyStage = false): StageValue => ({
    value,
    sd,
    proof,
    distribution: normalDistribution(value, sd),
    fromPosition,
    ...(isEmptyStage ? { isEmptyStage } : {}),
  })
  const isEmpty = position > 0 && !car.lists[position] && !touchesTimed(car, position)
  for (let k = position; k >= 0; k--) {
    const measured = measuredAt(car, k, metric)
    if (!measured) continue
    if (k === position) return make(measured.value, measured.sd, measured.proof, null)
    const touched = Array.from({ length: position - k }, (_, i) => k + 1 + i).some((at) => touchesTimed(car, at))
    if (!touched) return make(measured.value, measured.sd, leastProof(measured.proof, 'calculated'), k, true)
    const found = carried(car, k, position, metric, measured)
    return found && make(found.value, found.sd, 'calculated', k, isEmpty)
  }
  return planned ? make(planned.value, planned.sd, planned.guessShare > 0.5 ? 'guess' : 'calculated', null, isEmpty) : undefined
}
