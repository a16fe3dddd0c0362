import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LOSS, plan } from '../../../test/engine-plan.ts'
import { EXAMPLE_PLAN } from '../../calculations/examples/example-plan.ts'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { crankToWheel, wheelToCrank } from '../../dyno/wheel-to-crank.ts'
import { fuelBlend } from '../../engine/fuels.ts'
import type { EnginePlan } from '../../records/engine-plan-kind.ts'
import type { Part } from '../../records/part-kinds.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { lossOf } from '../power/driveline-loss.ts'
import { fuelRoleOf, planWithParts } from '../power/plan-of-car.ts'
import { demandsAt } from '../power/subject-demands.ts'
import { workEnginePlan } from '../power/work-engine-plan.ts'
import { weakLinks } from './weak-links.ts'
import { headroomStop, headroomStopAtStage, weakLinksAtStage } from './weak-links-at-stage.ts'

const part = (fields: Partial<Part> & Pick<Part, 'id' | 'kind'>): Part => buildRecordsSchema.shape.parts.parse([{ name: fields.id, ...fields }])[0] as Part
const rating = (of: Part['ratings'][number]['of'], limit: number, more: Partial<Part['ratings'][number]> = {}) => ({
  of,
  limit,
  isEach: false,
  known: 'catalogue' as const,
  ethanolShare: null,
  ...more,
})

const gearbox = part({
  id: 'gearbox',
  kind: 'Gearbox',
  status: 'fitted',
  mass: { massKg: 40, sdKg: null, proof: 'measured' },
  ratings: [rating('crankTorque', 480)],
})
const strong = part({
  id: 'strong',
  kind: 'gearbox ',
  cost: 4000,
  mass: { massKg: 52, sdKg: null, proof: 'catalogue' },
  extras: [{ name: 'mounts', massKg: 2, cost: 300 }],
  ratings: [rating('crankTorque', 1100)],
})
const dear = part({ id: 'dear', kind: 'gearbox', cost: 9000, ratings: [rating('crankTorque', 1300)] })
const turbo = part({ id: 'turbo', kind: 'turbo', status: 'fitted', ratings: [rating('crankPower', 350_000)] })
const springs = part({ id: 'springs', kind: 'valve springs', status: 'fitted', ratings: [rating('engineSpeed', 8000)] })
const petrol = part({ id: 'petrol', kind: 'injectors', status: 'fitted', count: 4, ratings: [rating('fuelFlow', 2e-5, { isEach: true, ethanolShare: 0 })] })
const coils = part({ id: 'coils', kind: 'coils', status: 'fitted', ratings: [rating('pumpCurrent', 100)] })
const inCar = [turbo, gearbox, springs, petrol, coils]
const sweep = (edit?: (made: EnginePlan) => void, fromPowerW = 150_000) =>
  weakLinks({ plan: plan(edit), loss: LOSS, parts: inCar, all: [...inCar, strong, dear], fromPowerW, toPowerW: 580_000 })

describe('weak links', () => {
  it('come in order of failure, each at the power at which its demand meets its limit', () => {
    const { links, powersW } = sweep()
    expect(links.map(({ partId }) => partId)).toEqual(['gearbox', 'turbo', 'springs', 'coils'])
    for (const link of links.slice(0, 2)) {
      expect((demandsAt(plan(), LOSS, link.limitPowerW as number)[link.subject] as number) / link.limit).toBeCloseTo(1, 4)
      const crossing = powersW.findIndex((_, i) => (link.headrooms[i] as number) < 0)
      expect(powersW[crossing] as number).toBeGreaterThanOrEqual(link.limitPowerW as number)
      expect(powersW[crossing - 1] as number).toBeLessThanOrEqual((link.limitPowerW as number) + 1)
    }
    expect(links[2]).toMatchObject({ limitPowerW: null, next: null, headroom: expect.closeTo(1 - 7800 / 8000, 12) })
  })
  it('name the cheapest part of the same kind that carries it all, with its extras and its mass', () => {
    expect(sweep().links[0]?.next).toEqual({ partId: 'strong', cost: 4300, massDifferenceKg: 14, limitPowerW: null })
    expect(sweep().links[1]?.next).toBeNull()
  })
  it('leave a rating for another fuel out, and say so', () => {
    expect(sweep().leftOut).toMatchObject([{ partId: 'petrol', reason: expect.stringMatching(/0 % ethanol, the plan burns 78 %/) }])
    expect(sweep((made) => Object.assign(made.burn, { ethanolShare: 0.05, bsfcKgPerJ: 360 / 3.6e9 })).links.map(({ partId }) => partId)).toContain('petrol')
  })
  it('say what the plan does not say', () => {
    expect(sweep((made) => Object.assign(made, { pump: null })).leftOut).toContainEqual(expect.objectContaining({ partId: 'coils', subject: 'pumpCurrent' }))
  })
  it('end where the plan has no answer any more', () => {
    const found = sweep((made) => Object.assign(made.air, { isBoosted: false }), 40_000)
    expect(found.refusedFrom?.message).toMatch(/come in by themselves/)
    const from = found.refusedFrom?.powerW as number
    for (const link of found.links)
      expect(link.headrooms.filter((value) => value === null)).toHaveLength(found.powersW.filter((powerW) => powerW >= from).length)
  })
  it('refuse a sweep that does not rise', () => {
    expect(() => weakLinks({ plan: plan(), loss: LOSS, parts: inCar, all: inCar, fromPowerW: 600_000, toPowerW: 580_000 })).toThrow(/sweep must rise/)
  })
  it('count temperatures from the air outside, and leave out a limit that is not above it', () => {
    const hot = part({ id: 'core', kind: 'cooler', status: 'fitted', ratings: [rating('chargeTemperature', 400)] })
    const cold = part({ id: 'label', kind: 'hose', status: 'fitted', ratings: [rating('chargeTemperature', 280)] })
    const made = plan()
    const found = weakLinks({ plan: made, loss: LOSS, parts: [hot, cold], all: [hot, cold], fromPowerW: 150_000, toPowerW: 580_000 })
    const [link] = found.links
    const outside = made.air.ambientTemperatureK
    expect(link?.headroom).toBeCloseTo((400 - (link?.demand as number)) / (400 - outside), 12)
    expect(found.leftOut).toMatchObject([{ partId: 'label', reason: expect.stringMatching(/not lie above the air outside/) }])
  })
})

