import { METRICS, type ResourceName, type WhatMoved, z } from '@bold-ballast/core'

export const logQuerySchema = z.strictObject({
  /** Entries before this one; the latest when left out. */
  before: z.coerce.number().int().positive().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})

export type LogAction = 'create' | 'update' | 'remove' | 'restore' | 'reorder' | 'import' | 'batch'

/** One line of a build's log: who did what to which record, with the fields that changed. */
export interface LogEntry {
  readonly id: number
  readonly at: string
  readonly by: string
  /** When it was typed, where it waited in a browser before it was stored. */
  readonly typedAt: string | null
  readonly action: LogAction
  readonly resource: ResourceName | 'builds'
  readonly recordId: string
  readonly name: string
  /** How many records it touched. */
  readonly recordCount: number
  readonly fields: readonly { readonly field: string; readonly before: unknown; readonly after: unknown }[]
  /** The entry this one took back, and the one that took this back. */
  readonly undoes: number | null
  readonly undoneBy: number | null
  /** Null where it can be taken back now, else why not. */
  readonly keptBecause: string | null
}

export interface LogPage {
  readonly entries: readonly LogEntry[]
  /** Ask for entries before this one; null at the beginning of the log. */
  readonly nextBefore: number | null
}

const entryOrDay = z.union([z.coerce.number().int().min(0), z.iso.date()])

export const sinceQuerySchema = z.strictObject({
  /** A line of the log, or a day: what stood behind that line, or at the beginning of that day; left out: what stood a week ago. */
  from: entryOrDay.optional(),
  metric: z.enum(METRICS).default('massReady'),
  /** Left out: the last stage. */
  stage: z.string().max(80).optional(),
  /** Both ends alone, which takes far less. */
  ends: z.enum(['yes', 'no']).default('no'),
  /** The day it is where the page is looked at. */
  day: z.iso.date().optional(),
})

/** What moved one number of a build since a line of its log. */
export interface SinceAnswer {
  /** The line that it stood behind; 0: before the first. */
  readonly from: number
  /** When that line was written; null: before the first. */
  readonly fromAt: string | null
  /** The last line there is, and when it was written. */
  readonly revision: number
  readonly revisionAt: string
  readonly lineCount: number
  readonly stageId: string
  readonly moved: WhatMoved
}

/** Name of the answer's header that tells which line of the log a write made. */
export const LOG_ENTRY_HEADER = 'x-log-entry'
/** How many there are of what an answer holds a page of. */
export const TOTAL_HEADER = 'x-total'

/** Name of the request's header that tells when a write was typed that waited in a browser. */
export const TYPED_AT_HEADER = 'x-typed-at'

/** Whether an entry of the log holds a list of records rather than one. */
export const isListEntry = (action: LogAction): boolean => action === 'import' || action === 'reorder' || action === 'batch'
