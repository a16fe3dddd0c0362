import type { RecordList } from '../records/kinds.ts'
import { AERO_READS } from '../rooms/aero/metrics.ts'
import { CHECKS_READS } from '../rooms/checks/advice.ts'
import { DRIVE_ROOM_READS } from '../rooms/drivetrain/metrics.ts'
import { JOBS_READS } from '../rooms/jobs/metrics.ts'
import { POWER_READS } from '../rooms/power/metrics.ts'
import { SYSTEMS_READS } from '../rooms/systems/metrics.ts'
import { TRACK_READS } from '../rooms/track/metrics.ts'
import { METRIC_INFO } from './metrics.ts'

/** The lists that a car is opened from; every answer about it rests on them, and on the build's own record. */
const OF_THE_CAR = ['stages', 'changes', 'weighings', 'inCars', 'zones', 'parts', 'expectations', 'setups'] as const satisfies readonly RecordList[]

const OF_METRICS = Object.values(METRIC_INFO).flatMap(({ reads = [] }) => reads)

/** Which lists each answer about a build reads: a write to any other leaves it as it is. A test holds them against what is read. */
export const ANSWER_READS = {
  board: [
    ...new Set<RecordList>([
      ...OF_THE_CAR,
      'targets',
      'limits',
      'partUses',
      'ruleBooks',
      'hands',
      'decisions',
      'trackLogs',
      'powerBoxes',
      'panelMaterials',
      'panels',
      ...CHECKS_READS,
      ...OF_METRICS,
    ]),
  ],
  weight: [...OF_THE_CAR, 'targets', 'lifts', 'sites'],
  power: [...OF_THE_CAR, ...POWER_READS],
  aero: [...new Set<RecordList>([...OF_THE_CAR, ...POWER_READS, ...AERO_READS, 'panelMaterials', 'panels', 'targets', 'limits', 'ruleBooks'])],
  track: [...new Set<RecordList>([...OF_THE_CAR, ...TRACK_READS, 'trackPlans', 'loggerMappings', 'targets', 'limits', 'tasks', 'events'])],
  rules: [...new Set<RecordList>([...OF_THE_CAR, 'targets', 'limits', 'ruleBooks', ...OF_METRICS])],
  jobs: [...new Set<RecordList>([...OF_THE_CAR, ...JOBS_READS, ...POWER_READS, 'hands', 'decisions'])],
  systems: [...new Set<RecordList>([...OF_THE_CAR, ...SYSTEMS_READS, 'trackLogs', 'powerBoxes'])],
  drivetrain: [...new Set<RecordList>([...OF_THE_CAR, ...DRIVE_ROOM_READS])],
} as const satisfies Record<string, readonly RecordList[]>

export type AnswerName = keyof typeof ANSWER_READS
