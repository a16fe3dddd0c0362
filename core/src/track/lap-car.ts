import { CalculationError, requireFinite, requirePositive, requireWithin } from '../errors.ts'
import { floatAt, itemAt } from '../item-at.ts'

/** Power left at the wheels by engine speed: straight between its points, the torque of the first below it, nothing above the top speed. */
export interface PowerCurve {
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

/** The gears of a car that laps. */
export interface LapGears {
  /** From crank to wheel: all of a gear's reductions in one number, first gear first. */
  readonly overallRatios: readonly number[]
  readonly radiusM: number
  /** Mass that turns with a gear: m (1 + share) + kg, a pair for each gear. */
  readonly turning: readonly { readonly share: number; readonly kg: number }[]
  /** Engine speed at which each gear but the last is left; null: the last at which no higher gear pulls as hard. */
  readonly leaveRpm: readonly number[] | null
  readonly shiftS: number
  readonly topRpm: number
}

/** The car that a corner's tyres were measured on: loads are counted against its own. */
export interface LapReference {
  readonly massKg: number
  readonly frontShare: number
}

/** A car that laps: a point that turns, pulls and brakes with the loads of two axles. Names are those that rooms share. */
export interface LapCar {
  readonly massKg: number
  readonly frontShare: number
  readonly centreHeightM: number
  readonly wheelbaseM: number
  /** The mean of both axles. */
  readonly trackM: number
  /** Peak friction of a tyre under the load it has at rest. */
  readonly friction: number
  /** Friction lost for each time that load is added. */
  readonly loadSensitivity: number
  /** What a line, bars, springs, heat and the driver leave of the friction. */
  readonly gripFactor: number
  /** How much of what the brakes could do is used. */
  readonly brakingUse: number
  readonly dragAreaM2: number
  /** At the contact patches, down positive. */
  readonly downforceFrontM2: number
  readonly downforceRearM2: number
  readonly rollingCoefficient: number
  readonly airDensityKgM3: number
  readonly drivenAxles: 'front' | 'rear' | 'all'
  /** Of a fixed split between the axles; null: both slip together. */
  readonly rearTorqueShare: number | null
  /** Null: split as the loads are. */
  readonly brakeFrontShare: number | null
  readonly reference: LapReference | null
  readonly curve: PowerCurve
  /** Null: the mean of the curve over the last quarter of its speeds, at any road speed, without a shift. */
  readonly gears: LapGears | null
}

/** What a car without gears on record turns with. */
const FLAT_TURNING = 0.05
/** The part of the curve's speeds that a lap is driven in, from its end (common practice, no source). */
const FLAT_FROM = 0.74
const RPM = Math.PI / 30

function requireGears({ overallRatios, radiusM, turning, leaveRpm, shiftS, topRpm }: LapGears, curve: PowerCurve): void {
  if (overallRatios.length < 1 || overallRatios.length > 10)
    throw new CalculationError('out-of-range', 'overallRatios', 'A gearbox has one to ten gears. Type their ratios, first to last.')
  overallRatios.forEach((ratio, i) => {
    requireWithin(ratio, 0.3, 60, `overallRatios.${i}`)
    if (i > 0 && !(ratio < itemAt(overallRatios, i - 1)))
      throw new CalculationError('inconsistent', `overallRatios.${i}`, 'Each gear must be longer than the one before: type the ratios in order, first to last.')
  })
  requireWithin(radiusM, 0.15, 0.6, 'radiusM')
  if (turning.length !== overallRatios.length) throw new CalculationError('inconsistent', 'turning', 'Each gear needs the mass that turns with it, none more.')
  turning.forEach(({ share, kg }, i) => {
    requireWithin(share, 0, 5, `turning.${i}.share`)
    requireWithin(kg, 0, 20_000, `turning.${i}.kg`)
  })
  if (leaveRpm && leaveRpm.length !== overallRatios.length - 1)
    throw new CalculationError('inconsistent', 'leaveRpm', 'Each gear but the last needs the engine speed at which it is left, none more.')
  requireWithin(shiftS, 0, 3, 'shiftS')
  if (!(topRpm > itemAt(curve.speedRpm, 0)))
    throw new CalculationError('out-of-range', 'topRpm', `topRpm is ${topRpm}; it must lie above the curve’s first speed, ${itemAt(curve.speedRpm, 0)}.`)
}

/** A car whose numbers lie within what a car can be. Rejects what lies outside, naming the field. */
export function requireLapCar(car: LapCar): void {
  requirePositive(car.massKg, 'massKg')
  requireWithin(car.massKg, 50, 20_000, 'massKg')
  requireWithin(car.frontShare, 0.05, 0.95, 'frontShare')
  requireWithin(car.centreHeightM, 0, 1.5, 'centreHeightM')
  requireWithin(car.wheelbaseM, 1, 5, 'wheelbaseM')
  requireWithin(car.trackM, 0.8, 3, 'trackM')
  requireWithin(car.friction, 0.05, 4, 'friction')
  requireWithin(car.loadSensitivity, 0, 0.5, 'loadSensitivity')
  requireWithin(car.gripFactor, 0.1, 2, 'gripFactor')
  requireWithin(car.brakingUse, 0.05, 1.2, 'brakingUse')
  requireWithin(car.dragAreaM2, 0, 10, 'dragAreaM2')
  requireWithin(car.downforceFrontM2, -5, 20, 'downforceFrontM2')
  requireWithin(car.downforceRearM2, -5, 20, 'downforceRearM2')
  requireWithin(car.rollingCoefficient, 0, 0.2, 'rollingCoefficient')
  requireWithin(car.airDensityKgM3, 0, 1.5, 'airDensityKgM3')
  if (car.rearTorqueShare !== null) requireWithin(car.rearTorqueShare, 0, 1, 'rearTorqueShare')
  if (car.brakeFrontShare !== null) requireWithin(car.brakeFrontShare, 0.05, 0.95, 'brakeFrontShare')
  const { speedRpm, powerW } = car.curve
  if (speedRpm.length < 1 || speedRpm.length > 5000 || speedRpm.length !== powerW.length)
    throw new CalculationError('missing', 'curve', 'The curve needs a point or more, up to 5000, each with a speed and a power.')
  speedRpm.forEach((speed, i) => {
    requireFinite(itemAt(powerW, i), `curve.powerW.${i}`)
    if (!(itemAt(powerW, i) > 0)) throw new CalculationError('out-of-range', `curve.powerW.${i}`, 'No lap without power: type a peak.')
    requireWithin(itemAt(powerW, i), 0, 1e7, `curve.powerW.${i}`)
    requireWithin(speed, 0, 25_000, `curve.speedRpm.${i}`)
    if (!(speed > (speedRpm[i - 1] ?? 0)))
      throw new CalculationError('inconsistent', `curve.speedRpm.${i}`, 'The speeds of the curve must rise from point to point.')
  })
  if (car.gears) requireGears(car.gears, car.curve)
}

/** Power along a curve: straight between its points, the first one's torque below it, the last one's power above it. */
export class PowerAlong {
  readonly #speedRpm: Float64Array
  readonly #powerW: Float64Array

