import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

/** One step of a first drive: laps at a pace, then a stop. */
export interface ShakedownStep {
  readonly name: string
  /** How much longer a lap takes than at full pace. */
  readonly factor: number
  readonly wantLaps: number
  readonly leastLaps: number
  /** How long the car cools after it. */
  readonly coolS: number
}

export interface ShakedownHour {
  /** Laps of each step that is driven, in their order; what is not named waits for another day. */
  readonly laps: readonly number[]
  /** The stop behind each step but the last, s. */
  readonly stopsS: readonly number[]
  /** What is left of the booked time, s. */
  readonly spareS: number
  /** What all steps with all their laps would take: what to book, s. */
  readonly wholeS: number
  /** Laps that were wanted and are not driven. */
  readonly lapsLeftOut: number
}

const lapTime = (lapS: number, { factor }: ShakedownStep) => lapS * factor

/** Set-up, laps and the stops between them. */
function takesS(input: { setUpS: number; lapS: number }, steps: readonly ShakedownStep[], stopsS: readonly number[], laps: readonly number[]): number {
  const driven = laps.reduce((sum, count, i) => sum + count * lapTime(input.lapS, steps[i] as ShakedownStep), 0)
  return input.setUpS + driven + stopsS.slice(0, Math.max(0, laps.length - 1)).reduce((sum, stop) => sum + stop, 0)
}

/**
 * A first drive laid into booked time: as many steps in their order as fit at their least laps, then laps added from the lowest step up. A stop is the longer of
 * cooling and the round between; no step and no check of a round is ever skipped. Rejects booked time that does not hold the first step, with how much more to
 * book, and least laps over those wanted. Times in s.
 * @example shakedownHour({ bookedS: 3600, setUpS: 480, lapS: 75, roundS: 540, steps: [{ name: 'bed', factor: 1.5, wantLaps: 4, leastLaps: 3, coolS: 600 }, { name: '65 %', factor: 1.3, wantLaps: 5, leastLaps: 3, coolS: 300 }] }).spareS // 1582.5
 */
export function shakedownHour(input: {
  bookedS: number
  setUpS: number
  lapS: number
  /** The round of checks between two steps, by the people there are. */
  roundS: number
  steps: readonly ShakedownStep[]
}): ShakedownHour {
  const { bookedS, lapS, roundS, steps } = input
  requirePositive(bookedS, 'bookedS')
  requireWithin(input.setUpS, 0, 1e5, 'setUpS')
  requireWithin(lapS, 5, 3600, 'lapS')
  requireWithin(roundS, 0, 1e5, 'roundS')
  for (const [i, { leastLaps, wantLaps, factor }] of steps.entries()) {
    requireWithin(factor, 0.01, 300, `steps.${i}.factor`)
    if (leastLaps > wantLaps)
      throw new CalculationError('inconsistent', `steps.${i}.leastLaps`, 'More laps are needed at the least than are wanted. Swap the two.')
  }
  const allStops = steps.slice(0, -1).map(({ coolS }) => Math.max(coolS, roundS))
  const wholeS = takesS(
    input,
    steps,
    allStops,
    steps.map(({ wantLaps }) => wantLaps),
  )
  let laps: number[] = []
  for (const step of steps) {
    const next = [...laps, step.leastLaps]
    if (takesS(input, steps, allStops, next) > bookedS) break
    laps = next
  }
  if (laps.length === 0) {
    const first = steps[0] ? takesS(input, steps, allStops, [steps[0].leastLaps]) : 0
    throw new CalculationError('out-of-range', 'bookedS', `Book ${Math.ceil((first - bookedS) / 60)} minutes more for the first step.`)
  }
  let spareS = bookedS - takesS(input, steps, allStops, laps)
  laps = laps.map((least, i) => {
    const step = steps[i] as ShakedownStep
    const more = Math.min(step.wantLaps - least, Math.floor(spareS / lapTime(lapS, step) + 1e-9))
    spareS -= more * lapTime(lapS, step)
    return least + more
  })
  const wanted = steps.reduce((sum, { wantLaps }) => sum + wantLaps, 0)
  return { laps, stopsS: allStops.slice(0, Math.max(0, laps.length - 1)), spareS, wholeS, lapsLeftOut: wanted - laps.reduce((sum, count) => sum + count, 0) }
}
