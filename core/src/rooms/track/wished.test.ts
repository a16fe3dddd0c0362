import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { EXAMPLE_LAP_CAR } from '../../calculations/examples/example-lap.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { placedExpectations } from '../../stages/placed-expectations.ts'
import { changedLapCar, undoneLapChange } from '../../track/lap-change.ts'
import { areasAtTyres } from '../aero/stage-aero.ts'
import { powerAtStage } from '../power/power-at-stage.ts'
import { lapStage } from './lap-inputs.ts'
import { plannedLapLines, wishedLapParts } from './wished.ts'

const gannet: BuildRecords = buildRecordsSchema.parse(JSON.parse(readFileSync(new URL('../../../../demo/gannet/build.json', import.meta.url), 'utf8')))
const stageId = (position: number) => gannet.stages.find((stage) => stage.position === position)?.id ?? ''
const lineId = (name: string) => gannet.changes.find((change) => change.name.startsWith(name))?.id ?? ''
const expected = (more: Partial<BuildRecords['expectations'][number]>) => ({
  id: 'own',
  stageId: stageId(0),
  partId: null,
  changeId: lineId('water to air'),
  metric: 'wheelPower' as const,
  mode: 'by' as const,
  value: 9000,
  sd: null,
  proof: 'guess' as const,
  typed: null,
  ...more,
})
const withIt = (more: Partial<BuildRecords['expectations'][number]> = {}): BuildRecords => ({
  ...gannet,
  expectations: [...gannet.expectations, expected(more)],
})
const lineOf = (records: BuildRecords, name: string) => plannedLapLines(openCar(records)).find((line) => line.name.startsWith(name))

describe('what one line is expected to give', () => {
  it('counts at the stage where the line stands, and goes along when the line is moved', () => {
    const powers = (records: BuildRecords) => [2, 3, 4].map((at) => Math.round(powerAtStage(openCar(records), at)?.value ?? 0))
    const [plain, own] = [powers(gannet), powers(withIt())]
    expect(own.map((power, i) => power - (plain[i] ?? 0))).toEqual([0, 9000, 9000])
    const moved = { ...withIt(), changes: gannet.changes.map((change) => (change.id === lineId('water to air') ? { ...change, stageId: stageId(4) } : change)) }
    expect(powers(moved).map((power, i) => power - (plain[i] ?? 0))).toEqual([0, 0, 9000])
  })
  it('is nothing of a line that was dropped', () => {
    const dropped = withIt()
    const records = {
      ...dropped,
      changes: dropped.changes.map((change) => (change.id === lineId('water to air') ? { ...change, state: 'dropped' as const } : change)),
    }
    expect(placedExpectations(records).expectations).toEqual(gannet.expectations)
    expect(placedExpectations(gannet)).toBe(gannet)
  })
  it('is the worth of that line: said, it is no more left open', () => {
    expect(lineOf(gannet, 'water to air')).toMatchObject({ unsaid: ['power'], position: 3 })
    const own = lineOf(withIt(), 'water to air')
    expect(own?.unsaid).toEqual([])
    expect(own?.change?.powerW).toBeCloseTo(9000, 6)
  })
})

describe('a part of the driveline that is thought about', () => {
  const partOf = (records: BuildRecords, name: string) => wishedLapParts(openCar(records)).find((part) => part.name.startsWith(name))
  const tyre = (more: object): BuildRecords['parts'][number] => {
    const own = gannet.parts.find(({ drive }) => drive?.role === 'tyre')
    if (own?.drive?.role !== 'tyre') throw new Error('the demo has a tyre')
    return { ...own, id: 'taller', name: 'taller tyre', status: 'wanted', stageId: null, drive: { ...own.drive, ...more } }
  }
  it('is a final drive by its ratio over the one that the car would have: 35/9 over 41/9', () => {
    expect(partOf(gannet, 'Longer final')?.change?.finalFactor).toBeCloseTo(3.89 / 4.56, 9)
  })
  it('is worth nothing of gears where the driveline is not whole', () => {
    const without = { ...gannet, parts: gannet.parts.filter(({ drive }) => drive?.role !== 'gearbox') }
    expect(partOf(without, 'Longer final')?.change?.finalFactor).toBeUndefined()
  })
  it('is a tyre by its grip, and by its size where that is another', () => {
    const same = partOf({ ...gannet, parts: [...gannet.parts, tyre({})] }, 'taller')
    expect(same?.change).toMatchObject({ gripFactor: 1, finalFactor: 1 })
    // 2 m round instead of what the code gives: longer gears by the ratio of both.
    const taller = partOf({ ...gannet, parts: [...gannet.parts, tyre({ circumferenceM: 2.2 })] }, 'taller')
    expect(taller?.change?.finalFactor).toBeGreaterThan(0.8)
    expect(taller?.change?.finalFactor).toBeLessThan(1)
    const inFront = partOf({ ...gannet, parts: [...gannet.parts, tyre({ circumferenceM: 2.2, axle: 'front' })] }, 'taller')
    expect(inFront?.change?.finalFactor).toBeUndefined()
  })
  it('says of another gearbox that its gears are not in it', () => {
    const own = gannet.parts.find(({ drive }) => drive?.role === 'gearbox') as BuildRecords['parts'][number]
    const box = { ...own, id: 'close', name: 'close box', status: 'wanted' as const, stageId: null }
    expect(partOf({ ...gannet, parts: [...gannet.parts, box] }, 'close')?.unsaid).toEqual(['gears'])
    expect(partOf(gannet, 'Longer final')?.unsaid).toEqual([])
  })
})