  constructor({ speedRpm, powerW }: PowerCurve) {
    this.#speedRpm = Float64Array.from(speedRpm)
    this.#powerW = Float64Array.from(powerW)
  }

  at(rpm: number): number {
    const speeds = this.#speedRpm
    const powers = this.#powerW
    const last = speeds.length - 1
    const first = floatAt(speeds, 0)
    if (rpm <= first) return (floatAt(powers, 0) * rpm) / first
    if (rpm >= floatAt(speeds, last)) return floatAt(powers, last)
    let at = 0
    while (rpm > floatAt(speeds, at + 1)) at++
    const share = (rpm - floatAt(speeds, at)) / (floatAt(speeds, at + 1) - floatAt(speeds, at))
    return floatAt(powers, at) * (1 - share) + floatAt(powers, at + 1) * share
  }
}

/** What an engine pulls through one ratio; past its end the force goes on: a step that leaves the gear is cut there, and both its ends must be told. */
class GearPull {
  readonly #power: PowerAlong
  /** Engine speed for each m/s. */
  readonly #rpmPerMps: number

  constructor(power: PowerAlong, rpmPerMps: number) {
    this.#power = power
    this.#rpmPerMps = rpmPerMps
  }

  forceN(speedMps: number): number {
    return this.#power.at(Math.max(1, speedMps * this.#rpmPerMps)) / Math.max(speedMps, 1 / this.#rpmPerMps)
  }
}

/** One gear as a lap needs it. */
export class LapGear {
  readonly effectiveMassKg: number
  /** Where it is left for the next; of the last one infinity. */
  readonly leaveMps: number
  /** Where the engine turns no faster. */
  readonly topMps: number
  readonly #pull: GearPull

