import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { hasPowerExpectation, powerAtStage, stageTouchesPower } from './power-at-stage.ts'

const sessionsDisagree = defineAdvice({
  rank: 41,
  find: (car: Car) =>
    car.stages.flatMap((_, position) => {
      const step = powerAtStage(car, position)?.steps[0]
      if (step?.kind !== 'measured' || step.position !== position || step.combined.disagreesWith === undefined) return []
      const [first, other] = [step.runs[0], step.runs[step.combined.disagreesWith]]
      if (!first || !other) return []
      const [sessionId, otherId] = [first.session.id, other.session.id]
      return [{ code: 'sessions-disagree', sessionId, otherId, position, powerW: first.value, otherW: other.value } as const]
    }),
})

const unaskedPower = defineAdvice({
  rank: 60,
  find: (car: Car) =>
    car.stages.flatMap((_, position) => {
      if (!stageTouchesPower(car, position) || powerAtStage(car, position)?.isMeasuredHere || hasPowerExpectation(car, position)) return []
      const line = car.lines.find((entry) => entry.stagePosition === position && entry.change.touchesPower)
      return line ? [{ code: 'power-without-expectation', position, changeName: line.change.name } as const] : []
    }),
})

export const POWER_ADVICE = [sessionsDisagree, unaskedPower] as const

export const POWER_SAYINGS: Sayings<ItemOf<typeof POWER_ADVICE>> = {
  'sessions-disagree': ({ powerW, otherW, position }, { text, stage, at }) => ({
    head: 'Two visits to the dyno disagree',
    text: `${text('power', powerW)} and ${text('power', otherW)} on one setting at ${stage(position)}. A third visit decides; until then the spread is wide.`,
    to: at('power', position),
  }),
  'power-without-expectation': ({ changeName, position }, { stage, at }) => ({
    head: `Say what ${stage(position)} should give`,
    text: `${changeName} touches power and nothing says by how much, so power is carried as a guess.`,
    to: at('plan', position, '&tab=expectations'),
  }),
}
