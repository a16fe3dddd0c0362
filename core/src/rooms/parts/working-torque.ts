import { curvePeakTorque } from '../../dyno/curve.ts'
import { leastProof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { schoolRemark, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { peakTorqueAt } from '../power/metrics.ts'
import { curveAtStage, powerAtStage } from '../power/power-at-stage.ts'
import { weakestTorque } from './rating-limits.ts'

/** The part that carries least torque, and that at the place the build counts power; with an id, only where that part is the limit. */
export function ratingLines(car: Car, limitId?: string): WorkingLine[] {
  const weakest = weakestTorque(car)
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
export function torqueWorking(car: Car, position: number): Working | undefined {
  const [power, torque, found] = [powerAtStage(car, position), peakTorqueAt(car, position), curveAtStage(car, position)]
  if (!power || !torque || !found) return undefined
  const { speedRpm } = curvePeakTorque(found.curve)
  return {
    title: `Peak torque at ${stageName(car, position)}`,
    calculation: 'dyno.power-torque',
    result: { label: 'greatest torque, at engine speed', value: torque.value, kind: 'torque', sd: torque.sd, proof: torque.proof },
    lines: [
      { label: 'power of the stage', value: power.value, kind: 'power', sd: power.sd, proof: power.proof },
      { label: 'engine speed of the greatest torque', value: speedRpm, kind: 'engineSpeed' },
      ...ratingLines(car),
    ],
    remarks: [
      ...(found.scaledFromPosition === null ? [] : [`The curve is scaled from ${stageName(car, found.scaledFromPosition)}.`]),
      'It rests on the same pulls as the power, so it has their spread and their proof.',
      ...schoolRemark(car),
    ],
  }
}
