import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { EXAMPLE_LAP_CAR, EXAMPLE_OVAL } from '../src/calculations/examples/example-lap.ts'
import { compareLaps } from '../src/stats/compare-laps.ts'
import { lapOf } from '../src/track/lap.ts'
import type { LapCar } from '../src/track/lap-car.ts'
import { changedLapCar } from '../src/track/lap-change.ts'
import { asReference, fitGrip } from '../src/track/lap-fit.ts'
import { mirroredTrack, restartedTrack, type TrackLine } from '../src/track/track.ts'
import { lapGap } from '../src/tracklog/lap-gap.ts'
import { coldForHotPa, tyrePressurePa } from '../src/tyres/tyre-pressure.ts'

const RUNS = { numRuns: 40, endOnFailure: true }
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })

/** Rings of straights and arcs that turn once round; they need not meet, a lap knows lengths and curvatures alone. */
const tracks = fc
  .array(fc.record({ straightM: between(20, 300), radiusM: between(15, 200), degrees: between(15, 150), isLeft: fc.boolean() }), { minLength: 2, maxLength: 7 })
  .map(
    (pieces): TrackLine => ({
      isClosed: true,
      segments: pieces.flatMap(({ straightM, radiusM, degrees, isLeft }) => [
        { lengthM: straightM, curvaturePerM: 0 },
        { lengthM: (radiusM * degrees * Math.PI) / 180, curvaturePerM: (isLeft ? 1 : -1) / radiusM },
      ]),
    }),
  )
const cars = fc
  .record({
    massKg: between(700, 1700),
    frontShare: between(0.4, 0.62),
    centreHeightM: between(0.3, 0.55),
    friction: between(0.9, 1.6),
    loadSensitivity: between(0, 0.2),
    downforceFrontM2: between(0, 1),
    downforceRearM2: between(0, 1.5),
    dragAreaM2: between(0.4, 1.1),
    drivenAxles: fc.constantFrom<LapCar['drivenAxles']>('front', 'rear', 'all'),
    scale: between(0.5, 2),
  })
  .map(
    ({ scale, ...more }): LapCar => ({
      ...EXAMPLE_LAP_CAR,
      ...more,
      // Without a shift more of a good thing is never slower.
      gears: null,
      curve: { ...EXAMPLE_LAP_CAR.curve, powerW: EXAMPLE_LAP_CAR.curve.powerW.map((power) => power * scale) },
    }),
  )
const STEP = { stepM: 2 }
const time = (track: TrackLine, car: LapCar) => lapOf(track, car, STEP).lapS

describe('a lap', () => {
  it('moves by less than a millisecond when its cells are halved', () => {
    fc.assert(
      fc.property(tracks, cars, (track, car) => {
        expect(Math.abs(lapOf(track, car, { stepM: 1 }).lapS - lapOf(track, car, { stepM: 0.5 }).lapS)).toBeLessThan(1e-3)
      }),
      { numRuns: 15, endOnFailure: true },
    )
  })
  it('is never slower with more power or grip; with less drag only braking may take longer', () => {
    fc.assert(
      fc.property(tracks, cars, between(0.01, 0.2), (track, car, more) => {
        const fine = (own: LapCar) => lapOf(track, own, { stepM: 1 }).lapS
        const base = fine(asReference(car))
        // What cells of this length leave open.
        const slack = 2e-3
        expect(fine(changedLapCar(car, { powerW: more * 200_000 }))).toBeLessThanOrEqual(base + slack)
        expect(fine(changedLapCar(car, { gripFactor: 1 + more }))).toBeLessThanOrEqual(base + slack)
        // Drag helps the brakes: a lap that is mostly braking can lose by having less, however fine its cells.
        const unbraked = (own: LapCar) => {
          const lap = lapOf(track, own, { stepM: 1 })
          return lap.lapS - lap.secondsBy.braking
        }
        const less = changedLapCar(car, { dragAreaM2: -more * car.dragAreaM2 })
        expect(unbraked(less)).toBeLessThanOrEqual(unbraked(asReference(car)) + slack)
      }),
      RUNS,
    )
  })
  it('is the same mirrored, and from whichever segment its line is drawn', () => {
    fc.assert(
      fc.property(tracks, cars, fc.nat(12), (track, car, at) => {
        const base = time(track, car)
        expect(time(mirroredTrack(track), car)).toBeCloseTo(base, 9)
        expect(time(restartedTrack(track, at % track.segments.length), car)).toBeCloseTo(base, 3)
      }),
      RUNS,
    )
  })
  it('does not know the mass on a circle without air, with friction that no load moves', () => {
    const circle: TrackLine = { isClosed: true, segments: [{ lengthM: 2 * Math.PI * 60, curvaturePerM: 1 / 60 }] }
    fc.assert(
      fc.property(cars, between(-200, 300), (car, massKg) => {
        const still = { ...car, airDensityKgM3: 0, loadSensitivity: 0, rollingCoefficient: 0 }
        expect(time(circle, changedLapCar(still, { massKg }))).toBeCloseTo(time(circle, still), 6)
      }),
      RUNS,
    )
  })
  it('adds up: what holds it, and its cells', () => {
    fc.assert(
      fc.property(tracks, cars, (track, car) => {
        const lap = lapOf(track, { ...car, gears: EXAMPLE_LAP_CAR.gears }, STEP)
        const held = Object.values(lap.secondsBy).reduce((sum, each) => sum + each, 0)
        expect(held).toBeCloseTo(lap.lapS, 9)
        lap.cells.forEach((_, i) => {
          expect(lap.speedMps[i]).toBeLessThanOrEqual((lap.limitMps[i] as number) + 1e-9)
        })
      }),
      { numRuns: 15, endOnFailure: true },
    )
  })
  it('drives its own lap after a fit, and the friction of the tyre drops out of what is carried', () => {
    fc.assert(
      fc.property(between(0.85, 1.15), between(0.9, 1.1), (factor, friction) => {
        const car = asReference(EXAMPLE_LAP_CAR)
        const drivenS = time(EXAMPLE_OVAL, { ...car, gripFactor: factor })
        const fitted = (peak: number) => {
          const own = { ...car, friction: car.friction * peak }
          const { gripFactor } = fitGrip({ track: EXAMPLE_OVAL, car: own, drivenS, drivenSdS: 0.1, options: STEP })
          return { ...own, gripFactor }
        }
        expect(time(EXAMPLE_OVAL, fitted(1))).toBeCloseTo(drivenS, 6)
        const lighter = (peak: number) => time(EXAMPLE_OVAL, changedLapCar(fitted(peak), { massKg: -40 }))
        expect(lighter(friction)).toBeCloseTo(lighter(1), 5)
      }),
      { numRuns: 10, endOnFailure: true },
    )
  })
})

