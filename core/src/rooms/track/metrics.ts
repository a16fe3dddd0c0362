import { TRACK_METRICS as KEYS, type TrackMetric } from '../../records/metric-keys.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, type MetricWork } from '../../stages/define-metric.ts'
import type { StageValue, Waiting } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import type { QuantityKind } from '../../units/units.ts'
import { cornerGripAt } from './corner-grip.ts'
import { driftAt } from './drift-days.ts'
import { anchorOf, drivenAt } from './driven-laps.ts'
import { expectedDriftDay } from './expected.ts'
import { lapStage } from './lap-inputs.ts'
import { brakeShareAt } from './stage-brakes.ts'
import { isLapUnchanged, lapAtStage, lapMissAt, type StageLap } from './stage-lap.ts'
import { controlTrack, standingSessions, touchesLaps, trackOf, trackSessions } from './track-sessions.ts'

/** What the track rests on beside the car's own lists. */
export const TRACK_READS = [
  'sessions',
  'pulls',
  'standings',
  'driveSettings',
  'enginePlans',
  'lifts',
  'aeroDevices',
  'setups',
  'aeroTests',
  'aeroRuns',
  'tracks',
  'trackSessions',
  'trackLogs',
  'logWindows',
  'laps',
  'driftRuns',
  'brakeSystems',
  'lapFits',
] as const

interface Facts {
  readonly word: string
  readonly kind: QuantityKind
  readonly sense: 'atLeast' | 'atMost' | 'between'
  readonly calculation: string
  readonly provedBy: readonly string[]
  readonly range?: number
}

const FACTS: Readonly<Record<TrackMetric, Facts>> = {
  lapTime: { word: 'Lap', kind: 'lapTime', sense: 'atMost', calculation: 'build.lap-at-stage', provedBy: ['laps'] },
  cornerGrip: { word: 'Grip that corners show', kind: 'ratio', sense: 'atLeast', calculation: 'track.grip-from-log', provedBy: ['grip'] },
  brakeShare: { word: 'Front share of the brakes', kind: 'share', sense: 'between', calculation: 'brake.share-from-pressure', provedBy: [], range: 0.2 },
  entrySpeed: { word: 'Entry speed of a slide', kind: 'speed', sense: 'atLeast', calculation: 'drift.season', provedBy: ['drift'] },
  tyresPerDay: { word: 'Tyres a day', kind: 'ratio', sense: 'atMost', calculation: 'drift.season', provedBy: ['drift'] },
}

export const TRACK_METRICS = KEYS.map((key) =>
  defineMetric({
    key,
    ...FACTS[key],
    basis: key === 'lapTime' ? ['mass', 'power'] : [],
    room: 'track',
    reads: TRACK_READS,
    working: key,
  }),
)

const known = (value: number, sd: number, proof: StageValue['proof'], fromPosition: number | null = null): StageValue => ({
  value,
  sd,
  proof,
  distribution: normalDistribution(value, sd),
  fromPosition,
})

const asStageValue = (car: Car, position: number, { lapS, sdS, proof, fromPosition }: StageLap): StageValue => ({
  ...known(lapS, sdS, proof, fromPosition),
  ...(fromPosition !== null && position > 0 && !car.lists[position] ? { isEmptyStage: true } : {}),
})

/**
 * The lap of a stage worked out here and now: a fit and a forecast are some sixty laps of the model, so a Board asks for it and goes on.
 * @example lapTimeValue(CAR, 1) // undefined
 */
export function lapTimeValue(car: Car, position: number, trackId: string | null = null): StageValue | undefined {
  const lap = lapAtStage(car, position, trackId)
  return lap && asStageValue(car, position, lap)
}

/**
 * How far a driven lap lies from what was forecast of it, worked out here and now, s; undefined where nothing was forecast or driven.
 * @example lapMissValue(CAR, 1, null) // undefined
 */
export function lapMissValue(car: Car, position: number, trackId: string | null): StageValue | undefined {
  const found = lapMissAt(car, position, trackId)
  return found && known(found.missS, found.sdS, 'calculated')
}

/** At once where it was driven or is carried as it is; later where the model has to drive it. */
function lapTimeAt(car: Car, position: number, trackId: string | null = null): StageValue | Waiting | undefined {
  const track = trackOf(car, trackId)
  if (!track) return undefined
  const driven = drivenAt(car, position, track.id)
  if (driven) return known(driven.lapS, driven.factSdS, driven.proof)
  if (!lapStage(car, position).car && !anchorOf(car, position, track.id)) return undefined
  return isLapUnchanged(car, position, track) ? lapTimeValue(car, position, track.id) : car.later(`lapTime ${track.id}`, position)
}

/** How well pistons and pads are known, as a share of the front's (common practice, no source). */
const BRAKE_SHARE_SD = 0.02

/** Expected entry speeds and tyres that say no spread are known to so much (common practice, no source). */
const EXPECTED_DRIFT_SHARE = 0.1

/** What drift runs of the stage itself say, else those of the latest stage before it, or what was expected since. */
function driftValue(car: Car, position: number, metric: 'entrySpeed' | 'tyresPerDay'): StageValue | undefined {
  const expected = expectedDriftDay(car, position, metric)
  for (let at = position; at >= 0; at--) {
    const found = driftAt(car, at)?.[metric === 'entrySpeed' ? 'entryMps' : metric]
    if (found) return known(found.value, found.sd, at === position ? 'measured' : 'calculated', at === position ? null : at)
    if (expected?.at === at) {
      const { value, sd, proof } = expected.entry
      return known(value, sd ?? EXPECTED_DRIFT_SHARE * value, proof, at === position ? null : at)
    }
  }
  return undefined
}

