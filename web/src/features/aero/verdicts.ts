import { type AeroLimit, type AeroRoomStage, boxAtPicks, METRIC_INFO, type Picks } from '@bold-ballast/core'

export interface BoxVerdict {
  readonly limit: AeroLimit
  readonly word: string
  /** What it is read as: by a tape, else by the boxes at the notches that are looked at. */
  readonly value: number
  readonly isTaped: boolean
  /** Room left; under 0 it is over. */
  readonly margin: number
  /** The device that decides it. */
  readonly name: string | null
  /** Other notches that would break it, or would cure it. */
  readonly others: readonly { readonly device: string; readonly notch: string; readonly breaks: boolean }[]
}

const marginOf = ({ sense, value }: AeroLimit, found: number) => Math.round((sense === 'atMost' ? value - found : found - value) * 1e6) / 1e6

/** Every rule limit of a stage against the devices as they are looked at. */
export function boxVerdicts(made: AeroRoomStage, outline: AeroRoomStage['outline'], picks: Picks): BoxVerdict[] {
  if (!outline) return []
  const geometry = { ...outline, wheelbaseM: made.wheelbaseM }
  const now = boxAtPicks(made.devices, picks, geometry)
  const isAsStored = made.devices.every(({ id, picked }) => (picks[id] ?? picked) === picked)
  return made.limits.flatMap((limit): BoxVerdict[] => {
    const metric = limit.metric as keyof typeof now
    const taped = isAsStored ? made.taped[limit.metric] : undefined
    const planned = now[metric]
    const value = taped?.value ?? planned?.value
    if (value === undefined) return []
    const margin = marginOf(limit, value)
    const others = made.devices.flatMap((device) =>
      device.notches.flatMap((notch) => {
        const then = boxAtPicks(made.devices, { ...picks, [device.id]: notch.id }, geometry)[metric]
        const breaks = then ? marginOf(limit, then.value) < 0 : false
        return breaks === margin < 0 ? [] : [{ device: device.name, notch: notch.name, breaks }]
      }),
    )
    return [{ limit, word: METRIC_INFO[limit.metric].word, value, isTaped: taped !== undefined, margin, name: planned?.name ?? null, others }]
  })
}
