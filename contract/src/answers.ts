import type {
  Board,
  BoardCell,
  BrokenRecord,
  BuildRecord,
  describeCalculation,
  LogColumnMapping,
  LogReport,
  NextAction,
  PullFileReport,
  RecordList,
  RecordOf,
  Working,
} from '@bold-ballast/core'
import type { Meta, Stored } from './resources.ts'

export type StoredBuild = BuildRecord & Meta

/** All records of a build, as the API answers them. */
export type StoredRecords = { readonly build: StoredBuild } & { readonly [List in RecordList]: Stored<RecordOf<List>>[] }

/** The records as they can be used, and those that cannot, which no sum contains. */
export type RecordsAnswer = StoredRecords & { readonly broken: readonly BrokenRecord[] }

/** One build in the Garage. */
export interface GarageEntry {
  readonly build: StoredBuild
  /** Whether a number of it is being worked out. */
  readonly isWaiting?: true
  readonly stageCount: number
  /** The latest stage that is built or proven, else the first that is underway, or null. */
  readonly reachedPosition: number | null
  readonly reachedName: string | null
  readonly reachedState: Board['stages'][number]['state'] | null
  readonly reachedStageId: string | null
  /** Its stages in their order; done: built or proven. */
  readonly stages: readonly { readonly id: string; readonly name: string; readonly date: string | null; readonly isDone: boolean }[]
  readonly trail: Board['trail']
  readonly mass: BoardCell | null
  readonly powerToMass: BoardCell | null
  readonly brokenLimits: number
  readonly limitsThatWouldBreak: number
  readonly lateStages: number
  readonly lateTargets: number
  readonly next: NextAction | null
  /** What of it cannot be used, in words. */
  readonly problem: string | null
}

export type PullPreview = Omit<PullFileReport, 'pulls'> & {
  readonly delimiter: string
  readonly pulls: readonly (Omit<PullFileReport['pulls'][number], 'channels'> & { readonly channelNames: readonly string[] })[]
}

/** What the columns of a dyno file seem to be, and how its first rows read. */
export interface PullColumns {
  readonly delimiter: string
  readonly columns: PullFileReport['columns']
  readonly firstRows: readonly (readonly string[])[]
}

/** What the columns of a logger's file seem to be. */
export interface LogColumns {
  readonly delimiter: string
  readonly columns: readonly LogColumnMapping[]
  readonly firstRows: readonly (readonly string[])[]
}

/** A logger's file as it was read, before anything of it is stored. */
export interface LogPreview extends Pick<LogReport, 'channels' | 'rowCount' | 'durationS' | 'problems' | 'told'> {
  readonly delimiter: string
  readonly laps: readonly { readonly fromS: number; readonly lapS: number }[]
  /** Why no lap could be read from it; null: laps were. */
  readonly noLaps: string | null
}

/** A part of a log: each sample, or least and most of so many. */
export interface LogSamples {
  /** How many rows of the log are one entry. */
  readonly perEntry: number
  readonly timeS: readonly (number | null)[]
  readonly channels: readonly {
    readonly channel: number
    readonly role: string
    readonly name: string
    readonly unit: string
    readonly least: readonly (number | null)[]
    /** Equal to the least where each entry is one sample: left out. */
    readonly most: readonly (number | null)[] | null
  }[]
}

/** The channels of a pull as they were imported; null where a cell was empty. */
export interface PullSamples {
  readonly channels: readonly { readonly role: string; readonly name: string; readonly unit: string; readonly values: readonly (number | null)[] }[]
}

/** The lists of which a build may share records with the others of the garage. */
export const SHARED_LISTS = ['parts', 'ruleBooks', 'lessons', 'tracks', 'courses'] as const
export type SharedList = (typeof SHARED_LISTS)[number]
export type ShelfAddress = 'parts' | 'rule-books' | 'lessons' | 'tracks' | 'courses'

/** A record that its build shares with the others of the garage: they take a copy. */
export interface ShelfEntry<List extends SharedList = SharedList> {
  readonly record: StoredRecords[List][number]
  readonly buildName: string
}

export interface WorkingAnswer extends Working {
  readonly formula: string
  readonly sources: readonly string[]
  readonly assumptions: readonly string[]
}

/** A registered calculation as the list of them shows it; input and output are JSON Schema. */
export type CalculationDescription = ReturnType<typeof describeCalculation>

/** RFC 9457 problem, with the fields it is about and, for a stale write, the record as it stands now. */
export interface Problem {
  readonly type: string
  readonly title: string
  readonly status: number
  readonly detail: string
  readonly code: string
  readonly errors?: readonly { readonly path: string; readonly message: string }[]
  readonly current?: unknown
  /** What the log of the server has it under. */
  readonly requestId?: string
}
