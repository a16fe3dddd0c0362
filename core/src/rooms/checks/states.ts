import { attempt } from '../../attempt.ts'
import { type CheckState, type DueReason, dueChecks } from '../../checks/due.ts'
import { CalculationError } from '../../errors.ts'
import { daysFrom } from '../../jobs/days.ts'
import { takeOffPlan } from '../../jobs/take-off.ts'
import type { Check, CheckInterval, Mark, Round } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { WorkshopEvent } from '../../records/workshop-kinds.ts'
import { lastDayOf } from '../../stages/coming-events.ts'
import { partsAtStage } from '../parts/parts.ts'
import { isDueWhenTouched, isSafety, minutesOf } from './usual.ts'

/** What is asked of the checks: before which event (null: today), of the car of which stage, in which round. */
export interface DueAsked {
  readonly event: WorkshopEvent | null
  readonly position: number
  readonly today: string
  readonly round: Round | null
}

/** A check that is due, with why and what it takes. */
export interface Due {
  readonly check: Check
  readonly reason: DueReason
  readonly stops: boolean
  readonly minutes: number
  readonly isSafety: boolean
  /** The last mark of it. */
  readonly last: Mark | null
  /** When its part or its zone was worked on since; null: it was not. */
  readonly touchedOn: string | null
}

type Records = Pick<BuildRecords, 'build' | 'checks' | 'marks' | 'tasks' | 'changes' | 'parts' | 'partUses' | 'stages' | 'events' | 'zones'>

/** As all instants are written here; one that is written so already is left alone, for a ledger has thousands. */
const instantOf = (at: string) => (/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/.test(at) ? at : new Date(at).toISOString())
const later = (a: string | null, b: string | null) => (a === null || (b !== null && b > a) ? b : a)

/** When each part and each zone was last worked on, by jobs and lines that are done, and parts that were pulled; what had to come off on the way too. */
function touches({ tasks, changes, parts, partUses }: Records): { readonly parts: ReadonlyMap<string, string>; readonly zones: ReadonlyMap<string, string> } {
  const byPart = new Map<string, string>()
  const byZone = new Map<string, string>()
  const note = (map: Map<string, string>, key: string, at: string) => void map.set(key, later(map.get(key) ?? null, at) as string)
  const undone = (partId: string): readonly string[] => {
    const plan = attempt(() => takeOffPlan(parts, partId))
    return plan instanceof CalculationError ? [partId] : plan.steps.map(({ id }) => id)
  }
  const lineById = new Map(changes.map((change) => [change.id, change]))
  const line = (change: BuildRecords['changes'][number] | undefined, at: string) => {
    if (!change) return
    if (change.partId) for (const id of undone(change.partId)) note(byPart, id, at)
    if (change.zone) note(byZone, change.zone.toLowerCase(), at)
  }
  for (const task of tasks) {
    if (task.state !== 'done' || task.doneAt === null) continue
    const at = instantOf(task.doneAt)
    for (const id of task.partIds.flatMap(undone)) note(byPart, id, at)
    for (const id of task.changeIds) line(lineById.get(id), at)
  }
  for (const change of changes) if (change.state === 'done' && change.doneAt !== null) line(change, instantOf(change.doneAt))
  for (const use of partUses) if (use.kind === 'pulled') note(byPart, use.partId, instantOf(use.at))
  return { parts: byPart, zones: byZone }
}

const MEAN_MONTH_DAYS = 30.44

/** What a check may run between two looks, what ran since the last one, and what the event adds, in the interval's own unit. */
function intervalOf(
  { amount, unit }: CheckInterval,
  okAt: string | null,
  { event, today }: DueAsked,
  events: readonly WorkshopEvent[],
): CheckState['interval'] {
  const okOn = okAt?.slice(0, 10) ?? null
  if (unit === 'months') {
    const upTo = event ? lastDayOf(event) : today
    return { every: amount, since: okOn === null ? 0 : daysFrom(okOn, upTo) / MEAN_MONTH_DAYS, adds: 0 }
  }
  const of = ({ days, hoursPerDay }: WorkshopEvent) => (unit === 'events' ? 1 : unit === 'days' ? days : days * hoursPerDay)
  const ran = events.filter(
    (each) => each.id !== event?.id && each.kind !== 'scrutineering' && lastDayOf(each) < today && (okOn === null || lastDayOf(each) > okOn),
  )
  return { every: amount, since: ran.reduce((sum, each) => sum + of(each), 0), adds: event ? of(event) : 0 }
}

/**
 * Whether a check is asked at a stage: its part is in the car, or it is of none, or it is packed.
 * @example checksInCar(CHECKED, 1).length // 2
 */
export function checksInCar(records: Pick<BuildRecords, 'checks' | 'parts' | 'stages'>, position: number): Check[] {
  const there = new Set(partsAtStage(records, position).map(({ id }) => id))
  return records.checks.filter(({ kind, partId }) => partId === null || kind === 'take' || there.has(partId))
}

const instantsOfMarks = new WeakMap<Mark, number>()
/** When a mark was made, ms since 1970; read once for each mark. */
function markedAtMs(mark: Mark): number {
  const atMs = instantsOfMarks.get(mark) ?? Date.parse(mark.at)
  instantsOfMarks.set(mark, atMs)
  return atMs
}

