import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { METRICS } from '../records/metric-keys.ts'
import { type BuildRecords, buildRecordsSchema } from '../records/records.ts'
import { makeAeroRoom } from '../rooms/aero/aero-room.ts'
import { makeDriveRoom } from '../rooms/drivetrain/drive-room.ts'
import { makeJobsRoom } from '../rooms/jobs/jobs-room.ts'
import { makePowerRoom } from '../rooms/power/power-room.ts'
import { makeSystemsRoom } from '../rooms/systems/systems-room.ts'
import { makeTrackRoom } from '../rooms/track/track-room.ts'
import { makeWeightRoom } from '../rooms/weight/weight-room.ts'
import { type Car, openCar } from '../stages/car.ts'
import { makeBoard } from './board.ts'
import { ANSWER_READS, type AnswerName } from './reads.ts'
import { makeRules } from './rule-readings.ts'

const ANSWERS: Record<AnswerName, (car: Car) => unknown> = {
  board: (car) => makeBoard(car, '2026-11-01'),
  weight: makeWeightRoom,
  power: makePowerRoom,
  aero: makeAeroRoom,
  drivetrain: makeDriveRoom,
  track: makeTrackRoom,
  rules: makeRules,
  systems: makeSystemsRoom,
  jobs: (car) => makeJobsRoom(car, '2026-11-01'),
}
const demo = JSON.parse(readFileSync(new URL('../../../demo/gannet/build.json', import.meta.url), 'utf8'))
/** A book with a rule on every metric, so that whatever a rule can read is read. */
const book = { id: 'all', name: 'All', rules: METRICS.map((metric) => ({ key: metric, text: metric, metric, sense: 'atLeast', value: 1 })) }
const gannet: BuildRecords = buildRecordsSchema.parse({ ...demo, ruleBooks: [book] })

/** What is read of only where a value is worked out that everything waits for here. */
const READ_LATER = ['courses', 'mounts']

test.each(Object.keys(ANSWERS) as AnswerName[])('%s reads the lists that it says, and no other', (name) => {
  const read = new Set<string>()
  const watched = new Proxy(gannet, {
    get(records, list) {
      if (list !== 'build') read.add(String(list))
      return records[list as keyof BuildRecords]
    },
  })
  ANSWERS[name](openCar(watched))
  const later = name === 'rules' ? READ_LATER : []
  expect([...new Set([...read, ...later])].sort()).toEqual([...ANSWER_READS[name]].sort())
})
