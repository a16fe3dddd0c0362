import { BOOST_SCHOOL_WORDS, type BoardRow, type BoardStage, type BuildRecord, formatChance } from '@bold-ballast/core'
import { format, parseISO } from 'date-fns'

export const DISCIPLINE_WORDS: Record<BuildRecord['discipline'], string> = { timeAttack: 'Time attack', track: 'Track', drift: 'Drift' }
export const DRIVE_WORDS: Record<BuildRecord['drivenAxles'], string> = { front: 'front drive', rear: 'rear drive', all: 'all-wheel drive' }
export const PLACE_WORDS = { hub: 'hub', roller: 'roller', engine: 'engine' } as const
export const SENSE_WORDS = { atMost: 'or less', atLeast: 'or more', between: 'to' } as const
export const SCHOOL_WORDS = BOOST_SCHOOL_WORDS

/** A date without a time is never shifted by a zone. */
export const dayText = (date: string): string => format(parseISO(date.slice(0, 10)), 'd MMM yyyy')
export const timeText = (instant: string): string => format(parseISO(instant), 'd MMM yyyy, HH:mm')

/** What stands under a stage's name on the rail. */
export function stageStateText(stage: BoardStage): string {
  const count = stage.toProve > 0 && stage.proven < stage.toProve ? `${stage.proven} of ${stage.toProve} proven` : stage.state
  const late = stage.isLate ? 'late, ' : ''
  const state = stage.state === 'planned' ? (stage.position === 0 ? 'not measured yet' : 'planned') : count
  const { road } = stage
  const day = road ? (road.wantedOn ?? road.readyOn) : stage.date
  const chance = road && road.chance !== null ? `, ${formatChance(road.chance)}` : ''
  return `${late}${state}${day ? `, ${dayText(day).replace(/ \d{4}$/, '')}` : ''}${chance}`
}

type AnyVerdict = NonNullable<Exclude<BoardRow['goal'], { kind: 'none' }>['verdict']>

/** Words whose proof is a measurement: how sure they are is told only where it is in doubt. */
const MEASURED_WORDS: readonly string[] = ['met', 'missed', 'broken', 'holds']

/** A verdict's word with how sure it is, where that is in doubt. */
export function wordWithChance(word: string, chance: number | null): string {
  return chance === null || MEASURED_WORDS.includes(word) ? word : `${word}, ${formatChance(chance)}`
}

/** A verdict in words, with the chance of that word; the same wherever it stands. */
export function verdictText(verdict: AnyVerdict | null): string {
  if (verdict === null) return 'being worked out'
  const { word, chance } = verdict
  const late = 'isLate' in verdict && verdict.isLate ? 'late, ' : ''
  if ('isEmptyStage' in verdict && verdict.isEmptyStage) return `${late}no plan: stage ${verdict.verdictPosition} lists nothing yet`
  const since = 'missedSincePosition' in verdict && verdict.missedSincePosition !== null ? ` since stage ${verdict.missedSincePosition}` : ''
  const isInDoubt = 'withinDoubt' in verdict && verdict.withinDoubt
  if (chance === null || (MEASURED_WORDS.includes(word) && !isInDoubt)) return `${late}${word}${since}`
  return `${late}${word}${since}${isInDoubt ? `, within doubt, ${formatChance(chance)} sure` : `, ${formatChance(chance)}`}`
}
