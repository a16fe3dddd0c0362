import { ofStage, type WorkingMaker } from '../../stages/working-line.ts'
import { centreWorking, heightWorking } from './working-centres.ts'
import { forecastWorking, frontWorking, massOffWorking, massWorking, scoreWorking } from './working-mass.ts'
import { unexplainedWorking, weighingWorking } from './working-weighing.ts'

/** Every number of the room that can be opened, by its subject. */
export const WEIGHT_WORKINGS = {
  mass: ofStage(massWorking),
  front: ofStage(frontWorking),
  massOff: ofStage(massOffWorking),
  score: ofStage(scoreWorking),
  weighing: weighingWorking,
  unexplained: unexplainedWorking,
  forecast: ofStage(forecastWorking),
  centre: centreWorking,
  height: heightWorking,
} satisfies Record<string, WorkingMaker>
