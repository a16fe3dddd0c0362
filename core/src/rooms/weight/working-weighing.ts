import { PAD_NAMES, PAD_WORDS } from '../../mass/corners.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { buildOfWeighing, type Car } from '../../stages/car.ts'
import { readPads } from '../../stages/reference-mass.ts'
import { day, guessFactor, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { unexplainedAt } from './unexplained.ts'
import { weighingCentre } from './weighing-shares.ts'
import { type WeighingFigures, weighingFigures } from './weight-room.ts'

/** The four readings of a weighing, with what was typed; a dead pad says so. */
export function padLines(car: Car, weighing: Weighing): WorkingLine[] {
  const pads = readPads(weighing, buildOfWeighing(car, weighing))
  return PAD_NAMES.map((pad) => ({
    label: PAD_WORDS[pad],
    value: pads[pad]?.massKg ?? null,
    kind: 'mass',
    sd: pads[pad]?.sdKg,
    proof: 'measured',
    typed: weighing.pads[pad]?.typed ?? weighing.secondPlacement?.pads[pad]?.typed,
    note: pads[pad] ? undefined : 'no reading',
  }))
}

/** A weighing of the whole car, or of its axles one after the other: what was read, and the reference. */
function wholeWorking(weighing: Weighing, { reference, axleShare }: WeighingFigures): Working {
  return {
    title: `On the scales, ${day(weighing.at)}`,
    calculation: 'mass.corners',
    result: { label: 'mass at the reference condition', value: reference?.massKg ?? null, kind: 'mass', sd: reference?.sdKg, proof: 'measured' },
    lines: [
      ...(weighing.axles
        ? [
            { label: 'front axle', value: weighing.axles.front.massKg, kind: 'mass' as const, proof: 'measured' as const, typed: weighing.axles.front.typed },
            { label: 'rear axle', value: weighing.axles.rear.massKg, kind: 'mass' as const, proof: 'measured' as const, typed: weighing.axles.rear.typed },
          ]
        : []),
      ...(reference?.terms ?? []).map(
        (term, i): WorkingLine => ({
          label: term.label,
          value: term.massKg,
          kind: 'mass',
          sd: term.sdKg > 0 ? term.sdKg : undefined,
          isSigned: i > 0,
          typed: i === 0 ? weighing.total?.typed : undefined,
        }),
      ),
      ...(axleShare ? [{ label: 'front share', value: axleShare.value, kind: 'share' as const, sd: axleShare.sd, proof: 'measured' as const }] : []),
    ],
    remarks: [
      weighing.total
        ? 'A total has no corners: shares, cross and the centre stay unknown.'
        : 'Two axle loads give the front share; left, cross and height stay unknown.',
    ],
  }
}

export function weighingWorking(car: Car, id: string): Working | undefined {
  const weighing = car.records.weighings.find((entry) => entry.id === id)
  if (!weighing) return undefined
  const figures = weighingFigures(car, weighing)
  if (weighing.total || weighing.axles) return wholeWorking(weighing, figures)
  const readings = padLines(car, weighing)
  if (!figures.reference || !figures.corners) {
    const { reference } = figures
    return {
      title: `On the scales, ${day(weighing.at)}`,
      calculation: 'mass.corners',
      result: reference
        ? { label: 'mass at the reference condition', value: reference.massKg, kind: 'mass', sd: reference.sdKg, proof: 'measured' }
        : { label: 'total', value: null, kind: 'mass' },
      lines: [
        ...readings,
        ...figures.known.map((entry): WorkingLine => ({ label: entry.label, value: entry.massKg, kind: 'mass', sd: entry.sdKg, proof: 'measured' })),
      ],
      remarks: figures.refusal ? [figures.refusal] : [],
    }
  }
  const { corners } = figures
  const centre = weighingCentre(buildOfWeighing(car, weighing), weighing)
  const share = (label: string, entry: { value: number; sd: number }): WorkingLine => ({
    label,
    value: entry.value,
    kind: 'share',
    sd: entry.sd,
    proof: 'measured',
  })
  return {
    title: `On the scales, ${day(weighing.at)}`,
    calculation: 'mass.corners',
    result: { label: 'mass at the reference condition', value: figures.reference.massKg, kind: 'mass', sd: figures.reference.sdKg, proof: 'measured' },
    lines: [
      ...readings,
      ...figures.reference.terms.map(
        (term, i): WorkingLine => ({ label: term.label, value: term.massKg, kind: 'mass', sd: term.sdKg > 0 ? term.sdKg : undefined, isSigned: i > 0 }),
      ),
      share('front share', corners.frontShare),
      share('left share', corners.leftShare),
      share('cross share, RF + LR', corners.crossShareRfLr),
      share('cross share, LF + RR', corners.crossShareLfRr),
      { label: 'wedge, LR − RR', value: corners.wedgeKg.value, kind: 'mass', sd: corners.wedgeKg.sd, isSigned: true },
      { label: 'centre of mass behind the front axle', value: centre.behindFrontAxleM.value, kind: 'length', sd: centre.behindFrontAxleM.sd },
      { label: 'centre of mass left of the middle', value: centre.leftOfMiddleM.value, kind: 'length', sd: centre.leftOfMiddleM.sd, isSigned: true },
    ],
    remarks: ['Shares are those of the pads as read that day; only the total is brought to the reference condition.', ...figures.warnings],
  }
}

export function unexplainedWorking(car: Car, id: string): Working | undefined {
  const found = unexplainedAt(car, id)
  const entry = (weighingId: string | undefined) => car.weighings.find((candidate) => candidate.weighing.id === weighingId)
  const [before, after] = [entry(found?.sinceWeighingId), entry(id)]
  if (!found || !before || !after) return undefined
  const scale = (label: string, { weighing, reference }: typeof after): WorkingLine => ({
    label: `${label}, ${day(weighing.at)}`,
    value: reference.massKg,
    kind: 'mass',
    sd: reference.sdKg,
    proof: 'measured',
  })
  const lines = found.lines.map(
    ({ line, part }): WorkingLine => ({
      label: `${line.change.kind} ${line.change.name}`,
      value: part.sign * line.mass.massKg * (part.isGuess ? guessFactor(car, part.side, part.logSd) : 1),
      kind: 'mass',
      sd: part.isGuess ? undefined : part.sdKg,
      proof: line.mass.proof,
      isSigned: true,
      typed: line.mass.standing?.typed,
    }),
  )
  return {
    title: 'Unexplained mass',
    calculation: 'build.mass-at-stage',
    result: { label: 'scales less ledger', value: found.massKg, kind: 'mass', sd: found.sdKg, isSigned: true },
    lines: [scale('scales before', before), ...lines, { label: 'ledger said', value: found.ledgerSaidKg, kind: 'mass' }, scale('scales say', after)],
    remarks: [
      found.isFlagged ? 'More than twice its spread: something was forgotten, or a line is wrong.' : 'Within twice its spread: nothing to chase.',
      'It belongs to the time between these two weighings and is never spread over lines.',
    ],
  }
}
