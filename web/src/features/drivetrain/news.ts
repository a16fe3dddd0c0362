import { attempt, CalculationError, type Course, type DriveRoomStage, gearWord, slideCorner, slideCorners, slideLack } from '@bold-ballast/core'

type Text = (kind: 'share' | 'lapTime' | 'speed', value: number, options?: { decimals?: number }) => string

/** Title of the room at a stage: the worst news it has. */
export function driveNews(made: DriveRoomStage, course: Course | null, text: Text): string {
  const [missing] = made.missing
  if (missing) return `Not worked out yet: ${missing.what}`
  const slide = made.slide
  if (slide && course) {
    const slides = slideCorners(course).flatMap(({ name, corner }) => {
      const found = attempt(() => slideCorner({ ...slide, inputs: [] }, name, corner))
      return found instanceof CalculationError ? [] : [found]
    })
    const worst = slides.sort((a, b) => (a.best?.inHand ?? -1) - (b.best?.inHand ?? -1))[0]
    if (worst) {
      const lack = slideLack(worst, slide.train, slide.reserve)
      const held = worst.best?.inHand ?? null
      const gear = worst.best ? gearWord(worst.best.gear) : null
      if (gear === null || held === null) return `${worst.name} has no gear with the engine on its curve`
      const amount = held < 0 ? `lacks ${text('share', -held, { decimals: 0 })}` : `has ${text('share', held, { decimals: 0 })} in hand`
      if (lack === 'power') return `${worst.name} lacks power, not gears: ${gear} ${amount}`
      if (lack === 'gears') return `${worst.name} lacks the right gear: ${gear} ${amount}`
      return `Every corner is held: ${worst.name} least, ${gear} ${amount}`
    }
  }
  const [tightest] = made.path?.headrooms ?? []
  if (tightest && tightest.headroom < 0)
    return `${tightest.name} meets ${text('share', 1 - tightest.headroom, { decimals: 0 })} of its rating in ${gearWord(tightest.gear)}`
  return 'The driveline carries what it meets'
}
