import type { GuessSide } from '../../mass/estimate-bias.ts'
import type { OpenPart } from '../../mass/open-mass.ts'
import type { Car, Line } from '../../stages/car.ts'
import { changeSign } from '../../stages/line-mass.ts'
import { day, guessFactor, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { quantileOf } from '../../stats/distribution.ts'
import { ledgerScore, stageSavings } from './ledger-score.ts'
import { massOf, massOffAt } from './mass-at-stage.ts'
import { frontShareAt } from './metrics.ts'
import { plannedFrontWorking } from './working-centres.ts'
import { padLines } from './working-weighing.ts'

const ANCHOR_NOTES = {
  ownStage: 'the latest of this stage; what it lacked and what it held too much is put right below',
  subset: 'the latest that held part of this stage and nothing else',
  other: 'the earliest; it held changes of later stages too',
}

/** The mass of a stage: what it starts from and what leads on from there. */
export function massWorking(car: Car, position: number): Working | undefined {
  const mass = massOf(car, position)
  if (!mass) return undefined
  const { anchor } = mass
  const anchorLines: WorkingLine[] =
    anchor.kind === 'baseline'
      ? [{ label: 'baseline mass', value: anchor.massKg, kind: 'mass', sd: anchor.sdKg, proof: anchor.proof }]
      : anchor.kind === 'equal'
        ? anchor.weighings.map(({ weighing, reference }, i) => ({
            label: `scales, ${day(weighing.at)}`,
            value: reference.massKg,
            kind: 'mass',
            sd: reference.sdKg,
            proof: 'measured',
            note:
              i === 0
                ? 'held exactly this stage'
                : i === anchor.combined.agreesWith
                  ? 'agrees, so the mass is confirmed'
                  : i === anchor.combined.disagreesWith
                    ? 'disagrees'
                    : 'same content, earlier',
          }))
        : [
            {
              label: `scales, ${day(anchor.weighing.weighing.at)}`,
              value: anchor.weighing.reference.massKg,
              kind: 'mass',
              sd: anchor.weighing.reference.sdKg,
              proof: 'measured',
              note: ANCHOR_NOTES[anchor.kind],
            },
          ]
  const open = mass.openLines.map(({ line, part }): WorkingLine => {
    const { change } = line
    if (part.isComingBack) return comingBackLine(line, part)
    const turned = part.sign !== changeSign(change)
    const asTyped = part.sign * line.mass.massKg
    const mean = part.isGuess ? asTyped * guessFactor(car, part.side, part.logSd) : asTyped
    return {
      label: `${change.kind} ${change.count > 1 ? `${change.count} x ` : ''}${change.name}`,
      value: mean,
      kind: 'mass',
      sd: part.isGuess ? undefined : part.sdKg,
      proof: line.mass.proof,
      isSigned: true,
      typed: line.mass.standing?.typed,
      note: [part.isGuess ? 'corrected for how your guesses run' : '', turned ? 'was in the car, taken out again for this stage' : '', change.state]
        .filter(Boolean)
        .join('; '),
    }
  })
  const guessed = new Set(mass.openLines.flatMap(({ part }) => (part.isGuess ? [part.side] : [])))
  return {
    title: `Mass at ${stageName(car, position)}`,
    calculation: 'build.mass-at-stage',
    result: { label: 'mass, ready at the reference condition', value: mass.value, kind: 'mass', sd: mass.sd, proof: mass.proof },
    lines: [...anchorLines, ...open],
    remarks: [
      ...(mass.carriedFromPosition === null
        ? []
        : [`${stageName(car, position)} lists nothing yet: this is ${stageName(car, mass.carriedFromPosition)}, and it holds only if nothing is done.`]),
      ...biasRemarks(car, guessed),
      ...(anchor.kind === 'equal' ? ['Scales replace the ledger: no line enters this number.'] : []),
    ],
  }
}

/** What waits and may come back in part. */
const comingBackLine = (line: Line, part: OpenPart): WorkingLine => ({
  label: `what comes back of ${line.change.name}`,
  value: part.massKg,
  kind: 'mass',
  sd: part.sdKg,
  proof: 'guess',
  isSigned: true,
  note: 'waits: anything from nothing to all of it may come back, until it is known',
})

const SIDE_WORDS = { off: 'of what comes off', on: 'of what goes on' } as const

/** How the guesses that enter a number were corrected, one sentence a side. */
function biasRemarks(car: Car, sides: ReadonlySet<GuessSide>): string[] {
  return [...sides].map((side) => {
    const { isDefault, pairCount } = car.biases[side]
    const percent = ((guessFactor(car, side) - 1) * 100).toFixed(1)
    return isDefault
      ? `Guesses ${SIDE_WORDS[side]} are raised by ${percent} %, a stated default: ${pairCount} of the 5 pairs of guess and weighing needed to learn your own are there.`
      : `Guesses ${SIDE_WORDS[side]} are changed by ${percent} %, learned from ${pairCount} pairs of guess and weighing.`
  })
}

/** What the car has lost since it was bought. */
export function massOffWorking(car: Car, position: number): Working | undefined {
  const [first, now, off] = [massOf(car, 0), massOf(car, position), massOffAt(car, position)]
  if (!first || !now || !off) return undefined
  return {
    title: `Mass off by ${stageName(car, position)}`,
    calculation: 'build.mass-at-stage',
    result: { label: 'mass as bought less mass here', value: off.value, kind: 'mass', sd: off.sd, proof: off.proof },
    lines: [
      { label: stageName(car, 0), value: first.value, kind: 'mass', sd: first.sd, proof: first.proof },
      { label: stageName(car, position), value: -now.value, kind: 'mass', sd: now.sd, proof: now.proof, isSigned: true },
    ],
    remarks: ['Where both start from the same scales, their doubt cancels and only that of the lines between counts.'],
  }
}

/** The front share of a stage, as weighed or as planned. */
export function frontWorking(car: Car, position: number): Working | undefined {
  const front = frontShareAt(car, position)
  const anchor = massOf(car, position)?.anchor
  const weighing = anchor?.kind === 'equal' ? anchor.weighings[0]?.weighing : undefined
  if (front && !weighing) return plannedFrontWorking(car, position)
  if (!front || !weighing) return undefined
  return {
    title: `Front share at ${stageName(car, position)}`,
    calculation: 'mass.corners',
    result: { label: 'front share', value: front.value, kind: 'share', sd: front.sd, proof: front.proof },
    lines: weighing.axles ? [] : padLines(car, weighing),
    remarks: [`Weighed on ${day(weighing.at)} under its own conditions: driver ${weighing.driverInKg > 0 ? 'in' : 'out'}, ${weighing.fuelL} L.`],
  }
}

/** The mass of a stage with what it does not pass. */
export function forecastWorking(car: Car, position: number): Working | undefined {
  const mass = massWorking(car, position)
  const distribution = massOf(car, position)?.distribution
  if (!mass || !distribution) return undefined
  const bounds = [0.1, 0.5, 0.9].map(
    (share): WorkingLine => ({ label: `not passed ${share * 10} times in 10`, value: quantileOf(distribution, share), kind: 'mass' }),
  )
  return {
    ...mass,
    title: `Forecast of ${stageName(car, position)}`,
    calculation: 'mass.forecast',
    lines: [...mass.lines, ...bounds],
    remarks: [...mass.remarks, `Spread as a ${distribution.shape === 'normal' ? 'normal' : 'log-normal'} distribution, in closed form.`],
  }
}

const SAVING_WORDS = { banked: 'banked', onGuess: 'found, on a guess', waits: 'waits', toCome: 'to come' } as const

const sideWords = (one: string, many: string, count: number): string[] => (count === 0 ? [] : [`less ${count === 1 ? one : `${count} ${many}`}`])

/** What a stage's ledger took off and put on, as typed. */
export function scoreWorking(car: Car, position: number): Working {
  const score = ledgerScore(car, position)
  const lines = stageSavings(car, position).map((saving): WorkingLine => {
    const head = saving.off ?? saving.transfers[0]
    return {
      label: `off ${head?.change.name ?? ''}`,
      value: -saving.savedMg / 1e6,
      kind: 'mass',
      isSigned: true,
      proof: head?.mass.proof,
      note: [
        SAVING_WORDS[saving.state],
        ...sideWords('the piece that goes back', 'pieces that go back', saving.off ? saving.transfers.length : 0),
        ...sideWords('what replaces it', 'lines that replace it', saving.replacements.length),
      ].join('; '),
    }
  })
  const ons = car.lines
    .filter((line) => line.stagePosition === position && line.change.kind === 'on')
    .map(
      (line): WorkingLine => ({
        label: `on ${line.change.name}`,
        value: line.mass.massKg,
        kind: 'mass',
        isSigned: true,
        proof: line.mass.proof,
        typed: line.mass.standing?.typed,
        note: line.change.state,
      }),
    )
  return {
    title: `Score of ${stageName(car, position)}`,
    calculation: 'build.mass-at-stage',
    result: { label: 'net as typed', value: score.netKg, kind: 'mass', isSigned: true },
    lines: [
      ...lines,
      ...ons,
      { label: 'found', value: score.foundKg, kind: 'mass', note: 'off, and every side of it known at least as a guess' },
      { label: 'of it banked', value: score.bankedKg, kind: 'mass', note: 'every side weighed' },
      { label: 'of it on a guess', value: score.onGuessKg, kind: 'mass', note: 'a side is not weighed yet' },
      { label: 'waits', value: score.waitsKg, kind: 'mass', note: 'off, and a side of it is not known' },
      { label: 'to come', value: score.toComeKg, kind: 'mass', note: 'not off yet' },
    ],
    remarks: [
      'Net is this stage’s own lines, added in whole milligrams, without any correction of guesses.',
      'A saving is what came off less what replaces it and what goes back, whatever stage those stand at.',
    ],
  }
}