describe('one part, one limit', () => {
  const fuel = (fields: Partial<Part> & Pick<Part, 'id' | 'kind'>) => part({ status: 'fitted', ...fields })
  const injectors = fuel({ id: 'injectors', kind: 'injectors', count: 6, ratings: [rating('fuelFlow', 1.4e-5, { isEach: true }), rating('injectorDuty', 0.8)] })
  const feed = fuel({ id: 'feed', kind: 'fuel pumps', ratings: [rating('fuelFlow', 8e-5, { isEach: true })] })
  const linksOf = (parts: readonly Part[], all: readonly Part[] = parts) =>
    weakLinks({ plan: plan(), loss: LOSS, parts, all, fromPowerW: 100_000, toPowerW: 580_000 })
  const carried = (parts: readonly Part[], key: 'injectors' | 'pumps') =>
    workEnginePlan(planWithParts(plan(), parts), LOSS)
      .steps.find((step) => step.key === key)
      ?.figures.find(({ word }) => word === 'they carry, at the wheels')?.value as number
  it.each([
    { name: 'injectors, at their number, flow and the smaller duty', parts: [injectors], key: 'injectors' as const },
    { name: 'feed pumps, at the pressure of each power', parts: [feed], key: 'pumps' as const },
  ])('$name: engine plan and weak links say the same power', ({ parts, key }) => {
    const { links } = linksOf(parts)
    expect(links).toHaveLength(1)
    expect(Math.abs((links[0]?.limitPowerW as number) - carried(parts, key))).toBeLessThan(2)
  })
  it('is that of the closed form: fuel at the duty limit over the fuel for each power, through the driveline', () => {
    const { burn, injectors: chosen } = plan()
    const { densityKgM3 } = fuelBlend(burn.ethanolShare)
    // q √(ρ_r/ρ) at equal pressures, with the dead time's share of a cycle of two turns taken off the duty (D.9 of the formulas, closed form).
    const open = 0.8 - ((chosen?.deadTimeS as number) * burn.powerSpeedRpm) / 120
    const crankW = (6 * 1.4e-5 * Math.sqrt(780 / densityKgM3) * open * densityKgM3) / burn.bsfcKgPerJ
    expect(Math.abs((linksOf([injectors]).links[0]?.limitPowerW as number) - crankToWheel({ crankPowerW: crankW, ...LOSS }))).toBeLessThan(2)
  })
  it('counts feed pumps alone: lift and spare ones are told', () => {
    const lift = fuel({ id: 'lift', kind: 'lift pump', ratings: [rating('fuelFlow', 5e-5)] })
    const spare = fuel({ id: 'spare', kind: 'fuel pumps', fuelRole: 'sparePump', ratings: [rating('fuelFlow', 8e-5)] })
    const { links, leftOut } = linksOf([feed, lift, spare])
    expect(links.map(({ partId }) => partId)).toEqual(['feed'])
    expect(leftOut.map(({ partId, reason }) => `${partId}: ${reason.slice(0, 12)}`)).toEqual(['lift: a lift pump ', 'spare: a spare pump'])
    expect(planWithParts(plan(), [feed, lift, spare]).pump).toMatchObject({ count: 1, spareCount: 1 })
  })
  it('names the next pump by what it gives more at the same pressure', () => {
    const strong = part({ id: 'strong', kind: 'fuel pumps', cost: 600, ratings: [rating('fuelFlow', 16e-5, { isEach: true })] })
    const own = linksOf([feed], [feed, strong]).links[0]
    expect(own?.next).toMatchObject({ partId: 'strong', limitPowerW: null })
    expect(own).toMatchObject({ subject: 'fuelFlow', limit: expect.closeTo(8e-5, 12) })
  })
  it('of a torque past the gears is shown and not compared, one into the gearbox is', () => {
    const box = fuel({ id: 'box', kind: 'gearbox', ratings: [rating('gearboxTorque', 480)] })
    const axle = fuel({ id: 'axle', kind: 'axles', ratings: [rating('axleTorque', 2600), rating('wheelTorque', 1300)] })
    const { links, leftOut } = linksOf([box, axle])
    expect(links.map(({ partId }) => partId)).toEqual(['box'])
    expect(leftOut).toHaveLength(2)
    expect(leftOut[0]?.reason).toMatch(/through the gears/)
  })
  it.each([
    ['Injectors', 'injectors'],
    ['fuel pumps', 'feedPump'],
    ['lift pump', 'liftPump'],
    ['spare pump', 'sparePump'],
    ['oil pump', null],
    ['turbo', null],
  ])('of "%s" is read as %s', (kind, role) => {
    expect(fuelRoleOf({ kind, fuelRole: null })).toBe(role)
    expect(fuelRoleOf({ kind, fuelRole: 'injectors' })).toBe('injectors')
  })
})

