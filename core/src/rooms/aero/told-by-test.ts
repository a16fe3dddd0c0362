import { wholeDownforce } from '../../aero/measured-downforce.ts'
import type { Car } from '../../stages/car.ts'
import { quadrature } from '../../stats/moments.ts'
import { type Anchors, NO_ANCHORS } from './anchors.ts'
import { basisOf } from './basis.ts'
import { type CarTest, standingTests } from './car-tests.ts'
import { devicesAtStage } from './devices.ts'
import { aeroTotals } from './totals.ts'

/** What a test said against what was said before it, as areas, m². */
export interface ToldByTest {
  readonly of: 'drag' | 'downforce'
  readonly saidM2: number
  readonly saidSdM2: number
  readonly testM2: number
  readonly testSdM2: number
  /** What was said over what the test says, less one: above 0 it was too high. */
  readonly highBy: number
  /** Beyond two spreads of both. */
  readonly isOff: boolean
  /** The earlier test that it was said by; null where devices alone said it. */
  readonly fromTest: string | null
}

const FAR = 2

/** The sums that stood before a test: from an earlier one of its kind, else of devices alone. */
function before(car: Car, test: CarTest): { anchors: Anchors; fromTest: string | null } {
  const at = Date.parse(test.at)
  const last = standingTests(car, test.kind).findLast((other) => Date.parse(other.at) < at && other.at.slice(0, 10) !== test.at.slice(0, 10))
  if (!last) return { anchors: NO_ANCHORS, fromTest: null }
  const anchor = { testId: last.id, position: last.position, proof: 'measured' as const, held: last.held }
  const drag = last.drag && { ...anchor, areaM2: last.drag.areaM2, sdM2: last.drag.sdM2, rollingCoefficient: last.drag.rollingCoefficient }
  return { anchors: { drag, loads: last.loads && { ...anchor, ...last.loads } }, fromTest: last.name }
}

/**
 * What a test told: its drag area, or its downforce, against what stood before; null where nothing stood, or nothing came of the test.
 * @example toldByTest(CAR, { whyNot: 'No pair counts.' }) // null
 */
export function toldByTest(car: Car, test: CarTest): ToldByTest | null {
  if (test.whyNot !== null) return null
  const { anchors, fromTest } = before(car, test)
  const picks = Object.fromEntries(test.held.map(({ id, notch }) => [id, notch.id]))
  const wheelbaseM = car.builds[test.position]?.wheelbaseM ?? car.records.build.wheelbaseM
  const said = aeroTotals(devicesAtStage(car, test.position), picks, { wheelbaseM, school: basisOf(car).balanceSchool, anchors })
  const make = (of: 'drag' | 'downforce', saidM2: number, saidSdM2: number, testM2: number, testSdM2: number): ToldByTest => ({
    of,
    saidM2,
    saidSdM2,
    testM2,
    testSdM2,
    highBy: saidM2 / testM2 - 1,
    isOff: Math.abs(saidM2 - testM2) > FAR * quadrature(saidSdM2, testSdM2),
    fromTest,
  })
  if (test.drag && said.drag.isWhole) return make('drag', said.areas.dragM2, Math.sqrt(said.areas.dragVariance), test.drag.areaM2, test.drag.sdM2)
  if (test.loads && said.loads.isWhole) {
    const { areaM2, sdM2 } = wholeDownforce(test.loads)
    return make('downforce', said.downforceM2, said.downforceSdM2, areaM2, sdM2)
  }
  return null
}
