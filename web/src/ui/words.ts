import { BOOST_SCHOOL_WORDS, type BoardRow, type BoardStage, type BuildRecord, formatChance, METRIC_INFO, type Metric } from '@bold-ballast/core'
import { format, parseISO } from 'date-fns'

export const DISCIPLINE_WORDS: Record<BuildRecord['discipline'], string> = { timeAttack: 'Time attack', track: 'Track', drift: 'Drift' }
export const DRIVE_WORDS: Record<BuildRecord['drivenAxles'], string> = { front: 'front drive', rear: 'rear drive', all: 'all-wheel drive' }
export const PLACE_WORDS = { hub: 'hub', roller: 'roller', engine: 'engine' } as const
export const SENSE_WORDS = { atMost: 'or less', atLeast: 'or more', between: 'to' } as const
export const SCHOOL_WORDS = BOOST_SCHOOL_WORDS

/** "Mass, driver and 20 L": a metric with the condition it is quoted in. */
export function metricTitle(metric: Metric, basis: BoardRow['basis'], fuelText: string | null): string {
  const parts = [METRIC_INFO[metric].word]
  if (basis.power) parts.push(basis.power)
  const load = [basis.driver ? 'driver' : null, fuelText].filter(Boolean).join(' and ')
  if (load) parts.push(load)
  return parts.join(', ')
}

/** A date without a time is never shifted by a zone. */
export const dayText = (date: string): string => format(parseISO(date.slice(0, 10)), 'd MMM yyyy')
export const timeText = (instant: string): string => format(parseISO(instant), 'd MMM yyyy, HH:mm')

/** What stands under a stage's name on the rail. */
export function stageStateText(stage: BoardStage): string {
  const count = stage.toProve > 0 && stage.proven < stage.toProve ? `${stage.proven} of ${stage.toProve} proven` : stage.state
  const late = stage.isLate ? 'late, ' : ''
  const state = stage.state === 'planned' ? (stage.position === 0 ? 'not measured yet' : 'planned') : count
  return `${late}${state}${stage.date ? `, ${dayText(stage.date).replace(/ \d{4}$/, '')}` : ''}`
}

/** The chance of a verdict behind its word; nothing where there is none. */
export const chanceText = (verdict: { readonly chance: number | null } | null): string =>
  verdict === null || verdict.chance === null ? '' : `, ${formatChance(verdict.chance)}`