describe('gaps and comparisons', () => {
  it('a gap ends at the difference of both laps, and changes its sign with the sides', () => {
    fc.assert(
      fc.property(cars, between(0.9, 1.1), (car, factor) => {
        const [a, b] = [lapOf(EXAMPLE_OVAL, car, STEP), lapOf(EXAMPLE_OVAL, { ...car, gripFactor: factor }, STEP)]
        const at = (lap: typeof a) => ({
          atM: [...lap.cells.map(({ atM }) => atM), lap.cells.reduce((sum, cell) => sum + cell.lengthM, 0)],
          speedMps: lap.speedMps,
        })
        const end = at(a).atM.at(-1) as number
        const [gap] = lapGap(at(a), at(b), [end])
        expect(gap).toBeCloseTo(b.lapS - a.lapS, 9)
        expect(lapGap(at(b), at(a), [end])[0]).toBeCloseTo(-(gap as number), 9)
      }),
      RUNS,
    )
  })
  it('two sides swapped say the opposite; a shift of one side shifts the difference', () => {
    const laps = fc.array(between(60, 120), { minLength: 4, maxLength: 12 })
    fc.assert(
      fc.property(laps, laps, between(-2, 2), (aS, bS, shift) => {
        const found = compareLaps({ aS, bS, betweenSdS: 0 })
        const swapped = compareLaps({ aS: bS, bS: aS, betweenSdS: 0 })
        expect(swapped.differenceS).toBeCloseTo(-found.differenceS, 9)
        expect(swapped.p).toBeCloseTo(found.p, 9)
        expect(compareLaps({ aS, bS: bS.map((lap) => lap + shift), betweenSdS: 0 }).differenceS).toBeCloseTo(found.differenceS + shift, 9)
      }),
      RUNS,
    )
  })
  it('a cold pressure comes to the hot one it was worked out for', () => {
    fc.assert(
      fc.property(
        between(120_000, 200_000),
        between(275, 305),
        between(15, 70),
        between(150_000, 220_000),
        between(275, 305),
        (coldPa, coldK, rise, wantedHotPa, todayK) => {
          const hotPa = tyrePressurePa({ gaugePa: coldPa, fromK: coldK, toK: coldK + rise })
          const cold = coldForHotPa({ pair: { coldPa, coldK, hotPa }, wantedHotPa, coldK: todayK, school: 'sameRise' })
          expect(tyrePressurePa({ gaugePa: cold, fromK: todayK, toK: todayK + rise })).toBeCloseTo(wantedHotPa, 3)
        },
      ),
      RUNS,
    )
  })
})
