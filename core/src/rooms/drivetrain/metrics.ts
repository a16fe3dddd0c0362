import type { Yardstick } from '../../drivetrain/yardsticks.ts'
import { type DrivetrainMetric, DRIVETRAIN_METRICS as KEYS } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, workOfEach } from '../../stages/define-metric.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { driveStage } from './stage-inputs.ts'
import { stagePath } from './stage-path.ts'
import { worstSlide } from './stage-slide.ts'
import { isTimedAt, touchesTimed, yardstickAt } from './stage-yardsticks.ts'

/** What the room's own answer rests on beside the car's own lists: courses are drawn where the room is shown. */
export const DRIVE_ROOM_READS = [
  'sessions',
  'pulls',
  'standings',
  'driveSettings',
  'readings',
  'enginePlans',
  'lifts',
  'partUses',
  'aeroDevices',
  'setups',
  'aeroTests',
  'aeroRuns',
] as const
/** What the metrics of the drivetrain rest on beside them. */
export const DRIVETRAIN_READS = [...DRIVE_ROOM_READS, 'courses'] as const

const WORDS: Readonly<Record<DrivetrainMetric, string>> = {
  zeroTo100: '0 to 100 km/h',
  zeroTo60Mph: '0 to 60 mph',
  from100To200: '100 to 200 km/h',
  sixtyFoot: '60 ft',
  quarterMile: 'Quarter mile',
  quarterMileSpeed: 'Quarter mile speed',
  topSpeed: 'Top speed',
  driveHeadroom: 'Driveline headroom',
  slideReserve: 'Power in hand in a slide',
}
const isSpeed = (key: DrivetrainMetric) => key === 'quarterMileSpeed' || key === 'topSpeed'
const isShare = (key: DrivetrainMetric) => key === 'driveHeadroom' || key === 'slideReserve'

export const DRIVETRAIN_METRICS = KEYS.map((key) =>
  defineMetric({
    key,
    word: WORDS[key],
    kind: isShare(key) ? 'share' : isSpeed(key) ? 'speed' : 'lapTime',
    sense: isSpeed(key) || isShare(key) ? 'atLeast' : 'atMost',
    basis: ['mass', 'power'],
    room: 'drivetrain',
    provedBy: isShare(key) ? [] : ['timed'],
    reads: DRIVETRAIN_READS,
    working: key,
    calculation: isShare(key) ? (key === 'driveHeadroom' ? 'drivetrain.torque-path' : 'drivetrain.slide') : 'build.yardsticks-at-stage',
    ...(isShare(key) ? { range: 0.2 } : {}),
  }),
)

const known = (value: number, sd: number, proof: StageValue['proof']): StageValue => ({
  value,
  sd,
  proof,
  distribution: normalDistribution(value, sd),
  fromPosition: null,
})

function headroomAt(car: Car, position: number): StageValue | undefined {
  const least = stagePath(car, position)?.headrooms[0]
  if (!least) return undefined
  // What the driveline meets is known by a fifth at best: shock and shares are common practice.
  return known(least.headroom, 0.2 * (1 - least.headroom), least.known === 'guess' ? 'guess' : 'calculated')
}

function reserveAt(car: Car, position: number): StageValue | undefined {
  const worst = worstSlide(car, position)
  if (!worst) return undefined
  const isGuess = driveStage(car, position).inputs.some(({ key, isGuess: guessed }) => guessed && (key === 'friction' || key === 'slideShare'))
  return known(worst.best?.inHand ?? -1, worst.sd, isGuess ? 'guess' : 'calculated')
}

/**
 * A metric of the drivetrain at a stage, worked out here and now: some take long, so a Board asks for them and goes on.
 * @example drivetrainValue(CAR, 1, 'zeroTo100') // undefined
 */
export function drivetrainValue(car: Car, position: number, metric: DrivetrainMetric): StageValue | undefined {
  if (metric === 'driveHeadroom') return headroomAt(car, position)
  if (metric === 'slideReserve') return reserveAt(car, position)
  return yardstickAt(car, position, metric satisfies Yardstick)
}

/** Whether a metric's sums take too long for an answer to wait for them. */
const isLate = (metric: DrivetrainMetric) => metric !== 'driveHeadroom'

export const DRIVETRAIN_VALUES = workOfEach(KEYS, (key) => ({
  at: (car, position) => (!driveStage(car, position).car ? undefined : isLate(key) ? car.later(key, position) : drivetrainValue(car, position, key)),
}))

export const DRIVETRAIN_MEASUREMENTS = [
  defineMeasurement({
    key: 'timed',
    metric: 'zeroTo100',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) => ({
      head: `Time ${facts(metric).word}`,
      text: isBuilt ? `${stage(position)} is built and was never timed.` : 'Nothing was timed yet: until then it is worked out.',
      to: at('drivetrain', position, '&tab=line'),
    }),
  }),
]

export const DRIVETRAIN_PROOFS = {
  timed: {
    touches: touchesTimed,
    isMeasuredAt: isTimedAt,
    isEnteredAt: ({ records }, stageId) => records.readings.some((entry) => entry.stageId === stageId),
  },
} satisfies Record<string, MeasurementWork>