describe('a planned line', () => {
  it('moves the mass with the off line it replaces, and has its price and its hours', () => {
    const wing = lineOf(gannet, 'wing with mounts')
    expect(wing?.cost).toBeGreaterThanOrEqual(380)
    expect(wing?.hours).toBeGreaterThan(0)
    expect(wing?.change?.massKg).toBeGreaterThan(0)
  })
  it('moves the air by all devices it puts in: the lines of a stage together are what its stage gains', () => {
    const car = openCar(gannet)
    const lines = plannedLapLines(car).filter(({ position }) => position === 4)
    const sum = (key: 'downforceFrontM2' | 'downforceRearM2') => lines.reduce((total, { change }) => total + (change?.[key] ?? 0), 0)
    const [before, after] = [areasAtTyres(car, 3), areasAtTyres(car, 4)]
    if (before && after) {
      expect(sum('downforceFrontM2')).toBeCloseTo(after.frontM2 - before.frontM2, 1)
      expect(sum('downforceRearM2')).toBeCloseTo(after.rearM2 - before.rearM2, 1)
    }
    expect(lines.find(({ name }) => name.startsWith('splitter'))?.change?.downforceFrontM2).toBeGreaterThan(0)
    expect(lines.find(({ name }) => name.startsWith('wing'))?.change?.downforceRearM2).toBeGreaterThan(0)
  })
  it('says of a floor that nobody measured that its air is not in it', () => {
    const unknown = gannet.aeroDevices.map((device) =>
      device.changeId === lineId('flat floor') ? { ...device, notches: device.notches.map((notch) => ({ ...notch, values: [] })) } : device,
    )
    const [known, unsaid] = [lineOf(gannet, 'flat floor'), lineOf({ ...gannet, aeroDevices: unknown }, 'flat floor')]
    expect([known?.unsaid, unsaid?.unsaid]).toEqual([[], ['air']])
    expect(known?.change?.downforceRearM2).toBeGreaterThan(0)
    expect(unsaid?.change?.downforceRearM2).toBeUndefined()
  })
  it('is no part that is wished for, and none of a build without records', () => {
    const ids = new Set(plannedLapLines(openCar(gannet)).map(({ id }) => id))
    expect(wishedLapParts(openCar(gannet)).some(({ id }) => ids.has(id))).toBe(false)
    expect(plannedLapLines(openCar({ ...gannet, changes: [] }))).toEqual([])
  })
  it('of power needs a car before it', () => {
    const powerless = { ...gannet, sessions: [], pulls: [], standings: [], expectations: [expected({})] }
    expect(lapStage(openCar(powerless), 2).car).toBeNull()
    expect(lineOf(powerless, 'water to air')?.change?.powerW).toBeUndefined()
  })
})

it('a change taken back leaves the car it was', () => {
  fc.assert(
    fc.property(
      fc.record(
        {
          massKg: fc.integer({ min: -200, max: 200 }),
          powerW: fc.integer({ min: -50_000, max: 50_000 }),
          gripFactor: fc.double({ min: 0.8, max: 1.2, noNaN: true }),
        },
        { requiredKeys: [] },
      ),
      (change) => {
        const back = changedLapCar(changedLapCar(EXAMPLE_LAP_CAR, change), undoneLapChange(change))
        const [massMiss, gripMiss] = [back.massKg - EXAMPLE_LAP_CAR.massKg, back.gripFactor - EXAMPLE_LAP_CAR.gripFactor]
        const peaks = [Math.max(...back.curve.powerW), Math.max(...EXAMPLE_LAP_CAR.curve.powerW)] as const
        return Math.abs(massMiss) < 1e-9 && Math.abs(gripMiss) < 1e-12 && Math.abs(peaks[0] - peaks[1]) < 1e-6 * peaks[1]
      },
    ),
  )
})
