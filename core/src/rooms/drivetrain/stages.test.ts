import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { rankFinals } from '../../drivetrain/finals.ts'
import type { Part } from '../../records/part-kinds.ts'
import { type BuildRecords, buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { runnableCourse } from './courses.ts'
import { settingsAtStage } from './drive-settings.ts'
import { drivelineAtStage } from './driveline.ts'
import { gearsBand } from './gears-band.ts'
import { drivetrainValue } from './metrics.ts'
import { driveStage } from './stage-inputs.ts'
import { stagePath } from './stage-path.ts'
import { slideSetup } from './stage-slide.ts'

const GANNET: BuildRecords = buildRecordsSchema.parse(JSON.parse(readFileSync(new URL('../../../../demo/gannet/build.json', import.meta.url), 'utf8')))
const changed = (change: (all: BuildRecords) => void): BuildRecords => {
  const copy = structuredClone(GANNET)
  change(copy)
  return copy
}
const stageId = (position: number) => GANNET.stages.find((stage) => stage.position === position)?.id ?? ''
const byName = (all: BuildRecords, name: string) => all.parts.find((part) => part.name === name) as Part
const at = (day: string) => `${day}T10:00:00Z`
const reading = (id: string, position: number, day: string, value: number, more: object = {}) =>
  ({
    id,
    stageId: stageId(position),
    metric: 'zeroTo100',
    at: at(day),
    value,
    sd: null,
    instrument: null,
    timing: 'beacon',
    surface: 'dry',
    rollOutM: 0,
    setAside: null,
    typed: null,
    ...more,
  }) as BuildRecords['readings'][number]

describe('the driveline of a stage', () => {
  it('has in each place the part with the latest stage', () => {
    const final = (position: number) => drivelineAtStage(GANNET, position).bySlot.get('finalDrive')?.part.name
    expect([final(0), final(2), final(3), final(4)]).toEqual(['Long final, as bought', 'Long final, as bought', 'Short final', 'Short final'])
  })
  it('keeps a worn-out part until something comes after it', () => {
    const worn = changed((all) => Object.assign(byName(all, 'Long final, as bought'), { status: 'wornOut' }))
    expect(drivelineAtStage(worn, 2).bySlot.get('finalDrive')?.part.name).toBe('Long final, as bought')
    expect(drivelineAtStage(worn, 3).bySlot.get('finalDrive')?.part.name).toBe('Short final')
  })
  it('names two of a place in one stage, and neither counts', () => {
    const twice = changed((all) => Object.assign(byName(all, 'Longer final of the sister model'), { stageId: stageId(3), status: 'ordered' }))
    const { conflicts, bySlot } = drivelineAtStage(twice, 3)
    expect(conflicts.map(({ message }) => message)).toEqual(['Two final drives stand in stage 3: Longer final of the sister model and Short final. Move one.'])
    expect(bySlot.has('finalDrive')).toBe(false)
    expect(driveStage(openCar(twice), 3).car).toBeNull()
    expect(driveStage(openCar(twice), 2).car).not.toBeNull()
  })
  it('does not hang on the order of the parts', () => {
    const turned = changed((all) => all.parts.reverse())
    for (const position of [0, 2, 4]) expect(driveStage(openCar(turned), position).car).toEqual(driveStage(openCar(GANNET), position).car)
  })
  test.each<[string, (all: BuildRecords) => void, RegExp]>([
    ['gears', (all) => Object.assign(byName(all, 'Six-speed, as bought'), { drive: null }), /the gears/],
    ['a tyre size', (all) => Object.assign(byName(all, 'Semi-slicks, as bought').drive as object, { code: null }), /the size of the driven tyres/],
    ['a curve', (all) => Object.assign(all, { pulls: [], standings: [] }), /no curve of power/],
    ['axle loads', (all) => Object.assign(all, { weighings: [], inCars: [], lifts: [], balanceSteps: [] }), /axle loads|nothing was weighed/],
  ])('without %s there is no car, and it says where that is typed', (_, change, message) => {
    const { car, missing } = driveStage(openCar(changed(change)), 0)
    expect(car).toBeNull()
    expect(missing.map(({ what }) => what).join('; ')).toMatch(message)
  })
  it('takes drag and downforce from aero where it knows the whole car, else drag from the settings, else the usual', () => {
    const own = driveStage(openCar(GANNET), 4).car
    // Drag by the coast-down of stage 2 and the devices since; loads by devices alone.
    expect(own?.dragAreaM2).toBeCloseTo(0.7671, 4)
    const untested = changed((all) => Object.assign(all, { aeroTests: [], aeroRuns: [] }))
    expect(driveStage(openCar(untested), 4).car?.dragAreaM2).toBeCloseTo(0.7254, 4)
    expect(own?.downforceFrontM2).toBeCloseTo(0.2326, 4)
    expect(own?.downforceRearM2).toBeCloseTo(0.4457, 4)
    const geometric = changed((all) => Object.assign(all.build.aeroBasis as object, { balanceSchool: 'geometric' }))
    expect(driveStage(openCar(geometric), 4).car?.downforceFrontM2).toBeCloseTo(0.2326, 4)
    const blind = changed((all) => Object.assign(all.aeroDevices.find(({ kind }) => kind === 'floor')?.notches[0] as object, { values: [] }))
    expect(driveStage(openCar(blind), 4).car).toMatchObject({ dragAreaM2: 0.75, downforceFrontM2: 0 })
    const typed = changed((all) => {
      Object.assign(all, { aeroDevices: [], aeroTests: [], aeroRuns: [] })
      Object.assign(all.driveSettings[0] as object, { dragAreaM2: { value: 0.81, sd: null, known: 'guess', typed: null } })
    })
    expect(driveStage(openCar(typed), 4).car).toMatchObject({ dragAreaM2: 0.81, downforceRearM2: 0 })
  })
  it('passes settings on field by field', () => {
    const later = changed((all) => {
      const [first] = all.driveSettings
      all.driveSettings.push({ ...(first as (typeof all.driveSettings)[number]), id: 'x', stageId: stageId(2), use: null, topRpm: 6900 })
    })
    const settings = settingsAtStage(openCar(later), 3)
    expect([settings.use, settings.topRpm]).toEqual(['kerbs', 6900])
    expect(driveStage(openCar(later), 3).car?.topRpm).toBe(6900)
  })
})

describe('yardsticks of a stage', () => {
  const value = (records: BuildRecords, position: number) => drivetrainValue(openCar(records), position, 'zeroTo100')
  const planned = [1, 2, 3].map((position) => value(GANNET, position)?.value ?? 0)
  it('are worked out where nothing was timed, and a guess while grip is guessed', () =>
    expect(value(GANNET, 2)).toMatchObject({ proof: 'guess', fromPosition: null }))
  it('are what was read, and two days that agree confirm them', () => {
    const once = changed((all) => all.readings.push(reading('a', 2, '2026-09-25', 4.1)))
    expect(value(once, 2)).toMatchObject({ value: 4.1, proof: 'measured', fromPosition: null })
    const twice = changed((all) => all.readings.push(reading('a', 2, '2026-09-25', 4.1), reading('b', 2, '2026-09-26', 4.12)))
    expect(value(twice, 2)?.proof).toBe('confirmed')
  })
  it('take the best of a day', () => {
    const day = changed((all) => all.readings.push(reading('a', 2, '2026-09-25', 4.4), reading('b', 2, '2026-09-25', 4.1)))
    expect(value(day, 2)?.value).toBe(4.1)
  })
  it('carry to later stages by the ratio of what is worked out', () => {
    const once = changed((all) => all.readings.push(reading('a', 2, '2026-09-25', 4.1)))
    const next = value(once, 3)
    expect(next?.value).toBeCloseTo((4.1 * (planned[2] as number)) / (planned[1] as number), 9)
    expect(next).toMatchObject({ proof: 'calculated', fromPosition: 2 })
    expect(next?.sd ?? 1).toBeLessThan(value(GANNET, 3)?.sd ?? 0)
  })
  test.each<[string, BuildRecords['readings'][number]]>([
    ['of another clock', reading('a', 2, '2026-09-25', 3, { rollOutM: 0.3 })],
    ['in the wet', reading('a', 2, '2026-09-25', 3, { surface: 'wet' })],
    ['that is set aside', reading('a', 2, '2026-09-25', 3, { setAside: 'missed second' })],
    ['from before its stage was built', reading('a', 2, '2026-03-01', 3)],
  ])('leave out a reading %s', (_, odd) =>
    expect(
      value(
        changed((all) => all.readings.push(odd)),
        2,
      )?.value,
    ).toBeCloseTo(planned[1] as number, 9),
  )
})

describe('what the demo shows', () => {
  const car = openCar(GANNET)
  const own = driveStage(car, 3).car
  const [course] = GANNET.courses
  it('the planned short final is 0.16 s a lap slower than the long one and shifts into sixth; 3.89 is 0.18 quicker and takes fifth three times', () => {
    if (!own || !course) throw new Error('the demo lost its driveline')
    const { ranked } = rankFinals(
      own,
      runnableCourse(course, own),
      [4.11, 4.56, 3.89].map((finalRatio) => ({ id: String(finalRatio), finalRatio })),
    )
    const score = (id: string) => ranked.find((each) => each.id === id)
    const time = (id: string) => score(id)?.timeS ?? 0
    expect(time('4.56') - time('4.11')).toBeCloseTo(0.16, 1)
    expect(time('4.11') - time('3.89')).toBeCloseTo(0.18, 1)
    expect(score('4.56')?.course.upshiftsInto[4]).toBe(2)
    expect([score('3.89')?.course.upshiftsInto[3], score('4.11')?.course.upshiftsInto[3]]).toEqual([3, 5])
  })
  it('the band of its gears comes from the course', () => expect(gearsBand(car)).toEqual({ fromRpm: 5350, toRpm: 7000, place: 'Holm Sands' }))
  it('its gearbox meets more than its rating, in the gear where the tyres hold most of it', () => {
    const path = stagePath(car, 3)
    expect(path?.headrooms[0]).toMatchObject({ name: 'Six-speed, as bought', subject: 'gearboxTorque' })
    expect(path?.headrooms[0]?.headroom).toBeLessThan(0)
    expect(path?.headrooms.map(({ headroom }) => headroom)).toEqual([...(path?.headrooms ?? [])].map(({ headroom }) => headroom).sort((a, b) => a - b))
  })
  it('slides are not worked out for all-wheel drive, nor on an open differential, and it says why', () => {
    expect(slideSetup(car, 3)).toMatchObject({ reason: expect.stringMatching(/rear drive alone/) })
    const open = changed((all) => {
      all.build.drivenAxles = 'rear'
      Object.assign(byName(all, 'Plates, two ways').drive as object, { kind: 'open' })
    })
    expect(slideSetup(openCar(open), 3)).toMatchObject({ reason: expect.stringMatching(/inner wheel spins first/) })
  })
})
