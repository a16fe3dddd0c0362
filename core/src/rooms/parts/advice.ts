import type { LifeUnit } from '../../records/part-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { livesAhead } from './lives-ahead.ts'
import { stageOfPart, wornParts } from './parts.ts'

/** A fitted part three quarters of whose life are gone. */
const nearlyUsedUp = defineAdvice({
  rank: 55,
  find: ({ records }: Car, today) => {
    // What may end before a coming event is told with the event.
    const told = new Set(livesAhead(records, today).flatMap(({ part, mayEnd }) => (mayEnd ? [part.id] : [])))
    return wornParts(records).flatMap(({ part, life }) => {
      if (!part.life || told.has(part.id)) return []
      const at = stageOfPart(records, part)
      const position = Number.isFinite(at) ? at : 0
      const { amount, unit } = part.life
      return [{ code: 'part-life', partId: part.id, partName: part.name, kind: part.kind, position, used: life.used, amount, unit } as const]
    })
  },
})

const partMayEnd = defineAdvice({
  rank: 53,
  find: (car: Car, today) =>
    livesAhead(car.records, today).flatMap(({ part, mayEnd, events, orderBy }) => {
      const chance = events.find(({ event }) => event.id === mayEnd?.id)?.chance
      const position = Math.max(
        0,
        car.stages.findIndex(({ id }) => id === part.stageId),
      )
      return mayEnd && chance !== undefined && orderBy
        ? [{ code: 'part-may-end', position, partId: part.id, name: part.name, eventName: mayEnd.name, chance, orderBy, isLate: orderBy < today } as const]
        : []
    }),
})

export const PARTS_ADVICE = [partMayEnd, nearlyUsedUp] as const

const count = (amount: number, unit: LifeUnit) => `${Number(amount.toFixed(1))} ${amount === 1 ? unit.replace(/s$/, '') : unit}`

export const PARTS_SAYINGS: Sayings<ItemOf<typeof PARTS_ADVICE>> = {
  'part-may-end': ({ name, eventName, chance: sure, orderBy, isLate, partId }, { chance, day, to }) => ({
    head: `${name} may not last ${eventName}`,
    text: `${chance(sure)} that it does. Order the next one ${isLate ? 'now' : `by ${day(orderBy)}`}.`,
    to: to('checks', `tab=due&part=${partId}`),
  }),
  'part-life': ({ partId, partName, kind, used, amount, unit }, { to }) => ({
    head: `${partName} (${kind}) is ${used >= amount ? 'used up' : 'nearly used up'}`,
    text: `${Number(used.toFixed(1))} of ${count(amount, unit)} are gone${used < amount ? `; ${count(amount - used, unit)} left` : ''}. Look at it, and have the next one ready.`,
    to: to('parts', `part=${partId}`),
  }),
}
