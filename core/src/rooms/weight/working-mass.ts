import type { Car } from '../../stages/car.ts'
import { changeSign } from '../../stages/line-mass.ts'
import { day, guessFactor, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { quantileOf } from '../../stats/distribution.ts'
import { ledgerScore, stageSavings } from './ledger-score.ts'
import { massOf } from './mass-at-stage.ts'
import { frontShareAt } from './metrics.ts'
import { plannedFrontWorking } from './working-centres.ts'
import { padLines } from './working-weighing.ts'

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
              note: anchor.kind === 'subset' ? 'the latest that held part of this stage and nothing else' : 'the earliest; it held changes of later stages too',
            },
          ]
  const open = mass.openLines.map(({ line, part }): WorkingLine => {
    const { change } = line
    const turned = part.sign !== changeSign(change)
    const asTyped = part.sign * line.mass.massKg
    const mean = part.isGuess ? asTyped * guessFactor(car, part.logSd) : asTyped
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
  const guesses = mass.openLines.filter((entry) => entry.part.isGuess).length
  return {
    title: `Mass at ${stageName(car, position)}`,
    calculation: 'build.mass-at-stage',
    result: { label: 'mass, ready at the reference condition', value: mass.value, kind: 'mass', sd: mass.sd, proof: mass.proof },
    lines: [...anchorLines, ...open],
    remarks: [...(guesses > 0 ? [biasRemark(car)] : []), ...(anchor.kind === 'equal' ? ['Scales replace the ledger: no line enters this number.'] : [])],
  }
}

function biasRemark(car: Car): string {
  const { bias } = car
  const percent = ((guessFactor(car, undefined) - 1) * 100).toFixed(1)
  return bias.isDefault
    ? `Guesses are raised by ${percent} %, a stated default: ${bias.pairCount} of the 5 pairs of guess and weighing needed to learn your own are there.`
    : `Guesses are changed by ${percent} %, learned from ${bias.pairCount} pairs of guess and weighing in this build.`
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
    lines: padLines(car, weighing),
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

/** What a stage's ledger took off and put on, as typed. */
export function scoreWorking(car: Car, position: number): Working {
  const score = ledgerScore(car, position)
  const lines = stageSavings(car, position).map((saving): WorkingLine => {
    const head = saving.off ?? saving.transfers[0]
    const pieces = saving.off ? saving.transfers.length : 0
    return {
      label: `off ${head?.change.name ?? ''}`,
      value: -saving.savedMg / 1e6,
      kind: 'mass',
      isSigned: true,
      proof: head?.mass.proof,
      note: [
        saving.state === 'toCome' ? 'to come' : saving.state,
        pieces > 0 ? `less ${pieces === 1 ? 'the piece that goes' : `${pieces} pieces that go`} back` : '',
      ]
        .filter(Boolean)
        .join('; '),
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
      { label: 'banked', value: score.bankedKg, kind: 'mass', note: 'off, and it and each piece that goes back weighed' },
      { label: 'waiting', value: score.waitingKg, kind: 'mass', note: 'off, but something is not weighed yet' },
      { label: 'to come', value: score.toComeKg, kind: 'mass', note: 'not off yet' },
    ],
    remarks: ['Net = on − banked − waiting − to come, added in whole milligrams, without any correction of guesses.'],
  }
}
