import {
  type Course,
  type DriveCar,
  type DriveInput,
  movedCar,
  type RankedFinals,
  rankFinals,
  runnableCourse,
  type SlideMap,
  type SlideSetup,
  slideMap,
} from '@bold-ballast/core'
import { expose } from 'comlink'

/** A final drive to try, with the radius of its tyre where that is another. */
export interface TriedFinal {
  readonly id: string
  readonly finalRatio: number
  readonly radiusM?: number | undefined
}

/** Inputs whose doubt moves the difference of two finals; what all finals share in full is left out. */
const MOVES_DIFFERENCES = new Set(['friction', 'shiftS', 'power', 'dragAreaM2', 'massKg', 'engineInertiaKgM2'])

const work = {
  map(setup: Pick<SlideSetup, 'car' | 'train'>, speedsMps: number[], anglesRad: number[]): SlideMap {
    return slideMap(setup, speedsMps, anglesRad)
  },
  finals(
    car: DriveCar,
    inputs: readonly DriveInput[],
    course: Course,
    choices: readonly TriedFinal[],
    wornGears: readonly number[],
    told: (done: number) => void,
  ): RankedFinals {
    const variants = inputs.flatMap(({ key, sd }) => (MOVES_DIFFERENCES.has(key) && sd > 0 ? [movedCar(car, key, sd)] : []))
    return rankFinals(car, runnableCourse(course, car), choices, { variants, wornGears, told })
  },
}
export type DriveWorker = typeof work

expose(work)
