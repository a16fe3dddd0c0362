import { z } from '../zod.ts'
import { KINDS, type RecordList, type RecordOf } from './kinds.ts'
import { type BuildRecord, buildFields } from './plan-kinds.ts'

/** All records of one build, as the calculations take them. */
export type BuildRecords = { build: BuildRecord } & { [List in RecordList]: RecordOf<List>[] }
type Lists = { [List in RecordList]: z.ZodDefault<z.ZodArray<z.ZodType<RecordOf<List>>>> }

const lists = Object.fromEntries(
  KINDS.map(({ list, fields, mostInFile }) => {
    const all = z.array(z.object(fields)).max(mostInFile)
    return [list, list === 'stages' ? all.min(1) : all.default([])]
  }),
) as unknown as Lists

/** The schema of a build's records; extra keys such as versions are left out before. */
export const buildRecordsSchema = z.object({ build: z.object(buildFields), ...lists })

/** Pairs of guess and weighing from the other builds of the garage, for a build that learns from them too. */
export const garagePairsSchema = z
  .array(z.strictObject({ guessKg: z.number().positive(), measuredKg: z.number().positive(), side: z.enum(['off', 'on']).default('on') }))
  .max(100_000)
