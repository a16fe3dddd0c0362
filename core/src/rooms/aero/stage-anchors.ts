import { USUAL_ROLLING } from '../../aero/drag-top-speed.ts'
import { combineMeasurements, type Measurement } from '../../proof/combine-measurements.ts'
import { leastProof, type Proof } from '../../proof/quantity.ts'
import { areLinked, type Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { type Anchors, type DragAnchor, type LoadAnchor, NO_ANCHORS } from './anchors.ts'
import { basisOf } from './basis.ts'
import { type CarTest, standingTests } from './car-tests.ts'
import { devicesAtStage } from './devices.ts'

/** Two tests of different days that know a sum worse than this, over itself, confirm nothing (common practice, no source). */
const USEFUL_DRAG_SD = 0.04
const USEFUL_LOAD_SD = 0.06

const idsAt = (car: Car, position: number) =>
  devicesAtStage(car, position)
    .map(({ id }) => id)
    .sort()
    .join(' ')
const notchesOf = ({ held }: CarTest) =>
  held
    .map(({ id, notch }) => `${id} ${notch.id}`)
    .sort()
    .join(',')

/** What a stage starts from: tests of a stage linked to it with the same devices, the latest first; else those of the latest stage before it. */
function standingFor(tests: readonly CarTest[], car: Car, position: number): CarTest[] {
  const latestFirst = [...tests].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  const same = latestFirst.filter(
    (test) => test.position === position || (idsAt(car, test.position) === idsAt(car, position) && areLinked(car, test.position, position)),
  )
  if (same.length > 0) return same
  const before = Math.max(-1, ...latestFirst.filter((test) => test.position < position).map((test) => test.position))
  return latestFirst.filter((test) => test.position === before)
}

/** Visits of other days at the same notches, behind the latest. */
function visits(tests: readonly CarTest[]): readonly [CarTest, ...CarTest[]] | null {
  const [head, ...rest] = tests
  if (!head) return null
  return [head, ...rest.filter((test) => test.at.slice(0, 10) !== head.at.slice(0, 10) && notchesOf(test) === notchesOf(head))]
}

/** A stage that lists nothing may hide any work: what it starts from is at most calculated. */
const proofAt = (car: Car, position: number, { position: from }: CarTest, proof: Proof): Proof =>
  from !== position && !car.lists[position] ? leastProof(proof, 'calculated') : proof

function combined(tests: readonly [CarTest, ...CarTest[]], of: (test: CarTest) => Measurement, share: number) {
  const [head, ...rest] = tests
  return combineMeasurements([of(head), ...rest.map(of)], (value) => share * Math.abs(value))
}

function dragAnchor(car: Car, position: number): DragAnchor | null {
  const found = visits(
    standingFor(
      standingTests(car, 'coastDown').filter(({ drag }) => drag !== null),
      car,
      position,
    ),
  )
  if (!found) return null
  const [head] = found
  const { value, sd, proof } = combined(found, ({ drag, name }) => ({ value: drag?.areaM2 ?? 0, sd: drag?.sdM2 ?? 0, instrument: name }), USEFUL_DRAG_SD)
  return {
    testId: head.id,
    position: head.position,
    held: head.held,
    areaM2: value,
    sdM2: sd,
    rollingCoefficient: head.drag?.rollingCoefficient ?? USUAL_ROLLING,
    proof: proofAt(car, position, head, proof),
  }
}

function loadAnchor(car: Car, position: number): LoadAnchor | null {
  const found = visits(
    standingFor(
      standingTests(car, 'steady').filter(({ loads }) => loads !== null),
      car,
      position,
    ),
  )
  if (!found) return null
  const [head] = found
  const axle = (of: 'front' | 'rear') =>
    combined(found, ({ loads, name }) => ({ value: loads?.[`${of}M2`] ?? 0, sd: loads?.[`${of}SdM2`] ?? 0, instrument: name }), USEFUL_LOAD_SD)
  const [front, rear] = [axle('front'), axle('rear')]
  return {
    testId: head.id,
    position: head.position,
    held: head.held,
    frontM2: front.value,
    frontSdM2: front.sd,
    rearM2: rear.value,
    rearSdM2: rear.sd,
    proof: proofAt(car, position, head, leastProof(front.proof, rear.proof)),
  }
}

/**
 * The tests of the whole car that a stage's sums start from: drag by coasting, loads by steady runs. Loads are read at the tyres, so that they stand only where
 * balance is quoted there.
 * @example anchorsAt(CAR, 1).drag // null
 */
export const anchorsAt = rememberByIndex((car: Car, position: number): Anchors => {
  if (car.records.aeroTests.length === 0) return NO_ANCHORS
  return { drag: dragAnchor(car, position), loads: basisOf(car).balanceSchool === 'contactPatches' ? loadAnchor(car, position) : null }
})
