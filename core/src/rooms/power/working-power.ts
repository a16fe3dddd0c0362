import type { Car } from '../../stages/car.ts'
import { day, schoolRemark, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { powerToMassAt } from './metrics.ts'
import { powerAtStage, runsAtStage } from './power-at-stage.ts'

export function powerWorking(car: Car, position: number): Working | undefined {
  const power = powerAtStage(car, position)
  if (!power) return undefined
  const lines = power.steps.flatMap((step): WorkingLine[] => {
    const where = stageName(car, step.position)
    switch (step.kind) {
      case 'measured':
        return step.runs.map((entry, i) => ({
          label: `${entry.session.dynoName}, ${day(entry.session.at)}, ${entry.setting.name}, ${entry.pulls.length} ${entry.pulls.length === 1 ? 'pull' : 'pulls'}`,
          value: entry.value,
          kind: 'power',
          sd: entry.sd,
          proof: 'measured',
          note: [
            where,
            entry.pulls.every(({ factor }) => factor === 1)
              ? ''
              : `restated by ${[...new Set(entry.pulls.map(({ factor }) => factor.toFixed(4)))].join(' and ')}`,
            i === step.combined.agreesWith ? 'agrees' : i === step.combined.disagreesWith ? 'disagrees' : '',
          ]
            .filter(Boolean)
            .join('; '),
        }))
      case 'start':
        return [
          {
            label: `${step.run.session.dynoName}, ${day(step.run.session.at)}`,
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
  const carried = power.fromPosition !== null && power.fromPosition !== position ? [`Carried from ${stageName(car, power.fromPosition)}.`] : []
  return {
    title: `Power at ${stageName(car, position)}`,
    calculation: 'build.power-at-stage',
    result: { label: 'power on the build’s basis', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
    lines: [...lines, ...otherSettings(car, position)],
    remarks: [...carried, ...schoolRemark(car)],
  }
}

/** What ran there on another setting: another engine, neither averaged nor held against this one. */
const otherSettings = (car: Car, position: number): WorkingLine[] =>
  runsAtStage(car, position).otherSettings.map(({ setting, value, sd }) => ({
    label: `on another setting: ${setting.name}`,
    value,
    kind: 'power',
    sd,
    proof: 'measured',
    note: 'another engine, not in this number',
  }))

/** Power over mass, with what each rests on. */
export function ratioWorking(car: Car, position: number): Working | undefined {
  const [mass, power, ratio] = [massOf(car, position), powerAtStage(car, position), powerToMassAt(car, position)]
  if (!mass || !power || !ratio) return undefined
  return {
    title: `Power to weight at ${stageName(car, position)}`,
    calculation: 'mass.power-to-weight',
    result: { label: 'power to weight', value: ratio.value, kind: 'powerToMass', sd: ratio.sd, proof: ratio.proof },
    lines: [
      { label: 'power', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
      { label: 'mass, with driver and fuel of the reference', value: mass.value, kind: 'mass', sd: mass.sd, proof: mass.proof },
    ],
    remarks: ['Its proof is the lesser of the two.'],
  }
}
