import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sideReader } from './side-trace.ts'

const CAR = { wheelbaseM: 2.65, wheelRadiusM: 0.32 }

describe('places read off a picture of the side', () => {
  it('whatever scale, tilt and way the car faces: the same place of the car', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        fc.double({ min: 60, max: 800, noNaN: true }),
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        fc.boolean(),
        (xM, zM, pxPerM, tilt, facesRight) => {
          const way = facesRight ? -1 : 1
          /** The picture of a place: to scale, mirrored where it faces right, and tilted. */
          const pictured = (x: number, z: number) => {
            const [r, d] = [way * pxPerM * x, -pxPerM * z]
            return { right: 900 + r * Math.cos(tilt) - d * Math.sin(tilt), down: 500 + r * Math.sin(tilt) + d * Math.cos(tilt) }
          }
          const read = sideReader({ ...CAR, frontWheel: pictured(0, CAR.wheelRadiusM), rearWheel: pictured(CAR.wheelbaseM, CAR.wheelRadiusM) })
          const found = read(pictured(xM, zM))
          return Math.abs(found.xM - xM) < 1e-9 && Math.abs(found.zM - zM) < 1e-9
        },
      ),
    )
  })
  it('refuses wheels at one place, and sizes that no car has', () => {
    const at = { right: 100, down: 100 }
    expect(() => sideReader({ ...CAR, frontWheel: at, rearWheel: { right: 120, down: 110 } })).toThrow(/nearly at one place/)
    expect(() => sideReader({ ...CAR, wheelbaseM: 0.5, frontWheel: at, rearWheel: { right: 500, down: 100 } })).toThrow(/wheelbaseM/)
  })
})
