import { type AxleAreas, airPressurePa } from '../../aero/device-loads.ts'
import { type HeightsInput, rideHeights } from '../../aero/ride-heights.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { combineMeasurements } from '../../proof/combine-measurements.ts'
import { leastProof } from '../../proof/quantity.ts'
import type { Reading } from '../../records/drive-kinds.ts'
import type { AeroMetric, TapeMetric } from '../../records/metric-keys.ts'
import { TAPE_METRICS } from '../../records/metric-keys.ts'
import { NOISE_AT_M, soundAt } from '../../ruling/rule-ratio.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { normalDistribution } from '../../stats/distribution.ts'
import { quadrature } from '../../stats/moments.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { basisOf } from './basis.ts'
import { devicesAtStage } from './devices.ts'
import { heightsInput, totalsAlong } from './settled.ts'
import { axleAtStage, HEIGHT_SPREADS, movedHeights } from './springs.ts'
import { anchorsAt } from './stage-anchors.ts'
import { type AeroTotals, aeroTotals, boxAtPicks, type Side } from './totals.ts'

const wheelbaseAt = (car: Car, position: number) => car.builds[position]?.wheelbaseM ?? car.records.build.wheelbaseM

/** What the devices of a stage do together as their values say, before any of them comes nearer to the ground. */
const statedAero = rememberByIndex((car: Car, position: number): AeroTotals | undefined => {
  const devices = devicesAtStage(car, position)
  const anchors = anchorsAt(car, position)
  if (devices.length === 0 && !anchors.drag && !anchors.loads) return undefined
  return aeroTotals(devices, {}, { wheelbaseM: wheelbaseAt(car, position), school: basisOf(car).balanceSchool, anchors })
})

/**
 * What heights are worked out of at a stage; undefined without springs, an outline or anything known of its downforce.
 * @example heightsAtStage(CAR, 1) // undefined
 */
export const heightsAtStage = rememberByIndex((car: Car, position: number): HeightsInput | undefined => {
  const aero = statedAero(car, position)
  if (!aero) return undefined
  const { outline, airDensityKgM3 } = car.builds[position] ?? car.records.build
  const [front, rear] = [axleAtStage(car, position, 'front'), axleAtStage(car, position, 'rear')]
  const devices = devicesAtStage(car, position)
  return heightsInput({ front, rear, outline, wheelbaseM: wheelbaseAt(car, position), airDensityKgM3, devices }, {}, aero) ?? undefined
})

/** Sums at the speed that aero is quoted at, at the heights the car then rides at. */
const atQuotedSpeed = (car: Car, position: number, totals: AeroTotals): AeroTotals =>
  totalsAlong(totals, heightsAtStage(car, position) ?? null, [basisOf(car).speedMps])[0] as AeroTotals

/**
 * What the devices of a stage do together at the speed that aero is quoted at, from the tests of the whole car on; undefined where no device is in the car and
 * nothing was tested.
 * @example stageAero(CAR, 1) // undefined
 */
export const stageAero = rememberByIndex((car: Car, position: number): AeroTotals | undefined => {
  const stated = statedAero(car, position)
  return stated && atQuotedSpeed(car, position, stated)
})

const known = (value: number, sd: number, proof: StageValue['proof']): StageValue => ({
  value,
  sd,
  proof,
  distribution: normalDistribution(value, sd),
  fromPosition: null,
})

/**
 * What the whole car pushes on its tyres at a stage, drag's moment counted whatever school the balance is said by; undefined where the body or a device in it
 * is not known, by a value of its own or by a test.
 * @example areasAtTyres(CAR, 1) // undefined
 */
export function areasAtTyres(car: Car, position: number): AxleAreas | undefined {
  if (!stageAero(car, position)?.loads.isWhole) return undefined
  const basis = { wheelbaseM: wheelbaseAt(car, position), school: 'contactPatches' as const, anchors: anchorsAt(car, position) }
  return atQuotedSpeed(car, position, aeroTotals(devicesAtStage(car, position), {}, basis)).areas
}

/** A value of a side of the sums, with the stage of the test it starts from. */
function ofSide(car: Car, position: number, { proof, test }: Side, value: number, sd: number): StageValue {
  const from = test && test.anchor.position !== position ? test.anchor.position : null
  return { ...known(value, sd, proof), fromPosition: from, ...(from !== null && position > 0 && !car.lists[position] ? { isEmptyStage: true } : {}) }
}

function clearanceAt(car: Car, position: number): StageValue | undefined {
  const [input, aero] = [heightsAtStage(car, position), stageAero(car, position)]
  if (!input || !aero?.loads.isWhole) return undefined
  const { speedMps } = basisOf(car)
  const least = (own: HeightsInput) => Math.min(...rideHeights(own, speedMps).pointsM)
  const value = least(input)
  const spreads = { frontSdM2: Math.sqrt(aero.areas.frontVariance), rearSdM2: Math.sqrt(aero.areas.rearVariance) }
  return known(
    value,
    quadrature(HEIGHT_SPREADS.tapeM, ...movedHeights(input, spreads).map((own) => least(own) - value)),
    leastProof('calculated', aero.loads.proof),
  )
}

