import type { Car } from '../../stages/car.ts'
import { wheelOutwardM } from './wheel-places.ts'

/** What wheels and spacers make of the track of an axle, beside what the stage says. */
export interface TrackByWheels {
  readonly axle: 'front' | 'rear'
  /** As typed: of the stage, or of the latest before it that says so, at last of the build. */
  readonly typedM: number
  /** The stage that the typed one is of. */
  readonly typedAt: number
  /** What it follows to with the wheels of this stage. */
  readonly byWheelsM: number
}

const AXLES = ['front', 'rear'] as const

/**
 * Where wheels of this stage stand further out or in than those of the stage whose track was typed, the track that follows: the typed one and twice the
 * difference of spacer less offset. Axles whose wheels are the same, or whose offset nobody typed at either stage, are not in it. m.
 * @example trackByWheels(CAR, 1) // []
 */
export function trackByWheels(car: Car, position: number): readonly TrackByWheels[] {
  const typedAt = Math.max(
    0,
    car.stages.findLastIndex(({ geometry }, i) => i <= position && geometry),
  )
  const build = car.builds[position] ?? car.records.build
  return AXLES.flatMap((axle) => {
    const [now, then] = [wheelOutwardM(car.records, position, axle), wheelOutwardM(car.records, typedAt, axle)]
    if (now === undefined || then === undefined || Math.abs(now - then) < 5e-5) return []
    const typedM = axle === 'front' ? build.trackFrontM : build.trackRearM
    return [{ axle, typedM, typedAt, byWheelsM: typedM + 2 * (now - then) }]
  })
}
