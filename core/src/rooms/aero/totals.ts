import { type AxleAreas, aeroBalance, type Balance, type BalanceSchool, deviceLoads, sumLoads, totalSdM2 } from '../../aero/device-loads.ts'
import { type BoxedDevice, type BoxOutline, type RuleReading, ruleBox } from '../../aero/rule-box.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import type { TapeMetric } from '../../records/metric-keys.ts'
import { normalCdf } from '../../stats/normal.ts'
import { type Anchors, anchoredProof, NO_ANCHORS, type SinceTest, sinceTest, type TestAnchor } from './anchors.ts'
import type { RoomDevice, RoomNotch } from './devices.ts'

/** Which notch each device stands at, by its id; what is not named stands as the stage's set-up has it. */
export type Picks = Readonly<Record<string, string>>

/**
 * The notch that a device stands at.
 * @example pickedNotch({ picked: 'b', notches: [{ id: 'a' }, { id: 'b' }], id: 'wing' }, {}).id // 'b'
 */
export function pickedNotch(device: Pick<RoomDevice, 'id' | 'picked' | 'notches'>, picks: Picks): RoomNotch {
  const asked = picks[device.id] ?? device.picked
  return (device.notches.find(({ id }) => id === asked) ?? device.notches[0]) as RoomNotch
}

export interface DeviceLine {
  readonly device: RoomDevice
  readonly notch: RoomNotch
  /** Null where nobody knows what it does. */
  readonly areas: AxleAreas | null
}

export interface AeroTotals {
  readonly lines: readonly DeviceLine[]
  readonly areas: AxleAreas
  readonly downforceM2: number
  readonly downforceSdM2: number
  readonly balance: Balance | null
  /** Why there is no balance. */
  readonly noBalance: string | null
  readonly loads: Side
  readonly drag: Side
}

/** How far a sum is the whole car's, and by what. */
export interface Side {
  /** The body is in it, by its own value or by a test, and nothing that nobody knows. */
  readonly isWhole: boolean
  readonly lacksBody: boolean
  /** Devices whose effect nobody knows; the sum is without them. */
  readonly unknown: readonly string[]
  readonly proof: Proof
  /** The test that it starts from, and what differs since; null where it is the sum of devices alone. */
  readonly test: { readonly anchor: TestAnchor; readonly since: readonly string[] } | null
}

const downOf = ({ frontM2, rearM2 }: AxleAreas) => Math.abs(frontM2 + rearM2)

/** Where a sum is quoted, and the tests it may start from. */
export interface TotalsBasis {
  readonly wheelbaseM: number
  readonly school: BalanceSchool
  readonly anchors?: Anchors
}

/** The side of a sum that devices alone give. */
function ofDevices(lines: readonly DeviceLine[]): Side {
  const unknown = lines.filter(({ areas, notch }) => !areas && !notch.countsAsNothing).map(({ device }) => device.name)
  const lacksBody = !lines.some(({ device, areas }) => device.kind === 'body' && areas !== null)
  const proofs = lines.flatMap(({ areas, notch }) => (areas && notch.proof ? [notch.proof] : []))
  return { isWhole: !lacksBody && unknown.length === 0, lacksBody, unknown, proof: leastProof('calculated', ...proofs), test: null }
}

const ofTest = (anchor: TestAnchor, since: SinceTest): Side => ({
  isWhole: since.unknown.length === 0,
  lacksBody: false,
  unknown: since.unknown,
  proof: anchoredProof(anchor, since),
  test: { anchor, since: since.names },
})

/** Sums of devices with what tests say in their place: drag by coasting, loads at the tyres by steady runs. */
function anchoredAreas(lines: readonly DeviceLine[], byDevices: AxleAreas, basis: TotalsBasis): Pick<AeroTotals, 'areas' | 'loads' | 'drag'> {
  const { drag, loads } = basis.anchors ?? NO_ANCHORS
  const now = lines.map(({ device, notch }) => ({ id: device.id, name: device.name, notch }))
  const own = ofDevices(lines)
  const [dragSince, loadSince] = [drag && sinceTest(now, drag.held, basis), loads && sinceTest(now, loads.held, basis)]
  return {
    areas: {
      ...byDevices,
      ...(drag && dragSince ? { dragM2: drag.areaM2 + dragSince.add.dragM2, dragVariance: drag.sdM2 ** 2 + dragSince.add.dragVariance } : {}),
      ...(loads && loadSince
        ? {
            frontM2: loads.frontM2 + loadSince.add.frontM2,
            rearM2: loads.rearM2 + loadSince.add.rearM2,
            frontVariance: loads.frontSdM2 ** 2 + loadSince.add.frontVariance,
            rearVariance: loads.rearSdM2 ** 2 + loadSince.add.rearVariance,
            covariance: loadSince.add.covariance,
          }
        : {}),
    },
    loads: loads && loadSince ? ofTest(loads, loadSince) : own,
    drag: drag && dragSince ? ofTest(drag, dragSince) : own,
  }
}