/** A list of marks is one revision's and never changes: it is sorted out once, however many stages and events ask. */
const sortedOut = new WeakMap<readonly Mark[], ReadonlyMap<string, readonly Mark[]>>()

/**
 * Marks of each check, the latest first.
 * @example marksByCheck([]).size // 0
 */
export function marksByCheck(marks: readonly Mark[]): ReadonlyMap<string, readonly Mark[]> {
  const known = sortedOut.get(marks)
  if (known) return known
  const byCheck = new Map<string, Mark[]>()
  for (const mark of marks) {
    const own = byCheck.get(mark.checkId)
    if (own) own.push(mark)
    else byCheck.set(mark.checkId, [mark])
  }
  for (const own of byCheck.values()) own.sort((a, b) => markedAtMs(b) - markedAtMs(a))
  sortedOut.set(marks, byCheck)
  return byCheck
}

/**
 * Whether a mark found something that stays due: bad, or broken and mended for now.
 * @example isBadMark({ result: 'damage', damage: { isMakeDo: false, hours: null, cost: null } }) // false
 */
export const isBadMark = ({ result, damage }: Pick<Mark, 'result' | 'damage'>): boolean =>
  result === 'bad' || (result === 'damage' && damage?.isMakeDo !== false)
/** Found in order, or put right for good. */
export const isFound = ({ result, damage }: Mark) => result === 'ok' || result === 'fixed' || (result === 'damage' && damage?.isMakeDo === false)

/**
 * What is due before an event, or today, and why; those that stop it first, then what goes bad most often for its minutes.
 * A check whose part is not in the car is not asked.
 * @example dueAt(CHECKED, { event: null, position: 1, today: '2027-03-01', round: null })[0].reason // 'never'
 */
export function dueAt(records: Records, asked: DueAsked): Due[] {
  const touched = touches(records)
  const marks = marksByCheck(records.marks)
  const byName = new Map<string, Due>()
  const states = checksInCar(records, asked.position).map((check): CheckState => {
    const own = marks.get(check.id) ?? []
    const [ok, bad] = [own.find(isFound), own.find(isBadMark)]
    const okOn = ok ? instantOf(ok.at) : null
    const at = check.partId ? touched.parts.get(check.partId) : touched.zones.get(check.zone?.toLowerCase() ?? '')
    const touchedOn = isDueWhenTouched(check) ? (at ?? null) : null
    const [minutes, safety] = [minutesOf(check), isSafety(check)]
    byName.set(check.id, {
      check,
      reason: 'asked',
      stops: false,
      minutes,
      isSafety: safety,
      last: own[0] ?? null,
      touchedOn: touchedOn && (okOn === null || touchedOn > okOn) ? touchedOn : null,
    })
    return {
      name: check.id,
      isSafety: safety,
      minutes,
      okOn,
      badOn: bad ? instantOf(bad.at) : null,
      touchedOn,
      interval: check.every ? intervalOf(check.every, okOn, asked, records.events) : null,
      expiresOn: check.gear?.expiresOn ?? null,
      isAsked: asked.round !== null && check.rounds.includes(asked.round),
      marks: own.length,
      bads: own.filter(isBadMark).length,
    }
  })
  const lastDay = asked.event ? lastDayOf(asked.event) : asked.today
  return dueChecks(states, lastDay).flatMap(({ name, reason, stops }) => {
    const due = byName.get(name)
    return due ? [{ ...due, reason, stops }] : []
  })
}

/**
 * The checks of a round: those that are asked in it, and what is bad or was touched since; in walking order round the car from the left front, along the left first.
 * @example roundOf(CHECKED, { event: null, position: 1, today: '2027-03-01', round: 'between' }).length // 2
 */
export function roundOf(records: Records, asked: DueAsked & { readonly round: Round }): Due[] {
  const due = dueAt(records, asked).filter(({ check, reason }) => check.rounds.includes(asked.round) || reason === 'bad' || reason === 'touched')
  return inWalkOrder(due, records)
}

/**
 * Round the car from the left front: along the left side first.
 * @example inWalkOrder([{ check: HOSES }], EXAMPLE).length // 1
 */
export function inWalkOrder<Each extends { readonly check: Check }>(
  list: readonly Each[],
  { build, zones, parts }: Pick<BuildRecords, 'build' | 'zones' | 'parts'>,
): Each[] {
  const zonePlace = new Map(zones.map((zone) => [zone.name.toLowerCase(), zone.place]))
  const partPlace = new Map(parts.map((part) => [part.id, part.place]))
  const [x0, halfM] = [build.wheelbaseM / 2, build.trackFrontM / 2]
  const start = Math.atan2(halfM, -x0)
  const angle = ({ check }: Each): number => {
    const place = check.place ?? partPlace.get(check.partId ?? '') ?? zonePlace.get(check.zone?.toLowerCase() ?? '')
    if (!place) return Number.POSITIVE_INFINITY
    const turned = start - Math.atan2(place.yM, place.xM - x0)
    // A little in front of the left wheel is still the beginning.
    return ((turned + 0.2 + 4 * Math.PI) % (2 * Math.PI)) - 0.2
  }
  const keyed = list.map((each, i) => ({ each, i, angle: angle(each) }))
  return keyed.sort((a, b) => (a.angle === b.angle ? a.i - b.i : a.angle - b.angle)).map(({ each }) => each)
}
