import { attempt, orElse } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { combineMeasurements } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import type { LapSchool } from '../../stats/best-laps.ts'
import { normalCdf } from '../../stats/normal.ts'
import { lapOf } from '../../track/lap.ts'
import type { LapCar } from '../../track/lap-car.ts'
import { asReference, fitGrip, type GripFit } from '../../track/lap-fit.ts'
import { forecastLap, guessLap, type LapDoubt } from '../../track/lap-forecast.ts'
import type { TrackLine } from '../../track/track.ts'
import type { LapInput } from './lap-input.ts'
import { type LapStage, lapStage, unsureLapInputs } from './lap-inputs.ts'
import { lapSchoolOf, type RoomTrackSession, standingSessions, touchesLaps, trackOf, USEFUL_LAP_SHARE } from './track-sessions.ts'

/** A lap that was driven with the car of a stage. */
export interface DrivenLap {
  readonly position: number
  readonly lapS: number
  /** Of the lap as a fact: the clock alone for a best lap. */
  readonly factSdS: number
  /** Of what it says of the car: laps, clock and outing. */
  readonly sdS: number
  readonly proof: Proof
  readonly sessionIds: readonly string[]
  readonly clean: number
  readonly day: string
}

/** What one day's sessions come to: the best of them, or the median of the latest. */
function ofDay(sessions: readonly RoomTrackSession[], school: LapSchool): RoomTrackSession {
  const byLap = [...sessions].sort((a, b) => (a.value?.lapS ?? 0) - (b.value?.lapS ?? 0))
  return (school === 'best' ? byLap[0] : sessions.at(-1)) as RoomTrackSession
}

/** What was driven on a track with the car of a stage itself; undefined where no session stands for it. */
export function drivenAt(car: Car, position: number, trackId: string): DrivenLap | undefined {
  const school = lapSchoolOf(car)
  const days = new Map<string, RoomTrackSession[]>()
  for (const session of standingSessions(car, position, trackId)) {
    const day = session.record.at.slice(0, 10)
    days.set(day, [...(days.get(day) ?? []), session])
  }
  const ordered = [...days]
    .sort(([a], [b]) => (a < b ? 1 : -1))
    .map(([day, sessions]) => ({ day, session: ofDay(sessions, school), ids: sessions.map(({ record }) => record.id) }))
  const [head, ...rest] = ordered.map(({ session }) => ({ value: session.value?.lapS ?? 0, sd: session.value?.sdS ?? 0, instrument: session.record.timing }))
  const first = ordered[0]
  if (!head || !first?.session.value) return undefined
  const { value, sd, proof } = combineMeasurements([head, ...rest], (lapS) => USEFUL_LAP_SHARE * lapS)
  return {
    position,
    lapS: value,
    factSdS: school === 'best' ? first.session.value.timingSdS : sd,
    sdS: sd,
    proof,
    sessionIds: ordered.flatMap(({ ids }) => ids),
    clean: first.session.value.clean,
    day: first.day,
  }
}

/** The stage whose driven laps a stage's own lap is carried from: the latest up to it, else the next later; undefined where none was driven. */
export function anchorOf(car: Car, position: number, trackId: string): DrivenLap | undefined {
  const order = [...Array.from({ length: position + 1 }, (_, i) => position - i), ...car.stages.map((_, i) => i).filter((i) => i > position)]
  for (const at of order) {
    const driven = drivenAt(car, at, trackId)
    if (driven && lapStage(car, at).car) return driven
  }
  return undefined
}

/** Everything that the lap of a stage is worked out of, as data. */
export interface LapPlan {
  readonly track: TrackLine
  readonly stage: LapStage
  /** Driven with the car of this stage itself. */
  readonly driven: DrivenLap | null
  readonly anchor: { readonly driven: DrivenLap; readonly stage: LapStage } | null
  /** Nothing on the way from the anchor touches a lap. */
  readonly isUnchanged: boolean
}

