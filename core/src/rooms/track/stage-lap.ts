import { orElse } from '../../attempt.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { normalCdf } from '../../stats/normal.ts'
import { lapOf } from '../../track/lap.ts'
import type { LapCar } from '../../track/lap-car.ts'
import { asReference, type GripFit } from '../../track/lap-fit.ts'
import { forecastLap, guessLap, type LapDoubt } from '../../track/lap-forecast.ts'
import { LEAST_GAINS, learnedModelShare } from '../../track/model-share.ts'
import type { TrackLine } from '../../track/track.ts'
import { type BrakesFit, type Fitted, fitOfAnchor, type LapAnchor } from './anchor-fit.ts'
import { anchorOf, type DrivenLap, drivenAt, drivenBefore, drivenToFit, fitFactorsOf } from './driven-laps.ts'
import type { LapInput } from './lap-input.ts'
import { type LapStage, lapStage, unsureLapInputs } from './lap-inputs.ts'
import { touchesLaps, trackOf } from './track-sessions.ts'

/** A change that was forecast and driven: the stage before and the one after, on one track. */
export interface DrivenPair {
  readonly track: TrackLine
  readonly before: LapAnchor
  readonly after: LapAnchor
}

/** Everything that the lap of a stage is worked out of, as data. */
export interface LapPlan {
  readonly track: TrackLine
  readonly stage: LapStage
  /** Driven with the car of this stage itself. */
  readonly driven: DrivenLap | null
  readonly anchor: LapAnchor | null
  /** Nothing on the way from the anchor touches a lap. */
  readonly isUnchanged: boolean
  /** What the build was forecast to gain and did gain, of stages before this one: empty while they are too few to teach anything. */
  readonly pairs: readonly DrivenPair[]
}

/** What the lap of a stage on a track is worked out of. As a forecast it knows nothing of what was driven at the stage itself or later. */
export function lapPlan(car: Car, position: number, track: TrackLine & { readonly id: string }, isForecast = false): LapPlan {
  const anchor = isForecast ? drivenBefore(car, position, track.id) : anchorOf(car, position, track.id)
  const asAnchor = (driven: DrivenLap, trackId: string): LapAnchor => ({
    driven,
    stage: lapStage(car, driven.position),
    factors: fitFactorsOf(car, trackId),
  })
  return {
    track,
    stage: lapStage(car, position),
    driven: isForecast ? null : (drivenAt(car, position, track.id) ?? null),
    anchor: anchor ? asAnchor(anchor, track.id) : null,
    isUnchanged: anchor !== undefined && isUntouched(car, anchor.position, position),
    pairs: drivenPairs(
      car.records.tracks.map((each) => ({
        track: each,
        driven: car.stages.slice(0, position).flatMap((_, at) => {
          const toFit = drivenToFit(car, at, each.id)
          return toFit ? [asAnchor(toFit, each.id)] : []
        }),
      })),
    ),
  }
}

/** Whether no stage after one, up to another that is no earlier, touches a lap. */
const isUntouched = (car: Car, from: number, to: number): boolean =>
  from <= to && car.stages.slice(from + 1, to + 1).every((_, i) => !touchesLaps(car, from + 1 + i))

/** Whether nothing on the way from the stage that a lap is carried from touches it. */
export function isLapUnchanged(car: Car, position: number, track: { readonly id: string }): boolean {
  const anchor = anchorOf(car, position, track.id)
  return anchor !== undefined && isUntouched(car, anchor.position, position)
}

/** Whether a miss is told: over two spreads of forecast and driven together, and 0.2 % of the lap. */
export const isTold = (missS: number, sdS: number, lapS: number): boolean => Math.abs(missS) > 2 * sdS && Math.abs(missS) > 0.002 * lapS

/** What was driven at a stage, less what was forecast of it from the stage driven before. */
export interface LapMiss {
  readonly missS: number
  /** Of forecast and driven together. */
  readonly sdS: number
  /** Over two spreads and 0.2 %: nobody can explain it. */
  readonly isTold: boolean
}

/**
 * How far a driven lap lies from its forecast. Source: the room's page.
 * @example lapMiss({ lapS: 84.9, sdS: 0.1 }, { lapS: 84.2, sdS: 0.2 }).isTold // true
 */
export function lapMiss(driven: { readonly lapS: number; readonly sdS: number }, forecast: { readonly lapS: number; readonly sdS: number }): LapMiss {
  const missS = driven.lapS - forecast.lapS
  const sdS = Math.hypot(forecast.sdS, driven.sdS)
  return { missS, sdS, isTold: isTold(missS, sdS, driven.lapS) }
}

/** The miss of a stage on a track, worked out here and now; undefined where it was not driven, or nothing was before. */
export function lapMissAt(car: Car, position: number, trackId: string | null): LapMiss | undefined {
  const track = trackOf(car, trackId)
  const driven = track && drivenAt(car, position, track.id)
  if (!track || !driven || !drivenBefore(car, position, track.id)) return undefined
  const forecast = workLap(lapPlan(car, position, track, true))
  return forecast?.how === 'fitted' ? lapMiss(driven, forecast) : undefined
}

