import { type AeroDevice, type DeviceValue, leastProof, type RoomTest, standingValue } from '@bold-ballast/core'

/** The one device that two tests differ by: on, off, or at another notch; null where none or more than one does. */
export interface OneDifference {
  readonly deviceId: string
  readonly name: string
  readonly before: string | null
  readonly after: string | null
}

/** What differs between the cars of two tests, where it is one device alone. */
export function oneDifference(before: Pick<RoomTest, 'held'>, after: Pick<RoomTest, 'held'>): OneDifference | null {
  const ids = new Set([...before.held, ...after.held].map(({ id }) => id))
  const differing = [...ids].flatMap((id): OneDifference[] => {
    const [was, is] = [before.held.find((each) => each.id === id), after.held.find((each) => each.id === id)]
    return was?.notch.id === is?.notch.id ? [] : [{ deviceId: id, name: (is ?? was)?.name ?? '', before: was?.notch.id ?? null, after: is?.notch.id ?? null }]
  })
  return differing.length === 1 ? (differing[0] as OneDifference) : null
}

/**
 * The notches of a device with what two coast-downs say of its drag. Its downforce stays what it was, and with it how the value is known: half of it measured
 * is not measured. Null, with the reason, where nothing is known of its load.
 */
export function withTestedDrag(
  device: Pick<AeroDevice, 'notches'>,
  { before, after }: OneDifference,
  tested: { readonly differenceM2: number; readonly sdM2: number; readonly how: string; readonly at: string },
): { notches: AeroDevice['notches'] } | { why: string } {
  const notchId = after ?? before
  const own = device.notches.find(({ id }) => id === notchId)
  const standing = own && standingValue(own)
  if (!standing) return { why: 'A coast-down tells its drag alone, and nothing is known of its load. Give it a value first.' }
  const other = before !== null && after !== null ? device.notches.find(({ id }) => id === before) : undefined
  const from = other && standingValue(other)
  if (other && !from) return { why: `Nothing is known of the notch it came from, ${other.name}. Give that a value first.` }
  const value: DeviceValue = {
    ...standing,
    dragM2: from ? from.dragM2 + tested.differenceM2 : after === null ? -tested.differenceM2 : tested.differenceM2,
    dragSdM2: Math.hypot(tested.sdM2, from?.dragSdM2 ?? 0),
    proof: leastProof('measured', standing.proof) as DeviceValue['proof'],
    how: tested.how,
    at: tested.at,
  }
  return { notches: device.notches.map((notch) => (notch.id === notchId ? { ...notch, values: [...notch.values, value] } : notch)) }
}
