import { METRICS, z } from '@bold-ballast/core'

export const LINK_HEADER = 'x-link'

export const linkSchema = z.strictObject({
  /** Left out: the whole Board. */
  stageId: z.uuid().optional(),
  /** Null: until it is withdrawn. */
  days: z.int().min(1).max(365).nullable().default(30),
})

/** A link to a Board or a stage, for its owners. */
export interface LinkEntry {
  readonly id: string
  readonly stageName: string | null
  readonly madeAt: string
  readonly expiresAt: string | null
  readonly withdrawnAt: string | null
  readonly opens: number
}

const proof = z.enum(['guess', 'catalogue', 'calculated', 'measured', 'confirmed'])
const stage = z.strictObject({ position: z.int(), name: z.string(), date: z.string().nullable(), state: z.string() })
const cell = z.strictObject({ value: z.number(), sd: z.number(), proof })
const goal = z.strictObject({
  kind: z.enum(['target', 'limit']),
  sense: z.enum(['atMost', 'atLeast', 'between']),
  value: z.number(),
  highValue: z.number().nullable(),
  /** Which stage it is due at, or counts from. */
  position: z.int().nullable(),
  word: z.string().nullable(),
  chance: z.number().nullable(),
})
const row = z.strictObject({ metric: z.enum(METRICS), place: z.string().nullable(), goal: goal.nullable(), cells: z.array(cell.nullable()) })

/**
 * All that a share link shows, and nothing beside it: numbers with spread and proof, goals with their verdict, stages with their dates.
 * No ids but the place of a stage, no people, log, notes, costs or pictures.
 */
export const sharedSheetSchema = z.strictObject({
  buildName: z.string(),
  className: z.string().nullable(),
  /** Of a stage card: which stage; null: the whole Board. */
  position: z.int().nullable(),
  /** The last change it shows. */
  at: z.string(),
  stages: z.array(stage),
  rows: z.array(row),
})
export type SharedSheet = z.output<typeof sharedSheetSchema>
