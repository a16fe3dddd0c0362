import type { AeroRoomStage, AeroTotals, PanelFault, QuantityKind } from '@bold-ballast/core'
import type { BoxVerdict } from './verdicts.ts'

type Text = (kind: QuantityKind, value: number, options?: { decimals?: number }) => string

/** What a limit that is passed is called in a title. */
const OVER: Readonly<Partial<Record<BoxVerdict['limit']['metric'], string>>> = {
  reachFront: 'too far out in front',
  reachRear: 'too far out behind',
  reachSide: 'too wide',
  wingOverRoof: 'over the roof',
  groundHeight: 'too low',
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** Where downforce acts against the weight, in points of the wheelbase. */
export function gapWords(made: AeroRoomStage, totals: AeroTotals): string | null {
  if (!totals.balance || !made.frontShare) return null
  const points = 100 * (totals.balance.frontShare - made.frontShare.value)
  if (Math.abs(points) < 0.5) return 'downforce acts where the weight is'
  return `downforce acts ${Math.abs(points).toFixed(0)} points ${points < 0 ? 'behind' : 'ahead of'} the weight`
}

/** What of the mounts can hurt somebody, in words: the first of them. */
export function mountWords({ mounts }: Pick<AeroRoomStage, 'mounts'>): string | null {
  const bad = mounts.find(({ use }) => use !== null && use > 1) ?? mounts.find(({ lacksMount, lacksSecond }) => lacksMount || lacksSecond)
  if (!bad) return null
  if (bad.use !== null && bad.use > 1) return `the mount of ${bad.name} carries more than it is rated for`
  if (bad.lacksMount) return `nobody said how ${bad.name} is held`
  return `${bad.name} ${bad.mount?.carriedBy === 'lid' ? 'stands on a lid and ' : ''}has no tether`
}

const PANEL_FAULT_WORDS: Readonly<Record<PanelFault, string>> = {
  air: 'does not hold the air at the fastest speed',
  standing: 'holds nobody on its edge',
  rods: 'asks more of its rods than they are rated for',
  kerb: 'bends on a kerb from below',
}

/** The first chosen panel that does not hold, in words. */
export function panelWords({ panels }: Pick<AeroRoomStage, 'panels'>): string | null {
  const bad = panels.find(({ panel, faults }) => panel.isChosen && faults.some((fault) => fault !== 'kerb'))
  return bad?.faults[0] ? `the panel of ${bad.deviceName} ${PANEL_FAULT_WORDS[bad.faults[0]]}` : null
}

/** Title of the room at a stage: the worst of its limits, else of its mounts and panels, then where downforce acts against the weight. */
export function aeroNews(made: AeroRoomStage, totals: AeroTotals, verdicts: readonly BoxVerdict[], text: Text): string {
  if (made.devices.length === 0) return made.outline ? 'No device is in the car at this stage' : 'Nothing is taped yet'
  const worst = verdicts.filter(({ margin }) => margin < 0).sort((a, b) => a.margin - b.margin)[0]
  const gap = gapWords(made, totals)
  const unknown = totals.loads.unknown[0]
  const parts = [
    worst
      ? `${worst.name ?? worst.word} ${text('length', -worst.margin)} ${OVER[worst.limit.metric] ?? 'past its limit'}`
      : (mountWords(made) ?? panelWords(made)),
    unknown ? `nobody knows what ${unknown} does` : totals.loads.lacksBody ? 'the bare body is not known' : (gap ?? totals.noBalance?.split(':')[0] ?? null),
  ].filter((each): each is string => each !== null)
  return capital(parts.join('; ')) || 'Every limit holds'
}
