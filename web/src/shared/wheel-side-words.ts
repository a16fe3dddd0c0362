import type { WheelSide } from '@bold-ballast/core'

/** Which side of a wheel a gap is at, in words. */
export const WHEEL_SIDE_WORDS: Readonly<Record<WheelSide, string>> = {
  frontInside: 'front wheels, inside',
  frontOutside: 'front wheels, outside',
  frontCaliper: 'front wheels, caliper',
  rearInside: 'rear wheels, inside',
  rearOutside: 'rear wheels, outside',
  rearCaliper: 'rear wheels, caliper',
}
