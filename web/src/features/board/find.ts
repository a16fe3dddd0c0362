import type { FindInRoom } from '../../shared/define-room.ts'
import { stageAddress } from '../../shared/find-stages.ts'

export const findIn: FindInRoom = (base, records) => {
  const at = stageAddress(base)
  return [
    { key: 'do export', group: 'Do', label: 'Export the build as a file', hint: 'build file', action: 'export' },
    ...records.stages.map((stage) => ({ key: stage.id, group: 'Stages', label: `${stage.position} ${stage.name}`, hint: 'stage', to: at('board', stage.id) })),
  ]
}
