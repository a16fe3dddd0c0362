import { ofStage, type WorkingMaker } from '../../stages/working-line.ts'
import { torqueWorking } from './working-torque.ts'

/** Every number of the room that can be opened, by its subject. */
export const PARTS_WORKINGS = { torque: ofStage(torqueWorking) } satisfies Record<string, WorkingMaker>
