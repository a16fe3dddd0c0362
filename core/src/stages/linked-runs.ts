import type { Stage } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'

/**
 * Whether each stage lists something of its own: a change that is not dropped, a part or an expectation. A stage that lists nothing may hide
 * any work, so no measurement is carried over it as if nothing had happened.
 * @example listingStages(EXAMPLE, EXAMPLE.stages) // [false, true]
 */
export function listingStages(records: Pick<BuildRecords, 'changes' | 'parts' | 'expectations'>, stages: readonly Stage[]): boolean[] {
  const { changes, parts, expectations } = records
  const listing = new Set<string | null>([...changes.filter(({ state }) => state !== 'dropped'), ...parts, ...expectations].map(({ stageId }) => stageId))
  return stages.map(({ id }) => listing.has(id))
}

/**
 * The run of linked stages that each stage belongs to: a stage that lists nothing begins a new one. Two stages of one run are linked: every stage
 * after the earlier up to the later one lists what was done.
 * @example linkedRuns([false, true, false, true]) // [0, 0, 1, 1]
 */
export function linkedRuns(listing: readonly boolean[]): number[] {
  let run = 0
  return listing.map((lists, position) => {
    if (position > 0 && !lists) run += 1
    return run
  })
}
