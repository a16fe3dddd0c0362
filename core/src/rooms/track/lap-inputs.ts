import type { BrakingCar } from '../../brakes/brake-share.ts'
import { leaveSpeeds } from '../../drivetrain/leave-speeds.ts'
import { driveMotion } from '../../drivetrain/motion.ts'
import { powerFromTorqueW } from '../../dyno/power-torque.ts'
import type { Car } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import type { LapCar, LapGears } from '../../track/lap-car.ts'
import { peakPowerW } from '../../track/lap-change.ts'
import type { UnsureLapInput } from '../../track/lap-forecast.ts'
import { aeroValue, areasAtTyres } from '../aero/stage-aero.ts'
import { type DriveInput, frictionOf, tyresOf } from '../drivetrain/drive-inputs.ts'
import { driveStage, leftAtWheels, type MissingInput, wheelCurve } from '../drivetrain/stage-inputs.ts'
import { powerAtStage } from '../power/power-at-stage.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { withExpected } from './expected.ts'
import type { LapInput, LapInputKey } from './lap-input.ts'
import { brakeShareAt } from './stage-brakes.ts'

/** A stage as a lap sees it. */
export interface LapStage {
  /** With all of the tyres' friction: before any fit. Null where something is missing. */
  readonly car: LapCar | null
  /** What braking asks of the car: its loads, air and tyres, no power; null without mass or axle loads. */
  readonly braking: (BrakingCar & Pick<LapCar, 'friction' | 'gripFactor'>) | null
  readonly inputs: readonly LapInput[]
  readonly missing: readonly MissingInput[]
  /** What of the stage a lap does not know of, as sentences. */
  readonly uncounted: readonly string[]
  /** The tyre part that the grip belongs to; null: none on record. */
  readonly tyrePartId: string | null
}

/** Usual values and spreads where nobody said otherwise (common practice, no source). */
const USUAL = {
  downforceSdM2: 0.1,
  loadSensitivity: 0.1,
  loadSensitivitySd: 0.05,
  brakingUse: 0.85,
  brakingUseSd: 0.07,
  brakeShareSd: 0.02,
  /** Of a peak alone: what its curve keeps over the speeds that a lap is driven in. */
  peakShare: 0.96,
  peakSd: 0.03,
} as const

function downforceOf(car: Car, position: number): LapInput[] {
  const areas = areasAtTyres(car, position)
  const isGuess = !areas || aeroValue(car, position, 'downforce')?.proof === 'guess'
  const source = areas ? `aero ${position}` : 'no downforce on record'
  const of = (key: LapInputKey, value: number, variance: number): LapInput => ({ key, value, sd: Math.sqrt(variance), isGuess, source })
  const usual = USUAL.downforceSdM2 ** 2
  return [of('downforceFrontM2', areas?.frontM2 ?? 0, areas?.frontVariance ?? usual), of('downforceRearM2', areas?.rearM2 ?? 0, areas?.rearVariance ?? usual)]
}

/** Power of a stage: its curve, else its peak alone; undefined without either. */
function powerOf(car: Car, position: number): { curve: LapCar['curve']; input: LapInput; isPeakAlone: boolean } | undefined {
  const found = powerAtStage(car, position)
  if (!found) return undefined
  const source = `power ${found.fromPosition} ${found.steps.length}`
  const isGuess = found.proof === 'guess'
  const left = wheelCurve(car, position)
  const points = (left?.speedRpm ?? []).map((rpm, i) => ({ rpm, powerW: powerFromTorqueW(left?.torqueNm[i] ?? 0, rpm) })).filter(({ powerW }) => powerW > 0)
  if (points.length > 1) {
    const curve = { speedRpm: points.map(({ rpm }) => rpm), powerW: points.map(({ powerW }) => powerW) }
    return { curve, input: { key: 'power', value: peakPowerW({ curve }), sd: found.sd, isGuess, source }, isPeakAlone: false }
  }
  const value = USUAL.peakShare * leftAtWheels(car, found.value)
  return {
    curve: { speedRpm: [6000], powerW: [value] },
    input: { key: 'power', value, sd: Math.hypot(found.sd, USUAL.peakSd * value), isGuess: true, source },
    isPeakAlone: true,
  }
}

