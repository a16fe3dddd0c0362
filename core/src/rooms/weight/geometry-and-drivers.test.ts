import { describe, expect, it } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { StageValues } from '../../board/stage-values.ts'
import { targetVerdict } from '../../board/verdict.ts'
import type { BuildRecords } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { lineOfPart } from '../../stages/line-mass.ts'
import { driverEffects } from './drivers.ts'
import { massOf } from './mass-at-stage.ts'
import { frontShareAt } from './metrics.ts'
import { makeWeightRoom } from './weight-room.ts'

const SHORT = { wheelbaseM: 2.4, trackFrontM: 1.5, trackRearM: 1.5 }
const withGeometry = (position: number) =>
  changed((records) => {
    const stage = records.stages.find((entry) => entry.position === position)
    if (stage) stage.geometry = SHORT
  })
const centreOf = (records: BuildRecords, at: number) => makeWeightRoom(openCar(records)).weighings[at]?.centre?.behindFrontAxleM.value as number

describe('a stage with wheels that stand elsewhere', () => {
  const before = openCar(changed(() => {}))
  const [first] = before.weighings
  const position = first?.context as number

  it('reads its own weighing with its own wheelbase, and rewrites none that is older', () => {
    const own = centreOf(
      changed(() => {}),
      0,
    )
    expect(centreOf(withGeometry(position), 0) / own).toBeCloseTo(2.4 / before.records.build.wheelbaseM, 12)
    expect(centreOf(withGeometry(position + 1), 0)).toBe(own)
  })
  it('passes its wheelbase on to the stages after it', () => {
    const car = openCar(withGeometry(1))
    expect(car.builds.map(({ wheelbaseM }) => wheelbaseM)).toEqual(car.stages.map((_, at) => (at === 0 ? before.records.build.wheelbaseM : 2.4)))
  })
  it('shares the same centre otherwise: x = L(1 − F) stays behind the front axle', () => {
    // The last stage starts from the weighing of the stage before, which keeps its own wheelbase.
    const at = before.stages.length - 1
    const own = before.records.build.wheelbaseM * (1 - (frontShareAt(before, at)?.value as number))
    const moved = openCar(withGeometry(at))
    const { openLines } = massOf(moved, at) as NonNullable<ReturnType<typeof massOf>>
    // Lines without a place are put in the middle of the wheelbase, which has moved: the rest of the moment is the same.
    const half = openLines.reduce((sum, { line, part }) => sum + (line.place ? 0 : (part.sign * part.massKg) / 2), 0)
    const total = massOf(moved, at)?.value as number
    const shift = (half * (2.4 - before.records.build.wheelbaseM)) / total
    expect(2.4 * (1 - (frontShareAt(moved, at)?.value as number))).toBeCloseTo(own + shift, 2)
  })
})

describe('a stage with springs of its own', () => {
  const axle = { wheelRateNPerM: 40_000, tyreRateNPerM: 220_000, motionRatio: 1, threadPitchM: 0.0015 }
  const springs = { springRateNPerM: 80_000, motionRatio: 0.8, tyreRateNPerM: null }
  const car = (suspension: BuildRecords['build']['suspension']) =>
    openCar(
      changed((records) => {
        records.build.suspension = suspension
        const stage = records.stages.find((entry) => entry.position === 1)
        records.setups = [{ id: 'su', stageId: stage?.id, picks: [], front: springs, rear: null }] as never
      }),
    )
  it('has their wheel rate from there on, spring times the square of the ratio; perch and tyre stay', () => {
    const builds = car({ front: axle, rear: axle }).builds
    expect(builds[0]?.suspension).toEqual({ front: axle, rear: axle })
    for (const build of builds.slice(1)) {
      expect(build.suspension?.front).toMatchObject({ motionRatio: 0.8, tyreRateNPerM: 220_000, threadPitchM: 0.0015 })
      expect(build.suspension?.front.wheelRateNPerM).toBeCloseTo(51_200, 6)
      expect(build.suspension?.rear).toEqual(axle)
    }
  })
  it('has none where the car names no perches: turns would rest on a pitch that nobody measured', () => {
    expect(car(null).builds.every(({ suspension }) => suspension === null)).toBe(true)
  })
})

