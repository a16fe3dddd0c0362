import { CalculationError, requireFinite } from '../errors.ts'

/** A place in a picture: pixels to the right and down, as pictures count. */
export interface PicturePoint {
  readonly right: number
  readonly down: number
}

/** Two places on an axis of a photographed sheet and what stands there. */
export interface PictureAxis {
  readonly first: PicturePoint
  readonly firstValue: number
  readonly second: PicturePoint
  readonly secondValue: number
}

/**
 * Reads points off a photographed sheet: the speed axis and the value axis span the picture, so that a sheet held at an angle is read right too
 * (a lens that bends lines is not taken out). A place p is split into p − o = s·u + t·v along both axes; speed = n1 + s (n2 − n1), value = y1 + t (y2 − y1).
 * Source: affine coordinates, closed form. Rejects two places of one axis that fall together or have one value, and axes that run nearly the same way.
 * @example pictureReader(SHEET_AXES)({ right: 50, down: 50 }) // { speedRpm: 4500, value: 100 }
 */
export function pictureReader(axes: { speed: PictureAxis; value: PictureAxis }): (place: PicturePoint) => { speedRpm: number; value: number } {
  const directions = (['speed', 'value'] as const).map((name) => {
    const { first, second, firstValue, secondValue } = axes[name]
    const along = { right: second.right - first.right, down: second.down - first.down }
    if (Math.hypot(along.right, along.down) < 5)
      throw new CalculationError('inconsistent', name, 'The two places of an axis are nearly the same. Click two that lie far apart.')
    if (requireFinite(firstValue, name) === requireFinite(secondValue, name))
      throw new CalculationError('inconsistent', name, 'Both places of an axis have the same number. Type what stands at each.')
    return along
  })
  const [u, v] = directions as [PicturePoint, PicturePoint]
  const cross = u.right * v.down - u.down * v.right
  if (Math.abs(cross) < 0.2 * Math.hypot(u.right, u.down) * Math.hypot(v.right, v.down))
    throw new CalculationError('inconsistent', 'axes', 'The two axes run nearly the same way. Click the speed along the bottom and the power up the side.')
  const { speed, value } = axes
  return (place) => {
    const share = (origin: PicturePoint, a: PicturePoint, b: PicturePoint) =>
      ((place.right - origin.right) * b.down - (place.down - origin.down) * b.right) / (a.right * b.down - a.down * b.right)
    return {
      speedRpm: speed.firstValue + share(speed.first, u, v) * (speed.secondValue - speed.firstValue),
      value: value.firstValue + share(value.first, v, u) * (value.secondValue - value.firstValue),
    }
  }
}