/** What the tyres hold as the fit of a driven lap has them: friction times the fitted factor. Later where the model has to find it. */
function plannedGripAt(car: Car, position: number): StageValue | Waiting | undefined {
  const track = controlTrack(car)
  const anchor = track && anchorOf(car, position, track.id)
  return track && anchor && lapStage(car, position).car ? car.later(`cornerGrip ${track.id}`, position) : undefined
}

/**
 * Grip of a stage's tyres by the fit of its lap, worked out here and now; undefined where nothing was driven or fitted.
 * @example plannedGripValue(CAR, 1) // undefined
 */
export function plannedGripValue(car: Car, position: number, trackId: string | null = null): StageValue | undefined {
  const lap = lapAtStage(car, position, trackId)
  const friction = lapStage(car, position).inputs.find(({ key }) => key === 'friction')
  if (!lap?.fit || !friction) return undefined
  const value = friction.value * lap.fit.gripFactor
  // What the friction is unsure of, the fit takes in: their product is as sure as the fit.
  const proof = lap.how === 'guess' || lap.proof === 'guess' ? 'guess' : 'calculated'
  return known(value, friction.value * lap.fit.gripFactorSd, proof, lap.fromPosition ?? position)
}

/** What windows of the stage itself say; else those of the latest stage before it, by what its tyres hold more or less; else what the fit of its lap says. */
function cornerGripValue(car: Car, position: number): StageValue | Waiting | undefined {
  for (let at = position; at >= 0; at--) {
    const found = cornerGripAt(car, at)
    if (!found) continue
    if (at === position) return known(found.value, found.sd, found.proof)
    const friction = (stage: number) => lapStage(car, stage).inputs.find(({ key }) => key === 'friction')
    const [before, after] = [friction(at), friction(position)]
    const isSame = before?.source === after?.source
    const ratio = before && after && !isSame ? after.value / before.value : 1
    const sd = isSame || !after ? found.sd : Math.hypot(found.sd, (after.sd / after.value) * found.value)
    return known(found.value * ratio, sd * ratio, isSame ? 'calculated' : 'guess', at)
  }
  return plannedGripAt(car, position)
}

export const TRACK_VALUES: Readonly<Record<TrackMetric, MetricWork>> = {
  lapTime: { at: lapTimeAt, place: (car, trackId) => trackOf(car, trackId)?.name ?? null },
  cornerGrip: { at: cornerGripValue },
  brakeShare: {
    at: (car, position) => {
      const found = brakeShareAt(car, position)
      return found && known(found.value, BRAKE_SHARE_SD, 'calculated')
    },
  },
  entrySpeed: { at: (car, position) => driftValue(car, position, 'entrySpeed') },
  tyresPerDay: { at: (car, position) => driftValue(car, position, 'tyresPerDay') },
}

export const TRACK_MEASUREMENTS = [
  defineMeasurement({
    key: 'laps',
    metric: 'lapTime',
    cure: ({ position, isBuilt }, { stage, at }) => ({
      head: 'Drive a session on the control track',
      text: isBuilt ? `${stage(position)} is built and never lapped.` : 'No lap was driven yet: until then it is a range in whole seconds.',
      to: at('track', position, '&tab=sessions'),
    }),
  }),
  defineMeasurement({
    key: 'grip',
    metric: 'cornerGrip',
    cure: ({ position, isBuilt }, { stage, at }) => ({
      head: 'Log a session and keep the grip of its corners',
      text: isBuilt ? `${stage(position)} is built and no log of it says what its corners hold.` : 'No log says yet what corners hold.',
      to: at('track', position, '&tab=proof'),
    }),
  }),
  defineMeasurement({
    key: 'drift',
    metric: 'entrySpeed',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) => ({
      head: `Count runs, for ${facts(metric).word.toLowerCase()}`,
      text: isBuilt ? `${stage(position)} is built and no run of it was counted.` : 'No run was counted yet.',
      to: at('track', position, '&tab=sessions'),
    }),
  }),
]

/** A stage asks for laps or runs where a target on them is due: nobody goes back to lap a car that is no more. */
const isDueAt = (car: Car, position: number, metrics: readonly string[]): boolean => {
  const last = car.stages.length - 1
  return car.records.targets.some(
    ({ metric, dueStageId }) => metrics.includes(metric) && (dueStageId === null ? last : stageIndex(car, dueStageId)) === position,
  )
}

export const TRACK_PROOFS = {
  laps: {
    asksAsBought: false,
    touches: (car, position) => touchesLaps(car, position) && isDueAt(car, position, ['lapTime']),
    isMeasuredAt: (car, position) => {
      const track = controlTrack(car)
      return track !== undefined && standingSessions(car, position, track.id).length > 0
    },
    isEnteredAt: ({ records }, stageId) => records.trackSessions.some((entry) => entry.kind === 'laps' && entry.stageId === stageId),
  },
  grip: {
    asksAsBought: false,
    touches: (car, position) => touchesLaps(car, position) && isDueAt(car, position, ['cornerGrip']),
    isMeasuredAt: (car, position) => cornerGripAt(car, position) !== undefined,
    isEnteredAt: (car, stageId) => trackSessions(car).some(({ record, logs }) => record.stageId === stageId && logs.length > 0),
  },
  drift: {
    asksAsBought: false,
    touches: (car, position) => touchesLaps(car, position) && isDueAt(car, position, ['entrySpeed', 'tyresPerDay']),
    isMeasuredAt: (car, position) => driftAt(car, position) !== undefined,
    isEnteredAt: (car, stageId) => trackSessions(car).some(({ record }) => record.kind === 'runs' && record.stageId === stageId),
  },
} satisfies Record<string, MeasurementWork>
