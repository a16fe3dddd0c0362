import type { QuantityKind } from '../units/units.ts'

/**
 * The key of every metric that a target or a limit can be about, and which numbers a goal of it may have: above zero, a share up to 1, or any.
 * What a metric is, how it is worked out and what proves it stands in its declaration, in the room it belongs to.
 */
export const METRIC_GOALS = {
  massReady: 'positive',
  massOff: 'positive',
  wheelPower: 'positive',
  peakTorque: 'positive',
  powerToMass: 'positive',
  frontShare: 'share',
  zeroTo100: 'positive',
  zeroTo60Mph: 'positive',
  from100To200: 'positive',
  sixtyFoot: 'positive',
  quarterMile: 'positive',
  quarterMileSpeed: 'positive',
  topSpeed: 'positive',
  driveHeadroom: 'signed',
  slideReserve: 'signed',
  downforce: 'signed',
  aeroBalance: 'share',
  balanceGap: 'signed',
  dragArea: 'positive',
  clearance: 'signed',
  reachFront: 'signed',
  reachRear: 'signed',
  reachSide: 'signed',
  wingOverRoof: 'signed',
  groundHeight: 'positive',
  wingChord: 'positive',
  wingSpan: 'positive',
  wingElements: 'positive',
  noise: 'positive',
  lapTime: 'positive',
  cornerGrip: 'positive',
  brakeShare: 'share',
  entrySpeed: 'positive',
  tyresPerDay: 'positive',
  moneyToStage: 'positive',
  ruleRatio: 'positive',
  coolantHot: 'positive',
  supplyMargin: 'signed',
  leastGap: 'signed',
} as const satisfies Record<string, GoalRange>

export type GoalRange = 'positive' | 'share' | 'signed'
export type Metric = keyof typeof METRIC_GOALS
export const METRICS = Object.keys(METRIC_GOALS) as [Metric, ...Metric[]]

/** The metrics of the drivetrain. */
export const DRIVETRAIN_METRICS = [
  'zeroTo100',
  'zeroTo60Mph',
  'from100To200',
  'sixtyFoot',
  'quarterMile',
  'quarterMileSpeed',
  'topSpeed',
  'driveHeadroom',
  'slideReserve',
] as const satisfies readonly Metric[]
export type DrivetrainMetric = (typeof DRIVETRAIN_METRICS)[number]

/** What rule books ask of bodywork and of its noise: limits, never targets; read with a tape or a meter. */
export const TAPE_METRICS = [
  'reachFront',
  'reachRear',
  'reachSide',
  'wingOverRoof',
  'groundHeight',
  'wingChord',
  'wingSpan',
  'wingElements',
  'noise',
] as const satisfies readonly Metric[]
export type TapeMetric = (typeof TAPE_METRICS)[number]

/** The metrics of aero. */
export const AERO_METRICS = ['downforce', 'aeroBalance', 'balanceGap', 'dragArea', 'clearance', ...TAPE_METRICS] as const satisfies readonly Metric[]
export type AeroMetric = (typeof AERO_METRICS)[number]

/** The metrics of the track. */
export const TRACK_METRICS = ['lapTime', 'cornerGrip', 'brakeShare', 'entrySpeed', 'tyresPerDay'] as const satisfies readonly Metric[]
export type TrackMetric = (typeof TRACK_METRICS)[number]

type ExpectedMode = 'to' | 'by' | 'times'
interface Expected {
  readonly word: string
  readonly kind: QuantityKind
  readonly modes: readonly ExpectedMode[]
}

/** What a lap rests on that a stage can be expected to give where no part or device says it. */
const OF_LAPS = {
  grip: { word: 'grip of the tyres', kind: 'ratio', modes: ['times'] },
  brakingUse: { word: 'how much of the brakes is used', kind: 'share', modes: ['to'] },
  shiftTime: { word: 'time of a shift', kind: 'lapTime', modes: ['to'] },
  dragArea: { word: 'drag area', kind: 'area', modes: ['by'] },
  downforceFront: { word: 'downforce in front', kind: 'area', modes: ['by'] },
  downforceRear: { word: 'downforce at the rear', kind: 'area', modes: ['by'] },
} as const satisfies Record<string, Expected>
export type LapExpected = keyof typeof OF_LAPS

/** What a stage can say that it should give, where no ledger can sum it: how it is called, measured and said. */
export const EXPECTED = {
  wheelPower: { word: 'power', kind: 'power', modes: ['to', 'by', 'times'] },
  ...OF_LAPS,
  entrySpeed: { word: 'entry speed of a slide', kind: 'speed', modes: ['to'] },
  tyresPerDay: { word: 'tyres a day', kind: 'ratio', modes: ['to'] },
} as const satisfies Record<string, Expected>
export type ExpectedMetric = keyof typeof EXPECTED
export const EXPECTED_METRICS = Object.keys(EXPECTED) as [ExpectedMetric, ...ExpectedMetric[]]

/**
 * Why a number can be no goal of a metric; null where it can.
 * @example whyNoGoal('signed', -0.2) // null
 */
export function whyNoGoal(range: GoalRange, value: number): string | null {
  if (range === 'signed' || (value > 0 && range === 'positive')) return null
  if (range === 'share')
    return value > 1 ? 'A front share lies under 100 %.' : value > 0 ? null : 'A share lies above 0 %. Type how much of the whole it shall be.'
  return 'This goal must be more than zero. Type what it shall reach.'
}