/** What the lap of a stage on a track is worked out of. */
export function lapPlan(car: Car, position: number, track: TrackLine & { readonly id: string }): LapPlan {
  const driven = drivenAt(car, position, track.id) ?? null
  const anchor = anchorOf(car, position, track.id)
  const between = anchor ? Array.from({ length: Math.max(0, position - anchor.position) }, (_, i) => anchor.position + 1 + i) : []
  return {
    track,
    stage: lapStage(car, position),
    driven,
    anchor: anchor ? { driven: anchor, stage: lapStage(car, anchor.position) } : null,
    isUnchanged: anchor !== undefined && anchor.position <= position && between.every((at) => !touchesLaps(car, at)),
  }
}

/** How a lap is known: driven with the car itself, fitted to one that was driven, or by guessed numbers alone. */
export type LapHow = 'driven' | 'fitted' | 'guess'

export interface StageLap {
  readonly lapS: number
  readonly sdS: number
  readonly proof: Proof
  readonly how: LapHow
  readonly fromPosition: number | null
  readonly fit: GripFit | null
  /** The car that the model drives for this lap, with its fitted grip; null where the lap was driven and no model fits it. */
  readonly car: LapCar | null
  readonly doubts: readonly LapDoubt[]
  readonly fitSdS: number
  readonly modelSdS: number
  /** With nothing driven, s. */
  readonly beforeFitSdS: number | null
}

/** Slopes need no fine cells: both ways have the same ones. */
const SLOPE_STEP = { stepM: 4 }
const GUESS_SHARE = 0.5

type Fitted = { readonly fit: GripFit; readonly before: LapCar } | undefined

/** Stages that are carried from one driven stage ask for its fit again: it is kept by that stage as long as it lives. */
const FITS = new WeakMap<LapStage, { readonly track: TrackLine; readonly driven: DrivenLap; readonly found: Fitted }>()

/** The fit of a driven stage; undefined where no factor drives its lap. */
export function fitOfAnchor(track: TrackLine, { driven, stage }: NonNullable<LapPlan['anchor']>): Fitted {
  if (!stage.car) return undefined
  const known = FITS.get(stage)
  if (known && known.track === track && known.driven.lapS === driven.lapS && known.driven.sdS === driven.sdS) return known.found
  const own = asReference(stage.car)
  const fit = attempt(() => fitGrip({ track, car: own, drivenS: driven.lapS, drivenSdS: Math.max(driven.sdS, 0.01) }))
  const found = fit instanceof CalculationError ? undefined : { fit, before: { ...own, gripFactor: fit.gripFactor } }
  FITS.set(stage, { track, driven, found })
  return found
}

const sourcesOf = (inputs: readonly LapInput[]) => new Map(inputs.map(({ key, source }) => [key, source]))

function fitted(plan: LapPlan, anchor: NonNullable<LapPlan['anchor']>): StageLap | undefined {
  const found = fitOfAnchor(plan.track, anchor)
  if (!found || !plan.stage.car) return undefined
  const { fit, before } = found
  const after: LapCar = { ...plan.stage.car, gripFactor: fit.gripFactor, reference: before.reference }
  const inputs = unsureLapInputs(plan.stage.inputs, anchor.stage.inputs)
  const forecast = forecastLap({ track: plan.track, before, after, gripFactorSd: fit.gripFactorSd, inputs, options: SLOPE_STEP })
  const fine = { before: lapOf(plan.track, before).lapS, after: lapOf(plan.track, after).lapS }
  // Carried as a difference: what the model misses of the driven lap is the same before and after.
  const lapS = anchor.driven.lapS + fine.after - fine.before
  const isOtherTyre = sourcesOf(plan.stage.inputs).get('friction') !== sourcesOf(anchor.stage.inputs).get('friction')
  const guessed = forecast.doubts.filter(({ isGuess }) => isGuess).reduce((sum, { leftS }) => sum + leftS * leftS, 0)
  const isGuess = isOtherTyre || guessed > GUESS_SHARE * forecast.sdS ** 2
  return {
    lapS,
    sdS: forecast.sdS,
    proof: isGuess ? 'guess' : 'calculated',
    how: 'fitted',
    fromPosition: anchor.driven.position,
    fit,
    car: after,
    doubts: [...forecast.doubts].sort((a, b) => b.leftS - a.leftS),
    fitSdS: forecast.fitSdS,
    modelSdS: forecast.modelSdS,
    beforeFitSdS: forecast.inputsAloneSdS,
  }
}

