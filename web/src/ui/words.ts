import { BOOST_SCHOOL_WORDS, type BoardRow, type BoardStage, type BuildRecord, METRIC_INFO, type Metric } from '@bold-ballast/core'
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

const RECORD_WORDS: Record<string, string> = {
  builds: 'the build',
  stages: 'a stage',
  limits: 'a limit',
  targets: 'a target',
  changes: 'a ledger line',
  expectations: 'an expectation',
  weighings: 'a weighing',
  'in-cars': 'what was in the car',
  inCars: 'what was in the car',
  sessions: 'a dyno session',
  pulls: 'a pull',
  standings: 'which session stands',
  zones: 'a zone',
  boxes: 'a box',
  lifts: 'a lifted reading',
  'balance-steps': 'a round of turns',
  balanceSteps: 'a round of turns',
  sites: 'a place for ballast',
  'ballast-aims': 'what ballast shall reach',
  ballastAims: 'what ballast shall reach',
  photos: 'a picture',
  parts: 'a part',
  'part-uses': 'the use of a part',
  partUses: 'the use of a part',
  'engine-plans': 'an engine plan',
  enginePlans: 'an engine plan',
  'pull-plans': 'hours at the dyno',
  pullPlans: 'hours at the dyno',
  'dyno-mappings': 'what a dyno’s columns are',
  dynoMappings: 'what a dyno’s columns are',
}

/** What a resource or list holds one of. */
export const recordWord = (resource: string): string => RECORD_WORDS[resource] ?? resource

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
