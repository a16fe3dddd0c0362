import { forecastMass } from '../../mass/forecast.ts'
import { isMeasured } from '../../proof/quantity.ts'
import { type Car, unknownLines } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { knownParts, massOf, massOrProblem } from './mass-at-stage.ts'
import { unexplainedAt, unlistedDifferences } from './unexplained.ts'

const noMass = defineAdvice({
  rank: 30,
  find: (car: Car) => (massOrProblem(car, 0) === undefined ? [{ code: 'no-mass' } as const] : []),
})

/** The newest first. */
const unexplainedMass = defineAdvice({
  rank: 40,
  find: (car: Car) =>
    car.weighings
      .flatMap(({ weighing }) => {
        const found = unexplainedAt(car, weighing.id)
        return found?.isFlagged && found.unlistedPosition === null
          ? [{ code: 'scales-and-ledger-disagree', weighingId: weighing.id, massKg: found.massKg, sdKg: found.sdKg } as const]
          : []
      })
      .toReversed(),
})

/** What the scales say of stages that list nothing; told beside the ledger that could say it. */
const unlistedMass = defineAdvice({
  rank: 40,
  find: (car: Car) =>
    unlistedDifferences(car).map(({ position, massKg, sdKg, weighingId }) => ({ code: 'stage-lists-nothing', position, massKg, sdKg, weighingId }) as const),
})

/**
 * Weighings that fit another stage better than the one they were entered at: what was in the car is another stage's content; or they stand at a stage that lists
 * nothing, while one before it lists that content and was never weighed.
 */
const weighingsElsewhere = defineAdvice({
  rank: 43,
  find: (car: Car) =>
    car.weighings.flatMap(({ weighing, context, holdsCount, inCarUpTo }) => {
      const isContentOf = (position: number) => inCarUpTo[position] === holdsCount && car.lineCountUpTo[position] === holdsCount
      const lists = (position: number) => car.lists[position] === true
      const isWeighed = (position: number) => car.weighings.some((other) => other.context === position)
      const better = isContentOf(context)
        ? car.stages.findLastIndex((_, m) => m > 0 && m < context && !lists(context) && lists(m) && isContentOf(m) && !isWeighed(m))
        : car.stages.findIndex((_, m) => m !== context && (m === 0 || lists(m)) && isContentOf(m))
      return better < 0 ? [] : [{ code: 'weighing-fits-elsewhere', position: context, weighingId: weighing.id, betterPosition: better } as const]
    }),
})

const weighingsDisagree = defineAdvice({
  rank: 41,
  find: (car: Car) =>
    car.stages.flatMap((_, position) => {
      const anchor = massOf(car, position)?.anchor
      if (anchor?.kind !== 'equal' || anchor.combined.disagreesWith === undefined) return []
      const [first, other] = [anchor.weighings[0], anchor.weighings[anchor.combined.disagreesWith]]
      if (!first || !other) return []
      const [massKg, otherKg] = [first.reference.massKg, other.reference.massKg]
      return [{ code: 'weighings-disagree', weighingId: first.weighing.id, otherId: other.weighing.id, position, massKg, otherKg } as const]
    }),
})

const partWeighingsDisagree = defineAdvice({
  rank: 42,
  find: (car: Car) =>
    car.lines.flatMap(({ change, mass, stagePosition }) =>
      mass.disagreesWith
        ? [
            {
              code: 'part-weighings-disagree',
              changeId: change.id,
              name: change.name,
              position: stagePosition,
              massKg: mass.standing?.massKg ?? 0,
              otherKg: mass.disagreesWith.massKg,
            } as const,
          ]
        : [],
    ),
})

/** Less of the doubt than this is not worth a walk to the scale. */
const WORTH_WEIGHING = 0.05

