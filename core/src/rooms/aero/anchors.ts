import { type AxleAreas, type BalanceSchool, type DeviceForce, deviceLoads, sumLoads } from '../../aero/device-loads.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { RoomNotch } from './devices.ts'

/** A device as it stood at a test: its notch, and what that does. */
export interface Held {
  readonly id: string
  readonly name: string
  readonly notch: Pick<RoomNotch, 'id' | 'name' | 'force' | 'countsAsNothing' | 'proof'>
}

/** A test of the whole car that a sum starts from. */
export interface TestAnchor {
  readonly testId: string
  /** The stage it was entered at. */
  readonly position: number
  readonly proof: Proof
  readonly held: readonly Held[]
}
export interface DragAnchor extends TestAnchor {
  readonly areaM2: number
  readonly sdM2: number
  readonly rollingCoefficient: number
}
export interface LoadAnchor extends TestAnchor {
  readonly frontM2: number
  readonly frontSdM2: number
  readonly rearM2: number
  readonly rearSdM2: number
}

/** What a stage's sums start from; null where nothing was tested. */
export interface Anchors {
  readonly drag: DragAnchor | null
  readonly loads: LoadAnchor | null
}
export const NO_ANCHORS: Anchors = { drag: null, loads: null }

/** The least that a step from one notch of a device to another is unsure by, over itself (common practice, no source). */
const NOTCH_RELATIVE_SD = 0.1

interface Known {
  readonly areas: AxleAreas
  readonly proof: Proof
}
const NOTHING: Known = { areas: sumLoads([]), proof: 'confirmed' }

type Basis = { readonly wheelbaseM: number; readonly school: BalanceSchool }

/** What a notch does at the tyres; null where nobody knows. */
function knownOf({ force, countsAsNothing, proof }: Held['notch'], { wheelbaseM, school }: Basis): Known | null {
  if (countsAsNothing) return NOTHING
  return force ? { areas: deviceLoads(force satisfies DeviceForce, wheelbaseM, school), proof: proof ?? 'guess' } : null
}

/** From one notch of a device to another: both know it by the same estimate, so the step is known as well as the worse of them, over itself. */
function stepOf(before: AxleAreas, after: AxleAreas): AxleAreas {
  const share = (area: 'frontM2' | 'rearM2' | 'dragM2', variance: 'frontVariance' | 'rearVariance' | 'dragVariance') =>
    Math.max(NOTCH_RELATIVE_SD, ...[before, after].map((own) => (own[area] === 0 ? 0 : Math.sqrt(own[variance]) / Math.abs(own[area]))))
  const [frontM2, rearM2, dragM2] = [after.frontM2 - before.frontM2, after.rearM2 - before.rearM2, after.dragM2 - before.dragM2]
  const front = share('frontM2', 'frontVariance') * frontM2
  const rear = share('rearM2', 'rearVariance') * rearM2
  const drag = share('dragM2', 'dragVariance') * dragM2
  return { frontM2, rearM2, dragM2, frontVariance: front ** 2, rearVariance: rear ** 2, covariance: front * rear, dragVariance: drag ** 2 }
}

const less = (areas: AxleAreas): AxleAreas => ({ ...areas, frontM2: -areas.frontM2, rearM2: -areas.rearM2, dragM2: -areas.dragM2 })

/** What differs between a test and the car as it is looked at. */
export interface SinceTest {
  readonly add: AxleAreas
  readonly names: readonly string[]
  /** Names of what differs and nobody knows. */
  readonly unknown: readonly string[]
  readonly proof: Proof
}

/**
 * What devices do now less what they did at a test: equal ones cancel, known or not. Areas as `deviceLoads`; wheelbase in m.
 * @example sinceTest([], [], { wheelbaseM: 2.65, school: 'contactPatches' }).names // []
 */
export function sinceTest(now: readonly Held[], held: readonly Held[], basis: Basis): SinceTest {
  const then = new Map(held.map((each) => [each.id, each]))
  const is = new Set(now.map(({ id }) => id))
  const steps = [
    ...now.flatMap((each) => {
      const before = then.get(each.id)
      if (before?.notch.id === each.notch.id) return []
      const [from, to] = [before ? knownOf(before.notch, basis) : NOTHING, knownOf(each.notch, basis)]
      return [{ name: each.name, add: from && to ? (before ? stepOf(from.areas, to.areas) : to.areas) : null, proof: to?.proof ?? 'guess' }]
    }),
    ...held.flatMap((each) => {
      if (is.has(each.id)) return []
      const from = knownOf(each.notch, basis)
      return [{ name: each.name, add: from && less(from.areas), proof: from?.proof ?? 'guess' }]
    }),
  ]
  return {
    add: sumLoads(steps.flatMap(({ add }) => (add ? [add] : []))),
    names: steps.map(({ name }) => name),
    unknown: steps.filter(({ add }) => !add).map(({ name }) => name),
    proof: leastProof('confirmed', ...steps.map(({ proof }) => proof)),
  }
}

/** What a test and the devices since give a sum: the test's own proof as long as nothing differs, else at most calculated. */
export const anchoredProof = ({ proof }: TestAnchor, since: SinceTest): Proof =>
  since.names.length === 0 ? proof : leastProof(proof, 'calculated', since.proof)