function gapAt(car: Car, position: number): StageValue | undefined {
  const [aero, share] = [stageAero(car, position), frontShareAt(car, position)]
  if (!aero?.balance || !aero.loads.isWhole || !share) return undefined
  const { frontShare, sd } = aero.balance
  return ofSide(car, position, { ...aero.loads, proof: leastProof(aero.loads.proof, share.proof) }, frontShare - share.value, quadrature(sd, share.sd))
}

/** Two readings of a tape that are this sure confirm each other (common practice, no source). */
const CONFIRMING_SD_M = 0.01
const USUAL_TAPE_SD_M = 0.005
/** A meter and where it is held: so unsure, and so sure that two readings confirm each other (common practice, no source). */
const USUAL_METER_SD_DB = 1

/** How unsure a reading is where nobody said; counts are exact. */
const usualSdOf = (metric: TapeMetric): number => (metric === 'wingElements' ? 0 : metric === 'noise' ? USUAL_METER_SD_DB : USUAL_TAPE_SD_M)
/** A reading as the metric is quoted: noise at the usual distance. */
const asQuoted = ({ metric, value, atM }: Reading): number =>
  metric === 'noise' ? soundAt({ levelDb: value, fromM: atM ?? NOISE_AT_M, toM: NOISE_AT_M }) : value

/** The devices that a stage stands with and where they stand: readings are of the same car as long as this stays. */
const contentOf = (car: Car, position: number) =>
  devicesAtStage(car, position)
    .map(({ id, picked }) => `${id} ${picked}`)
    .sort()
    .join(',')
/** What makes the car as loud as it is: every line that touches power. */
const loudnessOf = ({ linesByStage }: Car, position: number) =>
  linesByStage
    .slice(0, position + 1)
    .flat()
    .filter(({ change }) => change.touchesPower)
    .map(({ change }) => change.id)
    .sort()
    .join(',')

/** What a tape or a meter said at the latest stage up to this one, as long as the devices stand as they did. */
function tapedAt(car: Car, position: number, metric: TapeMetric): StageValue | undefined {
  const contentAt = metric === 'noise' ? loudnessOf : contentOf
  const readings = car.records.readings
    .filter((reading) => reading.metric === metric && reading.setAside === null)
    .map((reading) => ({ reading, at: stageIndex(car, reading.stageId) }))
    .filter(({ at }) => at >= 0 && at <= position && contentAt(car, at) === contentAt(car, position))
    .sort((a, b) => Date.parse(b.reading.at) - Date.parse(a.reading.at))
  const last = readings[0]?.at
  const own = readings
    .filter(({ at }) => at === last)
    .map(({ reading }) => ({
      value: asQuoted(reading),
      sd: reading.sd ?? usualSdOf(metric),
      instrument: reading.instrument ?? undefined,
      day: reading.at.slice(0, 10),
    }))
  const [head, ...rest] = own
  if (!head || last === undefined) return undefined
  const found = combineMeasurements([head, ...rest], () => (metric === 'noise' ? USUAL_METER_SD_DB : CONFIRMING_SD_M))
  return { ...known(found.value, found.sd, found.proof), fromPosition: last === position ? null : last }
}

/** Lengths by the tape of the outline, counts exactly. */
function boxedAt(car: Car, position: number, metric: TapeMetric): StageValue | undefined {
  const taped = tapedAt(car, position, metric)
  if (taped || metric === 'noise') return taped
  const { outline } = car.builds[position] ?? car.records.build
  const devices = devicesAtStage(car, position)
  if (!outline || !devices.some(({ kind, notches }) => kind !== 'body' && notches.some(({ box }) => box))) return undefined
  const reading = boxAtPicks(devices, {}, { ...outline, wheelbaseM: wheelbaseAt(car, position) })[metric]
  // Where nothing reaches out there is nothing to be unsure of.
  return reading && known(reading.value, metric === 'wingElements' || reading.name === null ? 0 : outline.sdM, 'calculated')
}

function summedAt(car: Car, position: number, metric: Exclude<AeroMetric, TapeMetric>): StageValue | undefined {
  if (metric === 'clearance') return clearanceAt(car, position)
  if (metric === 'balanceGap') return gapAt(car, position)
  const aero = stageAero(car, position)
  if (!aero) return undefined
  const { areas, balance, drag, loads } = aero
  if (metric === 'dragArea') return drag.isWhole ? ofSide(car, position, drag, areas.dragM2, Math.sqrt(areas.dragVariance)) : undefined
  if (!loads.isWhole) return undefined
  const q = airPressurePa(car.records.build.airDensityKgM3, basisOf(car).speedMps)
  if (metric === 'downforce') return ofSide(car, position, loads, q * aero.downforceM2, q * aero.downforceSdM2)
  return balance ? ofSide(car, position, loads, balance.frontShare, balance.sd) : undefined
}

const isTaped = (metric: AeroMetric): metric is TapeMetric => (TAPE_METRICS as readonly string[]).includes(metric)

/**
 * A metric of aero at a stage; undefined where a device in the car is not known, the body is not among them, or nothing was taped.
 * @example aeroValue(CAR, 1, 'downforce') // undefined
 */
export function aeroValue(car: Car, position: number, metric: AeroMetric): StageValue | undefined {
  const found = attempt(() => (isTaped(metric) ? boxedAt(car, position, metric) : summedAt(car, position, metric)))
  return found instanceof CalculationError ? undefined : found
}
