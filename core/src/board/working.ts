import { CalculationError } from '../errors.ts'
import { proofRank } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { Limit, Target } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import { withRatingLimit } from '../rooms/parts/rating-limits.ts'
import { powerWorking, ratingLines, torqueWorking } from '../rooms/power/working-power.ts'
import { ledgerScore, stageSavings } from '../rooms/weight/ledger-score.ts'
import { centreWorking, heightWorking, plannedFrontWorking } from '../rooms/weight/working-centres.ts'
import { padLines, pullWorking, sessionWorking, unexplainedWorking, weighingWorking } from '../rooms/weight/working-weighing.ts'
import { makeCar } from '../stages/car.ts'
import { changeSign } from '../stages/line-mass.ts'
import { day, guessFactor, stageName, type Working, type WorkingLine } from '../stages/working-line.ts'
import { quantileOf } from '../stats/distribution.ts'
import { chanceOf, METRIC_INFO, StageValues } from './stage-values.ts'
import { limitVerdict, targetVerdict } from './verdict.ts'

export const WORKING_SUBJECTS = [
  'mass',
  'power',
  'torque',
  'ratio',
  'front',
  'score',
  'target',
  'limit',
  'weighing',
  'unexplained',
  'session',
  'pull',
  'forecast',
  'centre',
  'height',
] as const
export type WorkingSubject = (typeof WORKING_SUBJECTS)[number]

/** The working of a number of a build: what `of` it is and the id of the stage, weighing, session, pull, target or limit. Errors: `unknown`. */
export function makeWorking(stored: BuildRecords, of: WorkingSubject, id: string, today: string): Working {
  const records = withRatingLimit(stored)
  const values = new StageValues(makeCar(records))
  const atStage = (make: (position: number) => Working | undefined) => make(positionOf(values, id))
  const makers: Record<WorkingSubject, () => Working | undefined> = {
    mass: () => atStage((position) => massWorking(values, position)),
    power: () => atStage((position) => powerWorking(values, position)),
    torque: () => atStage((position) => torqueWorking(values, position)),
    ratio: () => atStage((position) => ratioWorking(values, position)),
    front: () => atStage((position) => frontWorking(values, position)),
    forecast: () => atStage((position) => forecastWorking(values, position)),
    score: () => atStage((position) => scoreWorking(values, position)),
    target: () =>
      goalWorking(
        values,
        records.targets.find((entry) => entry.id === id),
        today,
      ),
    limit: () =>
      limitWorking(
        values,
        records.limits.find((entry) => entry.id === id),
      ),
    weighing: () => weighingWorking(values, id),
    unexplained: () => unexplainedWorking(values, id),
    session: () => sessionWorking(values, id),
    pull: () => pullWorking(values, id),
    centre: () => centreWorking(values, id),
    height: () => heightWorking(values, id),
  }
  const working = makers[of]()
  if (!working) throw new CalculationError('unknown', 'id', 'This number has no working: what it rests on is gone or was never measured.')
  return working
}

function positionOf(values: StageValues, stageId: string): number {
  const position = values.car.stages.findIndex((stage) => stage.id === stageId)
  if (position < 0) throw new CalculationError('unknown', 'id', 'This build has no such stage.')
  return position
}

function massWorking(values: StageValues, position: number): Working | undefined {
  const mass = values.mass(position)
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
    const mean = part.isGuess ? asTyped * guessFactor(values, part.logSd) : asTyped
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
    title: `Mass at ${stageName(values, position)}`,
    calculation: 'build.mass-at-stage',
    result: { label: 'mass, ready at the reference condition', value: mass.value, kind: 'mass', sd: mass.sd, proof: mass.proof },
    lines: [...anchorLines, ...open],
    remarks: [...(guesses > 0 ? [biasRemark(values)] : []), ...(anchor.kind === 'equal' ? ['Scales replace the ledger: no line enters this number.'] : [])],
  }
}

function biasRemark(values: StageValues): string {
  const { bias } = values.car
  const percent = ((guessFactor(values, undefined) - 1) * 100).toFixed(1)
  return bias.isDefault
    ? `Guesses are raised by ${percent} %, a stated default: ${bias.pairCount} of the 5 pairs of guess and weighing needed to learn your own are there.`
    : `Guesses are changed by ${percent} %, learned from ${bias.pairCount} pairs of guess and weighing in this build.`
}