/** The gears of a stage with the mass that turns in each; null where the driveline is not whole. */
function gearsOf(car: Car, position: number): LapGears | null {
  const { car: drive, isConverter } = driveStage(car, position)
  if (!drive || isConverter) return null
  const motion = driveMotion(drive)
  return {
    overallRatios: motion.gears.map(({ ratio }) => ratio),
    radiusM: drive.radiusM,
    turning: motion.gears.map(({ effectiveMassKg }) => {
      const kg = effectiveMassKg - drive.massKg
      return drive.engineInertiaKgM2 === null ? { share: kg / drive.massKg, kg: 0 } : { share: 0, kg }
    }),
    leaveRpm: leaveSpeeds(motion),
    shiftS: drive.shiftS,
    topRpm: drive.topRpm,
  }
}

/** Grip that both axles' tyres have: the lesser, so that neither is promised what it does not hold. */
function tyreOf(car: Car, position: number): { friction: LapInput; sensitivity: LapInput; partId: string | null } {
  const { front, rear, own } = tyresOf(car, driveStage(car, position).line)
  const known = [front, rear].filter((tyre) => tyre !== undefined)
  const lesser = known.map((tyre) => frictionOf(tyre.drive, tyre.part.id)).sort((a, b) => a.value - b.value)[0]
  const friction = lesser ?? frictionOf(own?.drive, own?.part.id ?? 'no tyre on record')
  const sensitivity = known.find(({ part }) => part.id === friction.source)?.drive.friction?.sensitivity
  return {
    friction: { ...friction, key: 'friction' },
    sensitivity: {
      key: 'loadSensitivity',
      value: sensitivity ?? USUAL.loadSensitivity,
      sd: USUAL.loadSensitivitySd,
      isGuess: sensitivity === undefined,
      source: friction.source,
    },
    partId: known.length > 0 ? friction.source : null,
  }
}

function missingOf(car: Car, position: number): MissingInput[] {
  return [
    ...(powerAtStage(car, position) ? [] : [{ what: 'its power: no lap without it. Type a peak', room: 'power' as const, more: '&do=session' }]),
    ...(massOf(car, position)
      ? []
      : [{ what: 'the mass: nothing was weighed and no papers are given', room: 'weight' as const, more: '&tab=scales&do=weighing' }]),
    ...(frontShareAt(car, position)
      ? []
      : [{ what: 'the axle loads: the share of the front axle is not known', room: 'weight' as const, more: '&tab=scales&do=weighing' }]),
  ]
}

function uncountedOf(gears: LapGears | null, isPeakAlone: boolean, tyrePartId: string | null, line: { missing: readonly MissingInput[] }): string[] {
  const lacks = line.missing.filter(({ room }) => room === 'drivetrain').length > 0
  return [
    ...(gears ? [] : [lacks ? 'No gears on record: a lap without them is one to two percent too quick before it is fitted.' : 'Gears are not counted.']),
    ...(isPeakAlone ? ['A peak alone is on record, no curve: 96 % of it is taken at any speed.'] : []),
    ...(tyrePartId === null ? ['No tyre is on record: its grip is a guess.'] : []),
  ]
}

const fromDrive = (
  inputs: readonly DriveInput[],
  key: 'massKg' | 'frontShare' | 'centreHeightM' | 'dragAreaM2' | 'rollingCoefficient' | 'shiftS',
): LapInput => {
  const found = inputs.find((input) => input.key === key)
  return found ? { ...found, key } : { key, value: 0, sd: 0, isGuess: true, source: 'nothing' }
}

/**
 * A stage as a lap sees it: every number with its doubt and where it comes from, what is missing, and what a lap of it does not count. Never a made-up lap:
 * without power, mass or axle loads there is no car.
 * @example lapStage(CAR, 1).inputs.find(({ key }) => key === 'brakingUse').value // 0.85
 */
