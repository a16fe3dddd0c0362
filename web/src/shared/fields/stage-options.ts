import type { Stage } from '@bold-ballast/core'

/** The stages of a build, to pick one. */
export const stageOptions = (stages: readonly Stage[]) => stages.map((stage) => ({ value: stage.id, label: `${stage.position} ${stage.name}` }))
