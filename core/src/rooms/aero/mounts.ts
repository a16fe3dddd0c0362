import { airPressurePa } from '../../aero/device-loads.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { Mount } from '../../records/mount-kind.ts'
import type { Car } from '../../stages/car.ts'
import { type FootLoad, mountLoads, rodLoad, STEEL_YOUNG_PA } from '../../structure/mounts.ts'
import { basisOf } from './basis.ts'
import { devicesAtStage, type RoomDevice } from './devices.ts'
import { pickedNotch } from './totals.ts'

/** Kinds that fly into people when they let go: each wants a mount that was looked at, and something that holds it still. */
const FLYING: readonly RoomDevice['kind'][] = ['wing', 'splitter']

export interface RodState {
  readonly eachN: number
  /** Over what it is rated for, or pushed over where it buckles; over 1 it is too weak. */
  readonly use: number
  readonly decides: 'rating' | 'buckling'
}

export interface MountState {
  readonly deviceId: string
  readonly name: string
  readonly kind: RoomDevice['kind']
  readonly notch: string
  /** Null where nobody said how it is held. */
  readonly mount: Mount | null
  readonly version: number
  /** At the fastest speed with the mount's factor, N; null where the device's own force is not known. */
  readonly load: { readonly downN: number; readonly dragN: number; readonly xM: number; readonly zM: number } | null
  readonly feet: readonly FootLoad[]
  readonly rods: RodState | null
  /** The largest of all uses that can be told; null where nothing is rated. */
  readonly use: number | null
  readonly refusal: string | null
  /** It is wanted, and there is none. */
  readonly lacksMount: boolean
  readonly lacksSecond: boolean
}

/** Rods as if they carried all of the load: what the panel's clamp takes is not counted on. */
function rodsOf({ rods }: Mount, downN: number): RodState | null {
  if (!rods) return null
  const { count, angleRad, diameterM, lengthM, ratedN, isCable } = rods
  const { alongRodN, bucklesAtN } = rodLoad({ acrossN: Math.abs(downN) / count, angleRad, diameterM, lengthM, youngPa: STEEL_YOUNG_PA, isCable })
  const rated = alongRodN / ratedN
  // Downforce pulls on rods from above; lift pushes them.
  const pushed = downN < 0 && !isCable ? alongRodN / bucklesAtN : 0
  return { eachN: alongRodN, use: Math.max(rated, pushed), decides: pushed > rated ? 'buckling' : 'rating' }
}

function stateOf(car: Car, device: RoomDevice): MountState {
  const mount = car.records.mounts.find(({ deviceId }) => deviceId === device.id) ?? null
  const notch = pickedNotch(device, {})
  const { force } = notch
  const q = airPressurePa(car.records.build.airDensityKgM3, basisOf(car).fastestMps)
  const [downN, dragN] = force?.form === 'place' ? [q * force.downforceM2, q * force.dragM2] : [0, 0]
  const factor = mount?.loadFactor ?? 1
  const load = force?.form === 'place' ? { downN: factor * downN, dragN: factor * dragN, xM: force.xM, zM: force.zM } : null
  const found =
    mount && load && mount.feet.length > 0
      ? attempt(() =>
          mountLoads({
            downforceN: downN,
            dragN: Math.max(0, dragN),
            xM: load.xM,
            zM: load.zM,
            loadFactor: factor,
            uprights: mount.uprights,
            feet: mount.feet,
            bolts: mount.bolts,
          }),
        )
      : null
  const feet = found && !(found instanceof CalculationError) ? found.feet : []
  const rods = mount && load ? attempt(() => rodsOf(mount, load.downN)) : null
  const refusal = [found, rods].find((each) => each instanceof CalculationError) as CalculationError | undefined
  const rodState = rods instanceof CalculationError ? null : rods
  const uses = [...feet.flatMap(({ boltUse }) => (boltUse === null ? [] : [boltUse])), ...(rodState ? [rodState.use] : [])]
  const isWanted = FLYING.includes(device.kind)
  return {
    deviceId: device.id,
    name: device.name,
    kind: device.kind,
    notch: notch.name,
    mount,
    version: (mount as { readonly version?: number } | null)?.version ?? 1,
    load,
    feet,
    rods: rodState,
    use: uses.length > 0 ? Math.max(...uses) : null,
    refusal: refusal?.message ?? null,
    lacksMount: isWanted && mount === null,
    lacksSecond: isWanted && (mount?.second ?? 'none') === 'none',
  }
}

/**
 * How each device of a stage that has a place of its own is held: loads of feet, bolts and rods at the fastest speed with the mount's factor, and what is missing.
 * @example mountsAtStage(CAR, 1) // []
 */
export const mountsAtStage = (car: Car, position: number): readonly MountState[] =>
  devicesAtStage(car, position)
    .filter(({ kind, id }) => FLYING.includes(kind) || car.records.mounts.some(({ deviceId }) => deviceId === id))
    .map((device) => stateOf(car, device))