export const lapStage = rememberByIndex((car: Car, position: number): LapStage => {
  const drive = driveStage(car, position)
  const tyre = tyreOf(car, position)
  const missing = missingOf(car, position)
  const power = powerOf(car, position)
  const gears = gearsOf(car, position)
  const brakes = brakeShareAt(car, position)
  const known: LapInput[] = [
    ...(['massKg', 'frontShare', 'centreHeightM', 'dragAreaM2', 'rollingCoefficient'] as const).map((key) => fromDrive(drive.inputs, key)),
    ...(power ? [power.input] : []),
    tyre.friction,
    tyre.sensitivity,
    ...downforceOf(car, position),
    ...(brakes ? [{ key: 'brakeFrontShare' as const, value: brakes.value, sd: USUAL.brakeShareSd, isGuess: false, source: brakes.brakes.id }] : []),
    { key: 'brakingUse', value: USUAL.brakingUse, sd: USUAL.brakingUseSd, isGuess: true, source: 'usual use of the brakes' },
    ...(gears ? [fromDrive(drive.inputs, 'shiftS')] : []),
  ]
  const inputs = withExpected(car, position, known)
  const uncounted = uncountedOf(gears, power?.isPeakAlone ?? false, tyre.partId, drive)
  const value = (key: LapInputKey) => inputs.find((input) => input.key === key)?.value ?? 0
  const build = car.builds[position] ?? car.records.build
  const braking = {
    massKg: value('massKg'),
    frontShare: value('frontShare'),
    centreHeightM: value('centreHeightM'),
    wheelbaseM: build.wheelbaseM,
    friction: value('friction'),
    gripFactor: 1,
    dragAreaM2: value('dragAreaM2'),
    downforceFrontM2: value('downforceFrontM2'),
    downforceRearM2: value('downforceRearM2'),
    airDensityKgM3: build.airDensityKgM3,
  }
  const hasLoads = !missing.some(({ room }) => room === 'weight')
  const common = { inputs, missing, uncounted, tyrePartId: tyre.partId, braking: hasLoads ? braking : null }
  if (missing.length > 0 || !power) return { ...common, car: null }
  return {
    ...common,
    car: {
      ...braking,
      trackM: (build.trackFrontM + build.trackRearM) / 2,
      loadSensitivity: value('loadSensitivity'),
      brakingUse: value('brakingUse'),
      rollingCoefficient: value('rollingCoefficient'),
      drivenAxles: build.drivenAxles,
      rearTorqueShare: drive.car?.rearTorqueShare ?? null,
      brakeFrontShare: brakes?.value ?? null,
      reference: null,
      curve: power.curve,
      gears: gears && { ...gears, shiftS: value('shiftS') },
    },
  }
})

/** A car with one number moved by so much. */
export function movedLapCar(car: LapCar, key: LapInputKey, by: number): LapCar {
  switch (key) {
    case 'power': {
      const peak = peakPowerW(car)
      return { ...car, curve: { ...car.curve, powerW: car.curve.powerW.map((power) => (power * (peak + by)) / peak) } }
    }
    case 'shiftS':
      return { ...car, gears: car.gears && { ...car.gears, shiftS: Math.max(0, car.gears.shiftS + by) } }
    case 'brakeFrontShare':
      return { ...car, brakeFrontShare: car.brakeFrontShare === null ? null : car.brakeFrontShare + by }
    case 'loadSensitivity':
    case 'rollingCoefficient':
    case 'dragAreaM2':
      return { ...car, [key]: Math.max(0, car[key] + by) }
    default:
      return { ...car, [key]: car[key] + by }
  }
}

/** Numbers that are not known exactly, as a forecast takes them; those that another car has from the same record are shared with it. */
export function unsureLapInputs(inputs: readonly LapInput[], other: readonly LapInput[] = []): UnsureLapInput[] {
  const sources = new Map(other.map(({ key, source }) => [key, source]))
  return inputs.flatMap(({ key, sd, isGuess, source }) =>
    sd > 0
      ? [
          {
            key,
            isGuess,
            isShared: sources.get(key) === source,
            isGrip: key === 'friction',
            moved: (car: LapCar, spreads: number) => movedLapCar(car, key, spreads * sd),
          },
        ]
      : [],
  )
}
