import type { LifeUnit } from '../../records/part-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { stageOfPart, wornParts } from './parts.ts'

/** A fitted part three quarters of whose life are gone. */
const nearlyUsedUp = defineAdvice({
  rank: 55,
  find: ({ records }: Car) =>
    wornParts(records).flatMap(({ part, life }) => {
      if (!part.life) return []
      const at = stageOfPart(records, part)
      const position = Number.isFinite(at) ? at : 0
      const { amount, unit } = part.life
      return [{ code: 'part-life', partId: part.id, partName: part.name, kind: part.kind, position, used: life.used, amount, unit } as const]
    }),
})

export const PARTS_ADVICE = [nearlyUsedUp] as const

const count = (amount: number, unit: LifeUnit) => `${Number(amount.toFixed(1))} ${amount === 1 ? unit.replace(/s$/, '') : unit}`

export const PARTS_SAYINGS: Sayings<ItemOf<typeof PARTS_ADVICE>> = {
  'part-life': ({ partId, partName, kind, used, amount, unit }, { to }) => ({
    head: `${partName} (${kind}) is ${used >= amount ? 'used up' : 'nearly used up'}`,
    text: `${Number(used.toFixed(1))} of ${count(amount, unit)} are gone${used < amount ? `; ${count(amount - used, unit)} left` : ''}. Look at it, and have the next one ready.`,
    to: to('parts', `part=${partId}`),
  }),
}