  constructor(pull: GearPull, effectiveMassKg: number, leaveMps: number, topMps: number) {
    this.#pull = pull
    this.effectiveMassKg = effectiveMassKg
    this.leaveMps = leaveMps
    this.topMps = topMps
  }

  forceN(speedMps: number): number {
    return this.#pull.forceN(speedMps)
  }
}

/** Mean power over the last quarter of the curve's speeds, by straight lines. */
function flatPowerW(curve: PowerCurve): number {
  const [low, high] = [curve.speedRpm[0] as number, curve.speedRpm.at(-1) as number]
  const power = new PowerAlong(curve)
  if (high === low) return power.at(high)
  const from = Math.max(low, FLAT_FROM * high)
  const places = [from, ...curve.speedRpm.filter((rpm) => rpm > from)]
  const area = places.slice(1).reduce((sum, rpm, i) => sum + 0.5 * (power.at(rpm) + power.at(itemAt(places, i))) * (rpm - itemAt(places, i)), 0)
  return area / (high - from)
}

/** The last speed at which no higher gear pulls as hard, m/s: looked at from the top down, then halved to rounding. */
function lastAhead(pulls: readonly GearPull[], i: number, topMps: number): number {
  const own = itemAt(pulls, i)
  const higher = pulls.slice(i + 1)
  const isAhead = (speed: number) => higher.every((next) => own.forceN(speed) >= next.forceN(speed) * (1 - 1e-12))
  if (isAhead(topMps)) return topMps
  const steps = 200
  for (let k = steps - 1; k > 0; k--) {
    if (!isAhead((topMps * k) / steps)) continue
    let [low, high] = [(topMps * k) / steps, (topMps * (k + 1)) / steps]
    for (let round = 0; round < 60; round++) {
      const middle = 0.5 * (low + high)
      if (isAhead(middle)) low = middle
      else high = middle
    }
    return low
  }
  return topMps / steps
}

/**
 * The gears of a car by road speed: what each pulls, what turns with it, where it is left. Without gears on record one that gives the curve's mean power over
 * the last quarter of its speeds everywhere, with 5 % of the mass turning. Source: the room's page. Rejects what `requireLapCar` rejects.
 * @example lapGears(LAP_CAR)[0].leaveMps // 20.5328
 */
export function lapGears(car: LapCar): readonly LapGear[] {
  requireLapCar(car)
  const { gears, curve, massKg } = car
  if (!gears) {
    const flat = new GearPull(new PowerAlong({ speedRpm: [1], powerW: [flatPowerW(curve)] }), 1)
    return [new LapGear(flat, massKg * (1 + FLAT_TURNING), Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY)]
  }
  const power = new PowerAlong(curve)
  const { overallRatios, radiusM, topRpm } = gears
  const mps = (rpm: number, ratio: number) => (rpm * RPM * radiusM) / ratio
  const pulls = overallRatios.map((ratio) => new GearPull(power, ratio / (RPM * radiusM)))
  return overallRatios.map((ratio, i) => {
    const topMps = mps(topRpm, ratio)
    const isLast = i === overallRatios.length - 1
    const leave = gears.leaveRpm ? mps(Math.min(gears.leaveRpm[i] ?? topRpm, topRpm), ratio) : lastAhead(pulls, i, topMps)
    const { share, kg } = itemAt(gears.turning, i)
    return new LapGear(itemAt(pulls, i), massKg * (1 + share) + kg, isLast ? Number.POSITIVE_INFINITY : leave, topMps)
  })
}
