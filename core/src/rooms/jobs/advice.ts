import { daysFrom } from '../../jobs/days.ts'
import type { Move } from '../../jobs/helps.ts'
import type { Car } from '../../stages/car.ts'
import { comingEvents } from '../../stages/coming-events.ts'
import { type AdviceWords, defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { stageRoads } from './jobs-room.ts'
import { moneyToStage } from './money.ts'
import { roadOf } from './road-of-car.ts'

/** Sooner missed than met. */
const EVEN = 0.5
/** How soon something has to be done to be told. */
const SOON_DAYS = 7
const EVENT_SOON_DAYS = 45

const WEEKDAYS = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'] as const

/** Names of what a move speaks of. */
export interface MoveNames {
  readonly hand: (id: string) => string
  readonly job: (id: string) => string
  readonly part: (id: string) => string
}

/**
 * What can be moved, in words that a person would say.
 * @example moveText({ kind: 'leaveOut', jobId: 'spacers' }, { hand: String, job: String, part: String }) // 'Leave out spacers'
 */
export function moveText(move: Move, names: MoveNames): string {
  switch (move.kind) {
    case 'session':
      return `${move.handIds.map(names.hand).join(' and ')} on ${WEEKDAYS[move.weekday] ?? ''}, ${move.hours} h`
    case 'fewerHands':
      return `${names.job(move.jobId)} without ${names.hand(move.handId)}`
    case 'leaveOut':
      return `Leave out ${names.job(move.jobId)}`
    case 'partSooner':
      return `${names.part(move.partId)} a week sooner`
    case 'earlier':
      return `${names.job(move.jobId)} before ${names.job(move.beforeId)}`
  }
}

const named = (list: readonly { readonly id: string; readonly name: string }[]) => (id: string) => list.find((entry) => entry.id === id)?.name ?? '?'

const notReady = defineAdvice({
  rank: 51,
  find: (car: Car, today) => {
    const roads = stageRoads(car, today)
    if (roads === 'waiting') return []
    const summary = car.laterRoad(roadOf(car, today))
    const help = summary === 'waiting' || !summary?.help ? null : summary.help
    const { hands, tasks, parts } = car.records
    const names = { hand: named(hands), job: named(tasks), part: named(parts) }
    return roads.flatMap((road, position) =>
      road && road.chance !== null && road.chance < EVEN && road.wantedOn !== null
        ? [
            {
              code: 'not-ready',
              position,
              chance: road.chance,
              wantedOn: road.wantedOn,
              readyOn: road.readyOn,
              help: help && { text: moveText(help.move, names), chance: help.chance },
            } as const,
          ]
        : [],
    )
  },
})

const orderParts = defineAdvice({
  rank: 52,
  find: (car: Car, today) => {
    const asked = roadOf(car, today)
    if (asked.road.parts.every(({ orderedDaysAgo }) => orderedDaysAgo !== null)) return []
    const summary = car.laterRoad(asked)
    if (summary === 'waiting' || !summary) return []
    return summary.orderBy.flatMap(({ partId, day }) => {
      const part = car.records.parts.find(({ id }) => id === partId)
      const position = Math.max(
        0,
        car.stages.findIndex(({ id }) => id === part?.stageId),
      )
      return part && day <= SOON_DAYS ? [{ code: 'order-part', position, partId, name: part.name, inDays: day } as const] : []
    })
  },
})

const overBudget = defineAdvice({
  rank: 54,
  find: (car: Car) => {
    const position = car.stages.length - 1
    const { chance, mean } = moneyToStage(car, position)
    const budget = car.records.build.money?.budget ?? null
    return chance !== null && chance < EVEN && budget !== null ? [{ code: 'over-budget', position, mean, budget, chance } as const] : []
  },
})

const decisionDue = defineAdvice({
  rank: 55,
  find: (car: Car, today) =>
    car.records.decisions.flatMap(({ id, question, dueOn, chosen, stageId }) =>
      chosen === null && dueOn !== null && daysFrom(today, dueOn) <= SOON_DAYS
        ? [
            {
              code: 'decision-due',
              position: Math.max(
                0,
                car.stages.findIndex((stage) => stage.id === stageId),
              ),
              decisionId: id,
              question,
              dueOn,
            } as const,
          ]
        : [],
    ),
})

/** An event is near, the car of its stage is not there, and nobody listed what is left to do. */
const eventWithoutJobs = defineAdvice({
  rank: 58,
  find: (car: Car, today) => {
    const { road } = roadOf(car, today)
    return comingEvents(car.records.events, today).flatMap(({ name, stageId, startsOn }) => {
      const position = car.stages.findIndex(({ id }) => id === stageId)
      const isSoon = daysFrom(today, startsOn) <= EVENT_SOON_DAYS
      const isOpen = (car.linesByStage[position] ?? []).some(({ change }) => change.state === 'planned')
      return position >= 0 && isSoon && isOpen && !road.jobs.some(({ stage }) => stage <= position)
        ? [{ code: 'event-without-jobs', position, name, startsOn } as const]
        : []
    })
  },
})

export const JOBS_ADVICE = [notReady, orderParts, overBudget, decisionDue, eventWithoutJobs] as const

const money = (words: AdviceWords, value: number) => words.text('money', value)

export const JOBS_SAYINGS: Sayings<ItemOf<typeof JOBS_ADVICE>> = {
  'not-ready': ({ position, chance, wantedOn, readyOn, help }, words) => ({
    head: `${words.chance(chance)} to be ready for ${words.day(wantedOn)}`,
    text: `${words.stage(position)}: ${readyOn ? `by the middle it is ready on ${words.day(readyOn)}` : 'by the middle it is never ready'}.${help ? ` What helps most: ${help.text}, ${words.chance(help.chance)}.` : ''}`,
    to: words.at('jobs', position),
  }),
  'order-part': ({ position, name, inDays }, words) => ({
    head: inDays <= 0 ? `Order ${name} now` : `Order ${name} within ${inDays === 1 ? 'a day' : `${inDays} days`}`,
    text: `Jobs of ${words.stage(position)} wait for it; later than that and the day moves.`,
    to: words.at('jobs', position),
  }),
  'over-budget': ({ position, mean, budget, chance }, words) => ({
    head: `${money(words, mean)} against a budget of ${money(words, budget)}`,
    text: `${words.chance(chance)} to stay within it by ${words.stage(position)}.`,
    to: words.at('jobs', position, '&tab=money'),
  }),
  'decision-due': ({ position, question, dueOn, decisionId }, words) => ({
    head: question,
    text: `To be decided by ${words.day(dueOn)}, for ${words.stage(position)}.`,
    to: words.at('jobs', position, `&tab=decisions&decision=${decisionId}`),
  }),
  'event-without-jobs': ({ position, name, startsOn }, words) => ({
    head: `List the jobs to ${name}`,
    text: `It is on ${words.day(startsOn)}, ${words.stage(position)} has open lines and no job says who does them.`,
    to: words.at('jobs', position),
  }),
}
