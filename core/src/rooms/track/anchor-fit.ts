import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { FitFactors } from '../../records/track/lap-kinds.ts'
import type { LapCar } from '../../track/lap-car.ts'
import { asReference, fitGrip, fitGripAndBraking, type GripFit, LEAST_BRAKING, MOST_BRAKING, type SectorFit } from '../../track/lap-fit.ts'
import type { TrackLine } from '../../track/track.ts'
import type { DrivenLap } from './driven-laps.ts'
import type { LapStage } from './lap-inputs.ts'

/** A stage that was driven, and what its model is fitted to. */
export interface LapAnchor {
  readonly driven: DrivenLap
  readonly stage: LapStage
  readonly factors: FitFactors
}

/** What a fit found beside the grip, where the brakes were fitted too. */
export interface BrakesFit {
  /** What the sectors ask for, weighed with what was known before they were driven. */
  readonly brakingUse: number
  readonly brakingUseSd: number
  /** Driven less modelled, by sector, s, and those that the fit does not reach. */
  readonly leftS: readonly number[]
  readonly odd: readonly number[]
}

/** The fit of a driven stage and the car that it drives; undefined: no factor drives its lap. */
export type Fitted = { readonly fit: GripFit; readonly brakes: BrakesFit | null; readonly whyNoBrakes: string | null; readonly before: LapCar } | undefined

/** Stages that are carried from one driven stage ask for its fit again: it is kept by that stage as long as it lives. */
const FITS = new WeakMap<LapStage, { readonly track: TrackLine; readonly driven: string; readonly factors: FitFactors; readonly found: Fitted }>()

/** The fit of a driven stage; undefined where no factor drives its lap. */
export function fitOfAnchor(track: TrackLine, { driven, stage, factors }: LapAnchor): Fitted {
  if (!stage.car) return undefined
  const [known, asked] = [FITS.get(stage), JSON.stringify(driven)]
  if (known && known.track === track && known.driven === asked && known.factors === factors) return known.found
  const own = asReference(stage.car)
  const fit = attempt(() => fitGrip({ track, car: own, drivenS: driven.lapS, drivenSdS: Math.max(driven.sdS, 0.01) }))
  const found = fit instanceof CalculationError ? undefined : withBrakes(track, { ...own, gripFactor: fit.gripFactor }, fit, { driven, stage, factors })
  FITS.set(stage, { track, driven: asked, factors, found })
  return found
}

/** A fit of the grip with the brakes that its sectors tell, where these were asked for. */
function withBrakes(track: TrackLine, before: LapCar, fit: GripFit, { driven, stage, factors }: LapAnchor): NonNullable<Fitted> {
  const { sectors } = driven
  const alone = { fit, brakes: null, before }
  if (factors === 'grip') return { ...alone, whyNoBrakes: null }
  if (!sectors) return { ...alone, whyNoBrakes: 'Its clean laps have not as many sectors as the track: the grip alone is fitted.' }
  const both = attempt(() =>
    fitGripAndBraking({ track, car: before, marksM: sectors.endsM, drivenS: sectors.secondsS, sectorSdS: Math.max(sectors.sdS, 0.01) }),
  )
  if (both instanceof CalculationError) return { ...alone, whyNoBrakes: both.message }
  const { brakingUse, leftS, odd } = both
  if (brakingUse <= LEAST_BRAKING || brakingUse >= MOST_BRAKING) {
    const share = `${(100 * brakingUse).toFixed(0)} % of the brakes or ${brakingUse <= LEAST_BRAKING ? 'less' : 'more'}`
    return { ...alone, whyNoBrakes: `The sectors ask for ${share}: their times do not belong to the track’s sector marks. The grip alone is fitted.` }
  }
  const use = weighed(both, stage)
  const braked = { ...before, brakingUse: use.brakingUse }
  const again = attempt(() => fitGrip({ track, car: braked, drivenS: driven.lapS, drivenSdS: Math.max(driven.sdS, 0.01) }))
  if (again instanceof CalculationError) return { ...alone, whyNoBrakes: again.message }
  return { fit: again, brakes: { ...use, leftS, odd }, whyNoBrakes: null, before: { ...braked, gripFactor: again.gripFactor } }
}

/** The use of the brakes that sectors ask for, with what was known of it before: each counts as sure as it is, so that a fit never makes it less sure. */
function weighed({ brakingUse, brakingUseSd }: SectorFit, { inputs }: LapStage): Pick<BrakesFit, 'brakingUse' | 'brakingUseSd'> {
  const known = inputs.find(({ key }) => key === 'brakingUse')
  if (!known || !(known.sd > 0) || !(brakingUseSd > 0)) return { brakingUse, brakingUseSd }
  const [ofSectors, ofKnown] = [brakingUseSd ** -2, known.sd ** -2]
  return { brakingUse: (ofSectors * brakingUse + ofKnown * known.value) / (ofSectors + ofKnown), brakingUseSd: (ofSectors + ofKnown) ** -0.5 }
}