describe('where power is raised no further', () => {
  it('is met by the first part that keeps less than asked, for every share', () => {
    const swept = sweep()
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.9, noNaN: true }), (share) => {
        const stop = headroomStop(swept, share)
        const least = (i: number) => Math.min(...swept.links.map(({ headrooms }) => headrooms[i] ?? Number.POSITIVE_INFINITY))
        if (!stop) return expect(Math.min(...swept.powersW.map((_, i) => least(i)))).toBeGreaterThanOrEqual(share)
        swept.powersW.forEach((powerW, i) => {
          if (powerW < stop.powerW) expect(least(i)).toBeGreaterThanOrEqual(share - 1e-9)
        })
        const asked = demandsAt(plan(), LOSS, stop.powerW)[stop.subject] as number
        const { limit } = swept.links.find(({ partId, subject }) => partId === stop.partId && subject === stop.subject) as { limit: number }
        // From the start where it has less already; else to the bend of one step of the sweep.
        if (stop.powerW > (swept.powersW[0] as number)) expect(1 - asked / limit).toBeCloseTo(share, 2)
        else expect(1 - asked / limit).toBeLessThanOrEqual(share)
      }),
      { numRuns: 60, seed: 4600 },
    )
  })
  it('at no headroom at all is where the first part gives up', () => {
    const swept = sweep()
    expect(Math.abs((headroomStop(swept, 0)?.powerW as number) - (swept.links[0]?.limitPowerW as number))).toBeLessThan(50)
  })
  it('is nowhere without a rated part', () => {
    expect(headroomStop({ ...sweep(), links: [] }, 0.1)).toBeNull()
  })
})

describe('weak links of a stage', () => {
  const records = (edit: (made: EnginePlan) => void = () => {}, more: object = {}) => {
    const made = buildRecordsSchema.parse(EXAMPLE_RECORDS)
    const stageId = made.stages[0]?.id as string
    return { ...made, ...more, parts: inCar, enginePlans: [{ ...plan(edit), stageId }] }
  }
  it.each([
    { name: 'what the stage makes, where that is known at the plan’s place', today: 180_000, from: 180_000, startsToday: true },
    { name: 'the target, where the stage makes more already', today: 900_000, from: EXAMPLE_PLAN.target.powerW, startsToday: true },
    { name: 'half of the target, where nobody knows what it makes', today: undefined, from: EXAMPLE_PLAN.target.powerW / 2, startsToday: false },
  ])('begin at $name, and end at twice the target', ({ today, from, startsToday }) => {
    const found = weakLinksAtStage(records(), 0, today)
    expect(found?.startsToday).toBe(startsToday)
    expect(found?.powersW[0]).toBe(from)
    expect(found?.powersW.at(-1)).toBe(2 * EXAMPLE_PLAN.target.powerW)
  })
  it('never begin at wheel power where the plan is for the crank', () => {
    const found = weakLinksAtStage(
      records((made) => Object.assign(made.target, { place: 'crank' })),
      0,
      180_000,
    )
    expect(found).toMatchObject({ startsToday: false })
  })
  it('are those of the latest plan before; without one there are none', () => {
    expect(weakLinksAtStage(records(), records().stages.length - 1, 180_000)?.plan.id).toBe('plan')
    expect(weakLinksAtStage({ ...records(), enginePlans: [] }, 0, 180_000)).toBeUndefined()
  })
  it('stop the dyno at the wheels also where the plan is for the crank', () => {
    const crank = records((made) => Object.assign(made.target, { place: 'crank' }))
    const stop = headroomStopAtStage(crank, 0, 0.1)
    const swept = weakLinksAtStage(crank, 0, undefined)
    const atCrank = swept && headroomStop(swept, 0.1)
    expect(wheelToCrank({ wheelPowerW: stop?.powerW as number, ...lossOf(crank.build) }).crankPowerW).toBeCloseTo(atCrank?.powerW as number, 3)
    expect(headroomStopAtStage({ ...crank, enginePlans: [] }, 0, 0.1)).toBeNull()
  })
})
