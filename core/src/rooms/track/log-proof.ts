import { airDensity } from '../../air/density.ts'
import { attempt } from '../../attempt.ts'
import { correctionFactor } from '../../dyno/correction.ts'
import { CalculationError } from '../../errors.ts'
import { itemAt } from '../../item-at.ts'
import { STANDARD_GRAVITY_MPS2 as G } from '../../mass/suspension.ts'
import { isMeasured, type Proof } from '../../proof/quantity.ts'
import type { Car } from '../../stages/car.ts'
import { median } from '../../stats/moments.ts'
import { type LogPowerCar, USUAL_SLIP } from '../../tracklog/log-power.ts'
import { type LeftOver, leftOverCauses, type PowerAgainst, type PowerPoint, powerAgainst, powerOfCurve } from '../../tracklog/power-windows.ts'
import { aeroValue } from '../aero/stage-aero.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { roomWindows } from './corner-grip.ts'
import { type LapStage, lapStage } from './lap-inputs.ts'
import { type RoomTrackSession, type RoomWindow, trackSessions } from './track-sessions.ts'

/** Power that windows of full throttle show, against the dyno of the stage. */
export interface PowerProof extends PowerAgainst {
  readonly powerW: number
  readonly powerSdW: number
  readonly windows: number
  /** Calculated until nothing is lacking. */
  readonly proof: Proof
  /** What would make it confirmed, as sentences. */
  readonly lacks: readonly string[]
  readonly agrees: boolean
  /** By engine speed, in the air that the build counts in: the middle of the points of so many revolutions. */
  readonly bins: readonly PowerPoint[]
  /** Where road and dyno disagree, in kg, N and m²: what the force left over looks like, most like it first; empty where they agree. */
  readonly causes: readonly { readonly cause: LeftOver; readonly amount: number; readonly leftN: number }[]
}

/** Better than it a road test confirms a dyno (common practice, no source). */
const USEFUL_SHARE = 0.03
/** What the dyno itself leaves open (common practice, no source). */
const DYNO_SHARE = 0.01
const BIN_RPM = 200
/** At this speed the doubt of resistance is told (common practice, no source). */
const USUAL_SPEED_MPS = 35

/** What a log's power is reckoned with, of a stage's car in the air of a session. */
export interface LogCarInputs {
  readonly car: Omit<LogPowerCar, 'effectiveMassKg'>
  readonly overallRatios: readonly number[]
  readonly effectiveKg: readonly number[]
  readonly radiusM: number
  readonly downforceM2: number
}

/**
 * The car of a stage as a log's power and grip are reckoned with; null without a car or without gears on record.
 * @example logCarOf(makeTrackRoom(CAR).stages[1].lap, null) // null
 */
export function logCarOf({ car, inputs }: LapStage, ambient: RoomTrackSession['record']['ambient']): LogCarInputs | null {
  if (!car?.gears) return null
  const sdOf = (key: string) => inputs.find((input) => input.key === key)?.sd ?? 0
  const density = ambient?.pressureKind === 'station' ? attempt(() => airDensity(ambient).densityKgM3) : car.airDensityKgM3
  const airDensityKgM3 = density instanceof CalculationError ? car.airDensityKgM3 : density
  const { massKg, dragAreaM2, rollingCoefficient } = car
  const dragSdN = 0.5 * airDensityKgM3 * USUAL_SPEED_MPS ** 2 * sdOf('dragAreaM2')
  return {
    car: {
      massKg,
      massSdKg: sdOf('massKg'),
      dragAreaM2,
      rollingCoefficient,
      resistanceSdN: Math.hypot(dragSdN, sdOf('rollingCoefficient') * massKg * G),
      airDensityKgM3,
    },
    overallRatios: car.gears.overallRatios,
    effectiveKg: car.gears.turning.map(({ share, kg }) => massKg * (1 + share) + kg),
    radiusM: car.gears.radiusM,
    downforceM2: car.downforceFrontM2 + car.downforceRearM2,
  }
}

/** From the air of a day to that of the build's power; undefined where it cannot be said. */
function basisFactorOf({ records: { build } }: Car, { record: { ambient } }: RoomTrackSession): number | undefined {
  const { standard, boostSchool } = build.powerBasis
  if (standard === 'none') return 1
  if (standard === 'asPrinted' || ambient?.pressureKind !== 'station') return undefined
  const found = attempt(() => correctionFactor({ standard, air: ambient, boostSchool }).factor)
  return found instanceof CalculationError ? undefined : found
}

