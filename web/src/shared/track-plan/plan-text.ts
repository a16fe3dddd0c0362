import { TRACK_STEP_KINDS, type TrackPlan, type TrackStepKind } from '@bold-ballast/core'

export const STEP_WORDS: Readonly<Record<TrackStepKind, string>> = {
  bed: 'bed the brakes',
  level: 'drive',
  change: 'change',
  back: 'back to how it was',
  check: 'look over the car',
  other: 'besides',
}
export type PlanStep = TrackPlan['steps'][number]

const minutesText = (seconds: number) => `${Number((seconds / 60).toFixed(2))} min`

/** A step as its line: "level; 65 %; 5 laps; least 3; cool 5 min". What no line says (done, overruled) is not in it. */
export const stepText = ({ kind, words, share, wantLaps, leastLaps, coolS, factor, seconds }: PlanStep): string =>
  [
    kind,
    share === null ? '' : `${Math.round(100 * share)} %`,
    wantLaps === null ? '' : `${wantLaps} laps`,
    leastLaps === null ? '' : `least ${leastLaps}`,
    factor === null ? '' : `x ${factor}`,
    seconds === null ? '' : `takes ${minutesText(seconds)}`,
    coolS > 0 ? `cool ${minutesText(coolS)}` : '',
    words ?? '',
  ]
    .filter((part) => part !== '')
    .join('; ')

const number = (text: string | undefined) => Number((text ?? '').replace(',', '.'))

/** A step out of its line: "level; 65 %; 5 laps; least 3; cool 5 min; new rear pads"; a sentence where it is none. */
export function readStep(line: string): PlanStep | string {
  const cells = line.split(/\s*;\s*/).filter((cell) => cell !== '')
  const kind = TRACK_STEP_KINDS.find((each) => each === cells[0]?.toLowerCase())
  if (!kind) return `“${line}” begins with none of ${TRACK_STEP_KINDS.join(', ')}. Such as: level; 65 %; 5 laps; least 3; cool 5 min.`
  const found = { words: null, share: null, wantLaps: null, leastLaps: null, factor: null, seconds: null, coolS: 0 } as {
    -readonly [Key in 'words' | 'share' | 'wantLaps' | 'leastLaps' | 'factor' | 'seconds']: PlanStep[Key]
  } & { coolS: number }
  for (const cell of cells.slice(1)) {
    const share = /^(\d+)\s*%$/.exec(cell)
    const laps = /^(\d+)\s*laps?$/i.exec(cell)
    const least = /^least\s*(\d+)(?:\s*laps?)?$/i.exec(cell)
    const factor = /^x\s*([\d.,]+)$/i.exec(cell)
    const takes = /^takes\s*([\d.,]+)\s*min$/i.exec(cell)
    const cool = /^cool\s*([\d.,]+)\s*min$/i.exec(cell)
    if (share) found.share = Math.min(1, Math.max(0.1, Number(share[1]) / 100))
    else if (laps) found.wantLaps = Number(laps[1])
    else if (least) found.leastLaps = Number(least[1])
    else if (factor) found.factor = number(factor[1])
    else if (takes) found.seconds = 60 * number(takes[1])
    else if (cool) found.coolS = 60 * number(cool[1])
    else found.words = found.words === null ? cell : `${found.words}; ${cell}`
  }
  if (found.leastLaps !== null && found.wantLaps !== null && found.leastLaps > found.wantLaps)
    return `“${line}”: more laps are needed at the least than are wanted. Swap the two.`
  return { kind, ...found, isDone: false, overruled: null }
}

/** Steps as typed, with what was done and overruled of those that stood at their place before under the same words. */
export function mergeSteps(steps: readonly PlanStep[], before: readonly PlanStep[]): PlanStep[] {
  return steps.map((step, i) => {
    const known = before[i]
    return known && stepText(known) === stepText(step) ? { ...step, isDone: known.isDone, overruled: known.overruled } : step
  })
}

/** Steps that a first drive usually takes (common practice, no source): look, bed the brakes, let them cool, a middling pace, faster, full. */
export const USUAL_STEPS =
  'bed; 50 %; 4 laps; least 3; x 1.5; cool 10 min\nlevel; 65 %; 5 laps; least 3; cool 5 min\nlevel; 80 %; 5 laps; least 3; cool 5 min\nlevel; 100 %; 4 laps; least 3'
