import { setsNeeded, USUAL_LIFE_CV } from '../../checks/life-left.ts'
import type { LifeUnit, Part } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { WorkshopEvent } from '../../records/workshop-kinds.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { median } from '../../stats/moments.ts'
import { eventTakes, knownLife } from '../parts/lives-ahead.ts'
import { wholeCost } from '../parts/parts.ts'
import { drivelineAtStage, driveOf } from './driveline.ts'

/** What a set lasts, and how that is known. */
export interface TyreLife {
  readonly amount: number
  readonly unit: LifeUnit
  readonly cv: number
  /** Counted as pairs that were used up on days of runs, worn out by the register, or as typed. */
  readonly from: 'pairsUsed' | 'wornOut' | 'given'
}

/** What an event takes of a set of tyres. */
export interface EventTyres {
  readonly event: WorkshopEvent
  /** In the unit of the life. */
  readonly takes: number
  /** Sets in the mean. */
  readonly mean: number
  /** Sets that do in 9 of 10. */
  readonly sets: number
  /** Of the mean; null: the part has no price. */
  readonly cost: number | null
}

export interface TyresForEvents {
  readonly part: Part
  readonly axles: readonly ('front' | 'rear')[]
  readonly life: TyreLife | null
  /** Runs or laps of a day as they were driven; null where the calendar tells, or nobody drove a day. */
  readonly perDay: number | null
  readonly events: readonly EventTyres[]
  /** Why nothing can be said, with the cure. */
  readonly reason: string | null
}

type Records = Pick<BuildRecords, 'parts' | 'partUses' | 'stages' | 'events' | 'trackSessions' | 'driftRuns' | 'laps'>

const isCounted = ({ setAside }: { readonly setAside: string | null }): boolean => setAside === null

/** Runs or laps of each day that was driven, by their sessions. */
function amountsByDay({ trackSessions, driftRuns, laps }: Records, unit: 'runs' | 'laps'): number[] {
  const dayOf = new Map(trackSessions.filter(isCounted).map(({ id, at }) => [id, at.slice(0, 10)]))
  const byDay = new Map<string, number>()
  for (const each of (unit === 'runs' ? driftRuns : laps).filter(isCounted)) {
    const day = dayOf.get(each.trackSessionId)
    if (day !== undefined) byDay.set(day, (byDay.get(day) ?? 0) + 1)
  }
  return [...byDay.values()]
}

/** Runs of a rear pair as they were counted on the days that used this part's tyres. */
function countedLife(records: Records, part: Part): TyreLife | undefined {
  const sessions = records.trackSessions.filter(
    (session) => isCounted(session) && session.kind === 'runs' && session.rearPairsUsed !== null && (session.rearTyresPartId ?? part.id) === part.id,
  )
  const ids = new Set(sessions.map(({ id }) => id))
  const pairs = sessions.reduce((sum, { rearPairsUsed }) => sum + (rearPairsUsed ?? 0), 0)
  const runs = records.driftRuns.filter((run) => isCounted(run) && ids.has(run.trackSessionId)).length
  return pairs > 0 && runs > 0 ? { amount: runs / pairs, unit: 'runs', cv: USUAL_LIFE_CV, from: 'pairsUsed' } : undefined
}

function lifeOfTyres(records: Records, part: Part, isRear: boolean): TyreLife | null {
  const counted = isRear ? countedLife(records, part) : undefined
  if (counted) return counted
  const known = knownLife(part, records.parts, records.partUses)
  return known && part.life ? { amount: known.life, unit: part.life.unit, cv: known.cv, from: known.from } : null
}

/**
 * Sets of the tyres on the car at a stage that each coming event takes, and their cost in the mean: what the event takes of a life (days and hours by the
 * calendar; runs and laps by the median of the days that were driven) over what a set lasts, and the sets that do in 9 of 10. Pairs counted on days of runs
 * stand before a typed life. Says why where no life is known or no day was driven.
 * @example tyresForEvents(EXAMPLE, 1, '2027-03-01') // []
 */
export function tyresForEvents(records: Records, position: number, today: string): TyresForEvents[] {
  const line = drivelineAtStage(records, position)
  const [front, rear] = [driveOf(line, 'tyre front')?.part, driveOf(line, 'tyre rear')?.part]
  const parts = [...new Set([rear, front].filter((part) => part !== undefined))]
  return parts.map((part): TyresForEvents => {
    const axles = (['front', 'rear'] as const).filter((axle) => (axle === 'front' ? front : rear)?.id === part.id)
    const life = lifeOfTyres(records, part, axles.includes('rear'))
    const none = { part, axles, life, perDay: null, events: [] }
    if (!life) return { ...none, reason: `Nobody said how long they last: type a life with the part, such as 6 runs, 40 laps or 2 days.` }
    const isDriven = life.unit === 'runs' || life.unit === 'laps'
    const days = isDriven ? amountsByDay(records, life.unit as 'runs' | 'laps') : []
    if (isDriven && days.length === 0) return { ...none, reason: `No day of ${life.unit} was logged yet: one tells how many an event takes.` }
    const perDay = isDriven ? median(days) : null
    const setCost = wholeCost(part)
    const events = comingEvents(records.events, today).flatMap((event): EventTyres[] => {
      const takes = perDay === null ? eventTakes(event, life.unit) : event.kind === 'scrutineering' ? 0 : perDay * event.days
      if (takes === null || takes <= 0) return []
      const mean = takes / life.amount
      const { sets } = setsNeeded({ life: life.amount, wanted: takes, cv: life.cv })
      return [{ event, takes, mean, sets, cost: setCost === null ? null : mean * setCost }]
    })
    return { part, axles, life, perDay, events, reason: events.length === 0 ? 'No event is in the calendar: enter the next one under Jobs, Dates.' : null }
  })
}