function ratioWorking(values: StageValues, position: number): Working | undefined {
  const [mass, power, ratio] = [values.mass(position), values.power(position), values.value('powerToMass', position)]
  if (!mass || !power || !ratio) return undefined
  return {
    title: `Power to weight at ${stageName(values, position)}`,
    calculation: 'mass.power-to-weight',
    result: { label: 'power to weight', value: ratio.value, kind: 'powerToMass', sd: ratio.sd, proof: ratio.proof },
    lines: [
      { label: 'power', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
      { label: 'mass, with driver and fuel of the reference', value: mass.value, kind: 'mass', sd: mass.sd, proof: mass.proof },
    ],
    remarks: ['Its proof is the lesser of the two.'],
  }
}

function frontWorking(values: StageValues, position: number): Working | undefined {
  const front = values.value('frontShare', position)
  const anchor = values.mass(position)?.anchor
  const weighing = anchor?.kind === 'equal' ? anchor.weighings[0]?.weighing : undefined
  if (front && !weighing) return plannedFrontWorking(values, position)
  if (!front || !weighing) return undefined
  return {
    title: `Front share at ${stageName(values, position)}`,
    calculation: 'mass.corners',
    result: { label: 'front share', value: front.value, kind: 'share', sd: front.sd, proof: front.proof },
    lines: padLines(values, weighing),
    remarks: [`Weighed on ${day(weighing.at)} under its own conditions: driver ${weighing.driverInKg > 0 ? 'in' : 'out'}, ${weighing.fuelL} L.`],
  }
}

function forecastWorking(values: StageValues, position: number): Working | undefined {
  const mass = massWorking(values, position)
  const distribution = values.mass(position)?.distribution
  if (!mass || !distribution) return undefined
  const bounds = [0.1, 0.5, 0.9].map(
    (share): WorkingLine => ({ label: `not passed ${share * 10} times in 10`, value: quantileOf(distribution, share), kind: 'mass' }),
  )
  return {
    ...mass,
    title: `Forecast of ${stageName(values, position)}`,
    calculation: 'mass.forecast',
    lines: [...mass.lines, ...bounds],
    remarks: [...mass.remarks, `Spread as a ${distribution.shape === 'normal' ? 'normal' : 'log-normal'} distribution, in closed form.`],
  }
}

function scoreWorking(values: StageValues, position: number): Working {
  const score = ledgerScore(values.car, position)
  const lines = stageSavings(values.car, position).map((saving): WorkingLine => {
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
  const ons = values.car.lines
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
    title: `Score of ${stageName(values, position)}`,
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

function goalLines(values: StageValues, metric: Metric, position: number): WorkingLine[] {
  const value = values.value(metric, position)
  const { kind, word } = METRIC_INFO[metric]
  return value ? [{ label: `${word} at ${stageName(values, position)}`, value: value.value, kind, sd: value.sd, proof: value.proof }] : []
}

const senseWords = { atMost: 'or less', atLeast: 'or more', between: 'from' } as const

const METRIC_CALCULATIONS: Record<Metric, string> = {
  massReady: 'build.mass-at-stage',
  wheelPower: 'build.power-at-stage',
  peakTorque: 'dyno.power-torque',
  powerToMass: 'mass.power-to-weight',
  frontShare: 'mass.corners',
}

function goalWorking(values: StageValues, target: Target | undefined, today: string): Working | undefined {
  if (!target) return undefined
  const verdict = targetVerdict(values, target, today)
  const { kind, word } = METRIC_INFO[target.metric]
  const value = values.value(target.metric, verdict.verdictPosition)
  return {
    title: `Verdict on ${word.toLowerCase()}: ${verdict.word}`,
    calculation: METRIC_CALCULATIONS[target.metric],
    result: { label: value && proofRank(value.proof) >= 3 ? 'how sure the verdict is' : 'chance that the plan makes it', value: verdict.chance, kind: 'share' },
    lines: [
      { label: `goal, ${senseWords[target.sense]}`, value: target.value, kind, typed: target.typed },
      ...(target.highValue === null ? [] : [{ label: 'to', value: target.highValue, kind }]),
      ...goalLines(values, target.metric, verdict.verdictPosition),
    ],
    remarks: [
      `Judged at ${stageName(values, verdict.verdictPosition)}; due by ${stageName(values, verdict.duePosition)}.`,
      'A target is met only when it is measured. Open: on course from 8 in 10, unlikely under 2 in 10, doubtful between.',
    ],
  }
}

function limitWorking(values: StageValues, limit: Limit | undefined): Working | undefined {
  if (!limit) return undefined
  const verdict = limitVerdict(values, limit)
  const { kind, word } = METRIC_INFO[limit.metric]
  const value = values.value(limit.metric, verdict.verdictPosition)
  return {
    title: `Limit on ${word.toLowerCase()}: ${verdict.word}`,
    calculation: METRIC_CALCULATIONS[limit.metric],
    result: { label: 'chance to keep the limit', value: value ? chanceOf(limit, value.distribution) : null, kind: 'share' },
    lines: [
      { label: `limit, ${senseWords[limit.sense]}`, value: limit.value, kind, typed: limit.typed },
      ...ratingLines(values, limit.id),
      ...goalLines(values, limit.metric, verdict.verdictPosition),
    ],
    remarks: [`Holds from ${stageName(values, verdict.fromPosition)} on. Broken is a measured value on the wrong side; would break, a predicted one.`],
  }
}