/** The two open lines of the finished car whose weighing would remove most of its doubt. */
const doubtfulParts = defineAdvice({
  rank: 71,
  find: (car: Car) => {
    const mass = massOf(car, car.stages.length - 1)
    if (!mass || mass.openLines.length === 0) return []
    const parts = knownParts(mass.openLines)
    return forecastMass({ knownKg: mass.anchorMassKg, knownSdKg: mass.anchorSdKg, parts, biases: car.biases })
      .doubt.filter((entry) => entry.varianceShare >= WORTH_WEIGHING)
      .flatMap(({ id, varianceShare }) => {
        const open = mass.openLines.find((candidate) => candidate.part.id === id)
        if (!open || isMeasured(open.line.mass.proof)) return []
        const { change, stagePosition, mass: line } = open.line
        const share = Math.min(1, varianceShare)
        return [{ code: 'weigh-part', changeId: id, name: change.name, position: stagePosition, massKg: line.massKg, varianceShare: share } as const]
      })
      .slice(0, 2)
  },
})

/** Lines that nobody weighed or guessed: the total tells on them later. */
const neverWeighed = defineAdvice({
  rank: 73,
  find: (car: Car) => {
    const lines = unknownLines(car, car.stages.length - 1)
    const [first] = lines
    return first ? [{ code: 'unknown-lines', position: first.stagePosition, count: lines.length, name: first.change.name } as const] : []
  },
})

export const WEIGHT_ADVICE = [
  noMass,
  unexplainedMass,
  unlistedMass,
  weighingsElsewhere,
  weighingsDisagree,
  partWeighingsDisagree,
  doubtfulParts,
  neverWeighed,
] as const

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

export const WEIGHT_SAYINGS: Sayings<ItemOf<typeof WEIGHT_ADVICE>> = {
  'no-mass': (_, { at }) => ({
    head: 'Put the car on the scales',
    text: 'There is no mass yet: type four pads, or what it weighs, and everything else can be worked out.',
    to: at('weight', 0, '&tab=scales'),
  }),
  'scales-and-ledger-disagree': ({ massKg, sdKg, weighingId }, { text, to }) => ({
    head: `${text('mass', massKg, { sd: sdKg, sign: true })} unexplained`,
    text: `Scales and ledger disagree by more than twice their spread of ${text('mass', sdKg, { sd: sdKg })}. Something was forgotten, or a line is wrong.`,
    to: to('weight', `tab=scales&working=unexplained:${weighingId}`),
  }),
  'stage-lists-nothing': ({ position, massKg, sdKg }, { text, stage, at }) => ({
    head: `${capital(stage(position))} lists nothing`,
    text: `The scales say ${text('mass', massKg, { sd: sdKg, sign: true })}. List it as one line, or the parts that it was.`,
    to: at('weight', position),
  }),
  'weighing-fits-elsewhere': ({ position, betterPosition }, { stage, at }) => ({
    head: `A weighing at ${stage(position)} fits ${stage(betterPosition)} better`,
    text: `What was in the car that day is the car of ${stage(betterPosition)}. Move it there, or correct what was in the car.`,
    to: at('weight', position, '&tab=scales'),
  }),
  'weighings-disagree': ({ massKg, otherKg, position }, { text, stage, at }) => ({
    head: 'Two weighings disagree',
    text: `${text('mass', massKg)} and ${text('mass', otherKg)} of the same car at ${stage(position)}. Weigh a third time, or set one aside.`,
    to: at('weight', position, '&tab=scales'),
  }),
  'part-weighings-disagree': ({ name, massKg, otherKg, position }, { text, at }) => ({
    head: `Weigh ${name} again`,
    text: `Two weighings say ${text('mass', massKg)} and ${text('mass', otherKg)}.`,
    to: at('weight', position),
  }),
  'weigh-part': ({ name, massKg, varianceShare, position }, { text, chance, at }) => ({
    head: `Weigh ${name}`,
    text: `${text('mass', massKg)} is not weighed and carries ${chance(varianceShare).replace(' in ', ' parts in ')} of the finished car’s doubt.`,
    to: at('weight', position),
  }),
  'unknown-lines': ({ count, name, position }, { at }) => ({
    head: count === 1 ? `Nobody knows what ${name} weighs` : `${count} lines have no mass`,
    text: `${count === 1 ? 'It counts' : 'They count'} for nothing until somebody weighs or guesses ${count === 1 ? 'it' : 'them'}.`,
    to: at('weight', position, '&tab=score'),
  }),
}
