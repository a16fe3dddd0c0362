import type { RecordsAnswer } from '@bold-ballast/contract'

/** "stage 2 Glass", by the stage's id. */
export const stageNames = (records: RecordsAnswer) => new Map(records.stages.map((stage) => [stage.id, `stage ${stage.position} ${stage.name}`]))

/** The address of a room at a stage, with more of its query behind. */
export const stageAddress =
  (base: string) =>
  (room: string, stageId: string, more = '') =>
    `${base}/${room}?stage=${stageId}${more}`
