import type { Board, BrokenRecord, BuildRecord, BuildRecords, describeCalculation, NextAction, PullFileReport, Working } from '@bold-ballast/core'
import type { Meta, Stored } from './resources.ts'

export type StoredBuild = BuildRecord & Meta
type StoredList<Key extends keyof BuildRecords> = BuildRecords[Key] extends (infer Item)[] ? Stored<Item>[] : never

/** All records of a build, as the API answers them. */
export interface StoredRecords {
  readonly build: StoredBuild
  readonly stages: StoredList<'stages'>
  readonly limits: StoredList<'limits'>
  readonly targets: StoredList<'targets'>
  readonly changes: StoredList<'changes'>
  readonly expectations: StoredList<'expectations'>
  readonly weighings: StoredList<'weighings'>
  readonly inCars: StoredList<'inCars'>
  readonly sessions: StoredList<'sessions'>
  readonly pulls: StoredList<'pulls'>
  readonly standings: StoredList<'standings'>
  readonly zones: StoredList<'zones'>
  readonly boxes: StoredList<'boxes'>
  readonly lifts: StoredList<'lifts'>
  readonly balanceSteps: StoredList<'balanceSteps'>
  readonly sites: StoredList<'sites'>
  readonly ballastAims: StoredList<'ballastAims'>
  readonly photos: StoredList<'photos'>
  readonly parts: StoredList<'parts'>
  readonly partUses: StoredList<'partUses'>
  readonly enginePlans: StoredList<'enginePlans'>
  readonly pullPlans: StoredList<'pullPlans'>
  readonly dynoMappings: StoredList<'dynoMappings'>
}

/** The records as they can be used, and those that cannot, which no sum contains. */
export interface RecordsAnswer extends StoredRecords {
  readonly broken: readonly BrokenRecord[]
}

/** One build in the Garage. */
export interface GarageEntry {
  readonly build: StoredBuild
  readonly stageCount: number
  /** The latest stage that is built or proven, else the first that is underway, or null. */
  readonly reachedPosition: number | null
  readonly reachedName: string | null
  readonly reachedState: Board['stages'][number]['state'] | null
  readonly reachedStageId: string | null
  readonly mass: Board['rows'][number]['cells'][number]
  readonly powerToMass: Board['rows'][number]['cells'][number]
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

/** The channels of a pull as they were imported; null where a cell was empty. */
export interface PullSamples {
  readonly channels: readonly { readonly role: string; readonly name: string; readonly unit: string; readonly values: readonly (number | null)[] }[]
}

/** A part that its build shares with the others of the garage. */
export interface ShelfPart {
  readonly part: StoredRecords['parts'][number]
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
}
