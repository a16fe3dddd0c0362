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
  lapTime: 'positive',
  cornerGrip: 'positive',
  brakeShare: 'share',
  entrySpeed: 'positive',
  tyresPerDay: 'positive',
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

/** What rule books ask of bodywork: limits, never targets; read with a tape. */
export const TAPE_METRICS = [
  'reachFront',
  'reachRear',
  'reachSide',
  'wingOverRoof',
  'groundHeight',
  'wingChord',
  'wingSpan',
  'wingElements',
] as const satisfies readonly Metric[]
export type TapeMetric = (typeof TAPE_METRICS)[number]

/** The metrics of aero. */
export const AERO_METRICS = ['downforce', 'aeroBalance', 'balanceGap', 'dragArea', 'clearance', ...TAPE_METRICS] as const satisfies readonly Metric[]
export type AeroMetric = (typeof AERO_METRICS)[number]

/** The metrics of the track. */
export const TRACK_METRICS = ['lapTime', 'cornerGrip', 'brakeShare', 'entrySpeed', 'tyresPerDay'] as const satisfies readonly Metric[]
export type TrackMetric = (typeof TRACK_METRICS)[number]

/** Metrics of which a stage can say what it should give, where no ledger can sum it. */
export const EXPECTED_METRICS = ['wheelPower'] as const satisfies readonly Metric[]

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
