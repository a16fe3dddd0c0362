import type { BuildRecords } from '../../records/records.ts'
import type { Car } from '../../stages/car.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { checkDrifts } from './drifts.ts'
import { type Due, dueAt } from './states.ts'
import { takeAlong } from './take.ts'

/** What the rules of What next read beside the car's own lists. */
export const CHECKS_READS = ['checks', 'marks', 'tasks', 'events', 'partUses', 'trackSessions', 'laps'] as const

/** How soon an event is near enough for its checks to be told, days. */
const SOON_DAYS = 60

/** The next event with the stage of its car; where it names none, the last stage with work that is done. */
function nextEvent(car: Car, today: string) {
  const [event] = comingEvents(car.records.events, today)
  const named = car.stages.findIndex(({ id }) => id === event?.stageId)
  const now = Math.max(
    0,
    car.linesByStage.findLastIndex((lines) => lines.some(({ doneAtMs }) => doneAtMs !== null)),
  )
  return { event: event ?? null, position: named >= 0 ? named : now }
}

interface DueNow {
  readonly due: readonly Due[]
  readonly position: number
  readonly event: BuildRecords['events'][number] | null
}

const known = new WeakMap<Car, { readonly today: string; readonly found: DueNow }>()

/** What stops the next event, or today: worked out once for every rule. */
function dueNow(car: Car, today: string): DueNow {
  const before = known.get(car)
  if (before?.today === today) return before.found
  const found = findDue(car, today)
  known.set(car, { today, found })
  return found
}

function findDue(car: Car, today: string): DueNow {
  const { event, position } = nextEvent(car, today)
  if (car.records.checks.length === 0) return { due: [], position, event }
  return { due: dueAt(car.records, { event, position, today, round: null }), position, event }
}

const badSafety = defineAdvice({
  rank: 20,
  find: (car: Car, today) => {
    const { due, position } = dueNow(car, today)
    return due
      .filter(({ reason, stops }) => reason === 'bad' && stops)
      .map(({ check, last }) => ({ code: 'check-bad', position, checkId: check.id, name: check.name, note: last?.note ?? null }) as const)
  },
})

const gearExpires = defineAdvice({
  rank: 25,
  find: (car: Car, today) => {
    const { due, position, event } = dueNow(car, today)
    return due.flatMap(({ check, reason }) =>
      reason === 'expires' && check.gear?.expiresOn
        ? [
            {
              code: 'gear-expires',
              position,
              checkId: check.id,
              name: check.name,
              on: check.gear.expiresOn,
              eventName: event?.name ?? null,
              isOver: check.gear.expiresOn < today,
            } as const,
          ]
        : [],
    )
  },
})

const touchedBolts = defineAdvice({
  rank: 29,
  find: (car: Car, today) => {
    const { due, position } = dueNow(car, today)
    const touched = due.filter(({ reason, stops }) => reason === 'touched' && stops)
    const [first] = touched
    return first
      ? [
          {
            code: 'checks-touched',
            position,
            count: touched.length,
            name: first.check.name,
            minutes: touched.reduce((sum, { minutes }) => sum + minutes, 0),
          } as const,
        ]
      : []
  },
})

const toolNobodyPacks = defineAdvice({
  rank: 57,
  find: (car: Car, today) => {
    const { event, position } = nextEvent(car, today)
    if (!event || car.records.checks.length === 0) return []
    const days = (Date.parse(event.startsOn) - Date.parse(today)) / 86_400_000
    if (days > SOON_DAYS) return []
    return takeAlong(car.records, { event, position, today, round: null }).unpacked.map(
      ({ tool, neededBy }) => ({ code: 'tool-unpacked', position, tool, count: neededBy.length }) as const,
    )
  },
})

/** A standard value on its way to where it warns, told before it is there. */
const valueDrifts = defineAdvice({
  rank: 53,
  find: (car: Car, today) => {
    const drifts = checkDrifts(car.records)
    return drifts.flatMap(({ check, drift, per }) =>
      drift.limit === null || drift.useLeft === null || !check.reading
        ? []
        : [
            {
              code: 'value-drifts',
              position: nextEvent(car, today).position,
              checkId: check.id,
              name: check.name,
              quantity: check.reading.quantity,
              now: drift.now,
              limit: drift.limit,
              isFalling: drift.perUse < 0,
              left: drift.useLeft,
              per,
            } as const,
          ],
    )
  },
})

export const CHECKS_ADVICE = [badSafety, gearExpires, touchedBolts, valueDrifts, toolNobodyPacks] as const

export const CHECKS_SAYINGS: Sayings<ItemOf<typeof CHECKS_ADVICE>> = {
  'check-bad': ({ position, name, note }, { at }) => ({
    head: `${name} is bad`,
    text: `${note ? `“${note}” ` : ''}No event is fit before it is in order again.`,
    to: at('checks', position, '&tab=ready'),
    isDanger: true,
  }),
  'gear-expires': ({ position, name, on, eventName, isOver }, { at, day }) => ({
    head: isOver ? `${name}: the date ran out on ${day(on)}` : `${name}: the date runs out before ${eventName ?? 'the event'} is over`,
    text: isOver ? 'Scrutineering turns it away.' : `On ${day(on)}. Replace it, or have it certified anew by who may.`,
    to: at('checks', position, '&tab=due'),
    isDanger: true,
  }),
  'checks-touched': ({ position, count, name, minutes }, { at }) => ({
    head: count === 1 ? `Look at ${name}: it was worked on` : `${count} safety checks since it was worked on`,
    text: `${name}${count > 1 ? ' first' : ''}; about ${Math.max(1, Math.round(minutes))} min in all.`,
    to: at('checks', position, '&tab=ready'),
    isDanger: true,
  }),
  'value-drifts': ({ position, name, quantity, now, limit, isFalling, left, per }, { text, at }) => ({
    head: `${name} ${isFalling ? 'falls' : 'rises'} slowly`,
    text: `From ${text(quantity, now)} now it would be at ${text(quantity, limit)} in about ${Math.max(1, Math.round(left))} ${per === 'hour' ? 'h of laps' : 'days'}, if it goes on so. Look for wear before it is there.`,
    to: at('checks', position, '&tab=due'),
  }),
  'tool-unpacked': ({ position, tool, count }, { at }) => ({
    head: `Pack a ${tool}`,
    text: `${count} ${count === 1 ? 'check needs' : 'checks need'} it and nobody packs one.`,
    to: at('checks', position, '&tab=take'),
  }),
}
