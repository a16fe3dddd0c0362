import {
  type BuildRecords,
  type CalculationAnswer,
  findCalculation,
  type LiveLists,
  lateValue,
  type MovedLine,
  openCar,
  orElse,
  type RoadAsked,
  type RoadSummary,
  runCalculation,
  type StageValue,
  summariseRoad,
  type WhatMoved,
  whatMoved,
} from '@bold-ballast/core'
import { readBuildText } from '../build-reading/read-build-text.ts'
import { columnsOf, logColumnsOf, logOf, pullsOf } from '../file-reading/read-for.ts'
import { garageRow } from '../garage-rows/garage-row.ts'
import { solverTools } from '../solver/solver.ts'

interface MovedAsked {
  readonly lists: LiveLists
  readonly lines: readonly MovedLine[]
  readonly asked: Parameters<typeof whatMoved>[2]
  readonly isWhole: boolean
}

/** What the pool can be asked for; each runs on a thread of its own, away from the one that serves. */
export const JOBS = {
  /** Answers as soon as its thread is up. */
  nothing: (_: null): null => null,
  /** A registered calculation on raw input. */
  calculate: async ({ name, body }: { readonly name: string; readonly body: unknown }): Promise<CalculationAnswer> => {
    const calculation = findCalculation(name)
    if (!calculation) throw new Error(`no calculation is called ${name}`)
    return runCalculation(calculation, body, calculation.needsSolver ? await solverTools() : {})
  },
  /** A metric whose sums take long, at every stage of a build. */
  lateValues: ({ records, metric }: { readonly records: BuildRecords; readonly metric: string }): (StageValue | undefined)[] => {
    const car = openCar(records)
    return car.stages.map((_, position) =>
      orElse(
        () => lateValue(car, position, metric),
        () => undefined,
      ),
    )
  },
  /** What moved a number of a build over a part of its log. */
  whatMoved: ({ lists, lines, asked, isWhole }: MovedAsked): WhatMoved => whatMoved(lists, lines, asked, isWhole),
  /** What the Garage says of a build. */
  garageRow,
  /** A road in short, for Board and rail. */
  road: (asked: RoadAsked): RoadSummary => summariseRoad(asked),
  /** What the columns of a file of pulls seem to be. */
  columnsOf,
  /** The pulls of a file. */
  pullsOf,
  /** What the columns of a logger's file seem to be. */
  logColumnsOf,
  /** A log of a session on track. */
  logOf,
  /** The text of a build file. */
  readBuildText,
}

export type JobName = keyof typeof JOBS
export type JobInput<Name extends JobName> = Parameters<(typeof JOBS)[Name]>[0]
export type JobAnswer<Name extends JobName> = Awaited<ReturnType<(typeof JOBS)[Name]>>
