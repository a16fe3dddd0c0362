import { CalculationError, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { rootBetween } from '../stats/root.ts'
import { type DriveCar, requireCurve, requireRatios } from './drive-car.ts'
import { signChange } from './integrate.ts'
import { torqueAlong } from './motion.ts'
import { holdSlide, type SlideState, type SlidingCar, slideSpeedMps } from './slide.ts'

const RPM = Math.PI / 30

/** Engine and gears as a slide meets them. */
export type Powertrain = Pick<DriveCar, 'curve' | 'driveEfficiency' | 'primaryRatio' | 'ratios' | 'finalRatio' | 'radiusM' | 'topRpm'>

/** A gear against a slide. */
export interface SlideGear {
  /** Counted from 1. */
  readonly gear: number
  readonly speedRpm: number
  /** Power at the wheels over what is needed, less one; null where the engine speed lies off the curve or over its top. */
  readonly inHand: number | null
  readonly ends: 'over' | 'under' | null
}

/** A corner to be slid through: its radius and angle, or the speed that somebody knows. */
export interface SlideCorner {
  readonly slideAngleRad: number
  readonly cornerRadiusM?: number | undefined
  readonly speedMps?: number | undefined
}

/** Engine and gears that fit each other. Rejects others. */
export function requirePowertrain(train: Powertrain): void {
  requireRatios(train.ratios)
  requireCurve(train.curve)
  requireWithin(train.primaryRatio, 0.3, 4, 'primaryRatio')
  requireWithin(train.finalRatio, 0.5, 12, 'finalRatio')
  requireWithin(train.radiusM, 0.15, 0.5, 'radiusM')
  requireWithin(train.driveEfficiency, 0.5, 1, 'driveEfficiency')
  const last = train.curve.speedRpm.at(-1) as number
  if (train.topRpm > last) throw new CalculationError('out-of-range', 'topRpm', `Pulls end at ${last} rpm. Set it to that, or pull further.`)
}

/** Power left at the wheels at an engine speed, W. */
const powerOf = (train: Powertrain) => {
  const torque = torqueAlong(train.curve.speedRpm, train.curve.torqueNm)
  return (rpm: number) => torque(rpm) * rpm * RPM * train.driveEfficiency
}

/**
 * What each gear has in hand for a wheel speed and a power. A gear holds it where its engine speed lies on the curve and up to the top, and power over need
 * is not under one. Source: the room's page. Ratios fall, 1 to 10 of them.
 * @example slideGears(TRAIN, 27.1954, 129000)[1].inHand // 0.479
 */
export function slideGears(train: Powertrain, wheelSpeedMps: number, neededW: number): SlideGear[] {
  requirePowertrain(train)
  const power = powerOf(train)
  const first = itemAt(train.curve.speedRpm, 0)
  return train.ratios.map((ratio, i): SlideGear => {
    const speedRpm = (wheelSpeedMps * train.primaryRatio * ratio * train.finalRatio) / (train.radiusM * RPM)
    const ends = speedRpm > train.topRpm ? 'over' : speedRpm < first ? 'under' : null
    return { gear: i + 1, speedRpm, inHand: ends ? null : power(speedRpm) / neededW - 1, ends }
  })
}

/** The gear with most in hand; undefined where none has the engine on its curve. */
export const bestGear = (gears: readonly SlideGear[]): SlideGear | undefined =>
  gears
    .filter(({ inHand }) => inHand !== null)
    .reduce<SlideGear | undefined>((best, each) => (best && (best.inHand as number) >= (each.inHand as number) ? best : each), undefined)

/**
 * The speed of a slide round a corner, m/s: the one that is given, else by its radius. Rejects a corner with neither, and one that no speed goes round.
 * @example cornerSlideMps(SLIDING, { cornerRadiusM: 58, slideAngleRad: 0.6981317 }) // 24.360
 */
export function cornerSlideMps(car: SlidingCar, { cornerRadiusM, speedMps, slideAngleRad }: SlideCorner): number {
  if (speedMps !== undefined) return speedMps
  if (cornerRadiusM === undefined) throw new CalculationError('missing', 'cornerRadiusM', 'The corner has neither a radius nor a speed. Type one of them.')
  const found = slideSpeedMps(car, cornerRadiusM, slideAngleRad)
  if (found !== undefined) return found
  throw new CalculationError(
    'out-of-range',
    'cornerRadiusM',
    'No speed takes the car round that radius at that angle. Take a smaller angle, or another radius.',
  )
}

/**
 * A slide through a corner with the gear that has most in hand. Rejects what `holdSlide` and `cornerSlideMps` reject.
 * @example slideThrough(SLIDING, TRAIN, { cornerRadiusM: 58, slideAngleRad: 0.6981317 }).best.gear // 3
 */
export function slideThrough(
  car: SlidingCar,
  train: Powertrain,
  corner: SlideCorner,
): { speedMps: number; state: SlideState; gears: SlideGear[]; best: SlideGear | undefined } {
  const speedMps = cornerSlideMps(car, corner)
  const state = holdSlide(car, speedMps, corner.slideAngleRad)
  const gears = slideGears(train, state.wheelSpeedMps, state.powerW)
  return { speedMps, state, gears, best: bestGear(gears) }
}

/** What one lever, turned alone, has to become; null where it does not get there. */
export interface SlideLevers {
  readonly powerFactor: number | null
  readonly finalRatio: number | null
  /** The final with most in hand by any gear, and how much that is: what there is to say where no final does it. */
  readonly bestFinal: { readonly finalRatio: number; readonly gear: number; readonly inHand: number } | null
  readonly slidingFriction: number | null
  readonly speedAtFrictionMps: number | null
  readonly massKg: number | null
  readonly slideAngleRad: number | null
}

/** Shares in hand that differ by less are one. */
const EQUAL_IN_HAND = 1e-3
const FINALS = { least: 1.5, most: 8, step: 0.001 } as const

/** The finals at which a gear makes its greatest power at a wheel speed, and those nearest to the present one that have so much in hand. */
function finalLever(train: Powertrain, { wheelSpeedMps, powerW }: SlideState, reserve: number) {
  const power = powerOf(train)
  const rounded = (final: number) => Math.round(final / FINALS.step) * FINALS.step
  const inHandOf = (gear: number, finalRatio: number) => slideGears({ ...train, finalRatio }, wheelSpeedMps, powerW)[gear - 1]?.inHand ?? null
  // Each gear has a final that lets the engine work at its peak; of those that differ by rounding alone, the nearest shorter one is told.
  const away = (final: number) => (final >= train.finalRatio ? final - train.finalRatio : FINALS.most + train.finalRatio - final)
  type Best = NonNullable<SlideLevers['bestFinal']>
  const isBetter = (each: Best, than: Best) =>
    Math.abs(each.inHand - than.inHand) < EQUAL_IN_HAND ? away(each.finalRatio) < away(than.finalRatio) : each.inHand > than.inHand
  const speeds = [...train.curve.speedRpm.filter((rpm) => rpm < train.topRpm), train.topRpm]
  const peakRpm = peakBetween(power, speeds)
  const finalAt = (ratio: number, rpm: number) => (rpm * RPM * train.radiusM) / (wheelSpeedMps * train.primaryRatio * ratio)
  const best = train.ratios
    .map((ratio, i) => ({ gear: i + 1, finalRatio: rounded(finalAt(ratio, peakRpm)) }))
    .filter(({ finalRatio }) => finalRatio >= FINALS.least && finalRatio <= FINALS.most)
    .map((each) => ({ ...each, inHand: inHandOf(each.gear, each.finalRatio) ?? Number.NEGATIVE_INFINITY }))
    .reduce<SlideLevers['bestFinal']>((most, each) => (most && !isBetter(each, most) ? most : each), null)
  const wanted = train.ratios.flatMap((ratio) =>
    rangesOver(power, speeds, powerW * (1 + reserve)).map(([low, high]) => [finalAt(ratio, low), finalAt(ratio, high)] as const),
  )
  const nearest = wanted
    .map(([low, high]) => Math.min(Math.max(train.finalRatio, low), high))
    .filter((final) => final >= FINALS.least && final <= FINALS.most)
    .reduce<number | null>((near, final) => (near !== null && Math.abs(near - train.finalRatio) <= Math.abs(final - train.finalRatio) ? near : final), null)
  return { finalRatio: nearest, bestFinal: best }
}

/** Where a curve of straight torque lines makes its greatest power: at a point, or within a line where torque falls. */
function peakBetween(power: (rpm: number) => number, speeds: readonly number[]): number {
  const places = speeds.flatMap((low, i) => {
    const high = speeds[i + 1]
    if (high === undefined) return [low]
    const slope = (power(high) / high - power(low) / low) / (high - low)
    const middle = slope < 0 ? low / 2 - power(low) / low / (2 * slope) : Number.NaN
    return middle > low && middle < high ? [low, middle] : [low]
  })
  return places.reduce((best, rpm) => (power(rpm) > power(best) ? rpm : best))
}

/** Ranges of engine speed over which at least so much power is made. */
function rangesOver(power: (rpm: number) => number, speeds: readonly number[], leastW: number): [number, number][] {
  const peak = peakBetween(power, speeds)
  const places = [...new Set([...speeds, peak])].sort((a, b) => a - b)
  const over = (rpm: number) => power(rpm) - leastW
  const pieces = places.slice(1).flatMap((high, i): [number, number][] => {
    const low = itemAt(places, i)
    const [atLow, atHigh] = [over(low) >= 0, over(high) >= 0]
    if (!atLow && !atHigh) return []
    if (atLow && atHigh) return [[low, high]]
    const edge = signChange(over, low, high)
    return [atLow ? [low, edge] : [edge, high]]
  })
  return pieces.reduce<[number, number][]>((joined, [low, high]) => {
    const last = joined.at(-1)
    if (last && Math.abs(last[1] - low) < 1e-9) last[1] = high
    else joined.push([low, high])
    return joined
  }, [])
}

/** The nearest value of a lever at which a slide has so much in hand, looked for from where it stands outwards by steps and then halved. */
function nearest(inHand: (value: number) => number | undefined, at: number, reserve: number, steps: readonly number[]): number | null {
  const reaches = (value: number) => (inHand(value) ?? Number.NEGATIVE_INFINITY) >= reserve
  if (reaches(at)) return at
  let before = at
  for (const value of steps) {
    if (reaches(value)) return lastUnder(inHand, reserve, before, value)
    before = value
  }
  return null
}

/** Where a lever just reaches the reserve, between a value under it and one that has it: a root, or halved where one side has no answer. */
function lastUnder(inHand: (value: number) => number | undefined, reserve: number, under: number, over: number): number {
  const missing = (value: number) => (inHand(value) ?? Number.NaN) - reserve
  const found = Number.isFinite(missing(under)) ? rootBetween(missing, under, over) : Number.NaN
  if (Math.abs(missing(found)) < 1e-9) return found
  return signChange((each) => ((inHand(each) ?? Number.NEGATIVE_INFINITY) >= reserve ? 1 : -1), under, over)
}

const LEVER_STEPS = 60
const stepsTo = (from: number, to: number) => Array.from({ length: LEVER_STEPS }, (_, i) => from + ((to - from) * (i + 1)) / LEVER_STEPS)

/**
 * What each lever alone would have to become for a corner to have a reserve in hand: power (times), final drive, friction of the rear tyres (the same
 * corner; its speed follows), mass and angle. Brackets: power to 5 times, final 1.5 to 8, friction 0.2 to 2, mass a quarter to whole, angle from 5 degrees.
 * No final adds power at a road speed: at best it lets the engine work at its peak. Reserve 0 to 1. Source: the room's page.
 * @example slideLevers(SLIDING, TRAIN, { cornerRadiusM: 58, slideAngleRad: 0.6981317 }, 0.15).powerFactor // 1.1001
 */
export function slideLevers(car: SlidingCar, train: Powertrain, corner: SlideCorner, reserve: number): SlideLevers {
  requireWithin(reserve, 0, 1, 'reserve')
  requirePowertrain(train)
  const { state, best } = slideThrough(car, train, corner)
  const inHand = (changed: Partial<SlidingCar>, angle = corner.slideAngleRad) => {
    try {
      return slideThrough({ ...car, ...changed }, train, { ...corner, slideAngleRad: angle }).best?.inHand ?? undefined
    } catch (error) {
      if (error instanceof CalculationError) return undefined
      throw error
    }
  }
  const factor = best ? Math.max(1, (1 + reserve) / (1 + (best.inHand as number))) : null
  const slidingFriction = nearest((slidingFriction) => inHand({ slidingFriction }), car.slidingFriction, reserve, stepsTo(car.slidingFriction, 0.2))
  return {
    powerFactor: factor !== null && factor <= 5 ? factor : null,
    ...finalLever(train, state, reserve),
    slidingFriction,
    speedAtFrictionMps: slidingFriction === null ? null : cornerSlideMps({ ...car, slidingFriction }, corner),
    massKg: nearest((massKg) => inHand({ massKg }), car.massKg, reserve, stepsTo(car.massKg, car.massKg / 4)),
    slideAngleRad: nearest(
      (angle) => inHand({}, angle),
      corner.slideAngleRad,
      reserve,
      stepsTo(corner.slideAngleRad, Math.min(corner.slideAngleRad, (5 * Math.PI) / 180)),
    ),
  }
}

/** The finals with which one gear holds several corners; empty where none does. */
export interface LinkedGear {
  readonly gear: number
  readonly finals: readonly { readonly from: number; readonly to: number }[]
}

/**
 * One gear for two or more corners: for each gear the range of finals (1.5 to 8) with which it holds every corner with a reserve in hand, so that no shift
 * falls between them. Source: the room's page. Rejects fewer than two corners.
 * @example slideLink(SLIDING, TRAIN, [{ speedMps: 15, slideAngleRad: 0.5 }, { speedMps: 18, slideAngleRad: 0.5 }], 0)[1].finals.length // 1
 */
export function slideLink(car: SlidingCar, train: Powertrain, corners: readonly SlideCorner[], reserve: number): LinkedGear[] {
  if (corners.length < 2) throw new CalculationError('missing', 'corners', 'One gear is looked for that holds two corners or more. Name another.')
  requirePowertrain(train)
  const power = powerOf(train)
  const speeds = [...train.curve.speedRpm.filter((rpm) => rpm < train.topRpm), train.topRpm]
  const states = corners.map((corner) => holdSlide(car, cornerSlideMps(car, corner), corner.slideAngleRad))
  return train.ratios.map((ratio, i) => {
    const ofEach = states.map(({ wheelSpeedMps, powerW }) =>
      rangesOver(power, speeds, powerW * (1 + reserve)).map(([low, high]) => {
        const finalAt = (rpm: number) => (rpm * RPM * train.radiusM) / (wheelSpeedMps * train.primaryRatio * ratio)
        return { from: Math.max(FINALS.least, finalAt(low)), to: Math.min(FINALS.most, finalAt(high)) }
      }),
    )
    const common = ofEach.reduce((kept, ranges) =>
      kept
        .flatMap((one) => ranges.map((other) => ({ from: Math.max(one.from, other.from), to: Math.min(one.to, other.to) })))
        .filter(({ from, to }) => from < to),
    )
    return { gear: i + 1, finals: common.filter(({ from, to }) => from < to) }
  })
}