/** Points of windows put together by engine speed. */
function binned(windows: readonly (readonly PowerPoint[])[]): PowerPoint[] {
  const bins = new Map<number, PowerPoint[]>()
  for (const point of windows.flat()) {
    const bin = Math.round(point.speedRpm / BIN_RPM)
    bins.set(bin, [...(bins.get(bin) ?? []), point])
  }
  return [...bins.values()]
    .filter((points) => points.length > 1)
    .map((points) => ({
      speedRpm: median(points.map(({ speedRpm }) => speedRpm)),
      powerW: median(points.map(({ powerW }) => powerW)),
      sdW: median(points.map(({ sdW }) => sdW)),
    }))
    .sort((a, b) => a.speedRpm - b.speedRpm)
}

/** What is left over between dyno and road, as forces at the moments of the windows. */
function causesOf(lap: LapStage, windows: readonly RoomWindow[], points: readonly (readonly PowerPoint[])[]): PowerProof['causes'] {
  const inputs = logCarOf(lap, null)
  const curve = lap.car?.curve
  if (!inputs || !curve) return []
  const { car, overallRatios, effectiveKg, radiusM } = inputs
  const moments = windows.flatMap(({ gear }, i) =>
    itemAt(points, i).flatMap(({ speedRpm, powerW }) => {
      const [overall, kg, own] = [overallRatios[(gear ?? 0) - 1], effectiveKg[(gear ?? 0) - 1], powerOfCurve(curve, speedRpm)]
      if (!overall || !kg || !own) return []
      const speedMps = (speedRpm * (Math.PI / 30) * radiusM) / overall / (1 + USUAL_SLIP.share)
      const forceOf = (power: number) => power / speedMps / (1 + USUAL_SLIP.share)
      const resistanceN = 0.5 * car.airDensityKgM3 * speedMps ** 2 * car.dragAreaM2 + car.rollingCoefficient * car.massKg * G
      return [{ forceN: forceOf(own) - forceOf(powerW), accelerationMps2: (forceOf(powerW) - resistanceN) / kg, speedMps }]
    }),
  )
  // Of N s²/m² an area in the air of the car.
  const asArea = (amount: number) => (2 * amount) / car.airDensityKgM3
  return moments.length < 3 ? [] : leftOverCauses(moments).map((found) => (found.cause === 'drag' ? { ...found, amount: asArea(found.amount) } : found))
}

/** Power out of the windows of a stage's sessions; null where none counts, or the stage has no curve. */
export function powerProofAt(car: Car, position: number): PowerProof | null {
  const lap = lapStage(car, position)
  const curve = lap.car?.curve
  const sessions = trackSessions(car).filter((session) => session.position === position && session.whyNot === null)
  const windows = roomWindows(car).filter(
    ({ of, setAside, trackSessionId }) => of === 'power' && setAside === null && sessions.some(({ record }) => record.id === trackSessionId),
  )
  if (!curve || curve.speedRpm.length < 2 || windows.length === 0) return null
  const factors = windows.map(({ trackSessionId }) => basisFactorOf(car, sessions.find(({ record }) => record.id === trackSessionId) as RoomTrackSession))
  const points = windows.map((window, i) => (window.points ?? []).map((point) => ({ ...point, powerW: point.powerW * (factors[i] ?? 1), sdW: point.sdW })))
  const found = attempt(() => powerAgainst(points, curve))
  if (found instanceof CalculationError) return null
  const peakW = Math.max(...curve.powerW)
  const agrees = Math.abs(found.ratio - 1) <= 2 * Math.hypot(found.sd, DYNO_SHARE)
  const used = sessions.filter(({ record }) => windows.some(({ trackSessionId }) => trackSessionId === record.id))
  const hasGrade = used.every(({ record }) => car.records.tracks.find(({ id }) => id === record.trackId)?.segments.some(({ grade }) => grade !== 0))
  const drag = aeroValue(car, position, 'dragArea')
  const lacks = [
    ...(isMeasured(massOf(car, position)?.proof ?? 'guess') ? [] : ['The car of this stage was not weighed.']),
    ...(drag && isMeasured(drag.proof) ? [] : ['Its drag is not out of a coast-down.']),
    ...(hasGrade ? [] : ['The slope of the road is not known: a track out of a trace with heights has it.']),
    ...(factors.every((factor) => factor !== undefined) ? [] : ['The air of the day is missing, or the build counts power as printed.']),
    ...(found.sd < USEFUL_SHARE ? [] : [`It is known to ${(100 * found.sd).toFixed(1)} % alone; under 3 % confirms.`]),
  ]
  return {
    ...found,
    powerW: found.ratio * peakW,
    powerSdW: found.sd * peakW,
    windows: windows.length,
    agrees,
    bins: binned(points),
    causes: agrees ? [] : causesOf(lap, windows, points),
    proof: lacks.length === 0 ? 'confirmed' : 'calculated',
    lacks,
  }
}
