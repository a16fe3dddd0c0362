import { type DeviceForce, deviceLoads, sizeForBalance } from '../../aero/device-loads.ts'
import { wingEstimate } from '../../aero/wing.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { bisect } from '../../stats/normal.ts'
import type { RoomDevice } from './devices.ts'
import { type AeroTotals, aeroTotals, type DeviceLine, type Picks, pickedNotch, type TotalsBasis } from './totals.ts'

export interface BalanceStep {
  readonly deviceId: string
  readonly name: string
  /** Another notch, or another lip of a splitter or chord of a wing. */
  readonly notch: { readonly id: string; readonly name: string } | null
  readonly size: { readonly of: 'lip' | 'chord'; readonly valueM: number } | null
  readonly frontShare: number | null
  /** Against how it stands. */
  readonly downforceM2: number
  readonly dragM2: number
  readonly stallChance: number | null
}

/**
 * What would bring the balance to a wanted share: every other notch of every device, the lip that an estimated splitter
 * would need and the chord that an estimated wing would; nearest first.
 * @example balanceSteps([], {}, { wheelbaseM: 2.65, school: 'contactPatches' }, 0.4) // []
 */
export function balanceSteps(devices: readonly RoomDevice[], picks: Picks, basis: TotalsBasis, wanted: number): BalanceStep[] {
  const now = aeroTotals(devices, picks, basis)
  const steps = devices.flatMap((device): BalanceStep[] => {
    const own = pickedNotch(device, picks)
    const others = device.notches.filter(({ id, force }) => id !== own.id && force)
    return others.map((notch) => {
      const then = aeroTotals(devices, { ...picks, [device.id]: notch.id }, basis)
      return {
        deviceId: device.id,
        name: device.name,
        notch: { id: notch.id, name: notch.name },
        size: null,
        frontShare: then.balance?.frontShare ?? null,
        downforceM2: then.downforceM2 - now.downforceM2,
        dragM2: then.areas.dragM2 - now.areas.dragM2,
        stallChance: notch.stallChance,
      }
    })
  })
  return [...steps, ...now.lines.flatMap((line) => [...lipFor(line, now, basis, wanted), ...chordFor(line, now, basis, wanted)])].sort(
    (a, b) => Math.abs((a.frontShare ?? 9) - wanted) - Math.abs((b.frontShare ?? 9) - wanted),
  )
}

/** What the car does without one of its devices. */
const restOf = ({ areas }: AeroTotals, own: NonNullable<DeviceLine['areas']>) => ({
  restFrontM2: areas.frontM2 - own.frontM2,
  restRearM2: areas.rearM2 - own.rearM2,
})

/** Chords that a wing of one element is made with, m. */
const CHORDS_M = { from: 0.05, to: 0.8, steps: 15 } as const

/** The chord that an estimated wing would need at its span and angle: a chord changes how slender it is, so that it is searched for. */
function chordFor({ device, notch, areas }: DeviceLine, now: AeroTotals, { wheelbaseM, school }: TotalsBasis, wanted: number): BalanceStep[] {
  const { force, wing } = notch
  if (!wing || !areas || force?.form !== 'place') return []
  const { restFrontM2, restRearM2 } = restOf(now, areas)
  const withChord = (chordM: number): DeviceForce & { form: 'place'; stallChance: number } => {
    const { downforceM2, dragM2, stallChance } = wingEstimate({ ...wing, chordM })
    return { ...force, downforceM2, dragM2, stallChance }
  }
  /** Front over what is wanted of it, above zero where the front has more. */
  const off = (chordM: number) => {
    const own = deviceLoads(withChord(chordM), wheelbaseM, school)
    const [frontM2, rearM2] = [restFrontM2 + own.frontM2, restRearM2 + own.rearM2]
    return frontM2 - wanted * (frontM2 + rearM2)
  }
  const found = attempt(() => {
    const { from, to, steps } = CHORDS_M
    const chords = Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps)
    const offs = chords.map(off)
    const after = offs.findIndex((each, i) => i > 0 && each * (offs[i - 1] as number) <= 0)
    if (after < 0) return null
    const isRising = (offs[after] as number) > (offs[after - 1] as number)
    const chordM = bisect((chord) => (isRising ? off(chord) : -off(chord)), chords[after - 1] as number, chords[after] as number)
    return { chordM, ...withChord(chordM) }
  })
  if (found === null || found instanceof CalculationError) return []
  return [
    {
      deviceId: device.id,
      name: device.name,
      notch: null,
      size: { of: 'chord', valueM: found.chordM },
      frontShare: wanted,
      downforceM2: found.downforceM2 - force.downforceM2,
      dragM2: found.dragM2 - force.dragM2,
      stallChance: found.stallChance,
    },
  ]
}

/** The lip that an estimated splitter would need. */
function lipFor({ device, notch, areas }: DeviceLine, now: AeroTotals, { wheelbaseM }: TotalsBasis, wanted: number): BalanceStep[] {
  const { splitter } = device
  const { force } = notch
  if (!splitter || !areas || force?.form !== 'place' || force.downforceM2 <= 0) return []
  const found = attempt(() =>
    sizeForBalance({
      ...restOf(now, areas),
      frontShare: wanted,
      xM: force.xM,
      zM: force.zM,
      dragPerDownforce: force.dragM2 / force.downforceM2,
      wheelbaseM,
    }),
  )
  if (found instanceof CalculationError) return []
  return [
    {
      deviceId: device.id,
      name: device.name,
      notch: null,
      size: { of: 'lip', valueM: found.downforceM2 / (splitter.pressure * splitter.widthM) },
      frontShare: wanted,
      downforceM2: found.downforceM2 - force.downforceM2,
      dragM2: (found.downforceM2 / force.downforceM2 - 1) * force.dragM2,
      stallChance: null,
    },
  ]
}