/**
 * Stages that were driven behind each other on a track: each change between two of them was forecast and driven. None while they are too few to teach
 * anything. `driven`: of each track the driven stages before the one that is forecast, in their order.
 */
export function drivenPairs(tracks: readonly { readonly track: TrackLine; readonly driven: readonly LapAnchor[] }[]): readonly DrivenPair[] {
  const pairs = tracks.flatMap(({ track, driven }) => {
    const known = driven.filter(({ stage }) => stage.car !== null)
    return known.slice(1).map((after, i): DrivenPair => ({ track, before: known[i] as LapAnchor, after }))
  })
  return pairs.length < LEAST_GAINS ? [] : pairs
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
  /** Where the brakes were fitted too; and why they were not, where that was asked for. */
  readonly brakes: BrakesFit | null
  readonly whyNoBrakes: string | null
  /** What the model is trusted of a change, and from how many that were forecast and driven; null: nothing is carried. */
  readonly model: ReturnType<typeof learnedModelShare> | null
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

const sourcesOf = (inputs: readonly LapInput[]) => new Map(inputs.map(({ key, source }) => [key, source]))

/** The car of a stage with what was fitted to the driven one; what the stage itself uses more or less of its brakes comes on top. */
function carriedCar(car: LapCar, { stage }: LapAnchor, { fit, brakes, before }: NonNullable<Fitted>): LapCar {
  const brakingUse = brakes ? brakes.brakingUse + car.brakingUse - (stage.car?.brakingUse ?? car.brakingUse) : car.brakingUse
  return { ...car, gripFactor: fit.gripFactor, brakingUse, reference: before.reference }
}

/** How much of the brakes is used is known as its fit knows it. */
const withFittedBrakes = (inputs: readonly LapInput[], brakes: BrakesFit | null): readonly LapInput[] =>
  brakes ? inputs.map((input) => (input.key === 'brakingUse' ? { ...input, sd: brakes.brakingUseSd, isGuess: false } : input)) : inputs

/** What the build's own forecasts teach of the model's share: each pair forecast as any stage is, with the usual share, and held against what was driven. */
function learnedShare(pairs: readonly DrivenPair[]): ReturnType<typeof learnedModelShare> {
  return learnedModelShare(
    pairs.flatMap(({ track, before, after }) => {
      const lap = orElse(
        () => fitted({ track, stage: after.stage, driven: null, anchor: before, isUnchanged: false, pairs: [] }, before),
        () => undefined,
      )
      if (!lap) return []
      const sdS = Math.hypot(...lap.doubts.map(({ leftS }) => leftS), lap.fitSdS, after.driven.sdS)
      return [{ gainS: lap.lapS - before.driven.lapS, missS: after.driven.lapS - lap.lapS, sdS }]
    }),
  )
}

function fitted(plan: LapPlan, anchor: LapAnchor): StageLap | undefined {
  const found = fitOfAnchor(plan.track, anchor)
  if (!found || !plan.stage.car) return undefined
  const { fit, brakes, before } = found
  const after = carriedCar(plan.stage.car, anchor, found)
  const inputs = unsureLapInputs(withFittedBrakes(plan.stage.inputs, brakes), withFittedBrakes(anchor.stage.inputs, brakes))
  const model = learnedShare(plan.pairs)
  const forecast = forecastLap({ track: plan.track, before, after, gripFactorSd: fit.gripFactorSd, inputs, modelShare: model.share, options: SLOPE_STEP })
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
    brakes,
    whyNoBrakes: found.whyNoBrakes,
    model,
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
    brakes: null,
    whyNoBrakes: null,
    model: null,
    car: own,
    doubts: [...doubts].sort((a, b) => b.leftS - a.leftS),
    fitSdS: 0,
    modelSdS: 0,
    beforeFitSdS: sdS,
  }
}

/** What a lap says of the fit beside it. */
const ofFit = (own: Fitted) => ({
  fit: own?.fit ?? null,
  brakes: own?.brakes ?? null,
  whyNoBrakes: own?.whyNoBrakes ?? null,
  model: null,
  car: own?.before ?? null,
})

/**
 * The lap of a stage out of its plan: driven with the car itself, else carried from the stage that was driven, else a guess. Undefined where nothing was driven
 * and the car is not known well enough to be driven by the model.
 * @example workLap({ track: SKARVHOLM, stage: makeTrackRoom(CAR).stages[1].lap, driven: null, anchor: null, isUnchanged: false, pairs: [] }).how // 'guess'
 */
export function workLap(plan: LapPlan): StageLap | undefined {
  const { driven, anchor } = plan
  if (driven) {
    const own = anchor && anchor.driven.position === driven.position ? fitOfAnchor(plan.track, anchor) : undefined
    const common = { ...ofFit(own), doubts: [], fitSdS: 0, modelSdS: 0, beforeFitSdS: null }
    return { lapS: driven.lapS, sdS: driven.factSdS, proof: driven.proof, how: 'driven', fromPosition: null, ...common }
  }
  if (anchor && plan.isUnchanged) {
    const own = fitOfAnchor(plan.track, anchor)
    const { lapS, sdS, proof, position } = anchor.driven
    const common = { ...ofFit(own), doubts: [], fitSdS: sdS, modelSdS: 0, beforeFitSdS: null }
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
