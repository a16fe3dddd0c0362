import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { alarmsAtStage, MOST_CRIES } from './alarms.ts'
import { electricsAtStage } from './electrics.ts'

/** The latest stage at which work was begun: the car as it stands. */
const nowOf = (car: Car): number =>
  Math.max(
    0,
    car.linesByStage.findLastIndex((lines) => lines.some(({ doneAtMs }) => doneAtMs !== null)),
  )

const outputOverTrip = defineAdvice({
  rank: 27,
  find: (car: Car) => {
    if (car.records.powerBoxes.length === 0) return []
    const position = car.stages.length - 1
    return electricsAtStage(car.records, position)
      .outputs.filter(({ factor }) => factor !== null && factor <= 1)
      .map(({ key, loadA, tripA }) => ({ code: 'output-over-trip', position, key, loadA, tripA }) as const)
  },
})

const channelOverStop = defineAdvice({
  rank: 28,
  find: (car: Car) => {
    const position = nowOf(car)
    return alarmsAtStage(car.records, position).flatMap(({ check, last }) =>
      last?.isOver
        ? [{ code: 'channel-over-stop', position, checkId: check.id, name: check.name, value: last.value, quantity: check.reading.quantity } as const]
        : [],
    )
  },
})

const alarmCries = defineAdvice({
  rank: 65,
  find: (car: Car) => {
    const position = nowOf(car)
    return alarmsAtStage(car.records, position).flatMap(({ check, runs, cried }) =>
      runs > 0 && cried / runs > MOST_CRIES ? [{ code: 'alarm-cries', position, checkId: check.id, name: check.name, runs, cried } as const] : [],
    )
  },
})

export const SYSTEMS_ADVICE = [outputOverTrip, channelOverStop, alarmCries] as const

export const SYSTEMS_SAYINGS: Sayings<ItemOf<typeof SYSTEMS_ADVICE>> = {
  'output-over-trip': ({ position, key, loadA, tripA }, { at, text, stage }) => ({
    head: `Output ${key} draws more than it trips at`,
    text: `${text('current', loadA)} against ${text('current', tripA)} at ${stage(position)}. Set its trip, or place a circuit elsewhere.`,
    to: at('systems', position, '&tab=electrics'),
    isDanger: true,
  }),
  'channel-over-stop': ({ position, name, value, quantity }, { at, text }) => ({
    head: `${name} was over its stop`,
    text: `${text(quantity, value)} at its last reading. Nothing runs before it is known why.`,
    to: at('systems', position, '&tab=alarms'),
    isDanger: true,
  }),
  'alarm-cries': ({ position, name, runs, cried }, { at }) => ({
    head: `The alarm of ${name.toLowerCase()} cries for nothing`,
    text: `It would have cried in ${cried} of ${runs} runs in which nothing was wrong. Widen it, or it is switched off when it matters.`,
    to: at('systems', position, '&tab=alarms'),
  }),
}
