import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { changed, workedExample } from '../../../test/worked-example.ts'
import { StageValues } from '../../board/stage-values.ts'
import { makeWorking } from '../../board/working.ts'
import { openMass } from '../../mass/open-mass.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import type { Weighing } from '../../records/weight-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { ballastCar } from './ballast-car.ts'
import { boxState, boxValue } from './box.ts'
import { conditionDifferences, repeatability } from './compare-weighings.ts'
import { massAtStage } from './mass-at-stage.ts'
import { outByDay, scoreDetail } from './score-detail.ts'
import { makeWeightRoom } from './weight-room.ts'

const at = '2026-03-01T10:00:00Z'
const parse = (records: BuildRecords) => buildRecordsSchema.parse(records)
const line = (id: string, more: object) =>
  ({ id, stageId: 's2', kind: 'on', name: id, values: [{ massKg: 10, proof: 'guess', at }], state: 'planned', ...more }) as never
const withLines = (...lines: never[]) => parse(changed((records) => records.changes.push(...lines)))

describe('a line nobody weighed or guessed', () => {
  it('counts for nothing, keeps the sum a guess, and is ranked by what is likely', () => {
    const records = withLines(line('seat', { zone: 'cabin', values: [] }), line('dash', { zone: 'cabin', values: [{ massKg: 13, proof: 'measured', at }] }))
    const without = withLines(line('dash', { zone: 'cabin', values: [{ massKg: 13, proof: 'measured', at }] }))
    const [mass, plain] = [massAtStage(openCar(records), 2), massAtStage(openCar(without), 2)]
    expect(mass?.value).toBe(plain?.value)
    expect(mass?.proof).toBe('guess')
    const detail = scoreDetail(openCar(records), 2)
    expect(detail.unknownCount).toBe(1)
    expect(detail.unweighed.find((entry) => entry.changeId === 'seat')).toEqual({ changeId: 'seat', likelyKg: 13, basis: 'zone' })
  })
})

describe('a growing box', () => {
  const box = { id: 'crate', instrument: null, readingSdKg: 0.05, emptyKg: 1.2 }
  const readings = [3.4, 4.1, 9.9, 10.4]
  const lines = () => {
    const made: { values: ReturnType<typeof boxValue>[] }[] = []
    for (const readingKg of readings) made.push({ values: [boxValue({ ...box, ...boxState(box, made) }, { readingKg, count: 1, typed: `${readingKg}`, at })] })
    return made
  }

  it('gives each part the difference, and the whole box √2 of one reading’s spread', () => {
    const records = withLines(...lines().map((entry, i) => line(`p${i}`, { values: entry.values, boxId: 'crate' })))
    const car = openCar(records)
    const masses = car.lines.filter(({ change }) => change.boxId === 'crate').map(({ mass }) => mass.massKg)
    expect(masses).toEqual([2.2, 0.7, 5.8, 0.5])
    const parts = (massAtStage(car, 2)?.openLines ?? []).filter(({ line: { change } }) => change.boxId === 'crate').map(({ part }) => part)
    expect(Math.sqrt(openMass(parts, car.biases).varianceKg2)).toBeCloseTo(Math.SQRT2 * 0.05, 12)
    expect(Math.sqrt(openMass(parts.slice(0, 1), car.biases).varianceKg2)).toBeCloseTo(Math.SQRT2 * 0.05, 12)
    // Parts that are not neighbours share no reading.
    expect(Math.sqrt(openMass([parts[0], parts[2]] as typeof parts, car.biases).varianceKg2)).toBeCloseTo(2 * 0.05, 12)
  })
  it('refuses a reading that did not grow', () => {
    expect(() => boxValue({ ...box, lastKg: 3.4, count: 1 }, { readingKg: 3.4, count: 1, typed: '3.4', at })).toThrow(/no more than before/)
  })
})

describe('score', () => {
  it('adds what each day took out exactly, whatever the order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([-0.1, -0.2, -18.6, 4.4, -0.3, 12.1]), (masses) => {
        const found = outByDay(
          masses.map((massKg) => ({ doneAt: at, massKg })),
          (instant) => instant.slice(0, 10),
        )
        const sum = (sign: number) => Math.round(masses.filter((kg) => kg * sign > 0).reduce((total, kg) => total + kg * sign, 0) * 1e6) / 1e6
        expect(found.reduce((total, day) => total + day.outKg, 0)).toBe(sum(-1))
        expect(found.reduce((total, day) => total + day.onKg, 0)).toBe(sum(1))
      }),
    )
  })
  it('counts zones and heights, and what has no place', () => {
    const records = parse(
      changed((all) => {
        all.zones.push({ id: 'z', name: 'Cabin', place: { xM: 1.4, yM: 0, zM: 0.6 } })
        Object.assign(all.changes[0] as object, { zone: 'cabin' })
      }),
    )
    const detail = scoreDetail(openCar(records), 1)
    expect(detail.byZone.find(({ label }) => label === 'cabin')).toEqual({ label: 'cabin', outKg: -18.6, onKg: 0 })
    expect(detail.byHeight).toEqual([{ label: '0.5', outKg: -18.6, onKg: 0 }])
    expect(detail.withoutHeightKg).toBeCloseTo(30.2 + 6.5 + 12 + 41, 9)
  })
})

