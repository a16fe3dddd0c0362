import { openPartMeanKg } from '../../mass/open-mass.ts'
import { buildOfWeighing, type Car } from '../../stages/car.ts'
import { day, stageName, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { weighingCentres } from './centres.ts'
import { linesBetween, massOf } from './mass-at-stage.ts'
import { frontShareAt } from './metrics.ts'
import { weighingCentre } from './weighing-shares.ts'

const weighingOf = (car: Car, id: string) => car.records.weighings.find((entry) => entry.id === id)

/** Where the centre of a weighing stands at the reference condition, and where the ledger's places had put it. */
export function centreWorking(car: Car, id: string): Working | undefined {
  const weighing = weighingOf(car, id)
  const found = weighingCentres(car).find((entry) => entry.weighingId === id)
  if (!weighing || !found?.measured) return undefined
  const { measured, predicted } = found
  const read = weighingCentre(buildOfWeighing(car, weighing), weighing)
  return {
    title: `Centre of mass, ${day(weighing.at)}`,
    calculation: 'mass.centre-of-mass',
    result: { label: 'behind the front axle, at the reference', value: measured.xM, kind: 'length', sd: read.behindFrontAxleM.sd, proof: 'measured' },
    lines: [
      { label: 'left of the middle, at the reference', value: measured.yM, kind: 'length', sd: read.leftOfMiddleM.sd, isSigned: true, proof: 'measured' },
      { label: 'behind the front axle, as read', value: read.behindFrontAxleM.value, kind: 'length', sd: read.behindFrontAxleM.sd },
      { label: 'left of the middle, as read', value: read.leftOfMiddleM.value, kind: 'length', sd: read.leftOfMiddleM.sd, isSigned: true },
      ...measured.loads.map((load): WorkingLine => ({ label: `${load.what}, put at its place`, value: load.massKg, kind: 'mass', isSigned: true })),
      ...(predicted
        ? [
            { label: 'the ledger had said, behind the front axle', value: predicted.xM, kind: 'length', proof: 'calculated' } as const,
            { label: 'the ledger had said, left of the middle', value: predicted.yM, kind: 'length', isSigned: true, proof: 'calculated' } as const,
          ]
        : []),
    ],
    remarks:
      predicted && predicted.unplacedKg > 0 ? [`Lines without a place were left out of what the ledger said: ${predicted.unplacedKg.toFixed(1)} kg.`] : [],
  }
}

/** The height of the centre of a weighing with lifted readings. */
export function heightWorking(car: Car, id: string): Working | undefined {
  const weighing = weighingOf(car, id)
  const height = weighingCentres(car).find((entry) => entry.weighingId === id)?.height
  if (!weighing || !height) return undefined
  return {
    title: `Height of the centre of mass, ${day(weighing.at)}`,
    calculation: 'mass.centre-of-mass-height',
    result: { label: 'height above the ground', value: height.heightM, kind: 'length', sd: height.sdM, proof: 'calculated' },
    lines: car.records.lifts
      .filter((lift) => lift.weighingId === id)
      .flatMap((lift): WorkingLine[] => [
        { label: `${lift.lifted} axle lifted by`, value: lift.liftM, kind: 'length', sd: lift.liftSdM ?? undefined },
        { label: 'rear axle then', value: lift.rearAxleKg, kind: 'mass', sd: lift.axleSdKg ?? undefined, typed: lift.typed },
        { label: 'loaded radius, front and rear', value: lift.radiusFrontM, kind: 'length', note: `rear ${Math.round(lift.radiusRearM * 1000)} mm` },
      ]),
    remarks: [...height.warnings],
  }
}

/** The front share of a stage that was not weighed: the weighing it starts from, and each line to come at its place. */
export function plannedFrontWorking(car: Car, position: number): Working | undefined {
  const mass = massOf(car, position)
  const front = frontShareAt(car, position)
  if (!mass || !front || mass.anchor.kind === 'baseline' || mass.anchor.kind === 'equal') return undefined
  const { weighing } = mass.anchor.weighing
  const { holds } = mass.anchor.weighing
  return {
    title: `Front share planned for ${stageName(car, position)}`,
    calculation: 'mass.combine',
    result: { label: 'front share', value: front.value, kind: 'share', sd: front.sd, proof: front.proof },
    lines: [
      { label: `the car on the scales, ${day(weighing.at)}`, value: mass.anchorMassKg, kind: 'mass', sd: mass.anchorSdKg, proof: 'measured' },
      ...linesBetween(car, holds, (line) => line.stagePosition <= position).map(
        ({ line, part }): WorkingLine => ({
          label: `${line.change.kind} ${line.change.name}`,
          value: openPartMeanKg(part, car.biases),
          kind: 'mass',
          isSigned: true,
          proof: line.mass.proof,
          note: line.place ? `${Math.round(line.place.xM * 1000)} mm behind the front axle` : 'no place: taken in the middle, and doubted',
        }),
      ),
    ],
    remarks: [],
  }
}
