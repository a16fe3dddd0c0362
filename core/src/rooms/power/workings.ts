import { ofStage, type WorkingMaker } from '../../stages/working-line.ts'
import { powerWorking, ratioWorking } from './working-power.ts'
import { pullWorking, sessionWorking } from './working-sessions.ts'

/** Every number of the room that can be opened, by its subject. */
export const POWER_WORKINGS = {
  power: ofStage(powerWorking),
  ratio: ofStage(ratioWorking),
  session: sessionWorking,
  pull: pullWorking,
} satisfies Record<string, WorkingMaker>