/**
 * What all devices do together at the picked notches: areas at the tyres with their spreads, and the balance where there is one. A test of the whole car
 * takes the place of what it measured; devices that differ since are added. What nobody knows is named and left out, never guessed. Wheelbase in m.
 * @example aeroTotals([], {}, { wheelbaseM: 2.65, school: 'contactPatches' }).drag.lacksBody // true
 */
export function aeroTotals(devices: readonly RoomDevice[], picks: Picks, basis: TotalsBasis): AeroTotals {
  const lines = devices.map((device): DeviceLine => {
    const notch = pickedNotch(device, picks)
    const force = notch.countsAsNothing ? null : notch.force
    return { device, notch, areas: force ? deviceLoads(force, basis.wheelbaseM, basis.school) : null }
  })
  const known = lines.flatMap(({ areas }) => (areas ? [areas] : []))
  return totalsOf(lines, anchoredAreas(lines, sumLoads(known), basis))
}

/** Downforce and balance of areas, beside the devices that they are of. */
export function totalsOf(lines: readonly DeviceLine[], { areas, loads, drag }: Pick<AeroTotals, 'areas' | 'loads' | 'drag'>): AeroTotals {
  const found = attempt(() =>
    aeroBalance(
      areas,
      lines.reduce((sum, line) => sum + (line.areas ? downOf(line.areas) : 0), 0),
    ),
  )
  const isBalance = !(found instanceof CalculationError)
  return {
    lines,
    areas,
    downforceM2: areas.frontM2 + areas.rearM2,
    downforceSdM2: totalSdM2(areas),
    balance: isBalance ? found : null,
    noBalance: isBalance ? null : found.message,
    loads,
    drag,
  }
}

/**
 * What rule books ask of the devices at the picked notches.
 * @example boxAtPicks([], {}, { frontOverhangM: 0.9, rearOverhangM: 1, bodyWidthM: 1.74, roofHeightM: 1.43, wheelbaseM: 2.65 }).reachFront.value // 0
 */
export function boxAtPicks(devices: readonly RoomDevice[], picks: Picks, outline: BoxOutline): Partial<Record<TapeMetric, RuleReading>> {
  const boxed = devices.flatMap((device): BoxedDevice[] => {
    const { box } = pickedNotch(device, picks)
    return box && device.kind !== 'body' ? [{ name: device.name, box, wing: device.wing }] : []
  })
  return ruleBox(outline, boxed)
}

/**
 * How likely the wanted downforce (N or more, at a pressure of the air, Pa) and the wanted range of balance are; null where one is not wanted or not known.
 * @example wantedChances(aeroTotals([], {}, { wheelbaseM: 2.65, school: 'contactPatches' }), { downforceN: 900, balance: null, airPressurePa: 1500 }).downforce // null
 */
export function wantedChances(
  { downforceM2, downforceSdM2, balance }: Pick<AeroTotals, 'downforceM2' | 'downforceSdM2' | 'balance'>,
  wanted: { readonly downforceN: number | null; readonly balance: { readonly from: number; readonly to: number } | null; readonly airPressurePa: number },
): { downforce: number | null; balance: number | null } {
  const q = wanted.airPressurePa
  const upTo = (share: number) => (balance && balance.sd > 0 ? normalCdf((share - balance.frontShare) / balance.sd) : null)
  const [low, high] = wanted.balance ? [upTo(wanted.balance.from), upTo(wanted.balance.to)] : [null, null]
  return {
    downforce: wanted.downforceN === null || downforceSdM2 === 0 ? null : normalCdf((q * downforceM2 - wanted.downforceN) / (q * downforceSdM2)),
    balance: low === null || high === null ? null : high - low,
  }
}
