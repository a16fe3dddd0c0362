import { lapChance, type StageLap, type TrackRoom, type TrackRoomStage } from '@bold-ballast/core'

type Text = (kind: 'lapTime' | 'speed', value: number, options?: { decimals?: number }) => string

/** How likely a lap reaches what is wanted, in words that a title has room for. */
export function wantedWords(stage: StageLap, wantedS: number): string {
  if (stage.proof === 'measured' || stage.proof === 'confirmed') return stage.lapS <= wantedS ? 'met' : 'missed'
  const chance = lapChance(stage, wantedS)
  if (chance >= 0.8) return 'on course'
  return chance < 0.2 ? 'unlikely' : 'doubtful'
}

/** A guess is told in whole seconds: it is no lap time. */
export const guessRange = ({ lapS, sdS }: Pick<StageLap, 'lapS' | 'sdS'>): readonly [number, number] => [Math.floor(lapS - sdS), Math.ceil(lapS + sdS)]

/** Title of the room: track, stage, planned, wanted and the word for it; of drift its runs, pairs and entry. */
export function trackNews({
  room,
  made,
  position,
  track,
  stage,
  isDrift,
  text,
}: {
  room: TrackRoom
  made: TrackRoomStage
  position: number
  track: { readonly id: string; readonly name: string } | null
  stage: StageLap | null
  isDrift: boolean
  text: Text
}): string {
  if (track === null) return 'Draw or import a track; the lap stands here'
  if (isDrift && room.drift) {
    const { runs, pairsUsed, entryMps } = room.drift
    const entry = entryMps ? `, entry ${text('speed', entryMps.value, { decimals: 0 })}` : ''
    return `${runs} runs on ${pairsUsed} rear pairs${entry}`
  }
  const head = `${track.name} at stage ${position}`
  if (!stage) return made.lap.missing[0] ? `${head}: no lap until we know ${made.lap.missing[0].what.split(':')[0]}` : head
  if (stage.how === 'guess') {
    const [low, high] = guessRange(stage)
    return `${head}: ${text('lapTime', low, { decimals: 0 })} to ${text('lapTime', high, { decimals: 0 })}, a guess`
  }
  const word = stage.how === 'driven' ? 'driven' : 'planned'
  const wantedS = made.wantedS[track.id] ?? null
  const wanted = wantedS === null ? '' : `, ${text('lapTime', wantedS, { decimals: 2 })} wanted, ${wantedWords(stage, wantedS)}`
  return `${head}: ${text('lapTime', stage.lapS, { decimals: 2 })} ${word}${wanted}`
}
