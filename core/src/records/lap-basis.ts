import { LAP_SCHOOLS } from '../stats/best-laps.ts'
import { z } from '../zod.ts'
import { id } from './common-fields.ts'

/** The control track of a build, and what its sessions are quoted by. */
export const lapBasisSchema = z
  .strictObject({
    trackId: id.nullable().default(null),
    /** Null: the best lap for time attack, else the median. */
    school: z.enum(LAP_SCHOOLS).nullable().default(null),
  })
  .nullable()
  .default(null)
export type LapBasis = z.output<typeof lapBasisSchema>
