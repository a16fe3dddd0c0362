import { type AeroBasis, USUAL_AERO_BASIS } from '../../records/aero-schemas.ts'
import type { Car } from '../../stages/car.ts'

/** Where a build's aero is quoted. */
export const basisOf = (car: Car): AeroBasis => car.records.build.aeroBasis ?? USUAL_AERO_BASIS
