import type { StageValues } from '../../board/stage-values.ts'
import { curvePeakTorque } from '../../dyno/curve.ts'
import { leastProof } from '../../proof/quantity.ts'
import { day, schoolRemark, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { weakestTorque } from '../parts/rating-limits.ts'
import { curveAtStage } from './power-at-stage.ts'

export function powerWorking(values: StageValues, position: number): Working | undefined {
  const power = values.power(position)
  if (!power) return undefined
  const lines = power.steps.flatMap((step): WorkingLine[] => {
    const where = stageName(values, step.position)
    switch (step.kind) {
      case 'measured':
        return step.sessions.map((entry, i) => ({
          label: `${entry.session.dynoName}, ${day(entry.session.at)}, ${entry.pullIds.length} pulls`,
          value: entry.value,
          kind: 'power',
          sd: entry.sd,
          proof: 'measured',
          note: [
            where,
            entry.factor === 1 ? '' : `restated by ${entry.factor.toFixed(4)}`,
            i === step.combined.agreesWith ? 'agrees' : i === step.combined.disagreesWith ? 'disagrees' : '',
          ]
            .filter(Boolean)
            .join('; '),
        }))
      case 'start':
        return [
          {
            label: `${step.session.session.dynoName}, ${day(step.session.session.at)}`,
            value: step.value,
            kind: 'power',
            sd: step.sd,
            proof: 'measured',
            note: `start value for ${where}: the engine was not yet, or no longer, that of the stage`,
          },
        ]
      case 'expectation':
        return [
          {
            label: `expected ${step.expectation.mode === 'to' ? 'to reach' : step.expectation.mode === 'by' ? 'to change by' : 'to be multiplied by'}`,
            value: step.expectation.value,
            kind: step.expectation.mode === 'times' ? 'ratio' : 'power',
            sd: step.expectation.sd ?? undefined,
            proof: step.expectation.proof,
            isSigned: step.expectation.mode === 'by',
            typed: step.expectation.typed,
            note: where,
          },
        ]
      default:
        return [
          {
            label: 'a change touches power and nothing says by how much',
            value: step.value,
            kind: 'power',
            sd: step.sd,
            proof: 'guess',
            note: `${where}; carried with a spread of 5 %`,
          },
        ]
    }
  })
  const carried = power.fromPosition !== null && power.fromPosition !== position ? [`Carried from ${stageName(values, power.fromPosition)}.`] : []
  return {
    title: `Power at ${stageName(values, position)}`,
    calculation: 'build.power-at-stage',
    result: { label: 'power on the build’s basis', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
    lines,
    remarks: [...carried, ...schoolRemark(values)],
  }
}

/** The part that carries least torque, and that at the place the build counts power; with an id, only where that part is the limit. */
export function ratingLines(values: StageValues, limitId?: string): WorkingLine[] {
  const weakest = weakestTorque(values.car.records)
  if (!weakest || (limitId !== undefined && weakest.part.id !== limitId)) return []
  return [
    {
      label: `${weakest.part.name} carries, at the crank`,
      value: weakest.crankTorqueNm,
      kind: 'torque',
      proof: weakest.known,
      note: 'the weakest rating of the finished car',
    },
    {
      label: 'the same where the build counts power',
      value: weakest.torqueNm,
      kind: 'torque',
      proof: leastProof(weakest.known, 'calculated'),
      note: 'through the build’s driveline loss',
    },
  ]
}

/** The greatest torque of a stage's curve, with the power it rests on and the part that carries least. */
export function torqueWorking(values: StageValues, position: number): Working | undefined {
  const [power, torque, found] = [values.power(position), values.value('peakTorque', position), curveAtStage(values.car, position)]
  if (!power || !torque || !found) return undefined
  const { speedRpm } = curvePeakTorque(found.curve)
  return {
    title: `Peak torque at ${stageName(values, position)}`,
    calculation: 'dyno.power-torque',
    result: { label: 'greatest torque, at engine speed', value: torque.value, kind: 'torque', sd: torque.sd, proof: torque.proof },
    lines: [
      { label: 'power of the stage', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
      { label: 'engine speed of the greatest torque', value: speedRpm, kind: 'engineSpeed' },
      ...ratingLines(values),
    ],
    remarks: [
      ...(found.scaledFromPosition === null ? [] : [`The curve is scaled from ${stageName(values, found.scaledFromPosition)}.`]),
      'It rests on the same pulls as the power, so it has their spread and their proof.',
      ...schoolRemark(values),
    ],
  }
}