function guessed(plan: LapPlan): StageLap | undefined {
  if (!plan.stage.car) return undefined
  const own = asReference(plan.stage.car)
  const { lapS, sdS, doubts } = guessLap({ track: plan.track, car: own, inputs: unsureLapInputs(plan.stage.inputs), options: SLOPE_STEP })
  return {
    lapS,
    sdS,
    proof: 'guess',
    how: 'guess',
    fromPosition: null,
    fit: null,
    car: own,
    doubts: [...doubts].sort((a, b) => b.leftS - a.leftS),
    fitSdS: 0,
    modelSdS: 0,
    beforeFitSdS: sdS,
  }
}

/**
 * The lap of a stage out of its plan: driven with the car itself, else carried from the stage that was driven, else a guess. Undefined where nothing was driven
 * and the car is not known well enough to be driven by the model.
 * @example workLap({ track: SKARVHOLM, stage: makeTrackRoom(CAR).stages[1].lap, driven: null, anchor: null, isUnchanged: false }).how // 'guess'
 */
export function workLap(plan: LapPlan): StageLap | undefined {
  const { driven, anchor } = plan
  if (driven) {
    const own = anchor && anchor.driven.position === driven.position ? fitOfAnchor(plan.track, anchor) : undefined
    const common = { fit: own?.fit ?? null, car: own?.before ?? null, doubts: [], fitSdS: 0, modelSdS: 0, beforeFitSdS: null }
    return { lapS: driven.lapS, sdS: driven.factSdS, proof: driven.proof, how: 'driven', fromPosition: null, ...common }
  }
  if (anchor && plan.isUnchanged) {
    const own = fitOfAnchor(plan.track, anchor)
    const { lapS, sdS, proof, position } = anchor.driven
    const common = { fit: own?.fit ?? null, car: own?.before ?? null, doubts: [], fitSdS: sdS, modelSdS: 0, beforeFitSdS: null }
    return { lapS, sdS, proof: leastProof(proof, 'calculated'), how: 'fitted', fromPosition: position, ...common }
  }
  const carried = anchor
    ? orElse(
        () => fitted(plan, anchor),
        () => undefined,
      )
    : undefined
  return (
    carried ??
    orElse(
      () => guessed(plan),
      () => undefined,
    )
  )
}

/**
 * The chance that a lap is no longer than what is wanted.
 * @example lapChance({ lapS: 84, sdS: 0.5 }, 84) // 0.5
 */
export const lapChance = ({ lapS, sdS }: Pick<StageLap, 'lapS' | 'sdS'>, wantedS: number): number =>
  sdS > 0 ? normalCdf((wantedS - lapS) / sdS) : Number(lapS <= wantedS)

/** The lap of a stage on a track, else on the build's control track; undefined without a track, and where `workLap` knows none. */
export function lapAtStage(car: Car, position: number, trackId: string | null = null): StageLap | undefined {
  const track = trackOf(car, trackId)
  return track && workLap(lapPlan(car, position, track))
}

/**
 * The car of a stage as a simulated driver drives it: itself the reference of its loads; null where no lap of it can be driven.
 * @example asDriven(undefined) // null
 */
export const asDriven = (stage: { readonly lap: LapStage } | undefined): LapCar | null => (stage?.lap.car ? asReference(stage.lap.car) : null)