describe('weighings compared', () => {
  const weighing = (more: Partial<Weighing> = {}): Weighing => ({ ...(workedExample().weighings[0] as Weighing), ...more })
  test.each([
    ['the same', {}, []],
    ['another driver and fuel', { driverInKg: 80, fuelL: 20 }, ['driver', 'fuel']],
    ['other scales', { scales: 'club' }, []],
    ['bars on', { conditions: { barsDisconnected: false, isLevel: null, tyrePressurePa: null, rideHeightFrontM: null, rideHeightRearM: null } }, ['bars']],
  ] as [string, Partial<Weighing>, string[]][])('%s', (_, more, expected) => {
    const noted = { barsDisconnected: true, isLevel: true, tyrePressurePa: 180_000, rideHeightFrontM: 0.11, rideHeightRearM: 0.12 }
    const found = conditionDifferences(weighing({ conditions: noted }), weighing({ conditions: noted, ...more }))
    expect(found.map(({ what }) => what)).toEqual(expected)
  })
  it('tells the repeatability of weighings that were alike', () => {
    const records = parse(
      changed((all) => {
        const first = all.weighings[0] as Weighing
        const LF = first.pads.LF as { massKg: number }
        all.weighings.push({ ...first, id: 'again', at: '2026-02-02T11:00:00Z', pads: { ...first.pads, LF: { ...LF, massKg: LF.massKg + 1, sdKg: null } } })
      }),
    )
    const [group] = repeatability(openCar(records))
    // Sample sd of two readings 1 kg apart: 1/√2.
    expect(group?.totalSdKg).toBeCloseTo(Math.SQRT1_2, 9)
    expect(group?.padSdKg.RF).toBe(0)
  })
  it('joins two placements, and leaves left and cross unknown with an axle on the floor', () => {
    const second = (method: 'axlesOnBlocks' | 'otherAxleOnFloor') =>
      parse(
        changed((all) => {
          const first = all.weighings[0] as Weighing
          const { LF, RF, LR, RR } = first.pads
          Object.assign(first, {
            pads: { LF, RF, LR: null, RR: null },
            secondPlacement: { method, pads: { LF: null, RF: null, LR, RR }, blockErrorM: null, padHeightM: 0.06 },
          })
        }),
      )
    const [blocks] = makeWeightRoom(openCar(second('axlesOnBlocks'))).weighings
    expect(blocks?.corners?.totalKg.value).toBeCloseTo(1389.4, 9)
    expect(blocks?.warnings.join()).toMatch(/do not set cross/)
    const [floor] = makeWeightRoom(openCar(second('otherAxleOnFloor'))).weighings
    expect(floor?.corners).toBeNull()
    expect(floor?.floor?.frontShare.value).toBeCloseTo(0.52, 9)
    expect(floor?.reference?.sdKg).toBeGreaterThan(blocks?.reference?.sdKg as number)
  })
})

describe('places', () => {
  const placed = (edit: (records: BuildRecords) => void = () => {}) =>
    parse(
      changed((all) => {
        all.build.driverPlace = { xM: 1.4, yM: 0.35, zM: 0.5 }
        all.build.fuelPlace = { xM: 2.2, yM: 0, zM: 0.35 }
        for (const change of all.changes) change.place = { xM: 1.5, yM: 0, zM: 0.5 }
        edit(all)
      }),
    )
  it('predict the centre that the scales then show, when they are right', () => {
    const [first, second] = makeWeightRoom(openCar(placed())).centres
    expect(first?.measured?.massKg).toBeCloseTo(1453.01, 6)
    expect(second?.predicted?.sinceWeighingId).toBe('w0')
    expect(Math.abs((second?.predicted?.xM ?? 0) - (second?.measured?.xM ?? 9))).toBeLessThan(0.02)
  })
  it('say which place is missing', () => {
    expect(makeWeightRoom(openCar(workedExample())).centres[0]?.missingPlaces).toEqual(['driver', 'fuel'])
  })
  it('plan a front share, with a line that has none in the middle and doubted', () => {
    const share = (records: BuildRecords) => new StageValues(openCar(records)).value('frontShare', 2)
    const withPlaces = share(placed())
    const without = share(placed((all) => Object.assign(all.changes[5] as object, { place: null })))
    expect(withPlaces?.proof).toBe('guess')
    expect(without?.sd).toBeGreaterThan(withPlaces?.sd as number)
    expect(makeWorking(openCar(placed()), 'front', 's2', '2026-11-01').lines.length).toBeGreaterThan(2)
  })
  it('lead to the car that ballast starts from, without the plates that stand in it', () => {
    const records = placed((all) => {
      all.sites.push({ id: 'floor', name: 'Floor', place: { xM: 1, yM: 0, zM: 0.1 }, limitKg: 30, plates: [{ massKg: 5, count: 6 }] })
      all.changes.push(line('plate', { zone: 'floor', place: { xM: 1, yM: 0, zM: 0.1 } }))
    })
    const found = ballastCar(openCar(records), 2)
    const plain = ballastCar(openCar(placed()), 2)
    expect(found).toEqual(plain)
    expect(found).toMatchObject({ massKg: expect.closeTo(1454.89, 1), unplaced: [] })
    expect(ballastCar(openCar(workedExample()), 2)).toEqual({ why: expect.stringMatching(/where the driver sits/) })
  })
})

describe('learned optimism', () => {
  it('learns from other builds only where the build asks for it', () => {
    const pairs = Array.from({ length: 7 }, (_, i) => ({ guessKg: 10, measuredKg: 11 + 0.1 * i, side: i === 0 ? ('off' as const) : ('on' as const) }))
    const own = workedExample()
    expect(openCar(own, { garagePairs: pairs }).biases.on.isDefault).toBe(true)
    const garage = parse(changed((records) => Object.assign(records.build, { guessPairsFrom: 'garage' })))
    const car = openCar(garage, { garagePairs: pairs })
    expect(car.biases).toMatchObject({ on: { pairCount: 6, isDefault: false }, off: { pairCount: 1, isDefault: true, mu: 0 } })
    expect(makeWeightRoom(car).guesses).toMatchObject({ on: { pairCount: 6, ownPairCount: 0 }, off: { pairCount: 1 } })
  })
})