describe('drivers', () => {
  const records = changed((all) => {
    all.build.driverPlace = { xM: 1.3, yM: 0.3, zM: 0.5 }
    all.build.drivers = [
      { name: 'Ilse', massKg: all.build.reference.driverKg - 14, seat: null, belts: null },
      { name: 'Tomas', massKg: all.build.reference.driverKg, seat: null, belts: null },
    ]
  })
  const car = openCar(records)
  const last = car.stages.length - 1

  it('say what each makes of mass and front share, by moments', () => {
    const [ilse, tomas] = driverEffects(car, last)
    const [mass, share] = [massOf(car, last)?.value as number, frontShareAt(car, last)?.value as number]
    expect(ilse).toMatchObject({ name: 'Ilse', differenceKg: -14, massKg: mass - 14 })
    expect(ilse?.frontShare).toBeCloseTo((mass * share - 14 * (1 - 1.3 / records.build.wheelbaseM)) / (mass - 14), 12)
    expect(tomas).toMatchObject({ differenceKg: 0, frontShareDifference: 0 })
  })
  it('a goal on mass may name one: it is held against the car with them in', () => {
    const goal = (driverName: string | null, value: number) => {
      const made = structuredClone(records)
      made.targets = [{ id: 't', metric: 'massReady', sense: 'atMost', value, highValue: null, dueStageId: null, driverName }]
      const values = new StageValues(openCar(made))
      return { target: values.targets[0], verdict: targetVerdict(values, values.targets[0] as never, '2026-06-01') }
    }
    const [named, plain] = [goal('ilse', 1400), goal(null, 1414)]
    expect(named.target?.value).toBe(1414)
    expect(named.verdict).toEqual(plain.verdict)
    expect(goal('nobody', 1400).target?.value).toBe(1400)
  })
})

describe('a line that puts in a part of the register', () => {
  const change = { ...changed(() => {}).changes[0], values: [], place: null, count: 1 } as never as BuildRecords['changes'][number]
  const part = { count: 5, mass: { massKg: 0.2, sdKg: null, proof: 'measured' as const, typed: null }, place: { xM: 1, yM: 0, zM: 0.4 } }
  const own = (proof: 'guess' | 'measured') => ({ ...change, values: [{ massKg: 3, sdKg: null, proof, at: '2026-02-01T10:00:00Z', instrument: null }] })

  it('has its mass times its pieces, and its place', () => {
    expect(lineOfPart(change, part)).toMatchObject({ count: 5, values: [{ massKg: 0.2, proof: 'measured' }], place: part.place })
    expect(lineOfPart(own('guess'), part)).toMatchObject({ count: 5, values: [{ massKg: 0.2 }] })
  })
  it('keeps its own weighing and its own place, and its own values where the part has no mass', () => {
    expect(lineOfPart({ ...own('measured'), place: { xM: 2, yM: 0, zM: 0 } }, part)).toMatchObject({ count: 1, values: [{ massKg: 3 }], place: { xM: 2 } })
    expect(lineOfPart(own('guess'), { ...part, mass: null })).toMatchObject({ values: [{ massKg: 3 }], place: part.place })
    expect(lineOfPart(change, undefined)).toBe(change)
  })
  it('counts in the car with the mass of the part, whatever is typed of it later', () => {
    const records = changed((all) => {
      all.parts.push({
        id: 'p',
        kind: 'seat',
        name: 'seat',
        ratings: [],
        extras: [],
        status: 'fitted',
        stageId: 's1',
        ...part,
        isShared: false,
      } as never)
      all.changes.push({ ...change, id: 'puts', kind: 'on', stageId: 's1', partId: 'p', state: 'planned', doneAt: null } as never)
    })
    const line = openCar(records).lineById.get('puts')
    expect(line?.mass.massKg).toBeCloseTo(1, 12)
    expect(line?.place).toEqual(part.place)
  })
})
