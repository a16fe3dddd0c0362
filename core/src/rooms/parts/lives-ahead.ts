import { orElse } from '../../attempt.ts'
import { chanceToLast, USUAL_LIFE_CV } from '../../checks/life-left.ts'
import { dayAfter } from '../../jobs/days.ts'
import type { LifeUnit, Part, PartUse } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { WorkshopEvent } from '../../records/workshop-kinds.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { lifeOf, partsOfKind } from './parts.ts'

/** Below this chance a part may end, and is told (common practice, no source). */
export const SURE_ENOUGH = 0.8
/** How long a part takes to come where nobody said, days (common practice, no source). */
const USUAL_LEAD_DAYS = 14
const LEAST_FOR_LIFE = 2
const LEAST_FOR_SPREAD = 4

/** How long parts of a kind live, and how that is known. */
export interface KnownLife {
  readonly life: number
  readonly cv: number
  /** How many of the kind wore out with their use noted. */
  readonly wornOut: number
  readonly from: 'given' | 'wornOut'
}

/** What a part had run when it was done with; one that was not used counts for nothing. */
function livesOf(parts: readonly Part[], uses: readonly PartUse[]): number[] {
  return parts.flatMap((part) => {
    const ended = uses.find(({ partId, kind }) => partId === part.id && kind === 'wornOut')
    const used = ended ? (lifeOf({ ...part, life: part.life ?? { amount: 1, unit: 'hours' } }, uses)?.used ?? 0) : 0
    return used > 0 ? [used] : []
  })
}

/**
 * The life of a part's kind: as given, until two of the kind wore out; their mean then, and their own spread from four on.
 * Undefined for a part whose life nobody gave.
 * @example knownLife({ ...PART, life: { amount: 4, unit: 'days' } }, [], []).cv // 0.3
 */
export function knownLife(part: Part, parts: readonly Part[], uses: readonly PartUse[]): KnownLife | undefined {
  if (!part.life) return undefined
  const unit = part.life.unit
  const lives = livesOf(
    partsOfKind(parts, part.kind).filter(({ life }) => life?.unit === unit),
    uses,
  )
  const mean = lives.reduce((sum, life) => sum + life, 0) / Math.max(1, lives.length)
  if (lives.length < LEAST_FOR_LIFE) return { life: part.life.amount, cv: USUAL_LIFE_CV, wornOut: lives.length, from: 'given' }
  const sd = Math.sqrt(lives.reduce((sum, life) => sum + (life - mean) ** 2, 0) / (lives.length - 1))
  const cv = lives.length < LEAST_FOR_SPREAD ? USUAL_LIFE_CV : Math.min(1.5, Math.max(0.05, sd / mean))
  return { life: mean, cv, wornOut: lives.length, from: 'wornOut' }
}

/** How much of a part's life an event takes; null for a unit that no calendar tells. */
export function eventTakes({ days, hoursPerDay, kind }: WorkshopEvent, unit: LifeUnit): number | null {
  if (kind === 'scrutineering') return 0
  if (unit === 'events') return 1
  if (unit === 'days') return days
  return unit === 'hours' ? days * hoursPerDay : null
}

/** A part that wears, before the events ahead. */
export interface LifeAhead {
  readonly part: Part
  readonly known: KnownLife
  readonly used: number
  /** Of each coming event: the chance that it lasts to its end. */
  readonly events: readonly { readonly event: WorkshopEvent; readonly more: number; readonly chance: number }[]
  /** The first event that it may not last; null: it lasts them all. */
  readonly mayEnd: WorkshopEvent | null
  /** The day the next one is ordered by, so that it is here for that event. */
  readonly orderBy: string | null
  /** It has run so far past its life that no chance can be given. */
  readonly isPast: boolean
  readonly pulls: number
  /** Hours for a pull, where those were noted. */
  readonly hoursPerPull: number | null
}

type Records = Pick<BuildRecords, 'parts' | 'partUses' | 'events' | 'tasks'>

function pullsOf({ partUses, tasks }: Records, partId: string): Pick<LifeAhead, 'pulls' | 'hoursPerPull'> {
  const pulls = partUses.filter((use) => use.partId === partId && use.kind === 'pulled')
  const hours = [
    ...pulls.filter(({ amount }) => amount > 0).map(({ amount }) => amount),
    ...tasks.filter((task) => task.state === 'done' && task.partIds.includes(partId)).map((task) => task.worked.reduce((sum, each) => sum + each.hours, 0)),
  ].filter((each) => each > 0)
  return { pulls: pulls.length, hoursPerPull: pulls.length > 0 && hours.length > 0 ? hours.reduce((sum, each) => sum + each, 0) / hours.length : null }
}

/**
 * Fitted parts whose life somebody gave, with the chance that each lasts the events ahead; the surest to end first.
 * @example livesAhead(EXAMPLE, '2027-03-01') // []
 */
export function livesAhead(records: Records, today: string): LifeAhead[] {
  const ahead = comingEvents(records.events, today)
  return records.parts
    .filter(({ status }) => status === 'fitted')
    .flatMap((part): LifeAhead[] => {
      const known = knownLife(part, records.parts, records.partUses)
      if (!known || !part.life) return []
      const { unit } = part.life
      const used = lifeOf(part, records.partUses)?.used ?? 0
      let more = 0
      let isPast = false
      const events = ahead.flatMap((event) => {
        const takes = eventTakes(event, unit)
        if (takes === null || takes === 0) return []
        more += takes
        const chance = orElse(
          () => chanceToLast({ life: known.life, used, more, cv: known.cv }),
          () => {
            isPast = true
            return 0
          },
        )
        return [{ event, more, chance }]
      })
      const mayEnd = events.find(({ chance }) => chance < SURE_ENOUGH)?.event ?? null
      const orderBy = mayEnd ? dayAfter(mayEnd.startsOn, -(part.leadDays ?? USUAL_LEAD_DAYS)) : null
      return [{ part, known, used, events, mayEnd, orderBy, isPast, ...pullsOf(records, part.id) }]
    })
    .sort((a, b) => (a.events[0]?.chance ?? 1) - (b.events[0]?.chance ?? 1) || b.used / b.known.life - a.used / a.known.life)
}
